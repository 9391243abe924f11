<script setup lang="ts">
import { api, ask, inWords } from '@/api/client'
import { useOfBake } from '../useOfBake'

/** What is foreseen of the bake, with how far it may be off: by the kitchen's own log, as soon as that can tell. */
const { data: told, problem } = useOfBake((body) => ask(api.POST('/api/v1/bench/forecast', { body })))
</script>

<template>
  <div class="forecast" data-testid="forecast">
    <p v-if="problem" class="small quiet" role="status">{{ inWords(problem) }}.</p>
    <template v-else-if="told">
      <p>
        Middle bubbles after
        <strong class="range" data-testid="forecast-middle">{{ told.middle }}</strong>
      </p>
      <p>
        {{ `Cold: ${told.cold}` }}<template v-if="told.top">{{ `; top: ${told.top}` }}</template
        >.
      </p>
      <p class="small quiet" data-testid="forecast-basis">{{ told.basis }}</p>
    </template>
  </div>
</template>

<style scoped>
.forecast {
  display: grid;
  gap: 2px;
  min-height: 84px;
}
.range {
  font-size: 1.5rem;
}
</style>
