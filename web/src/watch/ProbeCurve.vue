<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Watched } from '@/api/client'
import { heat, integer } from '@/parts/words'
import { useWatch } from './useWatch'

/** The middle of the fruit: as predicted, and as the probe reads it. When they part, it says what that means. */
const props = defineProps<{ dessert: Watched }>()
const watching = useWatch()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const w = computed(() => Math.max(280, width.value))
const height = 130
const left = 44
const end = computed(() =>
  Math.max(props.dessert.curves.minute.at(-1) ?? 60, props.dessert.estimate?.minutes ?? 0, 1),
)
const hottest = computed(() => Math.max(110, ...props.dessert.readings.map((r) => r.c)))
const x = (m: number) => left + ((w.value - left - 8) * m) / end.value
const y = (c: number) => 6 + (height - 28) * (1 - (c + 20) / (hottest.value + 25))
const path = (points: [number, number][]) =>
  points.map(([m, c], i) => `${i ? 'L' : 'M'}${x(m).toFixed(1)} ${y(c).toFixed(1)}`).join('')
const predicted = computed(() =>
  path(props.dessert.curves.minute.map((m, i) => [m, props.dessert.curves.middle_c[i]!])),
)
const ticks = computed(() => {
  const step = end.value > 80 ? 20 : 10
  return Array.from({ length: Math.floor(end.value / step) + 1 }, (_, i) => i * step)
})
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
      <div class="choice" role="group" aria-label="Where the probe is">
        <button
          v-for="[key, says] in places"
          :key="key"
          :aria-pressed="dessert.probe === key"
          :data-testid="`probe-${key || 'none'}`"
          @click="watching.probe(dessert.id, key)"
        >
          {{ says }}
        </button>
      </div>
    </div>
    <template v-if="dessert.probe">
      <div ref="frame">
        <svg
          :viewBox="`0 0 ${w} ${height}`"
          :height="height"
          role="img"
          :aria-label="`Middle of the fruit over ${integer(end)} min: predicted, and ${dessert.readings.length} readings`"
        >
          <g class="axis">
            <g v-for="c in [0, 100]" :key="c">
              <line :x1="left" :x2="w - 8" :y1="y(c)" :y2="y(c)" />
              <text :x="left - 6" :y="y(c) + 4" text-anchor="end">{{ heat(c) }}</text>
            </g>
            <text v-for="t in ticks" :key="t" :x="x(t)" :y="height - 4" text-anchor="middle">
              {{ t }}{{ t ? '' : ' min' }}
            </text>
          </g>
          <path class="curve" :d="predicted" />
          <circle v-for="r in dessert.readings" :key="r.minute" :cx="x(r.minute)" :cy="y(r.c)" r="2.4" />
        </svg>
      </div>
      <p class="small">
        Line: predicted. Dots: the (simulated) probe<template v-if="last"
          >, now <strong>{{ heat(last.c) }}</strong></template
        ><template v-else>; the first reading comes within a quarter of a minute</template>.
      </p>
      <p v-if="dessert.estimate?.doubtful" class="wrong" role="status" data-testid="estimate">
        These readings fit no oven: is the probe in the middle of the fruit? Nothing is moved by them.
      </p>
      <p v-else-if="dessert.estimate" role="status" data-testid="estimate">
        By the probe the oven is
        <strong
          >{{ integer(Math.abs(dessert.estimate.offset_c)) }} K
          {{ dessert.estimate.offset_c < 0 ? 'cooler' : 'hotter' }}</strong
        >
        than was thought (give or take {{ integer(dessert.estimate.give_or_take_c) }}): out after
        <strong>{{ integer(dessert.estimate.minutes) }} min</strong>, between
        {{ integer(dessert.estimate.early_min) }} and {{ integer(dessert.estimate.late_min) }};
        {{ integer(dessert.plan_minutes) }} were planned. The calls follow it.
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
svg {
  display: block;
  width: 100%;
}
.axis line {
  stroke: var(--line);
}
.axis text {
  font: 12px var(--face);
  fill: var(--ink-2);
}
.curve {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
circle {
  fill: var(--heat);
}
</style>
