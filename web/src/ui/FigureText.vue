<script setup lang="ts">
import { ref, watch } from 'vue'

/** A figure that is marked for a moment when it has moved. */
const props = defineProps<{ text: string }>()
const moved = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => props.text,
  (_, was) => {
    if (!was) return // the first figure is no change
    moved.value = true
    clearTimeout(timer)
    timer = setTimeout(() => (moved.value = false), 2000)
  },
)
</script>

<template>
  <span :class="['figure', { moved }]">{{ text }}</span>
</template>

<style scoped>
.figure {
  display: inline-block; /* what marks it is no higher than its line */
  max-width: 100%;
  border-radius: 3px;
  padding: 0 2px;
  margin: 0 -2px;
  white-space: nowrap;
  transition: background 1s ease-out;
}
/* It stands still while more is changed: what moves all the time is drawn anew all the time. */
.moved {
  background: var(--moved);
  transition: none;
}
</style>
