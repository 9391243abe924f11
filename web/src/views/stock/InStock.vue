<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue'
import { api, ask, inWords, upon, type CardUse, type Problem, type Stock } from '@/api/client'
import { newestOnly } from '@/api/newest'
import AmountField from '@/ui/AmountField.vue'
import UndoRedo from '@/ui/UndoRedo.vue'
import { useClash } from '@/stores/useClash'
import { useFetched } from '@/ui/useFetched'
import { useHistory } from '@/stores/useHistory'
import { useKitchen } from '@/stores/useKitchen'
import { dateOf, inWords as dayInWords } from '@/format/minutes'
import ShopPacks from './ShopPacks.vue'
import { bindKeys } from '@/ui/useKeys'

/** Stock: how much of it, and until when it must be used. */
const kitchen = useKitchen()
const clash = useClash()
const stored = shallowRef<{ stock: Stock; revision: string }>()
const problem = ref<Problem>()
const path = computed(() => ({ kitchen: kitchen.kitchen!.id }))
const url = '/api/v1/kitchens/{kitchen}/stock'
const { trouble } = useFetched(async () => {
  const got = await ask(api.GET(url, { params: { path: path.value } }))
  if (got.data) stored.value = got.data
  return got.problem
})
async function put(body: Stock) {
  const got = await clash.settle('Stock', stored.value?.revision, (ifMatch) =>
    ask(api.PUT(url, { params: { path: path.value, header: upon(ifMatch) }, body })),
  )
  if (got.data) stored.value = got.data
  return got.theirs ? clash.keptTheirs : got.problem
}
const history = useHistory<{ label: string; was: Stock; is: Stock }>('mabbin.stock', (s, side) =>
  put(s[side]),
)
const change = (label: string, how: (s: Stock) => void) =>
  history.inTurn(async () => {
    if (!stored.value) return
    const was = JSON.parse(JSON.stringify(stored.value.stock)) as Stock
    const is = JSON.parse(JSON.stringify(was)) as Stock
    how(is)
    problem.value = await put(is)
    if (!problem.value) history.did({ label, was, is })
  })
const { nameOf } = kitchen
const things = computed(() =>
  [...kitchen.fruits, ...kitchen.ingredients].filter(
    (t) => !stored.value?.stock.items.some((x) => x.key === t.key),
  ),
)
/** What must go first stands first. */
const sorted = computed(() =>
  (stored.value?.stock.items ?? [])
    .map((x, i) => ({ ...x, i }))
    .sort(
      (a, b) =>
        (a.until || '9999').localeCompare(b.until || '9999') || nameOf(a.key).localeCompare(nameOf(b.key)),
    ),
)
const currency = computed(() => kitchen.kitchen?.settings.currency ?? '')
interface Rate {
  key: keyof NonNullable<Stock['rates']>
  label: string
  unit: string
  money?: boolean
  usual: string
}
const rates: Rate[] = [
  { key: 'oven_kw', label: 'Power of an oven', unit: 'kW', usual: '2.5' },
  { key: 'minor_per_kwh', label: 'Price of 1 kWh', unit: '', money: true, usual: 'not counted' },
  { key: 'minor_per_h', label: 'Labour per hour', unit: '', money: true, usual: 'not counted' },
  { key: 'packaging_minor', label: 'Packaging per portion', unit: '', money: true, usual: 'none' },
  { key: 'wanted_share_pct', label: 'Ingredient share of the price', unit: '%', usual: '30' },
  { key: 'tax_pct', label: 'Tax on the price', unit: '%', usual: 'none' },
  { key: 'ending_minor', label: 'Round prices to', unit: '', money: true, usual: '0.10' },
]
/** Money is kept in its smallest coin. */
const coins = (r: Rate) => (r.money ? 100 : 1)
const ofRate = (r: Rate) => {
  const v = stored.value?.stock.rates?.[r.key]
  return v === undefined ? undefined : v / coins(r)
}
const setRate = (r: Rate, v: number | undefined) =>
  change(`${r.label}, told`, (s) => {
    const others = { ...s.rates }
    delete others[r.key]
    s.rates = v ? { ...others, [r.key]: Math.round(v * coins(r) * 100) / 100 } : others
  })
const picked = ref('')
function add(key: string) {
  picked.value = ''
  if (key)
    void change(`${nameOf(key)}, in stock`, (s) => s.items.push({ key, g: 500, since: dateOf(new Date()) }))
}
/** What uses a thing up. */
const using = ref('')
const uses = shallowRef<CardUse[]>()
const newest = newestOnly()
async function useUp(key: string) {
  const isNewest = newest()
  using.value = using.value === key ? '' : key
  uses.value = undefined
  if (!using.value) return
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/stock/{key}/uses', { params: { path: { ...path.value, key } } }),
  )
  if (!isNewest()) return
  problem.value = got.problem
  uses.value = got.data?.uses ?? []
}
onBeforeUnmount(
  bindKeys('Stock', [
    { key: 'u', label: 'undo', does: () => void history.undo() },
    { key: 'r', label: 'redo', does: () => void history.redo() },
  ]),
)
</script>

