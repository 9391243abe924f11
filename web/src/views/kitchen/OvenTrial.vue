<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, ask, type OvenMeasured, type OvenTrial, type Problem, reasonOf } from '@/api/client'
import { newestOnly } from '@/api/newest'
import AmountField from '@/ui/AmountField.vue'
import { warmth, degrees } from '@/format/amounts'

/** Calibrate the oven By a thermometer in the middle, read a few times, or by the setting at which white sugar melts. */
const emit = defineEmits<{ measured: [m: Pick<OvenMeasured, 'offset_c' | 'give_or_take_c'>] }>()
const way = ref<'thermometer' | 'sugar'>('thermometer')
const set = ref(180)
const reads = ref<(number | undefined)[]>([undefined, undefined, undefined])
const dry = ref(185)
const melts = ref(190)
const found = ref<OvenMeasured>()
const problem = ref<Problem>()
const trial = computed<OvenTrial>(() =>
  way.value === 'sugar'
    ? { melt: { not_at_c: dry.value, at_c: melts.value } }
    : {
        readings: reads.value
          .filter((r): r is number => r !== undefined)
          .map((r) => ({ set_c: set.value, read_c: r })),
      },
)
const newest = newestOnly()
watch(trial, async (t) => {
  const isNewest = newest()
  found.value = undefined
  problem.value = undefined
  if (!t.melt && !t.readings?.length) return
  const got = await ask(api.POST('/api/v1/ovens/measure', { body: t }))
  if (!isNewest()) return
  found.value = got.data
  problem.value = got.problem
})
const take = () =>
  found.value &&
  emit('measured', { offset_c: found.value.offset_c, give_or_take_c: found.value.give_or_take_c })
</script>

<template>
  <section class="trial" aria-label="Calibrate the oven">
    <h2>Calibrate the oven</h2>
    <div class="choice" role="group" aria-label="Method">
      <button :aria-pressed="way === 'thermometer'" data-testid="by-thermometer" @click="way = 'thermometer'">
        thermometer
      </button>
      <button :aria-pressed="way === 'sugar'" data-testid="by-sugar" @click="way = 'sugar'">
        melting sugar
      </button>
    </div>
    <template v-if="way === 'thermometer'">
      <p class="small">
        Put an oven thermometer in the middle and heat the oven for half an hour. Read it three times, five
        minutes apart, without keeping the door open.
      </p>
      <div class="four">
        <AmountField
          label="Set to"
          dial
          kind="temperature"
          unit="°C"
          :digits="0"
          :step="5"
          :model-value="set"
          testid="trial-set"
          @update:model-value="(v) => (set = v ?? set)"
        />
        <AmountField
          v-for="(r, i) in reads"
          :key="i"
          :label="`Reading ${i + 1}`"
          kind="temperature"
          unit="°C"
          optional
          :digits="0"
          :step="1"
          :model-value="r"
          :testid="`trial-read-${i}`"
          @update:model-value="(v) => (reads = reads.map((x, j) => (j === i ? v : x)))"
        />
      </div>
    </template>
    <template v-else>
      <p class="small">
        {{
          `Put a spoon of white sugar on foil in the middle. Heat it 15 minutes at each setting, five degrees more each time. Sugar stays dry below ${warmth(186)} and melts above. Melted sugar causes burns: let it cool.`
        }}
      </p>
      <div class="four">
        <AmountField
          label="Still dry at"
          kind="temperature"
          unit="°C"
          :digits="0"
          :step="5"
          :model-value="dry"
          testid="trial-dry"
          @update:model-value="(v) => (dry = v ?? dry)"
        />
        <AmountField
          label="Melted at"
          kind="temperature"
          unit="°C"
          :digits="0"
          :step="5"
          :model-value="melts"
          testid="trial-melts"
          @update:model-value="(v) => (melts = v ?? melts)"
        />
      </div>
    </template>
    <p v-if="problem" class="wrong" role="alert">
      {{ reasonOf(problem) }}
    </p>
    <p v-if="found" class="found" role="status" data-testid="trial-says">
      <strong>{{ found.text }}</strong>
      {{ `Uncertainty ±${degrees(found.give_or_take_c)}.` }}
      <button class="push" data-testid="trial-take" @click="take">Use this result</button>
    </p>
  </section>
</template>

<style scoped>
.trial {
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  border-left: 5px solid var(--rim);
  background: var(--sunk);
}
.four {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px;
}
.found {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
@media (max-width: 43.75em) {
  .four {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
