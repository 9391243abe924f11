<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Stage } from '@/api/client'
import { hold } from '@/stores/hold'
import { heat, integer, warmth } from '@/format/amounts'
import { outside, pointAt, usePlan } from '@/stores/usePlan'
import { useForecast } from '../useForecast'

/**
 * The bake as a strip: stages to drag, the curves of middle, rim and surface, and the clocks as marks on one time axis, so
 * that one sees which finishes first.
 */
const props = defineProps<{ low?: boolean }>()
const plan = usePlan()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const w = computed(() => Math.max(320, width.value))
/** The reader's size of letters, to the usual one: the room for words grows with it. */
const letters = Number.parseFloat(getComputedStyle(document.documentElement).fontSize) / 16
const left = 40 * letters
/** Room for the curves' names, in addition to their ends. */
const right = 54 * letters
const top = 34
const height = computed(() => (props.low ? 84 : 150))
const row = 13 * letters

const p = computed(() => plan.answer?.plan)
const curves = computed(() => p.value?.answer.curves)
const { data: forecast } = useForecast()
/** Where the middle begins to bubble with 90 % probability. */
const middleRange = computed(() => forecast.value?.forecast.middle_bubbles_min)
/** The other bake that is put over it. */
const ghost = computed(() => plan.beside?.answer.plan.answer.curves)
const end = computed(() => Math.max(10, curves.value?.minute.at(-1) ?? 60, ghost.value?.minute.at(-1) ?? 0))
const hottest = computed(() =>
  Math.max(120, ...(curves.value?.surface_c ?? []), ...(ghost.value?.surface_c ?? [])),
)
const x = (minute: number) => left + ((w.value - left - right) * minute) / end.value
const y = (c: number) => top + height.value * (1 - (c + 20) / (hottest.value + 25))
const path = (list: number[], minutes: number[]) =>
  list.map((c, i) => `${i ? 'L' : 'M'}${x(minutes[i]!).toFixed(1)} ${y(c).toFixed(1)}`).join('')
const lines = computed(() =>
  curves.value
    ? ([
        ['surface', 'top', curves.value.surface_c],
        ['rim', 'rim', curves.value.rim_c],
        ['middle', 'middle', curves.value.middle_c],
      ] as const)
    : [],
)
/** The curves' names at their ends, so far apart that each can be read. */
const names = computed(() => {
  const all = lines.value
    .map(([key, label, list]) => ({ key, label, y: y(list.at(-1) ?? 0) + 4 }))
    .sort((a, b) => a.y - b.y)
  all.forEach((n, i) => (n.y = Math.max(n.y, (all[i - 1]?.y ?? 0) + 14 * letters)))
  return all
})
const ticks = computed(() => {
  const step = end.value > 200 ? 60 : end.value > 80 ? 20 : 10
  return Array.from({ length: Math.floor(end.value / step) + 1 }, (_, i) => i * step)
})
/** The clocks, each where it is right. */
const marks = computed(() => {
  const e = p.value?.answer.events
  if (!e) return []
  return (
    [
      ['rim bubbles', e.rim_bubbles_min],
      ['middle bubbles', e.middle_bubbles_min],
      ['golden', e.golden_min],
      ['topping cooked through', e.topping_through_min],
      ['base baked', e.base_baked_min],
    ] as [string, number | null][]
  )
    .filter((m): m is [string, number] => m[1] !== null)
    .sort((a, b) => a[1] - b[1])
    .map(([label, at]) => ({ label, at, row: 0 }))
})
/** The clocks' words in as few rows as they fit in. */
const words = computed(() => {
  const ends: number[] = []
  return marks.value.map((m) => {
    const wide = 7 * letters * `${m.label} ${integer(m.at)}`.length
    const from = x(m.at) > w.value * 0.75 ? x(m.at) - wide : x(m.at) - wide / 2
    let row = ends.findIndex((e) => e < from)
    if (row < 0) row = ends.length
    ends[row] = from + wide + 6
    return { ...m, row }
  })
})
const bottom = computed(() => 32 * letters + row * Math.max(1, ...words.value.map((m) => m.row + 1)))
const shown = computed<(Stage & { from: number })[]>(() => {
  let from = 0
  return (p.value?.stages ?? []).map((s) => {
    const out = { ...s, from }
    from += s.minutes
    return out
  })
})
const cover = (s: Stage) => (s.cover && s.cover !== 'none' ? `, ${s.cover}` : '')
const at = computed(() => {
  const c = curves.value
  const m = plan.minute
  if (!c || m === undefined) return undefined
  const i = pointAt(c.minute, m)
  const g = ghost.value
  const j = g ? pointAt(g.minute, m) : 0
  return {
    minute: c.minute[i]!,
    middle: c.middle_c[i]!,
    rim: c.rim_c[i]!,
    surface: c.surface_c[i]!,
    floor: c.floor_c[i]!,
    other: g && { middle: g.middle_c[j]!, surface: g.surface_c[j]! },
  }
})

