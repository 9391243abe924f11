<script setup lang="ts">
import type { ShortVerdict } from '@/api/client'

/** What will become of a dessert, in one line: its sign and its colour by the level, wherever it is shown. */
defineProps<{ verdict: ShortVerdict }>()
const signs = { right: '✓', nearly: '◆', wrong: '▲' }
</script>

<template>
  <span :class="['verdict', verdict.level]"
    ><span class="sign" aria-hidden="true">{{ signs[verdict.level] }}</span> {{ verdict.summary }}</span
  >
</template>

<style scoped>
.verdict {
  font-weight: 600;
  color: var(--settled);
}
.nearly {
  color: var(--heat);
}
.wrong {
  color: var(--danger);
}
</style>
