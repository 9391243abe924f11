<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Problem, Settings } from '@/api/client'
import AmountField from '@/parts/AmountField.vue'
import { useKitchen } from '@/parts/useKitchen'
import { grams, heat, mm } from '@/parts/words'

/** How the kitchen measures and what it reads: one switch each, and everything that is shown follows. */
const kitchen = useKitchen()
const problem = ref<Problem>()
const settings = computed(() => kitchen.kitchen!.settings)

type Key = 'cup' | 'spoon' | 'eggs' | 'weights' | 'heat' | 'lengths'
const switches: { key: Key; title: string; options: [Settings[Key], string][]; about: string }[] = [
  {
    key: 'weights',
    title: 'Weights are shown in',
    options: [
      ['g', 'grams'],
      ['oz', 'ounces'],
      ['spoons', 'cups and spoons'],
    ],
    about: 'Grams are the truth: in cups and spoons they stand beside, and fruit is always weighed.',
  },
  {
    key: 'heat',
    title: 'Ovens',
    options: [
      ['c', '°C'],
      ['f', '°F'],
      ['gas', 'gas mark'],
      ['fan', '°C with fan'],
    ],
    about: 'With fan counts 20 °C less, by the everyday rule.',
  },
  {
    key: 'lengths',
    title: 'Lengths',
    options: [
      ['cm', 'cm and mm'],
      ['in', 'inches'],
    ],
    about: '',
  },
  {
    key: 'cup',
    title: 'A cup holds',
    options: [
      ['us', '236.6 ml, US'],
      ['metric', '250 ml, metric'],
      ['imperial', '284 ml, half a pint'],
    ],
    about: 'A pint, a quart and a fluid ounce are imperial with the half-pint cup, and American otherwise.',
  },
  {
    key: 'spoon',
    title: 'A tablespoon holds',
    options: [
      ['us', '14.8 ml, US'],
      ['metric', '15 ml, metric'],
      ['australian', '20 ml, Australian'],
    ],
    about: 'A teaspoon is a third of it, of the Australian a quarter.',
  },
  {
    key: 'eggs',
    title: 'Egg sizes',
    options: [
      ['us', 'US: large is 50 g'],
      ['uk', 'UK and EU: large is 58 g'],
    ],
    about: 'Without the shell.',
  },
]

async function put(change: Partial<Settings>) {
  problem.value = await kitchen.setSettings({ ...settings.value, ...change })
}
const containers = computed(() => Object.entries(settings.value.containers).sort())
function contain(name: string, g: number | undefined) {
  const next = { ...settings.value.containers }
  if (g) next[name] = g
  else delete next[name]
  void put({ containers: next })
}
const nameOf = (c: string) => {
  const [unit, ...key] = c.split(' ')
  const thing = key.join(' ')
  return thing
    ? `A ${unit} of ${(kitchen.fruit.get(thing)?.name ?? kitchen.ingredient.get(thing)?.name ?? thing).toLowerCase()}`
    : `A ${unit}`
}
</script>

<template>
  <section class="panel settings" aria-label="How we measure">
    <div v-for="s in switches" :key="s.key" class="one">
      <h2>{{ s.title }}</h2>
      <div class="choice" role="group" :aria-label="s.title">
        <button
          v-for="[value, says] in s.options"
          :key="value"
          :aria-pressed="settings[s.key] === value"
          :data-testid="`${s.key}-${value}`"
          @click="put({ [s.key]: value })"
        >
          {{ says }}
        </button>
      </div>
      <p class="small quiet">{{ s.about }}</p>
    </div>
    <div class="one">
      <h2>How high the kitchen lies</h2>
      <AmountField
        class="currency"
        label="Metres above the sea"
        hide-label
        kind="percent"
        unit="m"
        :digits="0"
        :step="50"
        :model-value="settings.altitude_m ?? 0"
        testid="altitude"
        @update:model-value="(v) => put({ altitude_m: v ?? 0 })"
      />
      <p class="small quiet">
        Water boils 1 °C cooler for each 300 m: fruit takes longer, and some starches never set.
      </p>
    </div>
    <div class="one">
      <h2>Prices in</h2>
      <el-input
        class="currency"
        :model-value="settings.currency"
        maxlength="8"
        aria-label="Currency"
        data-testid="currency"
        @change="(v: string) => put({ currency: v })"
      />
      <p class="small quiet">Prices a kilogram stand with the fruit and the stores.</p>
    </div>
    <div class="one wide">
      <h2>What a container holds</h2>
      <p v-if="!containers.length" class="quiet">
        Nothing yet. When a card says “1 punnet” or “a tin”, it is asked once and remembered here.
      </p>
      <ul v-else>
        <li v-for="[name, g] in containers" :key="name">
          <span>{{ nameOf(name) }}</span>
          <AmountField
            :label="nameOf(name)"
            hide-label
            kind="mass"
            unit="g"
            :digits="0"
            :step="10"
            :model-value="g"
            :testid="`container-${name}`"
            @update:model-value="(v) => contain(name, v)"
          />
          <button class="plain" @click="contain(name, undefined)">Forget</button>
        </li>
      </ul>
    </div>
    <p v-if="problem" class="wrong wide" role="alert">
      {{ problem.title }}{{ problem.errors?.map((e) => `: ${e.detail}`).join('') }}. Nothing was changed.
    </p>
    <p class="sample wide" data-testid="sample">
      So it reads now: <strong>{{ grams(376) }}</strong> of topping, <strong>{{ mm(15) }}</strong> thick, in
      an oven at <strong>{{ heat(180) }}</strong>.
    </p>
  </section>
</template>

<style scoped>
.settings {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 32px;
  padding: 14px 18px 18px;
}
.one {
  display: grid;
  align-content: start;
  gap: 5px;
}
.wide {
  grid-column: 1 / -1;
}
.currency {
  width: 110px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 300px) 140px auto;
  align-items: center;
  gap: 12px;
}
.sample {
  padding: 10px 12px;
  background: var(--sunk);
  font-size: 18px;
}
@media (max-width: 900px) {
  .settings {
    grid-template-columns: 1fr;
  }
}
</style>
