<script setup lang="ts">
import GlossaryTerm from '@/ui/GlossaryTerm.vue'
import type { DessertForecast } from '@/api/client'

/** What is predicted of a bake, with how far it may be off. */
defineProps<{ outlook: DessertForecast }>()
</script>

<template>
  <p>
    Middle bubbles after
    <strong class="range" data-testid="forecast-middle">{{ outlook.middle }}</strong>
    (<GlossaryTerm term="90 % range">90 % range</GlossaryTerm>)
  </p>
  <p>
    {{ `Cold: ${outlook.cold}` }}<template v-if="outlook.top">{{ `; top: ${outlook.top}` }}</template
    >.
  </p>
  <p class="small quiet" data-testid="forecast-basis">{{ outlook.basis }}</p>
  <p v-if="outlook.ask" class="small" data-testid="forecast-ask">{{ outlook.ask }}</p>
</template>

<style scoped>
.range {
  font-size: 1.5rem;
}
</style>
