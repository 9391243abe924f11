<script setup lang="ts">
import { computed } from 'vue'
import type { WatchedDessert } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { useWatch } from '@/stores/useWatch'
import { outside } from '@/stores/usePlan'
import { heat } from '@/format/amounts'
import { timeOf } from '@/format/clock'

/** Each oven with what is in it, against one clock: a bar for each dessert, a part for each stage, and now. */
const kitchen = useKitchen()
const watching = useWatch()
const inside = computed(() => watching.desserts.filter((w) => !w.out_at))
const start = (w: WatchedDessert) => Date.parse(w.started_at)
/** The stages in the oven, by the clock. */
function bars(w: WatchedDessert) {
  let at = start(w)
  return w.stages
    .map((s) => {
      const from = at
      at += s.minutes * 60000
      return { from, to: at, stage: s }
    })
    .filter((b) => !outside(b.stage))
}
const ovens = computed(() => {
  const by = new Map<string, WatchedDessert[]>()
  for (const w of inside.value) by.set(w.oven_id ?? '', [...(by.get(w.oven_id ?? '') ?? []), w])
  return [...by].map(([id, all]) => ({
    name: kitchen.ovens.find((o) => o.id === id)?.name ?? 'Oven',
    all: all.map((w) => ({ w, bars: bars(w) })),
  }))
})
const ends = computed(() => ovens.value.flatMap((o) => o.all.flatMap((x) => x.bars.map((b) => b.to))))
const first = computed(() => Math.min(watching.now, ...inside.value.map(start)))
const last = computed(() => Math.max(watching.now + 600000, ...ends.value))
const x = (t: number) => `${(100 * (t - first.value)) / (last.value - first.value)}%`
const width = (from: number, to: number) => `${(100 * (to - from)) / (last.value - first.value)}%`
/** Whole half hours on the axis. */
const ticks = computed(() => {
  const step = 1800000
  const out: number[] = []
  for (let t = Math.ceil(first.value / step) * step; t <= last.value; t += step) out.push(t)
  return out
})
const iso = (t: number) => new Date(t).toISOString()
</script>

<template>
  <section v-if="inside.length > 1" class="panel ovens" aria-label="Ovens" data-testid="oven-timeline">
    <div v-for="o in ovens" :key="o.name" class="oven">
      <h2>{{ o.name }}</h2>
      <div class="lanes">
        <div v-for="{ w, bars: all } in o.all" :key="w.id" class="lane">
          <span
            v-for="(b, i) in all"
            :key="i"
            class="bar"
            :style="{ left: x(b.from), width: width(b.from, b.to), '--juice': w.juice_colour }"
            >{{ i === 0 ? `${w.title}, ` : '' }}{{ heat(b.stage.oven_c) }}</span
          >
        </div>
        <span class="now" :style="{ left: x(watching.now) }" aria-hidden="true" />
      </div>
    </div>
    <div class="axis" aria-hidden="true">
      <span v-for="t in ticks" :key="t" :style="{ left: x(t) }">{{ timeOf(iso(t)) }}</span>
    </div>
  </section>
</template>

<style scoped>
.ovens {
  display: grid;
  gap: 6px;
  padding: 10px 18px 6px;
}
.oven {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr);
  align-items: center;
  gap: 12px;
}
h2 {
  font-size: 1rem;
}
.lanes {
  position: relative;
  display: grid;
  gap: 3px;
}
.lane {
  position: relative;
  height: 28px;
  background: var(--sunk);
}
.bar {
  position: absolute;
  overflow: hidden;
  height: 28px;
  padding: 0 8px;
  border: 1.5px solid var(--ink);
  border-left: 8px solid var(--juice);
  background: var(--panel);
  font-size: 0.875rem;
  font-weight: 600;
  line-height: 25px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.now {
  position: absolute;
  inset: -3px auto -3px;
  border-left: 3px solid var(--heat);
}
.axis {
  position: relative;
  height: 20px;
  margin-left: 142px;
  font-size: 0.875rem;
  color: var(--ink-2);
}
.axis span {
  position: absolute;
  transform: translateX(-50%);
}
@media (max-width: 43.75em) {
  .oven {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
  .axis {
    margin-left: 0;
  }
}
</style>
