<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, inWords, upon, type CardLabel, type Problem, type Stock } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useClash } from '@/stores/useClash'
import { useKitchen } from '@/stores/useKitchen'
import { useFetched } from '@/ui/useFetched'
import { grams } from '@/format/amounts'
import { dateOf, dayAfter, inWords as dayInWords } from '@/format/minutes'
import { toCounts, nothing, type Wanted } from './useWanted'

/** Type in addition to each dessert: labels for its box, or a card for the counter. */
const props = defineProps<{ wanted: Wanted }>()
const kitchen = useKitchen()
const labels = ref<CardLabel[]>([])
const problem = ref<Problem>()
const kind = ref<'box' | 'counter' | 'hand'>('box')
const kinds = [
  ['box', 'Labels'],
  ['counter', 'Counter cards'],
  ['hand', 'Take-home labels'],
] as const
const counter = computed(() => kind.value !== 'box')
const each = ref(4)
const newest = newestOnly()
async function load() {
  const isNewest = newest()
  if (!kitchen.kitchen || nothing(props.wanted)) {
    labels.value = []
    return
  }
  const got = await ask(
    api.POST('/api/v1/kitchens/{kitchen}/labels', {
      params: { path: { kitchen: kitchen.kitchen.id } },
      body: toCounts(props.wanted),
    }),
  )
  if (!isNewest()) return
  problem.value = got.problem
  labels.value = got.data?.labels ?? []
}
watch(() => JSON.stringify([toCounts(props.wanted), kitchen.kitchen?.id]), load, { immediate: true })
/** Each card once, however often it is ordered. */
const once = computed(() =>
  labels.value.filter((l, i) => labels.value.findIndex((x) => x.card === l.card) === i),
)
const baked = computed(() => props.wanted.date || dateOf(new Date()))
const until = (days: number) => dayInWords(dayAfter(baked.value, days))
const print = () => window.print()

/** Label paper, and the kitchen's own line: kept with its store. */
const clash = useClash()
const stored = shallowRef<{ stock: Stock; revision: string }>()
const path = computed(() => ({ kitchen: kitchen.kitchen!.id }))
const url = '/api/v1/kitchens/{kitchen}/stock'
useFetched(async () => {
  const got = await ask(api.GET(url, { params: { path: path.value } }))
  if (got.data) stored.value = got.data
  return got.problem
})
const paper = computed(() => stored.value?.stock.labels ?? {})
async function set(how: Partial<NonNullable<Stock['labels']>>) {
  if (!stored.value) return
  const body = { ...stored.value.stock, labels: { ...paper.value, ...how } }
  const got = await clash.settle('Label paper', stored.value.revision, (ifMatch) =>
    ask(api.PUT(url, { params: { path: path.value, header: upon(ifMatch) }, body })),
  )
  if (got.data) stored.value = got.data
  problem.value = got.theirs ? clash.keptTheirs : got.problem
}
async function printNutrients(on: boolean) {
  await set({ nutrition: on || undefined })
  await load()
}
/** Usual sheets of labels: so many across and down an A4 page. */
const sheets = [
  ['', 'two per row'],
  ['1x1', '1 per sheet'],
  ['2x2', '2 × 2'],
  ['2x4', '2 × 4'],
  ['2x5', '2 × 5'],
] as const
const sheet = computed(() => (paper.value.down ? `${paper.value.across || 2}x${paper.value.down}` : ''))
function choose(key: string) {
  const [across, down] = key.split('x').map(Number)
  void set({ across: across || undefined, down: down || undefined })
}
const handled = computed(() => paper.value.handled || 'Made where other allergens are handled.')
/** How a sheet is divided: nothing where it is not. */
const divided = computed(() =>
  paper.value.down && !counter.value
    ? { '--across': `${paper.value.across || 2}`, '--down': `${paper.value.down}` }
    : undefined,
)
</script>

