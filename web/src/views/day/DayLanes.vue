<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { DayOrders, DayBar, DaySchedule, DayOrder } from '@/api/client'
import DishOutline from '@/ui/DishOutline.vue'
import { useKitchen } from '@/stores/useKitchen'
import { heat } from '@/format/amounts'
import { clockOf } from '@/format/minutes'

/** The day against the clock: what is wanted when, each oven's tiers with how hot it is, hands, fridge and rack. */
const props = defineProps<{
  schedule: DaySchedule
  request: DayOrders
  now?: number
  chosen?: string
  stale: boolean
}>()
const emit = defineEmits<{ choose: [bar: DayBar]; move: [order: DayOrder, due: number] }>()
const kitchen = useKitchen()
const stepMin = 5
const tickMin = 60
const span = computed(() => props.schedule.to_min - props.schedule.from_min)
const x = (minute: number) => `${(100 * (minute - props.schedule.from_min)) / span.value}%`
const width = (from: number, to: number) => `${(100 * (to - from)) / span.value}%`
const ticks = computed(() => {
  const out: number[] = []
  for (
    let m = Math.ceil(props.schedule.from_min / tickMin) * tickMin;
    m <= props.schedule.to_min;
    m += tickMin
  )
    out.push(m)
  return out
})
const juice = (fruit: string) => kitchen.fruit.get(fruit)?.juice_colour ?? 'var(--rim)'
/** How high a row is, px: what is hot is read from afar. */
const rowPx = { oven: 36, hands: 28, place: 24 }
const lanes = computed(() =>
  props.schedule.lanes.map((l, i) => {
    const bars = props.schedule.bars.filter((b) => b.lane === i && b.to_min > props.schedule.from_min)
    const rows = Math.max(1, ...bars.map((b) => b.row + 1))
    const first = props.schedule.lanes.findIndex((o) => o.kind === l.kind && o.of === l.of) === i
    const next = props.schedule.lanes[i + 1]
    const last = !next || next.kind !== l.kind || next.of !== l.of
    return {
      ...l,
      bars,
      high: `${rows * rowPx[l.kind]}px`,
      label: l.kind === 'oven' ? (first ? l.of : '') : l.of,
      heats: l.kind === 'oven' && last ? props.schedule.heats.filter((h) => h.oven === l.of) : undefined,
    }
  }),
)
const tiersOf = (of: string) => props.schedule.lanes.filter((l) => l.kind === 'oven' && l.of === of).length

/** An order's flag while it is dragged along the clock. */
const field = useTemplateRef('field')
const dragged = ref<{ id: string; due: number; from: number; at: number }>()
const dueOf = (o: DayOrder) => (dragged.value?.id === o.id ? dragged.value.due : o.due_min)
function grab(e: PointerEvent, o: DayOrder) {
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
  dragged.value = { id: o.id, due: o.due_min, from: o.due_min, at: e.clientX }
}
function drag(e: PointerEvent, o: DayOrder) {
  const d = dragged.value
  if (d?.id !== o.id) return
  const moved = ((e.clientX - d.at) / field.value!.clientWidth) * span.value
  dragged.value = { ...d, due: Math.max(0, d.from + stepMin * Math.round(moved / stepMin)) }
}
function drop(o: DayOrder) {
  const due = dragged.value?.due
  dragged.value = undefined
  if (due !== undefined && due !== o.due_min) emit('move', o, due)
}
/** How much of the clock a flag's words take: they follow the reader's size. */
const flagRem = 11.5
const { width: fieldPx } = useElementSize(field)
const flagShare = computed(() => {
  const rem = parseFloat(getComputedStyle(document.documentElement).fontSize)
  return Math.min(0.5, (flagRem * rem) / (fieldPx.value || 800))
})
/** Flags that would lie over each other go below. */
const flags = computed(() => {
  const ends: number[] = []
  const wide = span.value * flagShare.value
  return [...props.request.orders]
    .sort((a, b) => a.due_min - b.due_min)
    .map((o) => {
      const from = o.due_min > leftFrom.value ? o.due_min - wide : o.due_min
      let row = ends.findIndex((end) => end <= from)
      if (row < 0) row = ends.push(0) - 1
      ends[row] = from + wide
      return { o, row, done: props.schedule.orders.find((d) => d.order === o.id) }
    })
})
/** Where a flag has no room to its right any more. */
const leftFrom = computed(() => props.schedule.to_min - span.value * flagShare.value)
const flagRows = computed(() => Math.max(1, ...flags.value.map((f) => f.row + 1)))
/** Where a bake goes from one stage to the next, in per cent of its bar. */
function changesOf(b: DayBar) {
  let at = 0
  return (b.stages ?? []).slice(0, -1).map((s) => {
    at += s.minutes
    return (100 * at) / (b.to_min - b.from_min)
  })
}
</script>

