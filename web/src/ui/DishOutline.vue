<script setup lang="ts">
import { computed } from 'vue'
import type { Dish } from '@/api/client'

/** A dish seen from above, in small: its outline tells desserts apart before their colour does. */
const props = defineProps<{ dish: Dish }>()
const size = computed(() => {
  const w =
    props.dish.shape === 'round' || props.dish.shape === 'square'
      ? props.dish.length_cm
      : (props.dish.width_cm ?? 0)
  const k = 44 / Math.max(32, props.dish.length_cm)
  return { l: Math.max(8, props.dish.length_cm * k), w: Math.max(8, w * k) }
})
const curved = computed(() => props.dish.shape === 'round' || props.dish.shape === 'oval')
</script>

<template>
  <svg viewBox="0 0 54 48" width="54" height="48" aria-hidden="true">
    <ellipse v-if="curved" cx="27" cy="24" :rx="size.l / 2" :ry="size.w / 2" />
    <rect v-else :x="27 - size.l / 2" :y="24 - size.w / 2" :width="size.l" :height="size.w" rx="3" />
  </svg>
</template>

<style scoped>
svg {
  flex: none;
}
ellipse,
rect {
  fill: var(--sunk);
  stroke: var(--rim);
  stroke-width: 2.6;
}
</style>
