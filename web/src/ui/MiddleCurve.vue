<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { warmth, integer } from '@/format/amounts'

/** The middle of the fruit over a bake: the line as predicted, dots as a probe has read it. */
const props = defineProps<{
  minute: number[]
  middleC: number[]
  readings: { minute: number; c: number }[]
  /** The least that the axis goes to, min. */
  end: number
}>()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const w = computed(() => Math.max(280, width.value))
const height = 130
const left = 44
const end = computed(() => Math.max(props.minute.at(-1) ?? 60, props.end, 1))
const hottest = computed(() => Math.max(110, ...props.readings.map((r) => r.c)))
const x = (m: number) => left + ((w.value - left - 8) * m) / end.value
const y = (c: number) => 6 + (height - 28) * (1 - (c + 20) / (hottest.value + 25))
const predicted = computed(() =>
  props.minute
    .map((m, i) => `${i ? 'L' : 'M'}${x(m).toFixed(1)} ${y(props.middleC[i]!).toFixed(1)}`)
    .join(''),
)
const ticks = computed(() => {
  const step = end.value > 80 ? 20 : 10
  return Array.from({ length: Math.floor(end.value / step) + 1 }, (_, i) => i * step)
})
</script>

<template>
  <div ref="frame">
    <svg
      :viewBox="`0 0 ${w} ${height}`"
      :height="height"
      role="img"
      :aria-label="`Middle of the fruit over ${integer(end)} min: predicted, and ${readings.length} readings`"
    >
      <g class="axis">
        <g v-for="c in [0, 100]" :key="c">
          <line :x1="left" :x2="w - 8" :y1="y(c)" :y2="y(c)" />
          <text :x="left - 6" :y="y(c) + 4" text-anchor="end">{{ warmth(c) }}</text>
        </g>
        <text v-for="t in ticks" :key="t" :x="x(t)" :y="height - 4" text-anchor="middle">
          {{ t }}{{ t ? '' : ' min' }}
        </text>
      </g>
      <path class="curve" :d="predicted" />
      <circle v-for="r in readings" :key="r.minute" :cx="x(r.minute)" :cy="y(r.c)" r="2.4" />
    </svg>
  </div>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.axis line {
  stroke: var(--line);
}
.axis text {
  font: 0.75rem var(--face);
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
