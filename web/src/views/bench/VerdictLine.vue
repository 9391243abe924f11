<script setup lang="ts">
import type { BakeChange, PlanAnswer } from '@/api/client'
import VerdictText from '@/ui/VerdictText.vue'
import { useForecast } from './useForecast'

/** What will become of the dessert, and the one touch that mends it. */
defineProps<{ verdict: PlanAnswer['verdict'] }>()
/** How likely a right dessert comes out so, by the forecast that is shown with its bake. */
const { data: told } = useForecast()
defineEmits<{ mend: [label: string, change: BakeChange] }>()
</script>

<template>
  <p :class="['line', verdict.level]" role="status" data-testid="verdict">
    <VerdictText :verdict="verdict" :likely="told?.likely" />
    <button
      v-if="verdict.mend"
      class="push"
      data-testid="mend"
      :title="verdict.mend.result"
      @click="$emit('mend', verdict.mend.text, verdict.mend.change)"
    >
      Apply
    </button>
  </p>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 40px;
  margin: 0;
  font-size: 1.125rem;
}
.push {
  flex: none;
}
</style>