<template>
  <div :class="['lanes', { stale }]" data-testid="day-lanes">
    <div class="axis" aria-hidden="true">
      <span v-for="m in ticks" :key="m" :style="{ left: x(m) }">{{ clockOf(m) }}</span>
    </div>
    <div class="lane wanted">
      <h3>Due</h3>
      <div ref="field" class="field" :style="{ height: `${flagRows * 30}px` }">
        <span v-for="m in ticks" :key="m" class="grid" :style="{ left: x(m) }" aria-hidden="true" />
        <button
          v-for="{ o, row, done } in flags"
          :key="o.id"
          :class="['flag', { late: done && !done.in_time, left: dueOf(o) > leftFrom }]"
          :style="{ left: x(dueOf(o)), top: `${row * 30}px`, '--juice': juice(done?.fruit ?? '') }"
          :aria-label="`${clockOf(dueOf(o))} ${o.id} due. Arrow keys move it by ${stepMin} min.`"
          :data-testid="`flag-${o.id}`"
          @pointerdown="grab($event, o)"
          @pointermove="drag($event, o)"
          @pointerup="drop(o)"
          @pointercancel="dragged = undefined"
          @keydown.left.prevent="emit('move', o, o.due_min - stepMin)"
          @keydown.right.prevent="emit('move', o, o.due_min + stepMin)"
        >
          <strong>{{ clockOf(dueOf(o)) }}</strong> {{ o.id }}
        </button>
      </div>
    </div>
    <div v-for="(l, i) in lanes" :key="i" :class="['lane', l.kind]">
      <h3>
        {{ l.label }}
        <span v-if="l.kind === 'oven' && tiersOf(l.of) > 1" class="quiet small tier">{{
          `tier ${l.tier}`
        }}</span>
      </h3>
      <div class="field">
        <span v-for="m in ticks" :key="m" class="grid" :style="{ left: x(m) }" aria-hidden="true" />
        <div class="bars" :style="{ height: l.high }">
          <button
            v-for="b in l.bars"
            :key="`${b.task}${b.kind}${b.from_min}`"
            :class="['bar', l.kind, { chosen: chosen === b.task, pinned: b.pinned, other: b.other_option }]"
            :style="{
              left: x(b.from_min),
              width: width(b.from_min, b.to_min),
              top: `${b.row * rowPx[l.kind]}px`,
              '--juice': juice(b.fruit),
            }"
            :title="`${clockOf(b.from_min)} to ${clockOf(b.to_min)}: ${b.text}`"
            :aria-label="`${clockOf(b.from_min)} to ${clockOf(b.to_min)}: ${b.text}`"
            :data-testid="`bar-${b.task}${l.kind === 'oven' ? '' : `-${b.kind}`}`"
            @click="emit('choose', b)"
          >
            <template v-if="l.kind === 'oven'">
              <i
                v-for="(share, k) in changesOf(b)"
                :key="k"
                class="stage"
                :style="{ left: `${share}%` }"
                aria-hidden="true"
              />
              <DishOutline :dish="b.dish" class="outline" />
              <span
                >{{ b.order }}<span v-if="b.count > 1" aria-hidden="true">{{ ` × ${b.count}` }}</span></span
              >
            </template>
            <span v-else-if="l.kind === 'place'">{{ b.order }}</span>
          </button>
        </div>
        <div v-if="l.heats" class="heats">
          <span
            v-for="(h, k) in l.heats"
            :key="k"
            :class="['heat', { warming: h.warming }]"
            :style="{ left: x(h.from_min), width: width(h.from_min, h.to_min) }"
            >{{ h.warming ? '' : heat(h.c) }}</span
          >
        </div>
      </div>
    </div>
    <div v-if="now !== undefined" class="nowlane" aria-hidden="true">
      <span class="now" :style="{ left: x(now) }" />
    </div>
  </div>
