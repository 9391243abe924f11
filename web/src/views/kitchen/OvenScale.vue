<script setup lang="ts">
import { computed } from 'vue'

/** How far an oven is from what its dial says: the marker where it is, the band how far that may be off. */
const props = defineProps<{ offset: number; giveOrTake: number }>()
const reach = 32 // C either side
const at = (c: number) => 160 + 150 * Math.max(-1, Math.min(1, c / reach))
const band = computed(() => {
  const from = at(props.offset - props.giveOrTake)
  return { x: from, width: at(props.offset + props.giveOrTake) - from }
})
const ticks = [-30, -20, -10, 0, 10, 20, 30]
</script>

<template>
  <svg viewBox="0 0 320 44" aria-hidden="true">
    <line class="line" x1="10" x2="310" y1="30" y2="30" />
    <line
      v-for="t in ticks"
      :key="t"
      :class="t ? 'tick' : 'nought'"
      :x1="at(t)"
      :x2="at(t)"
      :y1="t ? 25 : 16"
      :y2="t ? 35 : 42"
    />
    <rect class="band" :x="band.x" :width="band.width" y="22" height="16" rx="3" />
    <path class="marker" :d="`M${at(offset)} 30l-9 -19h18z`" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: auto;
}
.line,
.tick {
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
.nought {
  stroke: var(--ink);
  stroke-width: 3;
}
.band {
  fill: var(--moved);
  fill-opacity: 0.8;
  stroke: var(--heat);
  stroke-width: 1.5;
}
.marker {
  fill: var(--rim);
}
</style>
