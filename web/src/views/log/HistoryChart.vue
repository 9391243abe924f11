<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { ParameterHistory } from '@/api/client'
import { date } from '@/format/amounts'

/**
 * One thing that the log has taught, bake by bake, each with how far it may be off: an oven over the months, the juice of a
 * fruit over the year. The band is where it is thought to be with 90 % probability.
 */
const props = defineProps<{ history: ParameterHistory; season?: boolean; testid: string }>()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const w = computed(() => Math.max(320, width.value))
const height = 230
const left = 118
const right = 14
const bottom = 26
const top = 8
/** So near the right edge a name of a month would be cut off. */
const edge = 36
const day = 86_400_000
const first = computed(() => new Date(props.history.points[0]!.at))
/** Days since the year began, or since the first bake. */
const dayOf = (iso: string) => {
  const at = new Date(iso)
  return (at.getTime() - (props.season ? new Date(at.getFullYear(), 0, 1) : first.value).getTime()) / day
}
const days = computed(() => (props.season ? 366 : Math.max(1, dayOf(props.history.to.at))))
const x = (days_: number) => left + ((w.value - left - right) * days_) / days.value
const values = computed(() => props.history.ticks.map((t) => t.value))
const y = (v: number) => {
  const low = values.value[0] ?? 0
  const high = values.value.at(-1) ?? 1
  return top + ((height - top - bottom) * (high - v)) / (high - low)
}
const monthName = (m: Date) => m.toLocaleDateString('en-GB', { month: 'short' })
const dayName = (m: Date) => m.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
const week = 7
const fewWeeks = 75
/** The beginnings of months, as many as fit; of a short time, its weeks. */
const months = computed(() => {
  if (days.value < fewWeeks)
    return Array.from({ length: Math.floor(days.value / week) + 1 }, (_, i) => ({
      at: i * week,
      label: dayName(new Date(first.value.getTime() + i * week * day)),
    }))
  const from = props.season ? new Date(first.value.getFullYear(), 0, 1) : first.value
  const out: { at: number; label: string }[] = []
  for (let i = props.season ? 0 : 1; ; i++) {
    const m = new Date(from.getFullYear(), from.getMonth() + i, 1)
    const at = (m.getTime() - from.getTime()) / day
    if (at > days.value) break
    out.push({ at, label: monthName(m) })
  }
  const step = Math.ceil(out.length / 12)
  return out.filter((_, i) => i % step === 0)
})
const band = computed(() => {
  const { from, to } = props.history
  const [a, b] = props.season ? [0, days.value] : [dayOf(from.at), dayOf(to.at)]
  return `${x(a)},${y(from.high)} ${x(b)},${y(to.high)} ${x(b)},${y(to.low)} ${x(a)},${y(from.low)}`
})
const middle = computed(() => {
  const { from, to } = props.history
  return { y1: y(from.value), y2: y(to.value) }
})
const points = computed(() =>
  props.history.points.map((p) => ({
    id: p.id,
    x: x(dayOf(p.at)),
    y: y(p.value),
    low: y(p.low),
    high: y(p.high),
    label: `${date(p.at)}, ${p.text}`,
  })),
)
/** Which bake is reported. */
const at = ref(-1)
const told = computed(() => points.value[at.value])
function go(by: number) {
  const n = points.value.length
  at.value = at.value < 0 ? (by > 0 ? 0 : n - 1) : (at.value + by + n) % n
}
</script>

<template>
  <figure>
    <figcaption>
      <strong>{{ history.title }}</strong>
      <span class="quiet">bar: one bake; band: 90 % range</span>
    </figcaption>
    <div ref="frame">
      <svg
        :viewBox="`0 0 ${w} ${height}`"
        :height="height"
        role="img"
        tabindex="0"
        :aria-label="`${history.title}. Arrow keys go from bake to bake.`"
        :data-testid="testid"
        @keydown.right.prevent="go(1)"
        @keydown.left.prevent="go(-1)"
      >
        <g class="axis">
          <g v-for="t in history.ticks" :key="t.value">
            <line :x1="left" :x2="w - right" :y1="y(t.value)" :y2="y(t.value)" />
            <text :x="left - 8" :y="y(t.value) + 4" text-anchor="end">{{ t.text }}</text>
          </g>
          <g v-for="m in months" :key="m.at">
            <line :x1="x(m.at)" :x2="x(m.at)" :y1="top" :y2="height - bottom" />
            <text :x="x(m.at)" :y="height - 8" :text-anchor="x(m.at) > w - edge ? 'end' : 'middle'">
              {{ m.label }}
            </text>
          </g>
        </g>
        <polygon class="band" :points="band" />
        <line class="middle" :x1="left" :x2="w - right" v-bind="middle" />
        <g
          v-for="(p, i) in points"
          :key="p.id"
          :class="['bake', { told: i === at }]"
          @pointerenter="at = i"
          @click="at = i"
        >
          <line class="reach" :x1="p.x" :x2="p.x" :y1="p.low" :y2="p.high" />
          <line :x1="p.x" :x2="p.x" :y1="p.low" :y2="p.high" />
          <circle :cx="p.x" :cy="p.y" r="5" />
        </g>
      </svg>
    </div>
    <p class="said" aria-live="polite" :data-testid="`${testid}-said`">{{ told?.label }}</p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
}
svg {
  display: block;
  width: 100%;
  outline-offset: -3px;
}
.axis line {
  stroke: var(--line);
}
.axis text {
  font: 0.8125rem var(--face);
  fill: var(--ink-2);
}
.band {
  fill: var(--rim);
  opacity: 0.14;
}
.middle {
  stroke: var(--rim-ink);
  stroke-width: 2;
  stroke-dasharray: 6 5;
}
.bake line {
  stroke: var(--heat);
  stroke-width: 2;
}
.bake .reach {
  stroke: transparent;
  stroke-width: 14;
}
.bake circle {
  fill: var(--heat);
  stroke: var(--panel);
}
.told line:not(.reach) {
  stroke-width: 4;
}
.said {
  min-height: 1.4em;
  font-size: 0.9375rem;
}
</style>
