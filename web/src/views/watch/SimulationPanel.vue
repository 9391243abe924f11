<script setup lang="ts">
import type { Watched } from '@/api/client'
import { useWatch } from '@/stores/useWatch'

/** Drives what is simulated: how fast this bake's time runs, and the door of its oven. Only the probe knows of the door. */
defineProps<{ dessert: Watched }>()
const watching = useWatch()
const speeds = [
  [1, 'as the clock'],
  [10, '10 times'],
  [60, '60 times as fast'],
] as const
</script>

<template>
  <details class="sim" :open="dessert.speed > 1">
    <summary data-testid="simulation">
      Simulation<template v-if="dessert.speed > 1">{{ `: ${dessert.speed} times as fast` }}</template
      ><template v-if="dessert.door_open">, the door is open</template>
    </summary>
    <div class="row">
      <div class="choice" role="group" aria-label="How fast this bake’s time runs">
        <button
          v-for="[n, says] in speeds"
          :key="n"
          :aria-pressed="dessert.speed === n"
          :data-testid="`speed-${n}`"
          @click="watching.simulate(dessert.id, { speed: n })"
        >
          {{ says }}
        </button>
      </div>
      <button
        v-if="!dessert.out_at"
        class="push"
        :disabled="dessert.door_open"
        data-testid="open-door"
        @click="watching.simulate(dessert.id, { door_min: 2 })"
      >
        Leave the door open for 2 min
      </button>
    </div>
    <p class="small quiet">
      For trying it out. A faster bake is moved back in time, with its calls; the clock of the kitchen stays
      true. The open door cools the oven, and only the probe finds out.
    </p>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  padding-top: 11px;
  cursor: pointer;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
