<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, defineAsyncComponent, onBeforeUnmount, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Bake, type Unusable } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useDessert } from '@/stores/useDessert'
import BakeOutcome from '@/ui/BakeOutcome.vue'
import HistoryNotice from '@/ui/HistoryNotice.vue'
import SearchSelect from '@/ui/SearchSelect.vue'
import UnusableNotice from '@/ui/UnusableNotice.vue'
import { useFetched } from '@/ui/useFetched'
import { bindKeys } from '@/ui/useKeys'
import { useKitchen } from '@/stores/useKitchen'
import { date } from '@/format/amounts'
import LoggedBake from './LoggedBake.vue'
import { useFindings } from './useFindings'
import { useLogHistory } from './useLogHistory'

/** The library that draws comes when it is wanted. */
const LogCharts = defineAsyncComponent(() => import('./LogCharts.vue'))
const LogFindings = defineAsyncComponent(() => import('./LogFindings.vue'))
const drawn = ref(false)
const teaching = ref(false)
const learning = useFindings()
const kitchen = useKitchen()
const dessert = useDessert()
const router = useRouter()
const bakes = ref<Bake[]>()
const unusable = ref<Unusable[]>([])
const more = ref(false)
const words = ref('')
const juice = ref<Bake['predicted']['band']>()
const oven = ref<string>()
const bands = computed(() => kitchen.options<Bake['predicted']['band']>('band'))
const sought = refDebounced(
  computed(() => ({ words: words.value.trim() || undefined, juice: juice.value, oven: oven.value })),
  200,
)
const seeks = computed(() => !!(sought.value.words || sought.value.juice || sought.value.oven))
const path = computed(() => `/api/v1/kitchens/${kitchen.kitchen?.id}/bakes`)
const newest = newestOnly()
async function fetch(id: string, before?: string) {
  const isNewest = newest()
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/bakes', {
      params: { path: { kitchen: id }, query: { before, ...sought.value } },
    }),
  )
  if (!isNewest()) return undefined
  if (got.data) {
    bakes.value = before ? [...(bakes.value ?? []), ...got.data.bakes] : got.data.bakes
    unusable.value = before ? [...unusable.value, ...got.data.unusable] : got.data.unusable
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

/** Two that are compared. */
const chosen = ref<Bake[]>([])
function choose(b: Bake) {
  const there = chosen.value.some((c) => c.id === b.id)
  chosen.value = there ? chosen.value.filter((c) => c.id !== b.id) : [...chosen.value.slice(-1), b]
}

const correcting = ref<Bake>()
const asking = ref(false)
const history = useLogHistory()
function correct(b: Bake) {
  correcting.value = b
  asking.value = true
}
function corrected(b: Bake) {
  bakes.value = bakes.value?.map((x) => (x.id === b.id ? b : x))
  const was = b.corrections[0]?.was
  const label = `${b.title} is corrected; the earlier values are stored`
  if (was) history.did({ label, id: b.id, was, is: b.outcome })
}
watch(
  () => history.moved,
  async (step) => {
    if (!step || !kitchen.kitchen) return
    const path = { kitchen: kitchen.kitchen.id, bake: step.id }
    const got = await ask(api.GET('/api/v1/kitchens/{kitchen}/bakes/{bake}', { params: { path } }))
    if (got.data) bakes.value = bakes.value?.map((x) => (x.id === step.id ? got.data : x))
  },
)
onBeforeUnmount(
  bindKeys('On this page', [
    { key: 'u', label: 'undo', does: () => void history.undo() },
    { key: 'r', label: 'redo', does: () => void history.redo() },
  ]),
)
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
        placeholder="Search name, note, lot or batch"
        aria-label="Search by name, note, lot or batch number"
        data-testid="log-words"
      />
      <SearchSelect v-model="juice" class="pick" label="Result…" :options="bands" testid="log-juice" />
      <SearchSelect
        v-model="oven"
        class="pick"
        label="Any oven"
        :options="kitchen.ovens.map((o) => [o.id, o.name] as const)"
        testid="log-oven"
      />
      <button
        v-if="kitchen.kitchen"
        class="push"
        :aria-expanded="drawn"
        data-testid="draw"
        @click="drawn = !drawn"
      >
        {{ drawn ? 'Hide charts' : 'Show charts' }}
      </button>
      <button
        v-if="kitchen.kitchen"
        class="push"
        :aria-expanded="teaching"
        data-testid="teaches"
        @click="teaching = !teaching"
      >
        {{ teaching ? 'Hide findings' : 'What your log shows' }}
      </button>
      <span v-if="kitchen.kitchen" class="take"
        >Export:
        <a :href="`${path}.csv`" download="log.csv" data-testid="log-csv">CSV</a>
        <a :href="`${path}.json`" download="log.json" data-testid="log-json">JSON</a></span
      >
    </div>
    <UnusableNotice what="these bakes" :list="unusable" />
    <p v-if="chosen.length" class="notice panel beside" role="status">
      <template v-if="chosen.length === 1">{{
        `${chosen[0]!.title}, ${date(chosen[0]!.baked_at)}: choose a second bake to compare.`
      }}</template>
      <RouterLink
        v-else
        class="push main"
        :to="`/log/compare/${chosen[0]!.id}/${chosen[1]!.id}`"
        data-testid="compare"
        >{{ `Compare ${chosen[0]!.title} with ${chosen[1]!.title}` }}</RouterLink
      >
      <button class="plain" @click="chosen = []">Cancel</button>
    </p>
    <HistoryNotice :history="history" />
    <p v-if="trouble" class="wrong" role="alert">
      {{ `${trouble.title}. Trying again every few seconds.` }}
    </p>
    <LogFindings v-if="teaching" :from="learning" />
    <LogCharts v-if="drawn" :words="sought.words" :juice="sought.juice" :oven="sought.oven" />
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet. Create one on the <RouterLink to="/">Bench</RouterLink>.
    </p>
    <p v-else-if="bakes && !bakes.length && seeks" class="empty" data-testid="none-found">
      No bake matches. Try fewer words.
    </p>
    <p v-else-if="bakes && !bakes.length" class="empty">
      No bakes yet. After baking a dessert from the <RouterLink to="/">Bench</RouterLink>
      , use “Log result” to save it here.
    </p>
    <p v-else-if="!bakes && !trouble" class="empty quiet">Loading…</p>
    <ol v-else>
      <LoggedBake
        v-for="b in bakes"
        :key="b.id"
        :bake="b"
        :chosen="chosen.some((c) => c.id === b.id)"
        :left="learning.left(b.id)"
        @bench="again(b)"
        @choose="choose(b)"
        @leave="(out) => learning.leaveOut(b.id, out)"
        @correct="correct(b)"
        @seek="(lot) => (words = lot)"
      />
    </ol>
    <button v-if="more" class="push" data-testid="earlier" @click="earlier">Earlier bakes</button>
    <BakeOutcome v-model="asking" :correcting="correcting" @corrected="corrected" />
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
.take a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  margin-left: 8px;
}
.words {
  width: 320px;
}
.pick {
  width: 170px;
}
.beside {
  position: sticky;
  z-index: 4;
  top: 0;
}
ol {
  list-style: none;
  display: grid;
  gap: 8px;
  margin: 0 0 8px;
  padding: 0;
}
.empty {
  padding: 40px 12px;
  text-align: center;
  font-size: 1.125rem;
}
</style>
