<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Basis, faultAt, inWords, type OwnRow, type Problem } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import FruitMark from '@/ui/FruitMark.vue'
import CompositionBar from './CompositionBar.vue'
import { type Kind, useKitchen } from '@/stores/useKitchen'
import { useEquipment } from '@/stores/useEquipment'
import { fine, lower, short } from '@/format/amounts'

/** Rows of one table: every figure with where it is from, and the kitchen's own in addition to it. */
const props = defineProps<{ kind: Kind }>()
const kitchen = useKitchen()
const equipment = useEquipment()
const find = ref('')
const chosen = ref('')
const problem = ref<Problem>()
const naming = ref(false)
const name = ref('')

type Row = { key: string } & (
  | (typeof kitchen.fruits)[number]
  | (typeof kitchen.ingredients)[number]
  | (typeof kitchen.thickeners)[number]
  | (typeof kitchen.toppings)[number]
)
const tables = {
  fruit: 'fruits',
  ingredient: 'ingredients',
  thickener: 'thickeners',
  topping: 'toppings',
} as const
const rows = computed<Row[]>(() => kitchen[tables[props.kind]])
const mine = computed(() => kitchen.own[tables[props.kind]] ?? {})
/** A fruit or a thing from a packet may be one that the tables do not have. */
const ofOurOwn = computed(() => props.kind === 'fruit' || props.kind === 'ingredient')
/** What a row is found by, in addition to its name. */
const sort = (r: Row) => ('role' in r ? r.role : 'group' in r ? r.group : 'family' in r ? r.family : '')
const shown = computed(() => {
  const words = find.value.trim().toLowerCase()
  return rows.value.filter((r) => !words || `${r.name} ${sort(r)}`.toLowerCase().includes(words))
})
const row = computed(() => rows.value.find((r) => r.key === chosen.value) ?? rows.value[0])
const own = computed<OwnRow | undefined>(() => (row.value ? mine.value[row.value.key] : undefined))
/** The table's row below the kitchen's own. */
const table = computed(() => {
  const key = own.value?.copy_of || row.value?.key
  return (kitchen.larder?.[tables[props.kind]] as Row[] | undefined)?.find((r) => r.key === key)
})
const figures = computed(() => kitchen.larder?.figures.filter((f) => f.kind === props.kind) ?? [])
/** What of the row is reported in per cent, its own figure before the table's. */
const composition = computed(() =>
  figures.value
    .filter((f) => f.unit === '%' && !f.column.includes('_eq_')) // what it is equal to is no part of it
    .map((f) => ({
      name: f.name,
      pct: own.value?.values?.[f.column] ?? table.value?.figures[f.column] ?? 0,
    })),
)
const basisOf = (b: Basis | undefined): string => {
  const r = table.value
  const of: Basis | undefined = b ?? (r && ('basis' in r ? r.basis : r.composition_basis))
  return of ? (kitchen.word('basis', of) ?? of) : ''
}
watch(
  () => equipment.touched,
  (t) => {
    if (t?.thing === props.kind && rows.value.some((r) => r.key === t.id)) chosen.value = t.id
  },
)
watch(chosen, () => {
  problem.value = undefined
  naming.value = false
})

/** Changes what the kitchen has of its own in this row, or goes back to the table. */
async function put(label: string, key: string, is: OwnRow | undefined) {
  problem.value = await equipment.change(label, props.kind, key, is)
}
async function set(column: string, v: number | undefined) {
  const r = row.value
  if (!r) return
  const values = { ...own.value?.values }
  if (v === undefined) delete values[column]
  else values[column] = v
  const nothing = !Object.keys(values).length && !own.value?.copy_of
  const figure = figures.value.find((f) => f.column === column)?.name ?? column
  await put(`${short(r.name)}, ${lower(figure)}`, r.key, nothing ? undefined : { ...own.value, values })
}
async function contains(list: string[]) {
  if (!row.value || !own.value) return
  await put(`${short(row.value.name)}, allergens`, row.value.key, {
    ...own.value,
    allergens: list,
  })
}
async function dropAll() {
  const r = row.value
  if (!r) return
  await put(`${short(r.name)}: own figures reset`, r.key, undefined)
}
async function copy() {
  const r = row.value
  const called = name.value.trim()
  if (!r || !called) return
  const key = `own-${called
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40)}-${crypto.randomUUID().slice(0, 6)}`
  await put(`${called}, new`, key, {
    copy_of: own.value?.copy_of || r.key,
    name: called,
    values: { ...own.value?.values },
  })
  if (problem.value) return
  naming.value = false
  name.value = ''
  chosen.value = key
}
const fault = (column: string) => faultAt(problem.value, `/values/${column}`)
</script>

