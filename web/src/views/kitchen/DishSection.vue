<script setup lang="ts">
import { computed } from 'vue'
import type { Dish } from '@/api/client'

/** A dish cut through its length, all of them to one scale, with the water that was measured in it. */
const props = defineProps<{ dish: Dish; share?: number }>()
const widest = 400 // mm: the longest dish that the scale has room for
const across = computed(() => 10 * props.dish.length_cm)
const floor = computed(() => 10 * (props.dish.floor_length_cm || props.dish.length_cm))
const deep = computed(() => 10 * props.dish.depth_cm)
const box = computed(() => ({ w: Math.max(widest, across.value + 30), h: Math.max(90, deep.value + 16) }))
const mid = computed(() => box.value.w / 2)
const y = (h: number) => box.value.h - 6 - h
const half = (h: number) => (floor.value + (across.value - floor.value) * (h / deep.value)) / 2
const wall = computed(() => {
  const [r, f, m] = [half(deep.value), half(0), mid.value]
  return `M${m - r - 9} ${y(deep.value)}H${m - r}L${m - f} ${y(0)}H${m + f}L${m + r} ${y(deep.value)}h9`
})
const water = computed(() => {
  const h = deep.value * Math.min(1, props.share ?? 0)
  return `M${mid.value - half(h)} ${y(h)}L${mid.value - half(0)} ${y(0)}H${mid.value + half(0)}L${mid.value + half(h)} ${y(h)}Z`
})
</script>

<template>
  <svg :viewBox="`0 0 ${box.w} ${box.h}`" aria-hidden="true">
    <path v-if="share" :d="water" fill="var(--sunk)" stroke="var(--line)" stroke-width="1.5" />
    <path
      :d="wall"
      fill="none"
      stroke="var(--rim)"
      stroke-width="6"
      stroke-linejoin="round"
      stroke-linecap="round"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: auto;
}
</style>
