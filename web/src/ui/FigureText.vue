<script setup lang="ts">
import { ref, watch } from 'vue'

/** A figure that is marked for a moment when it has moved. */
const props = defineProps<{ text: string }>()
const moved = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => props.text,
  (_, was) => {
    moved.value = false
    clearTimeout(timer)
    if (!was) return // the first figure is no change
    requestAnimationFrame(() => {
      moved.value = true
      timer = setTimeout(() => (moved.value = false), 2000)
    })
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
}
</style>