<template>
  <section class="sheets" aria-label="Labels">
    <div class="panel head no-print">
      <div class="choice" role="group" aria-label="Type">
        <button
          v-for="[key, label] in kinds"
          :key="key"
          :aria-pressed="kind === key"
          :data-testid="`label-${key}`"
          @click="kind = key"
        >
          {{ label }}
        </button>
      </div>
      <label v-if="!counter"
        >of each
        <input v-model.number="each" class="number" type="number" min="1" max="60" data-testid="label-each"
      /></label>
      <label v-if="!counter"
        >per sheet of
        <select
          class="number wide"
          :value="sheet"
          data-testid="label-sheet"
          @change="choose(($event.target as HTMLSelectElement).value)"
        >
          <option v-for="[key, label] in sheets" :key="key" :value="key">{{ label }}</option>
        </select></label
      >
      <label class="ticked"
        ><input
          type="checkbox"
          class="tick"
          :checked="paper.nutrition ?? false"
          data-testid="label-nutrition"
          @change="printNutrients(($event.target as HTMLInputElement).checked)"
        />
        energy and nutrients</label
      >
      <label class="own"
        >Cross-contact note
        <input
          class="number own"
          :value="paper.handled ?? ''"
          maxlength="300"
          placeholder="Made where other allergens are handled."
          data-testid="label-handled"
          @change="set({ handled: ($event.target as HTMLInputElement).value.trim() || undefined })"
      /></label>
      <button
        class="push main"
        :disabled="!once.some((l) => l.label)"
        data-testid="label-print"
        @click="print"
      >
        Print
      </button>
      <p class="quiet small">
        Labelling, shelf life and where food may be made are regulated: follow the local food authority’s code
        and ask a licensed professional.
      </p>
    </div>
    <p v-if="problem" class="wrong no-print" role="alert">{{ inWords(problem) }}.</p>
    <p v-if="nothing(wanted)" class="panel empty no-print">Choose a day or cards to see their labels.</p>
    <p v-for="l in once.filter((x) => !x.label)" :key="l.card" class="panel wrong why no-print" role="alert">
      <strong>{{ l.name }}</strong> {{ `No label: ${l.reason}.` }}
    </p>
    <div :class="[counter ? 'counter' : 'labels', { divided }]" :style="divided">
      <template v-for="l in once" :key="l.card">
        <template v-if="l.label">
          <article
            v-for="n in counter ? 1 : each"
            :key="n"
            :class="['label', { 'print-only': n > 1 }]"
            :data-testid="n === 1 ? `label-${l.name}` : undefined"
          >
            <h3>{{ l.name }}</h3>
            <p v-if="kind === 'counter'" class="what">
              {{ `Portion: about ${grams(l.label.portion_g)}.` }}
            </p>
            <p class="list"><strong>Ingredients:</strong> {{ l.label.text }}</p>
            <p v-if="l.label.contains.length">
              <strong>{{ `Contains ${kitchen.allergens(l.label.contains)}.` }}</strong> {{ handled }}
            </p>
            <table v-if="l.label.nutrition && kind !== 'hand'" class="nutrients">
              <caption>
                An estimate from tables
              </caption>
              <thead>
                <tr>
                  <td />
                  <th scope="col">100 g</th>
                  <th scope="col">{{ `${grams(l.label.portion_g)} portion` }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="r in l.label.nutrition" :key="r.key">
                  <th scope="row">{{ r.name }}</th>
                  <td>{{ r.shown }}</td>
                  <td>{{ r.each }}</td>
                </tr>
              </tbody>
            </table>
            <template v-if="kind === 'hand'">
              <p>{{ l.label.rewarm }}</p>
              <p>{{ l.label.serve }}</p>
              <p>{{ l.label.hold }}</p>
              <p>{{ `${l.label.keep} Best before ${until(l.label.keep_days)}.` }}</p>
              <p>{{ l.label.freeze }}</p>
              <p class="maker">{{ `${kitchen.kitchen!.name} · batch ${l.batch}` }}</p>
            </template>
            <template v-if="!counter">
              <p>{{ `${grams(l.label.net_g)} as baked. ${l.label.keep}` }}</p>
              <p>{{ `Best before ${until(l.label.keep_days)}. ${l.label.rewarm}` }}</p>
              <p class="maker">{{ `${kitchen.kitchen!.name} · batch ${l.batch}` }}</p>
            </template>
          </article>
        </template>
      </template>
    </div>
  </section>
</template>

<style scoped>
.sheets {
  display: grid;
  gap: 8px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  padding: 10px 16px;
}
.head p {
  flex: 1 1 300px;
  margin: 0;
}
.number {
  width: 70px;
  min-height: 44px;
  padding: 0 8px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
}
.wide {
  width: auto;
}
.own {
  flex: 1 1 320px;
}
input.own {
  width: min(100%, 420px);
}
.why {
  padding: 10px 16px;
}
.labels {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(360px, 1fr));
  align-items: start;
  gap: 8px;
}
.label {
  padding: 10px 14px;
  border: 1.5px solid var(--rim);
  background: var(--panel);
  font-size: 0.875rem;
  line-height: 1.3;
}
.label p {
  margin: 4px 0 0;
}
.label h3 {
  font: 700 1.1875rem var(--title);
}
.counter .label {
  margin-bottom: 8px;
  padding: 24px 28px;
  font-size: 1.125rem;
}
.counter h3 {
  font-size: 2.375rem;
}
.what {
  font-size: 1.25rem;
}
.ticked {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}
.tick {
  width: 22px;
  height: 22px;
  vertical-align: middle;
  accent-color: var(--rim);
}
.nutrients {
  margin-top: 6px;
  border-collapse: collapse;
  font-size: 0.8125em;
}
.nutrients caption {
  text-align: left;
  font-style: italic;
}
.nutrients th,
.nutrients td {
  padding: 0 10px 0 0;
  border-bottom: 1px solid var(--line);
  text-align: right;
  font-weight: 400;
}
.nutrients tbody th {
  text-align: left;
}
.maker {
  font-weight: 600;
}
.empty {
  padding: 30px;
  text-align: center;
}
@media print {
  .labels {
    grid-template-columns: 1fr 1fr;
    gap: 4mm;
  }
  .label {
    break-inside: avoid;
    border-color: #000;
    font-size: 8.5pt;
  }
  /* A sheet that is divided: the margins of the page are the printer's to set to none. */
  .divided {
    grid-template-columns: repeat(var(--across), 1fr);
    grid-auto-rows: minmax(calc(281mm / var(--down)), auto); /* nothing of a label is cut off */
    gap: 0;
  }
  .divided .label {
    height: 100%;
    border: 0;
    font-size: 8pt;
  }
  .counter .label {
    break-after: page;
    font-size: 16pt;
  }
  .counter h3 {
    font-size: 34pt;
  }
}
</style>
