<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, inWords, type DessertCost, type OtherCost } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { usePlan } from '@/stores/usePlan'
import { grams, integer, money, percent } from '@/format/amounts'
import { useBakeQuery } from '../useBakeQuery'

/** What its ingredients cost, by the kitchen's own prices; what has none is named, and never counted as nothing. */
const kitchen = useKitchen()
const plan = usePlan()
const open = ref(false)
const { data: cost, problem } = useBakeQuery((body, signal) =>
  ask(api.POST('/api/v1/bench/cost', { body, signal })),
)
const currency = computed(() => kitchen.kitchen?.settings.currency ?? '')
/** What it is made up of; ingredients alone, as long as nothing else is reported. */
function partsOf(c: DessertCost) {
  const others = [
    ['oven', c.oven_minor],
    ['hands', c.hands_minor],
    ['packaging', c.packaging_minor],
  ] as const
  const told = others.filter(([, minor]) => minor)
  return told.length
    ? [['ingredients', c.ingredients_minor] as const, ...told]
        .map(([what, minor]) => `${what} ${money(minor, currency.value)}`)
        .join(', ')
    : 'ingredients alone, as bought'
}
/** What a change does to it: asked for when somebody wants to know, and again when the dessert is another. */
const others = shallowRef<OtherCost[]>()
const compared = ref(false)
const newest = newestOnly()
watch([cost, compared], async () => {
  const isNewest = newest()
  const body = plan.question
  if (!compared.value || !body) return
  const got = await ask(api.POST('/api/v1/bench/cost/alternatives', { body }))
  if (isNewest()) others.value = got.data?.others
})
const differs = (minor: number) =>
  minor ? `${money(Math.abs(minor), currency.value)} ${minor > 0 ? 'more' : 'less'}` : 'the same'
const minorOf = (key: string) => cost.value?.lines.find((l) => l.key === key)?.minor ?? 0
</script>

<template>
  <div class="cost" data-testid="cost">
    <p v-if="problem" class="wrong" role="alert">{{ inWords(problem) }}.</p>
    <template v-else-if="cost">
      <p v-if="cost.total_minor !== null">
        <strong class="sum">{{ money(cost.portion_minor ?? 0, currency) }}</strong>
        {{
          `per portion; ${money(cost.total_minor, currency)} for ${integer(cost.portions)}: ${partsOf(cost)}.`
        }}
      </p>
      <p v-if="cost.price_minor !== null && cost.food_share_pct !== null" data-testid="sells-for">
        {{
          `Sold at ${money(cost.price_minor, currency)} a portion, ingredients are ${percent(cost.food_share_pct)} of it without tax; ${money(cost.margin_minor ?? 0, currency)} are left after all costs.`
        }}
      </p>
      <p v-else-if="cost.unpriced.length < cost.lines.length">
        <strong class="sum">{{ money(cost.ingredients_minor, currency) }}</strong>
        {{ `for what has a price. Without one: ${cost.unpriced.map(kitchen.calledOf).join(', ')}.` }}
      </p>
      <p v-else class="quiet">
        Nothing of it has a price yet. Enter prices per kilogram under
        <RouterLink to="/kitchen/fruit">fruit</RouterLink> and the
        <RouterLink to="/kitchen/ingredients">stores</RouterLink>.
      </p>
      <p v-if="cost.dearest.length" class="small">
        {{
          `Largest items: ${cost.dearest.map((k) => `${kitchen.calledOf(k)} ${money(minorOf(k), currency)}`).join(', ')}.`
        }}
        <button class="plain" :aria-expanded="open" data-testid="cost-lines" @click="open = !open">
          {{ open ? 'Less' : 'Each' }}
        </button>
      </p>
      <table v-if="open">
        <tbody>
          <tr v-for="l in cost.lines" :key="l.key">
            <th scope="row">{{ kitchen.calledOf(l.key) }}</th>
            <td>{{ grams(l.bought_g) }}</td>
            <td>{{ l.minor === null ? 'no price' : money(l.minor, currency) }}</td>
          </tr>
        </tbody>
      </table>
      <button
        class="plain start"
        :aria-expanded="compared"
        data-testid="cost-others"
        @click="compared = !compared"
      >
        {{ compared ? 'Hide other dishes and swaps' : 'Compare dishes and swaps…' }}
      </button>
      <p v-if="compared && !others" class="quiet" role="status">
        Calculating the price for each dish and swap…
      </p>
      <table v-else-if="compared && others?.length" data-testid="other-costs">
        <tbody>
          <tr v-for="(o, i) in others" :key="i">
            <th scope="row">
              {{ o.text }}<span v-if="o.texture" class="small quiet">{{ ` ${o.texture}` }}</span>
            </th>
            <template v-if="o.portion_minor !== null">
              <td>{{ money(o.portion_minor, currency) }}</td>
              <td>{{ o.more_minor === null ? '' : differs(o.more_minor) }}</td>
            </template>
            <td v-else colspan="2">{{ `no price: ${o.unpriced.map(kitchen.calledOf).join(', ')}` }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="compared" class="quiet">
        There is no other dish in the kitchen and no swap for the topping.
      </p>
    </template>
  </div>
</template>

<style scoped>
.cost {
  display: grid;
  gap: 4px;
}
td {
  white-space: nowrap;
}
td[colspan] {
  white-space: normal;
}
.start {
  justify-self: start;
}
.sum {
  font-size: 1.5rem;
}
table {
  width: 100%;
  border-collapse: collapse;
}
tr {
  border-bottom: 1px solid var(--line);
}
th {
  font-weight: 400;
  text-align: left;
}
td {
  text-align: right;
}
</style>
