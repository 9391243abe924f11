<script setup lang="ts">
import { computed } from 'vue'
import { integer } from '@/format/amounts'
import { usePlan } from '@/stores/usePlan'
import CoalRing from './CoalRing.vue'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'

/** Coals: the weather round the pot, when to renew and to turn, and what to mind. */
const plan = usePlan()
const fire = computed(() => plan.answer?.fire)
const first = computed(() => fire.value?.coals[0])
const minutes = (list: number[]) => (list.length ? `at ${list.map(integer).join(', ')} min` : 'not needed')
</script>

<template>
  <section class="fire" aria-label="Coals" data-testid="fire">
    <ChoiceButtons
      of="wind"
      :model-value="plan.weather.wind"
      label="Wind"
      testid="wind"
      @update:model-value="(w) => (plan.weather = { ...plan.weather, wind: w })"
    />
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
    <ChoiceButtons
      of="fuel"
      :model-value="plan.weather.fuel"
      label="Fuel"
      testid="fuel"
      @update:model-value="(key) => (plan.weather = { ...plan.weather, fuel: key })"
    />
    <div class="choice" role="group" aria-label="Pots">
      <button
        :aria-pressed="!!plan.weather.stacked"
        data-testid="stacked"
        @click="plan.weather = { ...plan.weather, stacked: !plan.weather.stacked }"
      >
        two pots
      </button>
    </div>
    <template v-if="fire && first">
      <div class="rings" data-testid="rings">
        <CoalRing title="On the lid" :count="first.above" />
        <CoalRing v-if="first.between" title="Between" :count="first.between" />
        <CoalRing title="Below" :count="first.below" />
      </div>
      <p v-if="fire.by_eye">
        Lump wood is not counted: spread embers as thick as a briquette in the same places.
      </p>
      <p data-testid="hand">{{ fire.hand }}</p>
      <p v-for="(r, i) in fire.ready" :key="i" class="small">{{ r }}</p>
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
.rings {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 8px;
}
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
