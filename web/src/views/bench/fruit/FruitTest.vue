<script setup lang="ts">
import { reactive, ref } from 'vue'
import { api, ask, faultAt, type FruitInput, type Problem } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { grams, integer } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'

/** Today's fruit, tried: a sample is sugared, kept warm, and its juice weighed. The crate's release follows. */
const props = defineProps<{ fruit: FruitInput; index: number; name: string }>()
const kitchen = useKitchen()
const dessert = useDessert()
const sample = reactive({ fruit_g: 100, sugar_g: 15, juice_g: undefined as number | undefined })
const problem = ref<Problem>()
const label = ref('')

async function tryIt() {
  if (sample.juice_g === undefined) return
  label.value = ''
  const got = await ask(
    api.POST('/api/v1/fruit-test', {
      body: {
        fruit: props.fruit.key,
        frozen: props.fruit.frozen,
        fruit_g: sample.fruit_g,
        sugar_g: sample.sugar_g,
        juice_g: sample.juice_g,
        own: kitchen.own,
      },
    }),
  )
  problem.value = got.problem
  if (!got.data) return
  const { release, table_release } = got.data
  label.value = `${got.data.text} It releases ${integer(100 * release)} % of its water; table value: ${integer(100 * table_release)} %.`
  dessert.change(
    'tested fruit',
    (d) => (d.request.fruits[props.index]!.measured_release = Math.round(release * 1000) / 1000),
  )
}
const back = () => {
  label.value = ''
  sample.juice_g = undefined
  dessert.change('table value for the fruit', (d) => delete d.request.fruits[props.index]!.measured_release)
}
const fault = (field: string) => faultAt(problem.value, `/${field}`)
</script>

<template>
  <details class="test" :open="!!fruit.measured_release">
    <summary :data-testid="`test-${fruit.key}`">
      Juiciness test
      <template v-if="fruit.measured_release">{{
        `Measured: ${integer(100 * fruit.measured_release)} % of its water`
      }}</template>
    </summary>
    <ol>
      <li>
        {{
          `Cut ${grams(sample.fruit_g)} of ${name} as for the dish, and toss it with ${grams(sample.sugar_g)} of sugar.`
        }}
      </li>
      <li>
        Keep it warm for five minutes, in a small pan at the lowest heat or in a bowl over hot water. Stir
        once.
      </li>
      <li>
        Tip it into a sieve over a bowl on the scale. Wait until it only drips, then read the weight of the
        juice.
      </li>
    </ol>
    <div class="three">
      <AmountField
        label="Fruit"
        kind="mass"
        unit="g"
        :step="10"
        :model-value="sample.fruit_g"
        :problem="fault('fruit_g')"
        :testid="`test-fruit-${fruit.key}`"
        @update:model-value="(v) => (sample.fruit_g = v ?? 100)"
      />
      <AmountField
        label="Sugar"
        kind="mass"
        unit="g"
        :step="1"
        :model-value="sample.sugar_g"
        :problem="fault('sugar_g')"
        @update:model-value="(v) => (sample.sugar_g = v ?? 15)"
      />
      <AmountField
        label="Juice drained"
        kind="mass"
        unit="g"
        :step="1"
        optional
        :model-value="sample.juice_g"
        :problem="fault('juice_g')"
        :testid="`test-juice-${fruit.key}`"
        @update:model-value="(v) => ((sample.juice_g = v), void tryIt())"
      />
    </div>
    <p v-if="problem && !problem.errors" class="wrong" role="alert">{{ problem.title }}</p>
    <p v-if="label" class="small" role="status" :data-testid="`tested-${fruit.key}`">{{ label }}</p>
    <button v-if="fruit.measured_release" class="plain" :data-testid="`untest-${fruit.key}`" @click="back">
      Use the table value
    </button>
  </details>
</template>

<style scoped>
.test {
  grid-column: 1 / -1;
}
summary {
  min-height: 40px;
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 0.9375rem;
  color: var(--rim-ink);
  font-weight: 600;
  cursor: pointer;
}
summary::before {
  content: '+';
  width: 14px;
}
.test[open] summary::before {
  content: '−';
}
ol {
  margin: 0 0 8px;
  padding-left: 20px;
  font-size: 0.9375rem;
}
.three {
  display: grid;
  grid-template-columns: 1fr 1fr 1.1fr;
  gap: 8px;
}
</style>