<template>
  <div class="two">
    <section class="panel list" :aria-label="kind === 'fruit' ? 'Fruit' : 'Ingredients'">
      <slot />
      <el-input
        v-model="find"
        :placeholder="kind === 'fruit' ? 'Find a fruit' : 'Find by name or kind: flour, fat, spice, …'"
        aria-label="Find"
        clearable
        data-testid="find-row"
      />
      <ul>
        <li v-for="r in shown" :key="r.key">
          <button :aria-pressed="row?.key === r.key" :data-testid="`row-${r.key}`" @click="chosen = r.key">
            <FruitMark v-if="'juice_colour' in r" :fruit="r" />
            <span>{{ r.name }}</span>
            <span class="small quiet">{{ mine[r.key] ? 'own' : kind === 'fruit' ? '' : sort(r) }}</span>
          </button>
        </li>
        <li v-if="!shown.length" class="quiet none">Nothing found. Clear the search to see all.</li>
      </ul>
    </section>
    <section v-if="row && table" class="panel edit" aria-label="Figures">
      <div class="head">
        <FruitMark v-if="'juice_colour' in row" class="large" :fruit="row" />
        <h2>{{ row.name }}</h2>
        <span v-if="own?.copy_of" class="quiet">{{ `based on ${lower(short(table.name))}` }}</span>
      </div>
      <p v-if="'allergens' in row" class="small" data-testid="allergens">
        <strong>Contains:</strong>
        {{
          kitchen.allergens(row.allergens) ||
          (row.check_label ? 'not known' : 'none of the listed allergens')
        }}.
        <template v-if="row.check_label"
          ><strong>Check the label</strong>: unknown does not mean “none”.</template
        >
        This list does not rule out cross-contact.
      </p>
      <p v-else-if="'how' in row" class="small quiet">{{ `Used as: ${row.how}.` }}</p>
      <p v-else-if="'make_ahead' in row" class="small quiet">{{ `Make ahead: ${row.make_ahead}.` }}</p>
      <p v-else class="small quiet">
        {{ row.precook === 'none' ? 'Used raw' : `Cooking it first is ${row.precook}`
        }}{{ row.browns_in_air ? '; turns brown when cut' : '' }}.
      </p>
      <CompositionBar
        v-if="composition.length"
        :parts="composition"
        :colour="'juice_colour' in row ? row.juice_colour : undefined"
      />
      <table>
        <thead>
          <tr>
            <th scope="col">Figure</th>
            <th scope="col" class="n">Table</th>
            <th scope="col">Own value</th>
            <th scope="col">Source of the table value</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in figures" :key="f.column">
            <th scope="row">
              {{ f.name }}
              <span class="small quiet">{{
                f.column === 'price_per_kg' ? `${kitchen.kitchen?.settings.currency} ${f.unit}` : f.unit
              }}</span>
            </th>
            <td class="n" :class="{ over: own?.values?.[f.column] !== undefined }">
              {{ table.figures[f.column] === undefined ? '–' : fine(table.figures[f.column]!) }}
            </td>
            <td>
              <AmountField
                :label="`Own value: ${f.name}`"
                hide-label
                kind="percent"
                unit=""
                optional
                :digits="3"
                :step="f.high <= 1 ? 0.05 : 1"
                instead="table value"
                :model-value="own?.values?.[f.column]"
                :problem="fault(f.column)"
                :testid="`own-${f.column}`"
                @update:model-value="(v) => set(f.column, v)"
              />
            </td>
            <td class="small quiet">
              {{ f.column === 'price_per_kg' ? 'prices are your own' : basisOf(f.basis) }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="problem" class="wrong" role="alert">
        {{ inWords(problem) }}
      </p>
      <div v-if="own?.copy_of && kind === 'ingredient'" class="field">
        <label for="own-contains">Allergens (from the label)</label>
        <el-select
          id="own-contains"
          :model-value="own.allergens ?? ('allergens' in table ? table.allergens : [])"
          multiple
          data-testid="own-allergens"
          @update:model-value="contains"
        >
          <el-option
            v-for="a in kitchen.larder?.allergens"
            :key="a.key"
            :value="a.key"
            :label="a.name"
            :data-testid="`contains-${a.key}`"
          />
        </el-select>
      </div>
      <div class="acts">
        <button v-if="own" class="push" data-testid="drop-own" @click="dropAll">
          {{ own.copy_of ? 'Delete' : 'Reset to table values' }}
        </button>
        <template v-if="!ofOurOwn" />
        <template v-else-if="naming">
          <el-input
            v-model="name"
            class="own-name"
            maxlength="80"
            placeholder="Name"
            aria-label="Name"
            data-testid="own-name"
          />
          <button class="push main" :disabled="!name.trim()" data-testid="own-keep" @click="copy">
            Save
          </button>
        </template>
        <button v-else class="plain" data-testid="copy" @click="naming = true">
          {{ kind === 'fruit' ? 'New fruit based on this one' : 'New ingredient based on this one' }}
        </button>
      </div>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 400px minmax(0, 1fr);
  gap: 8px;
  flex: 1;
  min-height: 0;
}
.list > :deep(*:not(ul)) {
  flex: none;
}
.list,
.edit {
  display: flex;
  flex-direction: column;
  gap: 8px;
  overflow: auto;
  padding: 10px 14px 14px;
}
ul {
  flex: 1;
  margin: 0;
  padding: 0;
  list-style: none;
  overflow: auto;
}
li button {
  display: flex;
  align-items: center;
  gap: 12px;
  width: 100%;
  min-height: 44px;
  padding: 2px 8px;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  text-align: left;
  cursor: pointer;
}
li button > .quiet {
  margin-left: auto;
}
li button[aria-pressed='true'] {
  background: var(--sunk);
  box-shadow: inset 5px 0 0 var(--rim);
}
.head {
  display: flex;
  align-items: center;
  gap: 14px;
}
.large {
  width: 52px;
  height: 52px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
}
thead th {
  font-size: 0.875rem;
  color: var(--ink-2);
}
tbody tr {
  border-top: 1px solid var(--line);
}
td,
th {
  padding: 2px 8px 2px 0;
}
td:nth-child(3) {
  width: 150px;
}
.n {
  text-align: right;
  padding-right: 14px;
  font-weight: 600;
}
td.n {
  font-size: 1.125rem;
}
.over {
  color: var(--ink-2);
  text-decoration: line-through;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.own-name {
  width: 240px;
}
.none {
  padding: 16px 8px;
}
@media (max-width: 62.5em) {
  .two {
    display: flex;
    flex-direction: column;
    height: auto;
  }
  .list ul {
    max-height: 300px;
  }
  td:nth-child(4),
  thead th:nth-child(4) {
    display: none;
  }
}
</style>
