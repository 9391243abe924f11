<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useId, useTemplateRef } from 'vue'
import type { Answer, Cutaway } from '@/api/client'
import type { Moment } from '@/stores/moment'
import { hold } from '@/stores/hold'
import { useSteps } from './useSteps'
import { mm, units } from '@/format/amounts'

/**
 * The dish cut open, to scale: as it will be at the table, or at a moment of its bake. The small one is for lists: no ruler,
 * no words.
 */
const props = defineProps<{
  cut: Cutaway
  headspace?: number
  /** How much of the rim stays free. */
  room?: Answer['fit']['room']
  small?: boolean
  handle?: boolean
  /** What the fruit weighs at each level that it can be drawn to. */
  levels?: { from_mm: number; g: number[] }
  moment?: Moment
}>()
const emit = defineEmits<{ thickness: [mm: number]; fruit: [g: number] }>()
const id = useId()

// Everything below is in mm, y upwards from the inside of the floor; the view turns it over. Heights are drawn larger
// than lengths: they are what is looked at.
const wall = 4
const upright = props.small ? 1 : 2
/** How high letters are, in units of the picture: never less than 12 px on the screen, whatever its size. */
const leastPx = 12.3
const usual = 9
const largest = 20
const { width: px, height: highPx } = useElementSize(useTemplateRef('picture'))
const letters = computed(() => {
  if (props.small || !px.value || !highPx.value) return usual
  const bare = width.value - left.value - right.value
  const words = (left.value + right.value) / usual
  // letters widen the picture, which makes them smaller: solved at once for the width
  const byWidth = bare / Math.max(1, px.value - leastPx * words)
  const perPx = Math.max(byWidth, height.value / highPx.value)
  return Math.min(largest, Math.max(usual, Math.ceil(2 * leastPx * perPx) / 2))
})
/** The room for words in addition to the dish, while letters have their usual size. */
const left = computed(() => (props.small ? 4 : 30))
const right = computed(() => (props.small ? 4 : 74))
/** That room, as large as the letters need it. */
const margin = computed(() => {
  const k = letters.value / usual
  return { left: left.value * k, right: right.value * k }
})
const top = computed(
  () =>
    upright * Math.max(props.cut.depth_mm, props.cut.topping_raw_mm, props.cut.late_mm, props.cut.hot_mm) +
    (props.small ? 4 : 12),
)
const width = computed(() => props.cut.rim_length_mm + 2 * wall + left.value + right.value)
const height = computed(() => top.value + wall + (props.small ? 2 : 4))
const mid = computed(() => left.value + wall + props.cut.rim_length_mm / 2)
const y = (h: number) => top.value - upright * h
/** Half the inside width at a height: walls run straight from floor to rim, and upright above it. */
function half(h: number) {
  const { floor_length_mm: f, rim_length_mm: r, depth_mm: d } = props.cut
  return (f + (r - f) * Math.min(1, Math.max(0, h / d))) / 2
}
const slab = (from: number, to: number) =>
  `M${mid.value - half(from)} ${y(from)}L${mid.value - half(to)} ${y(to)}H${mid.value + half(to)}L${mid.value + half(from)} ${y(from)}Z`