/** Drags the end of a stage: it grows, and the one after it gives way. */
function stretch(i: number, by: number, drag = false) {
  const next = plan.copied()
  const s = next[i]
  if (!s) return
  const after = next[i + 1]
  const step = after ? Math.max(1 - s.minutes, Math.min(after.minutes - 1, by)) : Math.max(5 - s.minutes, by)
  s.minutes = Math.round(s.minutes + step)
  if (after) after.minutes = Math.round(after.minutes - step)
  plan.set('the stages', next, drag)
}
function grab(e: PointerEvent, i: number) {
  const perMinute = (w.value - left - right) / end.value
  let done = 0
  const start = e.clientX
  hold(e, (m) => {
    const by = Math.round((m.clientX - start) / perMinute) - done
    if (by) {
      done += by
      stretch(i, by, true)
    }
  })
}
function keyStretch(e: KeyboardEvent, i: number) {
  const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key]
  if (!by) return
  e.preventDefault()
  stretch(i, by * (e.shiftKey ? 10 : 1))
}
function point(e: PointerEvent) {
  const box = frame.value?.getBoundingClientRect()
  if (!box) return
  const m = ((e.clientX - box.left - left) / (w.value - left - right)) * end.value
  plan.minute = Math.max(0, Math.min(end.value, Math.round(m)))
}
function keyPoint(e: KeyboardEvent) {
  const by = { ArrowRight: 1, ArrowLeft: -1 }[e.key]
  if (!by) return
  e.preventDefault()
  plan.minute = Math.max(0, Math.min(end.value, (plan.minute ?? 0) + by * (e.shiftKey ? 10 : 1)))
}
</script>

