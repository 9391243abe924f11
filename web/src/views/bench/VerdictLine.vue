<script setup lang="ts">
import type { BakeChange, PlanAnswer } from '@/api/client'

/** What will become of the dessert, and the one touch that mends it. */
defineProps<{ verdict: PlanAnswer['verdict'] }>()
defineEmits<{ mend: [label: string, change: BakeChange] }>()
</script>

<template>
  <p :class="['verdict', { wrong: !verdict.right }]" role="status" data-testid="verdict">
    <span class="sign" aria-hidden="true">{{ verdict.right ? '✓' : '▲' }}</span>
    <span>{{ verdict.summary }}</span>
    <button
      v-if="verdict.mend"
      class="push"
      data-testid="mend"
      @click="$emit('mend', verdict.mend.text, verdict.mend.change)"
    >
      Apply
    </button>
  </p>
</template>

<style scoped>
.verdict {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 40px;
  margin: 0;
  font-size: 1.125rem;
  font-weight: 600;
  color: var(--settled, var(--ink));
}
.verdict.wrong {
  color: var(--danger);
}
.push {
  flex: none;
}
.sign {
  font-size: 1.25rem;
}
</style>
