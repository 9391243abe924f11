<script setup lang="ts">
import { computed } from 'vue'
import { integer } from '@/format/amounts'
import { usePlan } from '@/stores/usePlan'

/** Coals: the weather round the pot, when to renew and to turn, and what to mind. */
const plan = usePlan()
const fire = computed(() => plan.answer?.fire)
const winds = ['calm', 'breeze', 'windy'] as const
const minutes = (list: number[]) => (list.length ? `at ${list.map(integer).join(', ')} min` : 'not needed')
</script>

<template>
  <section class="fire" aria-label="Coals" data-testid="fire">
    <div class="choice" role="group" aria-label="Wind">
      <button
        v-for="w in winds"
        :key="w"
        :aria-pressed="plan.weather.wind === w"
        :data-testid="`wind-${w}`"
        @click="plan.weather = { ...plan.weather, wind: w }"
      >
        {{ w }}
      </button>
    </div>
    <div class="choice" role="group" aria-label="Weather">
      <button
        :aria-pressed="plan.weather.cold"
        data-testid="weather-cold"
        @click="plan.weather = { ...plan.weather, cold: !plan.weather.cold }"
      >
        near freezing
      </button>
      <button
        :aria-pressed="plan.weather.wet"
        data-testid="weather-wet"
        @click="plan.weather = { ...plan.weather, wet: !plan.weather.wet }"
      >
        wet ground
      </button>
    </div>
    <template v-if="fire">
      <p>
        Turn pot and lid <strong>{{ minutes(fire.turn_at_min) }}</strong>. Fresh coals
        <strong>{{ minutes(fire.renew_at_min) }}</strong>, lit beforehand.
      </p>
      <ul class="small">
        <li v-for="(c, i) in fire.cautions" :key="i">{{ c }}</li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.fire {
  display: grid;
  gap: 6px;
}
ul {
  margin: 0;
  padding: 6px 8px 6px 24px;
  border-left: 5px solid var(--danger);
  background: var(--sunk);
}
</style>
