<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type CardListed, type Card, type Version } from '@/api/client'
import { useDessert } from '@/bench/useDessert'
import CutawayPicture from '@/parts/CutawayPicture.vue'
import { useFetched } from '@/parts/useFetched'
import { useKitchen } from '@/parts/useKitchen'
import { useOutbox } from '@/parts/useOutbox'
import { bandWords, date, grams, lower, short, sizes } from '@/parts/words'

const kitchen = useKitchen()
const dessert = useDessert()
const outbox = useOutbox()
const router = useRouter()
const cards = ref<CardListed[]>()
const whole = ref<Card>()
const find = ref('')
const { trouble } = useFetched(async (id) => {
  const got = await ask(api.GET('/api/v1/kitchens/{kitchen}/cards', { params: { path: { kitchen: id } } }))
  if (got.data) cards.value = got.data
  return got.problem
})

const fruits = (v: Version) =>
  v.request.fruits.map((f) => lower(short(kitchen.fruit.get(f.key)?.name ?? f.key))).join(', ')
const shown = computed(() => {
  const words = find.value.trim().toLowerCase()
  return cards.value?.filter(
    (c) => !words || `${c.name} ${c.newest.request.style} ${fruits(c.newest)}`.toLowerCase().includes(words),
  )
})
async function versions(id: string) {
  if (whole.value?.id === id) return (whole.value = undefined)
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/cards/{card}', {
      params: { path: { kitchen: kitchen.kitchen!.id, card: id } },
    }),
  )
  trouble.value = got.problem
  whole.value = got.data
}
function open(id: string, name: string, v: Version) {
  dessert.openCard(id, name, v)
  void router.push('/')
}
</script>

<template>
  <div class="cards">
    <div class="bar">
      <h1>Cards</h1>
      <el-input
        v-model="find"
        class="find"
        placeholder="Find by name, style or fruit"
        aria-label="Find a card"
        clearable
        data-testid="find-card"
      />
      <RouterLink class="push import" to="/cards/import" data-testid="import">Import a card</RouterLink>
    </div>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble.title }}. Trying again every few seconds.</p>
    <p v-if="outbox.any" class="quiet">What waits to be saved is not in this list yet.</p>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet: <code>make demo</code> loads one to look around in.
    </p>
    <p v-else-if="cards && !cards.length" class="empty">
      No cards yet. Put a dessert together on the <RouterLink to="/">Bench</RouterLink> and save it.
    </p>
    <p v-else-if="shown && !shown.length" class="empty">
      No card matches. Clear the search to see all {{ cards?.length }}.
    </p>
    <p v-else-if="!cards && !trouble" class="empty quiet">Fetching the cards…</p>
    <ul>
      <li v-for="c in shown" :key="c.id" class="panel" :data-testid="`card-${c.name}`">
        <button class="open" @click="open(c.id, c.name, c.newest)">
          <span class="pic"><CutawayPicture v-if="c.brief" :cut="c.brief.cutaway" small /></span>
          <span class="text">
            <strong>{{ c.name }}</strong>
            <span class="quiet">{{ c.newest.request.style }} · {{ fruits(c.newest) }}</span>
            <span class="quiet">{{ sizes(c.newest.request.dish) }}</span>
          </span>
          <span v-if="c.brief" class="text figures">
            <span
              ><strong>{{ grams(c.brief.fruit_g) }}</strong> fruit</span
            >
            <span>{{ grams(c.brief.thickener_g) }} thickener, {{ bandWords[c.brief.band] }}</span>
            <span>{{ c.brief.portions }} {{ c.brief.portions === 1 ? 'portion' : 'portions' }}</span>
          </span>
          <span v-else class="wrong">can’t be calculated as it stands</span>
        </button>
        <button class="plain" :aria-expanded="whole?.id === c.id" @click="versions(c.id)">
          Version {{ c.newest.number }}, {{ date(c.newest.saved_at) }}
        </button>
        <ol v-if="whole?.id === c.id" class="versions">
          <li v-for="v in whole.versions" :key="v.id">
            <button class="plain" :data-testid="`version-${v.number}`" @click="open(c.id, c.name, v)">
              Open version {{ v.number }}
            </button>
            {{ date(v.saved_at) }}<template v-if="v.note">: {{ v.note }}</template>
          </li>
        </ol>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 6px 8px 12px;
}
.import {
  margin-left: auto;
  text-decoration: none;
}
.find {
  max-width: 340px;
}
ul {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 560px), 1fr));
  gap: 8px;
  margin: 0;
  padding: 0;
}
ul > li {
  padding: 6px 12px 2px;
}
.open {
  display: grid;
  grid-template-columns: 170px 1fr 190px;
  gap: 14px;
  align-items: center;
  width: 100%;
  min-height: 96px;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.text {
  display: grid;
  gap: 2px;
}
.text:not(.figures) strong {
  font: 650 19px/1.2 var(--title);
}
.figures strong {
  font-size: 21px;
}
.pic {
  align-self: center;
}
.versions {
  list-style: none;
  margin: 0;
  padding: 0 0 8px;
  border-top: 1px solid var(--line);
}
.empty {
  padding: 40px 12px;
  text-align: center;
  font-size: 18px;
}
@media (max-width: 620px) {
  .open {
    grid-template-columns: 110px 1fr;
  }
  .figures {
    grid-column: 1 / -1;
  }
  .bar {
    flex-wrap: wrap;
    gap: 8px;
  }
}
</style>
