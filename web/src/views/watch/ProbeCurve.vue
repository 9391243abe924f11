<script setup lang="ts">
import { computed } from 'vue'
import type { WatchedDessert } from '@/api/client'
import MiddleCurve from '@/ui/MiddleCurve.vue'
import { warmth } from '@/format/amounts'
import { useWatch } from '@/stores/useWatch'

/** The middle of the fruit: as predicted, and as the probe reads it. When they part, it says what that means. */
const props = defineProps<{ dessert: WatchedDessert }>()
const watching = useWatch()
const last = computed(() => props.dessert.readings.at(-1))
const places = [
  ['middle', 'in the middle'],
  ['air', 'slipped out'],
  ['', 'no probe'],
] as const
</script>

<template>
  <section class="probe" aria-label="Probe" :data-testid="`probe-of-${dessert.title}`">
    <div class="where">
      <span class="small">Probe</span>
      <div class="choice" role="group" aria-label="Probe position">
        <button
          v-for="[key, label] in places"
          :key="key"
          :aria-pressed="dessert.probe === key"
          :data-testid="`probe-${key || 'none'}`"
          @click="watching.probe(dessert.id, key)"
        >
          {{ label }}
        </button>
      </div>
    </div>
    <template v-if="dessert.probe">
      <MiddleCurve
        :minute="dessert.curves.minute"
        :middle-c="dessert.curves.middle_c"
        :readings="dessert.readings"
        :end="dessert.estimate?.minutes ?? 0"
      />
      <p class="small">
        Line: predicted. Dots: the (simulated) probe<template v-if="last"
          >, now <strong>{{ warmth(last.c) }}</strong></template
        ><template v-else>; the first reading comes within 15 seconds</template>.
      </p>
      <p
        v-if="dessert.estimate"
        :class="{ wrong: dessert.estimate.doubtful }"
        role="status"
        data-testid="estimate"
      >
        {{ dessert.estimate.text }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.probe {
  display: grid;
  gap: 6px;
}
.where {
  display: grid;
  grid-template-columns: auto 1fr;
  align-items: center;
  gap: 10px;
}
</style>
