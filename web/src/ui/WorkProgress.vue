<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { integer } from '@/format/amounts'

/** Work that is under way: what it is, how far it is, and how to stop it. What is over in a blink shows no bar. */
defineProps<{ label: string; share?: number }>()
defineEmits<{ stop: [] }>()
const long = ref(false)
const blinkMs = 600
let timer: ReturnType<typeof setTimeout> | undefined
onMounted(() => (timer = setTimeout(() => (long.value = true), blinkMs)))
onBeforeUnmount(() => clearTimeout(timer))
</script>

<template>
  <div class="work" role="status">
    <span
      >{{ label }}<template v-if="share !== undefined">, {{ integer(100 * share) }} %</template></span
    >
    <template v-if="long">
      <progress :value="share" max="1" :aria-label="label" />
      <button class="push" data-testid="stop-work" @click="$emit('stop')">Stop</button>
    </template>
  </div>
</template>

<style scoped>
.work {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  color: var(--ink-2);
}
progress {
  flex: 1 1 160px;
  height: 14px;
  accent-color: var(--rim);
}
</style>