/** Fruit, juice and topping as high as they stand now. */
const now = computed<Cutaway>(() => {
  const c = props.cut
  const m = props.moment
  if (!m) return c
  const above = (c.fruit_raw_mm - c.fruit_mm) * (1 - m.sunk)
  const grown = c.topping_mm - c.fruit_mm
  const raw = c.topping_raw_mm - c.fruit_raw_mm
  const fruit = c.fruit_mm + above
  const topping = fruit + raw + (grown - raw) * Math.min(1, m.colour)
  return {
    ...c,
    fruit_mm: fruit,
    juice_mm: c.lower_mm + (c.juice_mm - c.lower_mm) * m.sunk,
    topping_mm: topping,
    late_mm: c.late_mm > c.topping_mm ? c.late_mm - c.topping_mm + topping : c.late_mm,
  }
})
const cool = 15
const boil = 100
const mostTint = 0.55
const tint = (c: number) => mostTint * Math.min(1, Math.max(0, (c - cool) / (boil - cool)))
/** Paler than golden, or darker: what is put over a crust. */
function crust(colour: number) {
  if (colour < 1) return { fill: '#fff6de', opacity: 0.75 * (1 - colour) }
  return { fill: '#2c1404', opacity: Math.min(0.85, 0.6 * (colour - 1)) }
}
/** Bubbles come at the rim first, then in the middle. */
const bubbles = computed(() => {
  const m = props.moment
  if (!m) return []
  const a = half(now.value.fruit_mm)
  const spread = Array.from({ length: 9 }, (_, i) => (i / 8 - 0.5) * 1.88 * a)
  return spread
    .filter((x) => (Math.abs(x) > 0.8 * a ? m.rim_bubbles : m.middle_bubbles))
    .flatMap((x, i) => [
      { x: mid.value + x, y: y(now.value.fruit_mm - 2.5), r: 2.4 },
      { x: mid.value + x + 3.5, y: y(now.value.fruit_mm - 7 - (i % 3)), r: 1.5 },
    ])
})

/** Bumps along the top of a crumb, the same each time. */
function crumb(from: number, to: number) {
  const a = half(Math.min(to, props.cut.depth_mm))
  const n = Math.max(8, Math.round((2 * a) / 9))
  let path = `M${mid.value - half(from)} ${y(from)}L${mid.value - a} ${y(to - 1.5)}`
  for (let i = 0; i < n; i++) {
    const x1 = mid.value - a + (2 * a * (i + 1)) / n
    const lift = [2.6, 1.2, 3.2, 1.8, 2.9, 0.8, 2.2][i % 7]!
    path += `Q${x1 - a / n} ${y(to + lift)} ${x1} ${y(to - 1.5)}`
  }
  return `${path}L${mid.value + half(from)} ${y(from)}Z`
}
/** Domes of biscuit, with the gaps that were left for the steam. */
function biscuits(from: number, to: number) {
  const a = half(Math.min(to, props.cut.depth_mm))
  const n = Math.max(2, Math.round((2 * a) / 48))
  const gap = (2 * a * Math.max(0.04, props.cut.gap_share / 2)) / n
  return Array.from({ length: n }, (_, i) => {
    const x0 = mid.value - a + ((2 * a) / n) * i + gap / 2
    const x1 = x0 + (2 * a) / n - gap
    const r = (x1 - x0) / 3
    return `M${x0} ${y(from)}V${y(from + (to - from) * 0.45)}C${x0} ${y(to)} ${x0 + r / 2} ${y(to)} ${x0 + r} ${y(to)}H${x1 - r}C${x1 - r / 2} ${y(to)} ${x1} ${y(to)} ${x1} ${y(from + (to - from) * 0.45)}V${y(from)}Z`
  }).join('')
}
/** A sheet of pastry with its vents. */
function pastry(from: number, to: number) {
  const a = half(Math.min(to, props.cut.depth_mm))
  const n = props.cut.gap_share > 0.08 ? 5 : 3
  const w = (2 * a) / n
  return Array.from(
    { length: n },
    (_, i) => `M${mid.value - a + w * i + 1.5} ${y(from)}V${y(to)}h${w - 3}V${y(from)}Z`,
  ).join('')
}
const topPath = computed(() => {
  const { fruit_mm: from, topping_mm: to, family } = now.value
  if (family === 'biscuit') return biscuits(from, to)
  if (family === 'pastry') return pastry(from, to)
  return crumb(from, to)
})
/** A base: on the floor, and for a shell up the walls. */
const basePath = computed(() => {
  const { base_mm: b, base_sides: sides, depth_mm: d } = props.cut
  if (!b) return ''
  if (!sides) return slab(0, b)
  const [m, f, r] = [mid.value, half(0), half(d)]
  return `M${m - r} ${y(d)}L${m - f} ${y(0)}H${m + f}L${m + r} ${y(d)}H${m + r - b}L${m + f - b} ${y(b)}H${m - f + b}L${m - r + b} ${y(d)}Z`
})
const dish = computed(() => {
  const { depth_mm: d } = props.cut
  const r = half(d)
  const f = half(0)
  const lip = 5
  return (
    `M${mid.value - r - wall - lip} ${y(d)}H${mid.value - r}L${mid.value - f} ${y(0)}H${mid.value + f}L${mid.value + r} ${y(d)}H${mid.value + r + wall + lip}` +
    `V${y(d - 3)}H${mid.value + r + wall}L${mid.value + f + wall} ${y(-wall / upright)}H${mid.value - f - wall}L${mid.value - r - wall} ${y(d - 3)}H${mid.value - r - wall - lip}Z`
  )
})
/** The ruler: each 10 mm, or each half inch. */
const ticks = computed(() => {
  const step = units.lengths === 'in' ? 12.7 : 10
  const n = Math.floor(props.cut.depth_mm / step)
  return Array.from({ length: n + 1 }, (_, i) => ({
    at: i * step,
    label: units.lengths === 'in' ? (i % 2 ? '' : `${i / 2} in`) : String(i * 10),
  }))
})

