<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, onBeforeUnmount, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, inWords, type Card, type ListedCard, type Unusable, type Version } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useDessert } from '@/stores/useDessert'
import HistoryNotice from '@/ui/HistoryNotice.vue'
import SearchSelect from '@/ui/SearchSelect.vue'
import UnusableNotice from '@/ui/UnusableNotice.vue'
import { useFetched } from '@/ui/useFetched'
import { bindKeys } from '@/ui/useKeys'
import { useKitchen } from '@/stores/useKitchen'
import { useOutbox } from '@/stores/useOutbox'
import { short } from '@/format/amounts'
import CardMore from './CardMore.vue'
import CardTile from './CardTile.vue'
import { useCardHistory, type CardBody } from './useCardHistory'

const kitchen = useKitchen()
const dessert = useDessert()
const outbox = useOutbox()
const router = useRouter()
/** A link may ask for one fruit, or for a name. */
const { fruit: fruitAsked, words: wordsAsked } = useRoute().query as { fruit?: string; words?: string }
const cards = ref<ListedCard[]>()
const unusable = ref<Unusable[]>([])
const all = ref(0)
const tags = ref<string[]>([])

const seeks = reactive<{
  words: string
  tag?: string
  style?: string
  fruit?: string
  shape?: 'rectangle' | 'square' | 'round' | 'oval'
  diet?: 'vegan' | 'dairy_free' | 'egg_free' | 'gluten_free' | 'nut_free'
  most?: number
  archived: boolean
}>({ words: wordsAsked ?? '', archived: false, fruit: fruitAsked })
const diets: [NonNullable<typeof seeks.diet>, string][] = [
  ['vegan', 'vegan'],
  ['dairy_free', 'no dairy'],
  ['egg_free', 'no egg'],
  ['gluten_free', 'no gluten'],
  ['nut_free', 'no nuts'],
]
const shapes = (['rectangle', 'square', 'round', 'oval'] as const).map((x) => [x, x] as const)
const few = [6, 8, 10, 12].map((n) => [n, `up to ${n} ingredients`] as const)
const sought = refDebounced(
  computed(() => ({
    words: seeks.words.trim() || undefined,
    tag: seeks.tag || undefined,
    style: seeks.style || undefined,
    fruit: seeks.fruit || undefined,
    shape: seeks.shape || undefined,
    diet: seeks.diet || undefined,
    most: seeks.most || undefined,
    archived: seeks.archived || undefined,
  })),
  150,
)
/** Whether the finer filters are shown. */
const narrow = ref(!!fruitAsked)
const narrowed = computed(() => Object.values(sought.value).some((v) => v !== undefined))
const newest = newestOnly()
async function fetch(id: string, from = 0) {
  const isNewest = newest()
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/cards', {
      params: { path: { kitchen: id }, query: { ...sought.value, from } },
    }),
  )
  if (!isNewest()) return undefined
  if (got.data) {
    cards.value = from ? [...(cards.value ?? []), ...got.data.cards] : got.data.cards
    unusable.value = from ? [...unusable.value, ...got.data.unusable] : got.data.unusable
    all.value = got.data.all
    tags.value = got.data.tags
  }
  return got.problem
}
const { trouble } = useFetched(fetch)
async function again(from = 0) {
  if (kitchen.kitchen) trouble.value = await fetch(kitchen.kitchen.id, from)
}
watch(sought, () => again())
function everything() {
  Object.assign(seeks, {
    words: '',
    tag: undefined,
    style: undefined,
    fruit: undefined,
    shape: undefined,
    diet: undefined,
    most: undefined,
    archived: false,
  })
}

const more = ref<string>()
const moreOpen = ref(false)
const history = useCardHistory()
function did(label: string, id: string, was: CardBody, is: CardBody) {
  history.did({ label, id, was, is })
  void again()
}
watch(
  () => history.moved,
  () => void again(),
)
onBeforeUnmount(
  bindKeys('On this page', [
    { key: 'u', label: 'undo', does: () => void history.undo() },
    { key: 'r', label: 'redo', does: () => void history.redo() },
  ]),
)
function open(id: string, name: string, v: Version) {
  dessert.openCard(id, name, v)
  void router.push('/')
}
const fromMore = (c: Card, v: Version) => open(c.id, c.name, v)
</script>

