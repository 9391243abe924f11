<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { type Answer, api, ask, type BalanceRequest, type Crowd, inWords, type Problem } from '@/api/client'
import { newestOnly } from '@/api/newest'
import type { Chosen } from '@/ui/DishChoice.vue'
import DishDialog from '@/ui/DishDialog.vue'
import CutawayPicture from '@/ui/CutawayPicture.vue'
import { useFetched } from '@/ui/useFetched'
import { useKitchen } from '@/stores/useKitchen'
import { grams, integer, mm } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'

/** This dessert in another dish, or in several: filling by volume, topping by area, and what simple scaling would miss. */
const open = defineModel<boolean>({ required: true })
const kitchen = useKitchen()
const dessert = useDessert()
const counts = reactive(new Map<string, number>())
/** Dishes that stand on no shelf. */
const more = ref<Chosen[]>([])
const dishes = computed<Chosen[]>(() => [...kitchen.dishes, ...more.value])
const choosing = ref(false)
function choose(d: Chosen) {
  if (!kitchen.dishes.some((x) => x.id === d.id)) more.value.push(d)
  step(d.id, d.count)
}
/** As it stands on the Bench, with the steam of its own bake. */
const now = computed<Answer | undefined>(() => dessert.answer)
const others = ref<
  {
    id: string
    name: string
    count: number
    request: BalanceRequest
    answer: Answer
    naive: { code: string; name: string; g: number; naive_g: number; error_pct: number; far: boolean }[]
  }[]
>([])
const left = ref('')
const problem = ref<Problem>()

const question = computed(() => {
  const r = dessert.draft?.request
  const asked = dishes.value
    .filter((d) => counts.get(d.id))
    .map((d) => ({ id: d.id, name: d.name, count: counts.get(d.id)!, dish: d.dish }))
  return open.value && r && asked.length ? { request: kitchen.ours(r), dishes: asked } : undefined
})
const newest = newestOnly()
watch(
  () => JSON.stringify(question.value),
  async () => {
    const isNewest = newest()
    problem.value = undefined
    if (!question.value) {
      others.value = []
      return
    }
    const got = await ask(api.POST('/api/v1/other-dish', { body: question.value }))
    if (!isNewest()) return
    problem.value = got.problem
    if (!got.data) return
    others.value = got.data.dishes
    left.value = got.data.left
  },
)
function step(id: string, by: number) {
  counts.set(id, Math.max(0, (counts.get(id) ?? 0) + by))
}
const portions = ref<number>()
const crowd = ref<Crowd>()
/** Which dishes there are enough of for so many portions. */
async function forCrowd() {
  const r = dessert.draft?.request
  if (!r || !portions.value) return
  const got = await ask(
    api.POST('/api/v1/crowd', {
      body: {
        request: kitchen.ours(r),
        portions: portions.value,
        dishes: dishes.value.map((d) => ({ id: d.id, name: d.name, count: d.count, dish: d.dish })),
        mix_g: kitchen.resources?.resources.mix_g,
        bowl_ml: kitchen.resources?.resources.bowl_ml,
        tiers: kitchen.resources?.resources.ovens.flatMap((o) =>
          o.tiers.map(({ width_cm, depth_cm }) => ({ width_cm, depth_cm })),
        ),
      },
    }),
  )
  problem.value = got.problem
  crowd.value = got.data
  if (!got.data) return
  counts.clear()
  for (const d of got.data.dishes) counts.set(d.id, d.count)
}
useFetched(() => kitchen.loadResources())
function take(o: (typeof others.value)[number]) {
  dessert.change('another dish', (d) => {
    d.request = o.request
    d.name = `${d.name.replace(/, in .*$/, '')}, in ${o.count > 1 ? `one of ${o.count} × ` : ''}${o.name}`
  })
  open.value = false
}
const sign = (x: number) => `${x > 0 ? '+' : '−'}${integer(Math.abs(x))} %`
</script>

