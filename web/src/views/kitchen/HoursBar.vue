<script setup lang="ts">
import { computed } from 'vue'
import type { Resources } from '@/api/client'

/** The hours of somebody as a bar against the day, breaks left open. */
const props = defineProps<{ person: Resources['people'][number] }>()
const day = { from: 300, to: 1320 } // 5:00 to 22:00
const x = (min: number) =>
  (320 * (Math.max(day.from, Math.min(day.to, min)) - day.from)) / (day.to - day.from)
const spans = (list: { from_min: number; to_min: number }[] = []) =>
  list.map((h) => ({ x: x(h.from_min), width: Math.max(0, x(h.to_min) - x(h.from_min)) }))
const hours = computed(() => spans(props.person.hours))
const breaks = computed(() => spans(props.person.breaks))
const marks = [6, 9, 12, 15, 18, 21]
</script>

<template>
  <svg viewBox="0 0 320 44" aria-hidden="true">
    <rect
      v-for="(h, i) in hours"
      :key="`h${i}`"
      class="hours"
      :x="h.x"
      :width="h.width"
      y="2"
      height="24"
      rx="3"
    />
    <rect v-for="(b, i) in breaks" :key="`b${i}`" class="break" :x="b.x" :width="b.width" y="2" height="24" />
    <g v-for="m in marks" :key="m">
      <line :x1="x(60 * m)" :x2="x(60 * m)" y1="26" y2="31" />
      <text :x="x(60 * m)" y="43">{{ m }}</text>
    </g>
    <line x1="0" x2="320" y1="28" y2="28" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  height: auto;
}
.hours {
  fill: var(--crust);
  stroke: var(--rim);
  stroke-width: 1.5;
}
.break {
  fill: var(--panel);
  stroke: var(--rim);
  stroke-width: 1.5;
}
line {
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
text {
  fill: var(--ink-2);
  font-size: 13px;
  text-anchor: middle;
}
</style>