<template>
  <section class="panel stock" aria-labelledby="stock-title">
    <div class="head">
      <h2 id="stock-title">In stock</h2>
      <span class="acts"
        ><UndoRedo
          :undos="history.undos.value"
          :redos="history.redos.value"
          @undo="history.undo()"
          @redo="history.redo()"
      /></span>
    </div>
    <p v-if="trouble" class="wrong" role="alert">{{ `${trouble.title}. Trying again every few seconds.` }}</p>
    <p v-if="problem" class="wrong" role="alert">{{ inWords(problem) }}.</p>
    <p v-if="stored && !sorted.length" class="quiet">
      Nothing in stock yet. Add items here, or tick them on the shopping list.
    </p>
    <ul>
      <li v-for="x in sorted" :key="x.key" :data-testid="`stock-${x.key}`">
        <span
          ><strong>{{ nameOf(x.key) }}</strong
          ><span v-if="x.since" class="small quiet">{{ ` since ${dayInWords(x.since)}` }}</span></span
        >
        <AmountField
          :label="nameOf(x.key)"
          hide-label
          kind="mass"
          unit="g"
          :digits="0"
          :step="50"
          :ingredient="x.key"
          :model-value="x.g"
          :testid="`stock-g-${x.key}`"
          @update:model-value="
            (v) => v !== undefined && change(`${nameOf(x.key)}, counted`, (s) => (s.items[x.i]!.g = v))
          "
        />
        <label
          >until
          <input
            type="date"
            :value="x.until ?? ''"
            @change="
              (e) =>
                change(`${nameOf(x.key)}, until`, (s) => {
                  const until = (e.target as HTMLInputElement).value
                  if (until) s.items[x.i]!.until = until
                  else delete s.items[x.i]!.until
                })
            "
        /></label>
        <button
          class="plain"
          :aria-expanded="using === x.key"
          :data-testid="`use-up-${x.key}`"
          @click="useUp(x.key)"
        >
          Ideas to use it up
        </button>
        <button
          class="plain"
          :aria-label="`Mark as used up: ${nameOf(x.key)}`"
          @click="change(`${nameOf(x.key)}, removed from stock`, (s) => s.items.splice(x.i, 1))"
        >
          Mark as used up
        </button>
        <div v-if="using === x.key" class="uses" data-testid="uses">
          <p v-if="!uses" class="quiet" role="status">Checking every card and dish…</p>
          <p v-else-if="!uses.length" class="quiet">No card uses it, or no dish is small enough.</p>
          <p v-for="u in uses" :key="u.card">
            <RouterLink :to="{ path: '/cards', query: { words: u.name } }">{{ u.name }}</RouterLink>
            {{ u.text }}
          </p>
        </div>
      </li>
    </ul>
    <el-select
      v-model="picked"
      filterable
      class="add"
      placeholder="Add to stock"
      aria-label="Add to stock"
      data-testid="stock-add"
      @change="add"
    >
      <el-option
        v-for="t in things"
        :key="t.key"
        :value="t.key"
        :label="t.name"
        :data-testid="`stock-add-${t.key}`"
      />
    </el-select>
  </section>
  <ShopPacks v-if="stored" :store="stored.stock" @change="(label, how) => void change(label, how)" />
  <section v-if="stored" class="panel stock" aria-labelledby="rates-title">
    <h2 id="rates-title">Costs: energy, labour, packaging</h2>
    <p class="quiet small">
      Empty: not counted, or the usual value. The cost of a dessert is shown on the Bench, under Finish.
    </p>
    <div class="rates">
      <AmountField
        v-for="r in rates"
        :key="r.key"
        :label="r.label"
        kind="percent"
        :unit="r.money ? currency : r.unit"
        optional
        :digits="2"
        :step="1"
        :instead="r.usual"
        :model-value="ofRate(r)"
        :testid="`rate-${r.key}`"
        @update:model-value="(v) => setRate(r, v)"
      />
    </div>
  </section>
</template>

<style scoped>
.uses {
  grid-column: 1 / -1;
  display: grid;
  gap: 4px;
  padding: 4px 0 8px 16px;
}
.rates {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 10px;
}
.stock {
  display: grid;
  gap: 8px;
  padding: 8px 16px 16px;
}
.head,
.acts {
  display: flex;
  align-items: center;
  gap: 6px;
}
.acts {
  margin-left: auto;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(160px, 1.2fr) 170px 230px 150px auto;
  align-items: center;
  gap: 12px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
input[type='date'] {
  min-height: 44px;
  padding: 0 8px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
}
.link {
  display: inline-flex;
  align-items: center;
}
.add {
  max-width: 340px;
}
@media (max-width: 62em) {
  li {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