/** What can be taken hold of: how it is reported, where it is, and what it is when it is moved by so many mm. */
const grips = computed(() => {
  const { fruit_raw_mm: fruit, topping_raw_mm: top } = props.cut
  const levels = props.levels?.g ?? []
  const lowest = props.levels?.from_mm ?? 0
  return [
    {
      key: 'fruit' as const,
      label: 'Fruit level',
      at: fruit,
      x: mid.value - 0.82 * half(fruit),
      value: fruit,
      low: lowest,
      high: lowest + levels.length - 1,
      tell: (v: number) => emit('fruit', levels[Math.round(v) - lowest]!),
    },
    {
      key: 'thickness' as const,
      label: 'Topping thickness',
      at: top,
      x: mid.value,
      value: top - fruit,
      low: 2,
      high: 60,
      tell: (v: number) => emit('thickness', v),
    },
  ].filter((g) => g.high > g.low)
})
type Grip = (typeof grips.value)[number]
const within = (g: Grip, v: number) => Math.round(Math.min(g.high, Math.max(g.low, v)))

function drag(e: PointerEvent, grip: Grip) {
  const svg = (e.currentTarget as SVGElement).ownerSVGElement
  const box = svg?.getBoundingClientRect()
  if (!svg || !box) return
  const perMm = height.value / box.height / upright
  const startY = e.clientY
  hold(e, (m) => grip.tell(within(grip, grip.value - (m.clientY - startY) * perMm)))
}
function key(e: KeyboardEvent, grip: Grip) {
  const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[e.key]
  if (!by) return
  e.preventDefault()
  grip.tell(within(grip, steps[grip.key](Math.round(grip.value), by * (e.shiftKey ? 10 : 1))))
}
const steps = { fruit: useSteps(), thickness: useSteps() }
</script>