<template>
  <section class="strip" aria-label="Bake plan" data-testid="strip">
    <p v-if="plan.problem" class="wrong" role="alert">{{ plan.problem.title }}</p>
    <p v-else-if="!p" class="quiet">Simulating the bake…</p>
    <template v-if="p && curves">
      <div ref="frame">
        <svg
          :viewBox="`0 0 ${w} ${top + height + bottom}`"
          :height="top + height + bottom"
          role="group"
          :aria-label="`${integer(p.minutes)} minutes; ${marks
            .map((m) => `${m.label} after ${integer(m.at)} min`)
            .join(', ')}`"
        >
          <!-- stages -->
          <g v-for="(s, i) in shown" :key="i">
            <rect
              :class="['stage', { covered: cover(s), out: outside(s) }]"
              :x="x(s.from)"
              y="2"
              :width="Math.max(2, x(s.from + s.minutes) - x(s.from) - 2)"
              height="26"
              rx="3"
            />
            <text class="label" :x="x(s.from) + 6" y="19">
              {{ `${outside(s) ? s.heating : heat(s.oven_c)}${cover(s)}, ${integer(s.minutes)} min` }}
            </text>
          </g>
          <!-- axes -->
          <g class="axis">
            <line :x1="left" :x2="w - right" :y1="y(0)" :y2="y(0)" />
            <g v-for="minute in ticks" :key="minute">
              <line :x1="x(minute)" :x2="x(minute)" :y1="top" :y2="top + height" class="grid" />
            </g>
            <text v-for="c in [0, 100]" :key="c" :x="left - 5" :y="y(c) + 4" text-anchor="end">
              {{ warmth(c).replace(' ', ' ') }}
            </text>
            <line
              :x1="left"
              :x2="w - right"
              :y1="y(p.answer.boiling_point_c)"
              :y2="y(p.answer.boiling_point_c)"
              class="boil"
            />
          </g>
          <path
            v-for="[key, , list] in lines"
            :key="key"
            :class="['curve', key]"
            :d="path([...list], curves.minute)"
          />
          <template v-if="ghost">
            <path class="ghost" data-testid="ghost" :d="path(ghost.middle_c, ghost.minute)" />
            <path class="ghost surface" :d="path(ghost.surface_c, ghost.minute)" />
          </template>
          <text v-for="n in names" :key="n.key" class="name" :x="w - right + 5" :y="n.y">
            {{ n.label }}
          </text>
          <!-- clocks -->
          <rect
            v-if="middleRange"
            class="may"
            :x="x(middleRange.p05)"
            :y="top"
            :width="Math.max(0, Math.min(w - right, x(middleRange.p95)) - x(middleRange.p05))"
            :height="height"
            data-testid="middle-range"
          />
          <g v-for="m in words" :key="m.label" class="clock">
            <line :x1="x(m.at)" :x2="x(m.at)" :y1="top" :y2="top + height + 16 * letters + row * m.row" />
            <text
              :x="Math.min(w - right - 2, Math.max(left, x(m.at)))"
              :y="top + height + 26 * letters + row * m.row"
              :text-anchor="x(m.at) > w * 0.75 ? 'end' : 'middle'"
            >
              {{ m.label }} {{ integer(m.at) }}
            </text>
          </g>
          <g class="axis over">
            <text
              v-for="minute in ticks"
              :key="minute"
              :x="x(minute)"
              :y="top + height + 12 * letters"
              text-anchor="middle"
            >
              {{ minute }}{{ minute ? '' : ' min' }}
            </text>
          </g>
          <line v-if="at" class="now" :x1="x(at.minute)" :x2="x(at.minute)" :y1="top" :y2="top + height" />
          <rect
            class="pad"
            :x="left"
            :y="top"
            :width="w - left - right"
            :height="height"
            role="slider"
            tabindex="0"
            aria-label="Minute of the bake"
            aria-valuemin="0"
            :aria-valuemax="Math.round(end)"
            :aria-valuenow="plan.minute ?? 0"
            data-testid="scrubber"
            @pointermove="point"
            @pointerdown="point"
            @keydown="keyPoint"
          />
          <rect
            v-for="(s, i) in shown"
            :key="`h${i}`"
            class="grip"
            :x="x(s.from + s.minutes) - 11"
            y="0"
            width="18"
            height="30"
            role="slider"
            tabindex="0"
            :aria-label="`End of stage ${i + 1}`"
            :aria-valuenow="Math.round(s.from + s.minutes)"
            :aria-valuetext="`${integer(s.from + s.minutes)} min`"
            :data-testid="`stage-${i}`"
            @pointerdown="(e) => grab(e, i)"
            @keydown="(e) => keyStretch(e, i)"
          />
        </svg>
      </div>
      <p v-if="forecast?.top_spread" class="spread" data-testid="top-spread">
        <span class="small">Top when you take it out</span>
        <span class="shades">
          <span
            v-for="(s, i) in forecast.top_spread"
            :key="i"
            class="shade"
            :style="{ flexGrow: s.chance, background: s.colour }"
            :title="s.word"
          />
        </span>
        <span class="small">{{ forecast.top }}</span>
      </p>
      <p v-if="!low || at" class="read" data-testid="reading">
        <template v-if="at"
          ><strong>{{ `${integer(at.minute)} min` }}</strong
          >{{
            `: middle ${warmth(at.middle)}, rim ${warmth(at.rim)}, top ${warmth(at.surface)}, floor ${warmth(at.floor)}`
          }}<template v-if="at.other">{{
            `; ${plan.beside?.name ?? ''} (dotted): middle ${warmth(at.other.middle)}, top ${warmth(at.other.surface)}`
          }}</template></template
        >
        <template v-else
          >Grey band: 90 % range in which the middle starts to bubble. Point at the curves or use the arrow
          keys to read them. Drag the end of a stage to change it.</template
        >
        <RouterLink class="how" to="/how-it-bakes" data-testid="how">How this is calculated</RouterLink>
      </p>
    </template>
  </section>
</template>

<style scoped>
.how {
  margin-left: 8px;
  color: var(--rim-ink);
}
svg {
  display: block;
  width: 100%;
}
.stage {
  fill: var(--sunk);
  stroke: var(--rim-ink);
  stroke-width: 1.5;
}
.stage.covered {
  fill: var(--moved);
  stroke-dasharray: 5 3;
}
.stage.out {
  stroke: var(--line);
}
.label,
.name,
.clock text {
  font: 600 0.75rem var(--face);
  fill: var(--ink);
  stroke: var(--panel);
  stroke-width: 4px;
  stroke-linejoin: round;
  paint-order: stroke;
  pointer-events: none;
}
.label {
  stroke: none;
}
.axis line {
  stroke: var(--line);
}
.axis text {
  font: 0.75rem var(--face);
  fill: var(--ink-2);
}
.axis.over text {
  stroke: var(--panel);
  stroke-width: 4px;
  paint-order: stroke;
}
.boil {
  stroke-dasharray: 2 4;
}
.curve {
  fill: none;
  stroke-width: 2.4;
  stroke: var(--ink);
}
.curve.surface {
  stroke: var(--heat);
}
.curve.rim {
  stroke: var(--rim-ink);
  stroke-dasharray: 7 4;
}
.ghost {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-dasharray: 1.5 3.5;
  stroke-linecap: round;
}
.ghost.surface {
  stroke: var(--heat);
}
.clock line {
  stroke: var(--ink-2);
  stroke-width: 1.2;
}
.now {
  stroke: var(--danger);
  stroke-width: 1.5;
}
.pad {
  fill: transparent;
  cursor: crosshair;
}
.grip {
  fill: transparent;
  cursor: ew-resize;
  touch-action: none;
}
.may {
  fill: var(--ink);
  opacity: 0.08;
  pointer-events: none;
}
.spread {
  display: grid;
  grid-template-columns: auto minmax(80px, 1fr) auto;
  align-items: center;
  gap: 10px;
}
.shades {
  display: flex;
  height: 16px;
  border: 1px solid var(--ink);
  border-radius: 3px;
  overflow: hidden;
}
.shade {
  flex-basis: 0;
}
.read {
  min-height: 1.4em;
}
</style>
