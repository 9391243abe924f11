<script setup lang="ts">
import { computed } from 'vue'

/** A fruit in small: the outline of its kind, in the colour of its juice. */
const props = defineProps<{ fruit: { key: string; group: string; juice_colour: string } }>()

const outlines: Record<string, string> = {
  // an apple: two shoulders and a stalk
  pome: 'M14 8c-2-2-9-2-9 6 0 6 4 11 9 11s9-5 9-11c0-8-7-8-9-6zM14 8q0-4 3-6',
  // a plum with its crease
  stone: 'M14 4c6 0 9 4 9 10s-4 11-9 11-9-5-9-11 3-10 9-10zM14 4q-4 8-1 17',
  // five drupes
  berry:
    'M9 11a4 4 0 1 1 .1 0zM19 11a4 4 0 1 1 .1 0zM6.500 18.500a4 4 0 1 1 .1 0zM21.500 18.500a4 4 0 1 1 .1 0zM14 17a4 4 0 1 1 .1 0zM14 25a4 4 0 1 1 .1 0z',
  // a string of currants
  currant:
    'M17 2q-6 8-5 22M18 8a3 3 0 1 1 .1 0zM8.500 12a3 3 0 1 1 .1 0zM17.500 15a3 3 0 1 1 .1 0zM8.500 19a3 3 0 1 1 .1 0zM15.500 22a3 3 0 1 1 .1 0zM12 26.500a3 3 0 1 1 .1 0z',
  // three stalks
  stalk: 'M6 4l4 0 0 20-5 1zM12 3l4 0 1 22-5 0zM19 4l4 0 1 21-5-1z',
  // a mango on its side
  tropical: 'M4 17c0-7 7-12 14-11 5 1 7 5 6 9-1 6-7 10-13 9-4 0-7-3-7-7z',
  // a pod or a squash
  vegetable:
    'M14 6c7 0 10 4 10 9s-4 10-10 10S4 20 4 15s3-9 10-9zM14 6v19M9 7q-4 8 0 17M19 7q4 8 0 17M14 6q0-3 3-4',
  dried: 'M6 8q8-5 16 0 3 8-2 14-7 4-13-1-4-6-1-13zM9 10q3 4 0 10M17 9q-3 6 1 12',
}
const own: Record<string, string> = {
  pear: 'M14 6c3 0 3 4 4 7 4 3 5 12-4 12s-8-9-4-12c1-3 1-7 4-7zM14 6q0-3 2-4',
  strawberry:
    'M5 9c3-4 15-4 18 0 1 7-6 16-9 16S4 16 5 9zM14 8l-5-3M14 8l5-3M14 8V3M10 13h.1M17 13h.1M13.500 18h.1',
  cherry: 'M8.500 25a4.500 4.500 0 1 1 .1 0zM20 23a4.500 4.500 0 1 1 .1 0zM9 16Q11 6 18 3q3 4 2 11',
  round: 'M14 25a9 9 0 1 1 .1 0zM10 9l2 2 2-3 2 3 2-2',
  fig: 'M14 4q2 5 6 9c5 6 1 12-6 12S3 19 8 13q4-4 6-9z',
  pineapple:
    'M14 10c6 0 7 4 7 8s-2 8-7 8-7-4-7-8 1-8 7-8zM14 10l-5-6M14 10V2M14 10l5-6M9 13l10 10M19 13L9 23',
}
const alone: [RegExp, string][] = [
  [/^pear|^quince/, 'pear'],
  [/^strawberry/, 'strawberry'],
  [/^cherry/, 'cherry'],
  [/^(blueberry|gooseberry|cranberry|grape|elderberry)/, 'round'],
  [/^fig/, 'fig'],
  [/^pineapple/, 'pineapple'],
]
const path = computed(() => {
  const mine = alone.find(([of]) => of.test(props.fruit.key))
  return (mine && own[mine[1]]) ?? outlines[props.fruit.group] ?? outlines.stone
})
</script>

<template>
  <svg viewBox="0 0 28 28" width="28" height="28" aria-hidden="true">
    <path :d="path" :fill="fruit.juice_colour" />
  </svg>
</template>

<style scoped>
svg {
  flex: none;
}
path {
  stroke: var(--ink);
  stroke-linecap: round;
  stroke-linejoin: round;
  stroke-width: 1.6;
}
</style>