<template>
  <el-dialog
    v-model="open"
    title="This dessert in another dish"
    width="min(1120px, 96vw)"
    top="4vh"
    data-testid="other-dish"
  >
    <form v-if="dishes.length" class="crowd" @submit.prevent="forCrowd">
      <label
        >For
        <input
          v-model.number="portions"
          type="number"
          min="1"
          max="2000"
          aria-label="Portions"
          data-testid="crowd-portions"
        />
        portions</label
      >
      <button class="push" :disabled="!portions" data-testid="crowd">Suggest dishes</button>
    </form>
    <ul v-if="crowd" class="told" role="status" data-testid="crowd-says">
      <li v-for="s in crowd.text" :key="s">{{ s }}</li>
    </ul>
    <div class="two">
      <ul class="dishes">
        <li v-for="d in dishes" :key="d.id" :class="{ on: counts.get(d.id) }">
          <button
            class="push step"
            :aria-label="`One less ${d.name}`"
            :disabled="!counts.get(d.id)"
            @click="step(d.id, -1)"
          >
            −
          </button>
          <strong class="n">{{ counts.get(d.id) ?? 0 }}</strong>
          <button
            class="push step"
            :aria-label="`One more ${d.name}`"
            :data-testid="`more-${d.name}`"
            @click="step(d.id, 1)"
          >
            +
          </button>
          <span
            >{{ d.name }} <span class="small quiet">{{ d.sizes }}</span></span
          >
        </li>
        <li class="another">
          <button class="push" data-testid="another-dish" @click="choosing = true">Another dish</button>
          <DishDialog v-model="choosing" @choose="choose" />
        </li>
      </ul>
      <div class="results">
        <p v-if="problem" class="wrong" role="alert">
          {{ inWords(problem) }}
        </p>
        <p v-else-if="!others.length" class="quiet">
          Choose one or more dishes, for example a tray and six ramekins.
        </p>
        <div v-else class="pictures">
          <figure v-if="now">
            <CutawayPicture :cut="now.cutaway" small />
            <figcaption>
              {{
                `now: ${grams(now.fruit_g)} fruit, ${grams(now.topping_g)} topping, ${kitchen.word('band', now.set.band)}`
              }}
            </figcaption>
          </figure>
          <figure v-for="o in others" :key="o.id" :data-testid="`other-${o.name}`">
            <CutawayPicture :cut="o.answer.cutaway" small />
            <figcaption>
              <strong>{{ o.count > 1 ? `${o.count} × ` : '' }}{{ o.name }}</strong
              >{{
                `, ${kitchen.word('band', o.answer.set.band)}, ${mm(o.answer.fit.hot_headspace_mm)} below the rim, ${integer(o.answer.portions.count)} ${o.answer.portions.count === 1 ? 'portion' : 'portions'}${o.count > 1 ? ' each' : ''}`
              }}
            </figcaption>
            <table>
              <thead>
                <tr>
                  <th scope="col">{{ o.count > 1 ? 'In each' : 'Weigh' }}</th>
                  <th scope="col" class="g">correct</th>
                  <th scope="col" class="g">simple scaling</th>
                  <th scope="col" class="g">difference</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="n in o.naive" :key="n.code" :class="{ far: n.far }">
                  <th scope="row">{{ n.name }}</th>
                  <td class="g">
                    <strong>{{ grams(n.g) }}</strong>
                  </td>
                  <td class="g">{{ grams(n.naive_g) }}</td>
                  <td class="g">{{ sign(n.error_pct) }}</td>
                </tr>
              </tbody>
            </table>
            <button class="push" :data-testid="`take-${o.name}`" @click="take(o)">Open on the Bench</button>
          </figure>
        </div>
        <p v-if="others.length" data-testid="other-left">
          {{ left }}
        </p>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 20px;
}
.crowd {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.crowd input {
  width: 6rem;
  min-height: 44px;
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
  font-size: 1.25rem;
  font-weight: 600;
}
.told {
  margin: 8px 0;
  padding: 8px 12px 8px 28px;
  background: var(--sunk);
}
.told li:first-child {
  font-size: 1.125rem;
  font-weight: 600;
}
.dishes {
  margin: 0;
  padding: 0;
  list-style: none;
}
.dishes li {
  display: grid;
  grid-template-columns: 44px 34px 44px 1fr;
  align-items: center;
  gap: 6px;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
.dishes .another {
  display: block;
  border: 0;
}
.step {
  padding: 0;
  font-size: 1.25rem;
}
.n {
  text-align: center;
  font-size: 1.25rem;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 16px 22px;
}
figure {
  margin: 0;
}
figcaption {
  margin: 4px 0;
}
table {
  width: 100%;
  margin-bottom: 8px;
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
.g {
  text-align: right;
}
.far td:last-child {
  color: var(--danger);
  font-weight: 700;
}
.results > p {
  margin-top: 8px;
}
@media (max-width: 50em) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
