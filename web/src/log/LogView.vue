<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
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
const words = ref('')
const juice = ref<Bake['predicted']['band']>()
const oven = ref<string>()
const sought = refDebounced(
  computed(() => ({ words: words.value.trim() || undefined, juice: juice.value, oven: oven.value })),
  200,
)
const seeks = computed(() => !!(sought.value.words || sought.value.juice || sought.value.oven))
let asked = 0
async function fetch(id: string, before?: string) {
  const mine = ++asked
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/bakes', {
      params: { path: { kitchen: id }, query: { before, ...sought.value } },
    }),
  )
  if (mine !== asked) return undefined
  if (got.data) {
    bakes.value = before ? [...(bakes.value ?? []), ...got.data.bakes] : got.data.bakes
    more.value = got.data.more
  }
  return got.problem
}
const { trouble } = useFetched(fetch)
watch(sought, async () => {
  if (kitchen.kitchen) trouble.value = await fetch(kitchen.kitchen.id)
})
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
    <div class="bar">
      <h1>Log</h1>
      <el-input
        v-model="words"
        class="words"
        clearable
        maxlength="80"
        placeholder="Words of the name or the note"
        aria-label="Words of the name or the note"
        data-testid="log-words"
      />
      <el-select
        v-model="juice"
        class="pick"
        clearable
        placeholder="Came out…"
        aria-label="Came out"
        data-testid="log-juice"
      >
        <el-option
          v-for="(says, b) in bandWords"
          :key="b"
          :value="b"
          :label="says"
          :data-testid="`log-juice-${b}`"
        />
      </el-select>
      <el-select
        v-model="oven"
        class="pick"
        clearable
        placeholder="Any oven"
        aria-label="Oven"
        data-testid="log-oven"
      >
        <el-option v-for="o in kitchen.ovens" :key="o.id" :value="o.id" :label="o.name" />
      </el-select>
      <a
        v-if="kitchen.kitchen"
        class="plain"
        :href="`/api/v1/kitchens/${kitchen.kitchen.id}/bakes.csv`"
        download="log.csv"
        data-testid="log-csv"
        >All of it as a table (CSV)</a
      >
    </div>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble.title }}. Trying again every few seconds.</p>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet: <code>make demo</code> loads one to look around in.
    </p>
    <p v-else-if="bakes && !bakes.length && seeks" class="empty" data-testid="none-found">
      No bake is like that. Fewer words find more.
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
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  padding: 4px 8px 10px;
}
.bar a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.words {
  width: 320px;
}
.pick {
  width: 170px;
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
