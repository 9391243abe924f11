<script setup lang="ts">
import { computed } from 'vue'
import { useWatch } from '@/stores/useWatch'

/** On every other screen: a call that is due. */
const watching = useWatch()
const first = computed(() => watching.due[0])
</script>

<template>
  <div v-if="first && $route.name !== 'watch'" class="due no-print" role="alert" data-testid="due">
    <span
      ><strong>{{ first.text }}</strong> · {{ first.of.title
      }}{{ watching.due.length > 1 ? ` · and ${watching.due.length - 1} more` : '' }}</span
    >
    <span class="acts">
      <button
        class="push main"
        data-testid="due-done"
        @click="watching.answerCall(first, { answer: 'done' })"
      >
        Done
      </button>
      <RouterLink class="plain" to="/watch">Open the Watch</RouterLink>
    </span>
  </div>
</template>

<style scoped>
.due {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  padding: 8px 16px;
  background: var(--moved);
  border-bottom: 3px solid var(--heat);
  font-size: 1.375rem;
}
.acts {
  display: flex;
  align-items: center;
  gap: 12px;
  font-size: 1rem;
}
</style>