<template>
  <svg
    ref="picture"
    :class="['cutaway', { small }]"
    :viewBox="`${left - margin.left} 0 ${width + margin.left - left + margin.right - right} ${height}`"
    :style="small ? undefined : { maxHeight: '270px', '--letters': `${letters}px` }"
    :role="handle ? 'group' : 'img'"
    :aria-label="
      small
        ? 'Dish cut open'
        : `Dish cut open: fruit ${mm(cut.fruit_mm)} deep when sunk, juice ${mm(cut.juice_mm)}, space below the rim ${mm(headspace ?? 0)} when it boils`
    "
  >
    <defs>
      <pattern :id="`${id}-fruit`" width="13" height="9" patternUnits="userSpaceOnUse">
        <ellipse
          cx="3.5"
          cy="2.5"
          rx="3.4"
          ry="2.300"
          :fill="cut.juice_colour"
          stroke="var(--ink)"
          stroke-width="0.35"
        />
        <ellipse
          cx="10"
          cy="7"
          rx="3.400"
          ry="2.300"
          :fill="cut.juice_colour"
          stroke="var(--ink)"
          stroke-width="0.35"
        />
      </pattern>
      <pattern :id="`${id}-crumb`" width="9" height="7" patternUnits="userSpaceOnUse">
        <rect width="9" height="7" fill="var(--crust)" />
        <circle cx="2" cy="2" r="1.300" fill="none" stroke="var(--crust-deep)" stroke-width="0.700" />
        <circle cx="6.500" cy="5" r="1.600" fill="none" stroke="var(--crust-deep)" stroke-width="0.700" />
      </pattern>
    </defs>
    <!-- what is in the dish at the table -->
    <path
      :d="slab(cut.lower_mm, cut.custard ? now.fruit_mm : now.juice_mm)"
      :fill="cut.custard ? '#e9c86a' : cut.juice_colour"
      :opacity="cut.custard ? 1 : 0.6"
    />
    <path :d="slab(cut.lower_mm, now.fruit_mm)" :fill="`url(#${id}-fruit)`" />
    <path :d="slab(cut.lower_mm, now.fruit_mm)" fill="none" stroke="var(--ink)" stroke-width="0.5" />
    <g v-if="moment" data-testid="moment" :aria-label="moment.middle_bubbles ? 'boils' : 'warming up'">
      <linearGradient :id="`${id}-heat`">
        <stop
          v-for="[at, c] in [
            ['0', moment.rim_c],
            ['0.15', moment.rim_c],
            ['0.4', moment.middle_c],
            ['0.6', moment.middle_c],
            ['0.85', moment.rim_c],
            ['1', moment.rim_c],
          ] as const"
          :key="at"
          :offset="at"
          stop-color="#e0440e"
          :stop-opacity="tint(c)"
        />
      </linearGradient>
      <path :d="slab(cut.lower_mm, now.fruit_mm)" :fill="`url(#${id}-heat)`" />
      <circle
        v-for="(b, i) in bubbles"
        :key="i"
        :cx="b.x"
        :cy="b.y"
        :r="b.r"
        fill="var(--panel)"
        stroke="var(--ink)"
        stroke-width="0.6"
      />
    </g>
    <path
      v-if="cut.lower_mm > cut.base_mm + 0.3"
      :d="crumb(cut.base_mm, cut.lower_mm)"
      :fill="`url(#${id}-crumb)`"
      stroke="var(--crust-deep)"
      stroke-width="0.700"
    />
    <path v-if="basePath" :d="basePath" fill="var(--crust)" stroke="var(--crust-deep)" stroke-width="0.9" />
    <path v-if="basePath && moment" :d="basePath" v-bind="crust(moment.base)" />
    <line
      :x1="mid - half(now.juice_mm)"
      :x2="mid + half(now.juice_mm)"
      :y1="y(now.juice_mm)"
      :y2="y(now.juice_mm)"
      stroke="var(--ink)"
      stroke-width="0.9"
    />
    <path
      v-if="!moment?.bare"
      :d="topPath"
      :fill="cut.family === 'pastry' || cut.family === 'biscuit' ? 'var(--crust)' : `url(#${id}-crumb)`"
      stroke="var(--crust-deep)"
      stroke-width="0.9"
    />
    <path v-if="moment && !moment.bare" :d="topPath" v-bind="crust(moment.colour)" />
    <path
      v-if="now.late_mm > now.topping_mm && !moment?.late"
      :d="crumb(now.topping_mm, now.late_mm)"
      fill="var(--crust-deep)"
      stroke="var(--ink)"
      stroke-width="0.5"
    />
    <path
      :d="dish"
      fill="var(--panel)"
      stroke="var(--rim)"
      :stroke-width="small ? 2.2 : 1.6"
      stroke-linejoin="round"
    />
    <template v-if="!small">
      <!-- raw: dotted above what it will sink to -->
      <path
        :d="slab(cut.fruit_mm, cut.topping_raw_mm)"
        fill="none"
        stroke="var(--ink-2)"
        stroke-width="0.9"
        stroke-dasharray="0.1 2.6"
        stroke-linecap="round"
      />
      <line
        :x1="mid - half(cut.fruit_raw_mm)"
        :x2="mid + half(cut.fruit_raw_mm)"
        :y1="y(cut.fruit_raw_mm)"
        :y2="y(cut.fruit_raw_mm)"
        stroke="var(--ink-2)"
        stroke-width="0.9"
        stroke-dasharray="0.1 2.6"
        stroke-linecap="round"
      />
      <!-- hot line -->
      <line
        :x1="mid - half(cut.depth_mm) - 12"
        :x2="mid + half(cut.depth_mm) + 14"
        :y1="y(cut.hot_mm)"
        :y2="y(cut.hot_mm)"
        :stroke="(room ?? 'free') !== 'free' ? 'var(--danger)' : 'var(--heat)'"
        stroke-width="1.1"
        stroke-dasharray="5 2.500"
      />
      <!-- ruler -->
      <g class="ruler">
        <line :x1="20" :x2="20" :y1="y(0)" :y2="y(cut.depth_mm)" />
        <g v-for="tick in ticks" :key="tick.at">
          <line :x1="17" :x2="20" :y1="y(tick.at)" :y2="y(tick.at)" />
          <text x="15" :y="y(tick.at) + letters / 3" text-anchor="end">{{ tick.label }}</text>
        </g>
      </g>
      <g class="words">
        <text
          :x="mid + half(cut.depth_mm) + 16"
          :y="y(cut.hot_mm) + (room === 'free' ? 4 : -2)"
          fill="var(--heat)"
        >
          boiling level
        </text>
        <text :x="mid + half(cut.depth_mm) + 16" :y="y(now.juice_mm) + 2">
          {{ `juice ${mm(now.juice_mm)}` }}
        </text>
      </g>
      <template v-if="handle">
        <g
          v-for="g in grips"
          :key="g.key"
          class="handle"
          role="slider"
          tabindex="0"
          :aria-label="g.label"
          :aria-valuemin="g.low"
          :aria-valuemax="g.high"
          :aria-valuenow="Math.round(g.value)"
          :aria-valuetext="mm(g.value)"
          :data-testid="`${g.key}-handle`"
          @pointerdown="drag($event, g)"
          @keydown="key($event, g)"
        >
          <rect :x="g.x - 22" :y="y(g.at) - 11" width="44" height="22" fill="transparent" />
          <rect
            :x="g.x - 15"
            :y="y(g.at) - 3.5"
            width="30"
            height="7"
            rx="3.500"
            :fill="g.key === 'fruit' ? 'var(--panel)' : 'var(--rim)'"
            :stroke="g.key === 'fruit' ? 'var(--rim)' : 'var(--panel)'"
            :stroke-width="g.key === 'fruit' ? 1.8 : 1"
          />
          <path
            :d="`M${g.x - 4} ${y(g.at) - 0.9}h8m-8 1.800h8`"
            :stroke="g.key === 'fruit' ? 'var(--rim)' : 'var(--on-rim)'"
            stroke-width="0.7"
          />
        </g>
      </template>
    </template>
  </svg>
</template>

<style scoped>
.cutaway {
  display: block;
  width: 100%;
  height: auto;
  touch-action: pan-y;
}
.cutaway.small {
  max-height: 70px;
}
.ruler line {
  stroke: var(--ink-2);
  stroke-width: 0.6;
}
.ruler text,
.words text {
  font: 600 var(--letters) var(--face);
  fill: var(--ink-2);
}
.words text {
  fill: var(--ink);
}
.handle {
  cursor: ns-resize;
  touch-action: none;
}
@media print {
  .handle {
    display: none;
  }
}
</style>
