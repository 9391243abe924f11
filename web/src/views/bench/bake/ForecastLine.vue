<script setup lang="ts">
import { inWords } from '@/api/client'
import ForecastLines from '@/ui/ForecastLines.vue'
import { useForecast } from '../useForecast'

/** What is predicted of the bake, with how far it may be off: by the kitchen's own log, as soon as that can tell. */
const { data: told, problem } = useForecast()
</script>

<template>
  <div class="forecast" data-testid="forecast">
    <p v-if="problem" class="small quiet" role="status">{{ inWords(problem) }}.</p>
    <ForecastLines v-else-if="told" :outlook="told" />
  </div>
</template>

<style scoped>
.forecast {
  display: grid;
  gap: 2px;
  min-height: 130px;
}
</style>
