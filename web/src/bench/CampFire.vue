<script setup lang="ts">
import { computed } from 'vue'
import { asRead, integer } from '@/parts/words'
import { usePlan } from './usePlan'
import { t } from '@/texts'

/** Coals: the weather round the pot, when to renew and to turn, and what to mind. */
const plan = usePlan()
const fire = computed(() => plan.answer?.fire)
const winds = ['calm', 'breeze', 'windy'] as const
const minutes = (list: number[]) =>
  list.length ? t('at {list} min', { list: list.map(integer).join(', ') }) : t('not needed')
</script>

<template>
  <section class="fire" :aria-label="$t('Coals')" data-testid="fire">
    <div class="choice" role="group" :aria-label="$t('Wind')">
      <button
        v-for="w in winds"
        :key="w"
        :aria-pressed="plan.weather.wind === w"
        :data-testid="`wind-${w}`"
        @click="plan.weather = { ...plan.weather, wind: w }"
      >
        {{ $t(w) }}
      </button>
    </div>
    <div class="choice" role="group" :aria-label="$t('Weather')">
      <button
        :aria-pressed="plan.weather.cold"
        data-testid="weather-cold"
        @click="plan.weather = { ...plan.weather, cold: !plan.weather.cold }"
      >
        {{ $t('near freezing') }}
      </button>
      <button
        :aria-pressed="plan.weather.wet"
        data-testid="weather-wet"
        @click="plan.weather = { ...plan.weather, wet: !plan.weather.wet }"
      >
        {{ $t('wet ground') }}
      </button>
    </div>
    <template v-if="fire">
      <p>
        {{ $t('Turn pot and lid') }} <strong>{{ minutes(fire.turn_at_min) }}</strong>{{ $t('. Fresh coals') }}
        <strong>{{ minutes(fire.renew_at_min) }}</strong>{{ $t(', lit beforehand.') }}
      </p>
      <ul class="small">
        <li v-for="(c, i) in fire.cautions" :key="i">{{ asRead(c) }}</li>
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
