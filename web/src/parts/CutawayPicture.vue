<script setup lang="ts">
import { computed, useId } from 'vue'
import type { Cutaway } from '@/api/client'
import { mm, units } from './words'

/** The dish cut open, to scale. The small one is for lists: no ruler, no words. */
const props = defineProps<{ cut: Cutaway; headspace?: number; small?: boolean; handle?: boolean }>()
const emit = defineEmits<{ thickness: [mm: number] }>()
const id = useId()

// Everything below is in mm, y upwards from the inside of the floor; the view turns it over.
const wall = 4
const left = computed(() => (props.small ? 4 : 30))
const right = computed(() => (props.small ? 4 : 74))
const top = computed(
  () => Math.max(props.cut.depth_mm, props.cut.topping_raw_mm, props.cut.hot_mm) + (props.small ? 4 : 14),
)
const width = computed(() => props.cut.rim_length_mm + 2 * wall + left.value + right.value)
const height = computed(() => top.value + wall + (props.small ? 2 : 4))
const mid = computed(() => left.value + wall + props.cut.rim_length_mm / 2)
const y = (h: number) => top.value - h
/** Half the inside width at a height: walls run straight from floor to rim, and upright above it. */
function half(h: number) {
  const { floor_length_mm: f, rim_length_mm: r, depth_mm: d } = props.cut
  return (f + (r - f) * Math.min(1, Math.max(0, h / d))) / 2
}
const slab = (from: number, to: number) =>
  `M${mid.value - half(from)} ${y(from)}L${mid.value - half(to)} ${y(to)}H${mid.value + half(to)}L${mid.value + half(from)} ${y(from)}Z`

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
const dish = computed(() => {
  const { depth_mm: d } = props.cut
  const r = half(d)
  const f = half(0)
  const lip = 5
  return (
    `M${mid.value - r - wall - lip} ${y(d)}H${mid.value - r}L${mid.value - f} ${y(0)}H${mid.value + f}L${mid.value + r} ${y(d)}H${mid.value + r + wall + lip}` +
    `V${y(d - 3)}H${mid.value + r + wall}L${mid.value + f + wall} ${y(-wall)}H${mid.value - f - wall}L${mid.value - r - wall} ${y(d - 3)}H${mid.value - r - wall - lip}Z`
  )
})
/** The ruler: each 10 mm, or each half inch. */
const ticks = computed(() => {
  const step = units.lengths === 'in' ? 12.7 : 10
  const n = Math.floor(props.cut.depth_mm / step)
  return Array.from({ length: n + 1 }, (_, i) => ({
    at: i * step,
    says: units.lengths === 'in' ? (i % 2 ? '' : `${i / 2} in`) : String(i * 10),
  }))
})

function drag(e: PointerEvent) {
  const svg = (e.currentTarget as SVGElement).ownerSVGElement
  const box = svg?.getBoundingClientRect()
  if (!svg || !box) return
  e.preventDefault()
  const el = e.currentTarget as SVGElement
  el.setPointerCapture(e.pointerId)
  const perMm = height.value / box.height
  const startY = e.clientY
  const from = props.cut.topping_raw_mm - props.cut.fruit_raw_mm
  const move = (m: PointerEvent) =>
    emit('thickness', Math.round(Math.min(60, Math.max(2, from - (m.clientY - startY) * perMm))))
  el.addEventListener('pointermove', move)
  el.addEventListener('lostpointercapture', () => el.removeEventListener('pointermove', move), { once: true })
}
function key(e: KeyboardEvent) {
  const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[e.key]
  if (!by) return
  e.preventDefault()
  const now = props.cut.topping_raw_mm - props.cut.fruit_raw_mm
  emit('thickness', Math.min(60, Math.max(2, Math.round(now) + by * (e.shiftKey ? 10 : 1))))
}
</script>

<template>
  <svg
    :class="['cutaway', { small }]"
    :viewBox="`0 0 ${width} ${height}`"
    :style="small ? undefined : { maxHeight: '290px' }"
    role="img"
    :aria-label="
      small
        ? 'Dish cut open'
        : `Dish cut open: fruit ${mm(cut.fruit_mm)} deep when sunk, juice ${mm(cut.juice_mm)}, free rim ${mm(headspace ?? 0)} when it boils`
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
    <path :d="slab(0, cut.juice_mm)" :fill="cut.juice_colour" opacity="0.6" />
    <path :d="slab(0, cut.fruit_mm)" :fill="`url(#${id}-fruit)`" />
    <path :d="slab(0, cut.fruit_mm)" fill="none" stroke="var(--ink)" stroke-width="0.5" />
    <line
      :x1="mid - half(cut.juice_mm)"
      :x2="mid + half(cut.juice_mm)"
      :y1="y(cut.juice_mm)"
      :y2="y(cut.juice_mm)"
      stroke="var(--ink)"
      stroke-width="0.9"
    />
    <path
      :d="crumb(cut.fruit_mm, cut.topping_mm)"
      :fill="`url(#${id}-crumb)`"
      stroke="var(--crust-deep)"
      stroke-width="0.9"
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
        :stroke="(headspace ?? 9) < 3 ? 'var(--danger)' : 'var(--heat)'"
        stroke-width="1.1"
        stroke-dasharray="5 2.500"
      />
      <!-- ruler -->
      <g class="ruler">
        <line :x1="20" :x2="20" :y1="y(0)" :y2="y(cut.depth_mm)" />
        <g v-for="t in ticks" :key="t.at">
          <line :x1="17" :x2="20" :y1="y(t.at)" :y2="y(t.at)" />
          <text x="15" :y="y(t.at) + 3" text-anchor="end">{{ t.says }}</text>
        </g>
      </g>
      <g class="words">
        <text
          :x="mid + half(cut.depth_mm) + 16"
          :y="y(cut.hot_mm) + (headspace !== undefined && headspace > 2 ? 4 : -2)"
          fill="var(--heat)"
        >
          boils to here
        </text>
        <text :x="mid + half(cut.depth_mm) + 16" :y="y(cut.juice_mm) + 2">juice {{ mm(cut.juice_mm) }}</text>
      </g>
      <g
        v-if="handle"
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="Topping thickness"
        aria-valuemin="2"
        aria-valuemax="60"
        :aria-valuenow="Math.round(cut.topping_raw_mm - cut.fruit_raw_mm)"
        :aria-valuetext="mm(cut.topping_raw_mm - cut.fruit_raw_mm)"
        data-testid="thickness-handle"
        @pointerdown="drag"
        @keydown="key"
      >
        <rect :x="mid - 22" :y="y(cut.topping_raw_mm) - 11" width="44" height="22" fill="transparent" />
        <rect
          :x="mid - 15"
          :y="y(cut.topping_raw_mm) - 3.5"
          width="30"
          height="7"
          rx="3.500"
          fill="var(--rim)"
          stroke="var(--panel)"
        />
        <path
          :d="`M${mid - 4} ${y(cut.topping_raw_mm) - 0.9}h8m-8 1.800h8`"
          stroke="var(--on-rim)"
          stroke-width="0.7"
        />
      </g>
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
  font: 600 9px var(--face);
  fill: var(--ink-2);
}
.words text {
  fill: var(--ink);
}
.handle {
  cursor: ns-resize;
  touch-action: none;
}
</style>
