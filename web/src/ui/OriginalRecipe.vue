<script setup lang="ts">
import type { Original } from '@/api/client'

/** How a recipe that came in was made and how far it went, in its writer's own words. */
defineProps<{ original: Original }>()
</script>

<template>
  <details class="as-written" data-testid="as-written">
    <summary>
      {{ `Original recipe${original.serves ? `: ${original.serves}` : ''}` }}
    </summary>
    <p v-for="(s, i) in original.method" :key="i">{{ s }}</p>
  </details>
</template>

<style scoped>
.as-written {
  margin-top: 8px;
}
summary {
  min-height: 32px;
  color: var(--rim-ink);
  cursor: pointer;
}
p {
  margin-bottom: 4px;
}
@media print {
  .as-written::details-content {
    content-visibility: visible;
    block-size: auto;
  }
}
</style>
