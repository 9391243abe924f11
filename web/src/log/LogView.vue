<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Bake } from '@/api/client'
import { useDessert } from '@/bench/useDessert'
import CutawayPicture from '@/parts/CutawayPicture.vue'
import { useFetched } from '@/parts/useFetched'
import { useKitchen } from '@/parts/useKitchen'
import { bandWords, date, grams, integer, mm } from '@/parts/words'
import HowItWent from './HowItWent.vue'

const kitchen = useKitchen()
const dessert = useDessert()
const router = useRouter()
const bakes = ref<Bake[]>()
const more = ref(false)
async function fetch(id: string, before?: string) {
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/bakes', { params: { path: { kitchen: id }, query: { before } } }),
  )
  if (got.data) {
    bakes.value = before ? [...(bakes.value ?? []), ...got.data.bakes] : got.data.bakes
    more.value = got.data.more
  }
  return got.problem
}
const { trouble } = useFetched(fetch)
async function earlier() {
  trouble.value = await fetch(kitchen.kitchen!.id, bakes.value?.at(-1)?.id)
}

const boiled = (b: Bake) =>
  b.outcome.boiled_over === undefined ? '' : b.outcome.boiled_over ? 'boiled over' : 'did not boil over'
const agrees = (b: Bake) => b.outcome.juice === b.predicted.band
function again(b: Bake) {
  dessert.open({ name: b.title, request: b.request, setting: b.setting }, false)
  void router.push('/')
}
</script>

<template>
  <div class="log">
    <h1>Log</h1>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble.title }}. Trying again every few seconds.</p>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet: <code>make demo</code> loads one to look around in.
    </p>
    <p v-else-if="bakes && !bakes.length" class="empty">
      Nothing baked yet. When a dessert from the <RouterLink to="/">Bench</RouterLink> has come out, “Baked
      it” writes it down here.
    </p>
    <p v-else-if="!bakes && !trouble" class="empty quiet">Fetching the log…</p>
    <ol v-else>
      <li v-for="b in bakes" :key="b.id" class="panel" :data-testid="`bake-${b.title}`">
        <div class="what">
          <CutawayPicture class="pic" :cut="b.predicted.cutaway" small />
          <div>
            <strong>{{ b.title }}</strong>
            <p class="quiet small">
              {{ date(b.baked_at) }}<template v-if="b.version">, version {{ b.version }}</template>
            </p>
          </div>
        </div>
        <dl>
          <dt>Predicted</dt>
          <dd>
            <strong>{{ bandWords[b.predicted.band] }}</strong>, free rim {{ mm(b.predicted.hot_headspace_mm)
            }}<span class="quiet">
              · {{ grams(b.predicted.fruit_g) }} fruit, {{ grams(b.predicted.thickener_g) }} thickener</span
            >
          </dd>
          <dt>Came out</dt>
          <dd>
            <strong v-if="b.outcome.juice"
              >{{ agrees(b) ? '✓' : '≠' }} {{ bandWords[b.outcome.juice] }}</strong
            >
            <span v-else class="quiet">juice not told</span
            ><template v-if="b.outcome.fruit">, fruit {{ b.outcome.fruit }}</template
            ><template v-if="b.outcome.top">, top {{ b.outcome.top }}</template
            ><template v-if="boiled(b)">, {{ boiled(b) }}</template>
          </dd>
          <dd v-if="b.outcome.note" class="note">“{{ b.outcome.note }}”</dd>
        </dl>
        <button class="push" @click="again(b)">On the Bench</button>
        <details v-if="b.happened || Object.keys(b.outcome.told ?? {}).length" class="all">
          <summary data-testid="open-bake">
            How it went<template v-if="b.happened"
              >: {{ integer(b.happened.minutes) }} min in the oven,
              {{ integer(b.happened.planned_min) }} planned</template
            >
          </summary>
          <HowItWent :bake="b" />
        </details>
      </li>
    </ol>
    <button v-if="more" class="push" @click="earlier">Earlier bakes</button>
  </div>
</template>

<style scoped>
h1 {
  padding: 10px 8px 12px;
}
ol {
  list-style: none;
  display: grid;
  gap: 8px;
  margin: 0 0 8px;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 370px 1fr auto;
  gap: 18px;
  align-items: center;
  padding: 10px 14px;
}
.what {
  display: grid;
  grid-template-columns: 140px 1fr;
  gap: 14px;
  align-items: center;
}
.what strong {
  font: 650 18px/1.2 var(--title);
}
dl {
  display: grid;
  grid-template-columns: 82px 1fr;
  gap: 2px 10px;
  margin: 0;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
}
.all {
  grid-column: 1 / -1;
  border-top: 1px solid var(--line);
}
summary {
  min-height: 44px;
  padding-top: 12px;
  cursor: pointer;
}
.note {
  grid-column: 2;
  color: var(--ink-2);
}
.empty {
  padding: 40px 12px;
  text-align: center;
  font-size: 18px;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: 1fr;
    gap: 8px;
  }
}
</style>