<template>
  <div class="cards">
    <div class="bar">
      <h1>Cards</h1>
      <el-input
        v-model="seeks.words"
        class="find"
        placeholder="Search"
        aria-label="Search by name or occasion"
        clearable
        data-testid="find-card"
      />
      <div class="choice styles" role="group" aria-label="Style">
        <button :aria-pressed="!seeks.style" data-testid="seek-style-all" @click="seeks.style = undefined">
          all
        </button>
        <button
          v-for="x in kitchen.larder?.styles"
          :key="x.key"
          :aria-pressed="seeks.style === x.key"
          :data-testid="`seek-style-${x.key}`"
          @click="seeks.style = x.key as 'crumble'"
        >
          {{ x.key }}
        </button>
      </div>
      <button class="plain" :aria-expanded="narrow" data-testid="narrow" @click="narrow = !narrow">
        {{ narrow ? 'Hide filters' : 'Filter…' }}
      </button>
      <RouterLink class="push import" to="/cards/import" data-testid="import">Import a card</RouterLink>
    </div>
    <div v-if="narrow" class="bar">
      <SearchSelect
        v-model="seeks.tag"
        class="pick"
        label="Occasion"
        :options="tags.map((t) => [t, t] as const)"
        testid="seek-tag"
      />
      <SearchSelect
        v-model="seeks.fruit"
        class="pick wide"
        label="Fruit"
        :options="kitchen.fruits.map((f) => [f.key, short(f.name)] as const)"
        testid="seek-fruit"
        filterable
      />
      <SearchSelect v-model="seeks.shape" class="pick" label="Dish" :options="shapes" testid="seek-shape" />
      <SearchSelect
        v-model="seeks.diet"
        class="pick"
        label="Diet"
        :options="diets.map(([key, label]) => [key, label] as const)"
        testid="seek-diet"
      />
      <SearchSelect v-model="seeks.most" class="pick" label="Ingredients" :options="few" testid="seek-most" />
      <label class="tick"
        ><input v-model="seeks.archived" type="checkbox" data-testid="seek-archived" /> archived</label
      >
    </div>
    <HistoryNotice :history="history" />
    <p v-if="trouble" class="wrong" role="alert">
      {{ `${inWords(trouble)}. Trying again every few seconds.` }}
    </p>
    <UnusableNotice what="these cards" :list="unusable" />
    <p v-if="outbox.any" class="quiet">Unsaved changes are not shown here yet.</p>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet. Create one on the <RouterLink to="/">Bench</RouterLink>.
    </p>
    <p v-else-if="cards && !cards.length && !narrowed" class="empty">
      No cards yet. Make a dessert on the
      <RouterLink to="/">Bench</RouterLink> and save it.
    </p>
    <p v-else-if="cards && !cards.length" class="empty" data-testid="no-card">
      No card matches.
      <button class="plain" @click="everything">Show all cards</button>
    </p>
    <p v-else-if="!cards && !trouble" class="empty quiet">Loading…</p>
    <ul>
      <CardTile
        v-for="c in cards"
        :key="c.id"
        :card="c"
        @open="open(c.id, c.name, c.newest)"
        @more="((more = c.id), (moreOpen = true))"
      />
    </ul>
    <p v-if="cards && cards.length < all" class="rest">
      {{ `${cards.length} of ${all}` }}
      <button class="push" data-testid="more-cards" @click="again(cards.length + unusable.length)">
        More cards
      </button>
    </p>
    <CardMore
      v-if="more"
      :id="more"
      :key="more"
      v-model="moreOpen"
      :tags="tags"
      @tagged="(was, c) => did(`The occasions of ${c.name}`, c.id, { tags: was }, { tags: c.tags })"
      @bench="fromMore"
      @named="(was, c) => did(`${was} is now called ${c.name} now`, c.id, { name: was }, { name: c.name })"
      @away="
        (c) =>
          did(
            c.archived ? `${c.name} is archived` : `${c.name} is back among the cards`,
            c.id,
            { archived: !c.archived },
            { archived: c.archived },
          )
      "
      @copied="(c) => did(`${c.name} is a card of its own`, c.id, { archived: true }, { archived: false })"
    />
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 4px 8px 10px;
}
.bar h1 {
  margin-right: 6px;
}
.import {
  margin-left: auto;
}
.find {
  width: 150px;
}
.pick {
  flex: 1 1 96px;
  max-width: 180px;
}
.pick.wide {
  max-width: 200px;
}
ul {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 286px), 1fr));
  gap: 8px;
  margin: 0;
  padding: 0;
}
.rest {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 12px 8px;
}
.empty {
  padding: 40px 12px;
  text-align: center;
  font-size: 1.125rem;
}
@media (max-width: 38.75em) {
  .find,
  .pick,
  .pick.wide {
    flex: 1 1 44%;
    width: auto;
  }
}
</style>
