<script setup lang="ts">
import type { WatchedDessert } from '@/api/client'
import { useWatch } from '@/stores/useWatch'

/** Drives what is simulated: how fast this bake's time runs, and the door of its oven. Only the probe knows of the door. */
defineProps<{ dessert: WatchedDessert }>()
const watching = useWatch()
const speeds = [
  [1, 'real time'],
  [10, '10 times'],
  [60, '60 × faster'],
] as const
</script>

<template>
  <details class="sim" :open="dessert.speed > 1">
    <summary data-testid="simulation">
      Simulation<template v-if="dessert.speed > 1">{{ `: ${dessert.speed} × faster` }}</template
      ><template v-if="dessert.door_open">, the door is open</template>
    </summary>
    <div class="row">
      <div class="choice" role="group" aria-label="Speed of this bake">
        <button
          v-for="[n, label] in speeds"
          :key="n"
          :aria-pressed="dessert.speed === n"
          :data-testid="`speed-${n}`"
          @click="watching.simulate(dessert.id, { speed: n })"
        >
          {{ label }}
        </button>
      </div>
      <button
        v-if="!dessert.out_at"
        class="push"
        :disabled="dessert.door_open"
        data-testid="open-door"
        @click="watching.simulate(dessert.id, { door_min: 2 })"
      >
        Open the door for 2 min
      </button>
    </div>
    <p class="small quiet">
      For trying things out. In a faster bake, start time and reminders move earlier; the kitchen clock is not
      changed. An open door cools the oven, which only the probe notices.
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
