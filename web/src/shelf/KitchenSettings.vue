<script setup lang="ts">
import { computed, ref } from 'vue'
import { inWords, type Problem, type Settings } from '@/api/client'
import BoldText from '@/parts/BoldText.vue'
import AmountField from '@/parts/AmountField.vue'
import { useKitchen } from '@/parts/useKitchen'
import { useShelf } from '@/parts/useShelf'
import { grams, heat, litres, mm } from '@/parts/words'
import { t, text } from '@/texts'

/** How the kitchen measures and what it reads: one switch each, and everything that is shown follows. */
const kitchen = useKitchen()
const shelf = useShelf()
const problem = ref<Problem>()
const settings = computed(() => kitchen.kitchen!.settings)

type Key = 'english' | 'weights' | 'decimal' | 'heat' | 'lengths' | 'cup' | 'spoon' | 'eggs'
const switches: { key: Key; title: string; options: [Settings[Key], string][]; about: string }[] = [
  {
    key: 'english',
    title: text('Words'),
    options: [
      ['uk', text('British: cornflour, hob')],
      ['us', text('American: cornstarch, stovetop')],
    ],
    about: text('Either is understood when it is typed. What you wrote yourself stays as you wrote it.'),
  },
  {
    key: 'decimal',
    title: text('A half is written'),
    options: [
      ['point', '0.5'],
      ['comma', '0,5'],
    ],
    about: text('Either is understood when it is typed.'),
  },
  {
    key: 'weights',
    title: text('Weights are shown in'),
    options: [
      ['g', 'grams'],
      ['oz', 'ounces'],
      ['spoons', text('cups and spoons')],
    ],
    about: text('Grams are the truth: in cups and spoons they stand beside, and fruit is always weighed.'),
  },
  {
    key: 'heat',
    title: text('Ovens'),
    options: [
      ['c', text('°C')],
      ['f', text('°F')],
      ['gas', text('gas mark')],
      ['fan', text('°C with fan')],
    ],
    about: text('With fan counts 20 °C less, by the everyday rule.'),
  },
  {
    key: 'lengths',
    title: text('Lengths'),
    options: [
      ['cm', text('cm and mm')],
      ['in', 'inches'],
    ],
    about: '',
  },
  {
    key: 'cup',
    title: text('A cup holds'),
    options: [
      ['us', text('236.6 ml, US')],
      ['metric', text('250 ml, metric')],
      ['imperial', text('284 ml, half a pint')],
    ],
    about: text(
      'A pint, a quart and a fluid ounce are imperial with the half-pint cup, and American otherwise.',
    ),
  },
  {
    key: 'spoon',
    title: text('A tablespoon holds'),
    options: [
      ['us', text('14.8 ml, US')],
      ['metric', text('15 ml, metric')],
      ['australian', text('20 ml, Australian')],
    ],
    about: text('A teaspoon is a third of it, of the Australian a quarter.'),
  },
  {
    key: 'eggs',
    title: text('Egg sizes'),
    options: [
      ['us', text('US: large is 50 g')],
      ['uk', text('UK and EU: large is 58 g')],
    ],
    about: text('Without the shell.'),
  },
]

/** What is set, with what stands where nothing was. */
const set = (key: Key) =>
  settings.value[key] ?? ({ english: 'uk', decimal: 'point' } as Partial<Settings>)[key]

async function put(says: string, change: Partial<Settings>) {
  problem.value = await shelf.change(says, 'settings', '', { ...settings.value, ...change })
}
const containers = computed(() => Object.entries(settings.value.containers).sort())
function contain(name: string, g: number | undefined) {
  const next = { ...settings.value.containers }
  if (g) next[name] = g
  else delete next[name]
  void put(nameOf(name), { containers: next })
}
const nameOf = (c: string) => {
  const [unit, ...key] = c.split(' ')
  const thing = key.join(' ')
  return thing
    ? t('A {unit} of {n}', {
        unit,
        n: (kitchen.fruit.get(thing)?.name ?? kitchen.ingredient.get(thing)?.name ?? thing).toLowerCase(),
      })
    : `A ${unit}`
}
</script>

<template>
  <section class="panel settings" :aria-label="$t('How we measure')">
    <div v-for="s in switches" :key="s.key" class="one">
      <h2>{{ $t(s.title) }}</h2>
      <div class="choice" role="group" :aria-label="$t(s.title)">
        <button
          v-for="[value, says] in s.options"
          :key="value"
          :aria-pressed="set(s.key) === value"
          :data-testid="`${s.key}-${value}`"
          @click="put(`${$t(s.title)}: ${$t(says)}`, { [s.key]: value })"
        >
          {{ $t(says) }}
        </button>
      </div>
      <p class="small quiet">{{ $t(s.about) }}</p>
    </div>
    <div class="one">
      <h2>{{ $t('How high the kitchen lies') }}</h2>
      <AmountField
        class="currency"
        :label="$t('Metres above the sea')"
        hide-label
        kind="percent"
        unit="m"
        :digits="0"
        :step="50"
        :model-value="settings.altitude_m ?? 0"
        testid="altitude"
        @update:model-value="(v) => put($t('How high the kitchen lies'), { altitude_m: v ?? 0 })"
      />
      <p class="small quiet">
        {{ $t('Water boils 1 °C cooler for each 300 m: fruit takes longer, and some starches never set.') }}
      </p>
    </div>
    <div class="one">
      <h2>{{ $t('Prices in') }}</h2>
      <el-input
        class="currency"
        :model-value="settings.currency"
        maxlength="8"
        :aria-label="$t('Currency')"
        data-testid="currency"
        @change="(v: string) => put($t('What prices are in'), { currency: v })"
      />
      <p class="small quiet">{{ $t('Prices a kilogram stand with the fruit and the stores.') }}</p>
    </div>
    <div class="one wide">
      <h2>{{ $t('What a container holds') }}</h2>
      <p v-if="!containers.length" class="quiet">
        {{ $t('Nothing yet. When a card says “1 punnet” or “a tin”, it is asked once and remembered here.') }}
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
          <button class="plain" @click="contain(name, undefined)">{{ $t('Forget') }}</button>
        </li>
      </ul>
    </div>
    <p v-if="problem" class="wrong wide" role="alert">
      {{ $t('{problem}. Nothing was changed.', { problem: inWords(problem) }) }}
    </p>
    <p class="sample wide" data-testid="sample">
      <BoldText
        :text="
          $t(
            'So it reads now: **{topping}** of topping, **{thick}** thick, cornflour **{flour}**, a dish of **{dish}**, an oven at **{heat}**.',
            { topping: grams(376), thick: mm(15), flour: grams(7.5), dish: litres(2100), heat: heat(180) },
          )
        "
      />
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
