<script setup lang="ts">
import type { ShortVerdict } from '@/api/client'

/** What will become of a dessert, in one line: its sign and its colour by the level, wherever it is shown. */
defineProps<{ verdict: ShortVerdict; likely?: string }>()
const signs = { right: '✓', nearly: '◆', wrong: '▲' }
</script>

<template>
  <span :class="['verdict-text', `is-${verdict.level}`]"
    ><span class="sign" aria-hidden="true">{{ signs[verdict.level] }}</span> {{ verdict.summary
    }}<span v-if="likely && verdict.level === 'right'" class="likely" data-testid="likely">{{
      ` (${likely})`
    }}</span></span
  >
</template>

<style scoped>
.verdict-text {
  font-weight: 600;
  color: var(--settled);
}
.likely {
  font-weight: 400;
  white-space: nowrap;
}
.is-nearly {
  color: var(--heat);
}
.is-wrong {
  color: var(--danger);
}
</style>