</template>

<style scoped>
.lanes {
  --label: 7rem;
  position: relative;
  display: grid;
  gap: 4px;
  padding: 6px 30px 10px 12px;
}
.stale .bars {
  opacity: 0.55;
}
.axis {
  position: relative;
  height: 20px;
  margin-left: var(--label);
  color: var(--ink-2);
  font-size: 0.875rem;
}
.axis span {
  position: absolute;
  transform: translateX(-50%);
}
.lane {
  display: grid;
  grid-template-columns: var(--label) minmax(0, 1fr);
}
h3 {
  padding: 4px 8px 0 0;
  overflow: hidden;
  font-size: 0.9375rem;
  text-overflow: ellipsis;
}
.place h3 {
  text-transform: capitalize;
}
.field {
  position: relative;
  background: var(--sunk);
}
.wanted .field {
  background: none;
}
.grid {
  position: absolute;
  inset: 0 auto 0;
  border-left: 1px solid var(--line);
}
.bars {
  position: relative;
}
.bar,
.flag {
  position: absolute;
  display: flex;
  align-items: center;
  overflow: hidden;
  padding: 0 4px;
  border: 1.5px solid var(--ink);
  border-left: 7px solid var(--juice);
  border-radius: 2px;
  background: var(--panel);
  color: var(--ink);
  font-size: 0.8125rem;
  font-weight: 600;
  line-height: 1.1;
  text-align: left;
  cursor: pointer;
}
.bar {
  container-type: inline-size;
  height: 34px;
  white-space: nowrap;
}
.bar span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.bar.oven {
  font-size: 0.875rem;
}
.bar.hands {
  height: 26px;
  border: 1px solid var(--ink);
  background: var(--juice);
}
.bar.place {
  height: 22px;
  border-width: 1px;
  border-left: 5px solid var(--juice);
  font-weight: 400;
}
@media (max-width: 62em) {
  .lanes {
    min-width: 760px;
  }
}
@container (max-width: 4.5rem) {
  .outline {
    display: none;
  }
}
.tier {
  font-weight: 400;
}
/* Where the next stage begins: another heat, or another cover. */
.stage {
  position: absolute;
  top: 62%;
  bottom: 0;
  width: 0;
  border-left: 2px dotted var(--heat);
}
.bar.other {
  border-style: dashed;
  border-left-style: solid;
}
.bar.pinned {
  border-width: 3px;
  border-left-width: 8px;
}
.bar.chosen {
  background: var(--moved);
  outline: 3px solid var(--rim);
}
.outline {
  width: 27px;
  height: 24px;
}
.flag {
  height: 27px;
  gap: 4px;
  max-width: 11.5rem;
  border-width: 0 0 0 7px;
  background: none;
  font-weight: 400;
  white-space: nowrap;
  cursor: ew-resize;
  touch-action: none;
}
.flag.left {
  transform: translateX(calc(-100% + 7px));
  flex-direction: row-reverse;
  border-left: 0;
  border-right: 7px solid var(--juice);
}
.flag.late {
  color: var(--danger);
  font-weight: 700;
}
.heats {
  position: relative;
  height: 22px;
  background: var(--panel);
}
.heat {
  position: absolute;
  bottom: 0;
  overflow: hidden;
  height: 22px;
  padding-left: 4px;
  border-top: 3px solid var(--heat);
  font-size: 0.8125rem;
  white-space: nowrap;
}
.heat.warming {
  border-top: 0;
  background: linear-gradient(to top right, transparent 48%, var(--heat) 50%, transparent 56%);
}
.nowlane {
  position: absolute;
  inset: 26px 30px 6px calc(12px + var(--label));
  pointer-events: none;
}
.now {
  position: absolute;
  inset: 0 auto 0;
  border-left: 3px solid var(--heat);
}
</style>
