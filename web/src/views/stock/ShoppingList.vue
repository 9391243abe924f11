<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, ask, inWords, type Problem, type ShoppingList } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { hand } from '@/ui/exportFormats'
import { useKitchen } from '@/stores/useKitchen'
import { money as inMoney } from '@/format/amounts'
import { toCounts, nothing, type Wanted } from './useWanted'

/** What to buy, as it stands in a shop: ticked off by touch, also where there is no line. */
const props = defineProps<{ wanted: Wanted }>()
const kitchen = useKitchen()
/** The list as it was answered last: it is there in a shop without a line. */
const list = useLocalStorage<ShoppingList | null>('mabbin.to-buy', null, {
  serializer: { read: JSON.parse, write: JSON.stringify },
})
const ticked = useLocalStorage<string[]>('mabbin.bought', [])
const problem = ref<Problem>()
const taken = ref(false)
const money = (minor: number) => inMoney(minor, kitchen.kitchen?.settings.currency ?? '')
const newest = newestOnly()
async function look() {
  const isNewest = newest()
  if (!kitchen.kitchen || nothing(props.wanted)) {
    if (nothing(props.wanted)) list.value = null
    return
  }
  const got = await ask(
    api.POST('/api/v1/kitchens/{kitchen}/shopping-list', {
      params: { path: { kitchen: kitchen.kitchen.id } },
      body: toCounts(props.wanted),
    }),
  )
  if (!isNewest()) return
  problem.value = got.problem
  if (got.data) list.value = got.data
}
watch(
  () => JSON.stringify([toCounts(props.wanted), kitchen.kitchen?.id]),
  () => {
    taken.value = false
    void look()
  },
  { immediate: true },
)
const lines = computed(() => list.value?.sections.flatMap((s) => s.lines) ?? [])
const has = (key: string) => ticked.value.includes(key)
const tick = (key: string) =>
  (ticked.value = has(key) ? ticked.value.filter((k) => k !== key) : [...ticked.value, key])
const bought = computed(() => lines.value.filter((l) => has(l.key) && l.bought_g))
/** A purchase that is sent again after a broken line keeps its id, and is added once. */
let sent = { lines: '', id: '' }
async function takeIn() {
  const lines = bought.value.map((l) => ({ key: l.key, g: l.bought_g }))
  const as = JSON.stringify(lines)
  if (sent.lines !== as) sent = { lines: as, id: crypto.randomUUID() }
  const got = await ask(
    api.POST('/api/v1/kitchens/{kitchen}/stock/purchases', {
      params: { path: { kitchen: kitchen.kitchen!.id } },
      body: { id: sent.id, lines },
    }),
  )
  problem.value = got.problem
  if (got.problem) return
  sent = { lines: '', id: '' }
  ticked.value = []
  taken.value = true
  void look()
}
const asText = () =>
  (list.value?.sections ?? [])
    .map((s) =>
      [s.title, ...s.lines.filter((l) => l.bought_g).map((l) => `- ${l.name}: ${l.text}`)].join('\n'),
    )
    .join('\n\n')
const copied = ref(false)
async function copy() {
  await navigator.clipboard.writeText(asText())
  copied.value = true
}
const cell = (x: string | number) => `"${`${x}`.replaceAll('"', '""')}"`
const csv = () =>
  hand(
    new Blob(
      [
        ['what,how,grams', ...lines.value.map((l) => [l.name, l.text, l.bought_g].map(cell).join(','))].join(
          '\n',
        ),
      ],
      { type: 'text/csv;charset=utf-8' },
    ),
    'to-buy.csv',
  )
const print = () => window.print()
</script>

<template>
  <section class="panel list" aria-labelledby="buy-title">
    <div class="head">
      <h2 id="buy-title">Shopping list</h2>
      <strong v-if="list && lines.length" class="sum" data-testid="buy-sum">{{
        `${money(list.minor)}${list.unpriced ? `, and ${list.unpriced} without a price` : ''}`
      }}</strong>
      <span v-if="lines.length" class="acts no-print">
        <button class="push" data-testid="buy-copy" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</button>
        <button class="push" data-testid="buy-csv" @click="csv">CSV</button>
        <button class="push" @click="print">Print</button>
      </span>
    </div>
    <p v-if="problem" class="wrong" role="alert">{{ inWords(problem) }}. The list below is from before.</p>
    <p v-if="nothing(wanted)" class="empty" data-testid="buy-nothing">
      Choose a day or cards to see what to buy. Waste from peel and stones is included, and amounts are in
      packs that shops sell.
    </p>
    <p v-if="taken" class="ok" role="status">Added to stock.</p>
    <div v-for="s in list?.sections ?? []" :key="s.title">
      <h3>{{ s.title }}</h3>
      <ul>
        <li v-for="l in s.lines" :key="l.key" :class="{ done: has(l.key) || !l.bought_g }">
          <label :data-testid="`buy-${l.key}`">
            <input type="checkbox" :checked="has(l.key)" :disabled="!l.bought_g" @change="tick(l.key)" />
            <strong class="text">{{ l.text }}</strong>
            <span class="name">{{ l.name }}</span>
            <span class="quiet small">{{
              [l.has, l.left, l.guessed && l.bought_g ? 'usual packs' : ''].filter(Boolean).join(' · ')
            }}</span>
            <span class="price">{{
              l.minor === null ? (l.bought_g ? 'no price' : '') : l.minor ? money(l.minor) : ''
            }}</span>
          </label>
        </li>
      </ul>
    </div>
    <div v-if="bought.length" class="dialog-acts no-print">
      <button class="push main" data-testid="take-in" @click="takeIn">
        {{ `Add to stock: ${bought.length} ticked` }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.list {
  padding: 8px 16px 16px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
}
.sum {
  font-size: 1.25rem;
}
.acts {
  display: flex;
  gap: 6px;
  margin-left: auto;
}
h3 {
  margin-top: 10px;
  border-bottom: 1.5px solid var(--rim);
  color: var(--rim-ink);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
label {
  display: grid;
  grid-template-columns: 34px minmax(120px, 0.8fr) minmax(0, 1.2fr) minmax(0, 1.3fr) 90px;
  align-items: center;
  gap: 10px;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
input {
  width: 26px;
  height: 26px;
  accent-color: var(--rim);
}
.text {
  font-size: 1.1875rem;
}
.price {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.done .text,
.done .name {
  color: var(--ink-2);
}
.done:has(input:checked) .name {
  text-decoration: line-through;
}
.ok {
  color: var(--settled);
  font-weight: 600;
}
.empty {
  padding: 30px 12px;
  text-align: center;
  font-size: 1.125rem;
}
@media (max-width: 43.75em) {
  label {
    grid-template-columns: 34px 1fr auto;
  }
  label > .quiet {
    grid-column: 2 / -1;
  }
}
</style>
