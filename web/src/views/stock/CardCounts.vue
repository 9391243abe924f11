<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { api, ask, type ListedCard } from '@/api/client'
import { useFetched } from '@/ui/useFetched'
import { inWords } from '@/format/minutes'
import type { Wanted } from './useWanted'

/** Make: a day with its orders, and cards in addition to it. */
const wanted = defineModel<Wanted>({ required: true })
const cards = shallowRef<ListedCard[]>([])
const days = shallowRef<{ date: string; orders: number }[]>([])
const picked = ref('')
const { trouble } = useFetched(async (kitchen) => {
  const path = { kitchen }
  const [c, d] = await Promise.all([
    ask(api.GET('/api/v1/kitchens/{kitchen}/cards', { params: { path, query: { limit: 200 } } })),
    ask(api.GET('/api/v1/kitchens/{kitchen}/days', { params: { path } })),
  ])
  if (c.data) cards.value = c.data.cards
  if (d.data) days.value = d.data.days.filter((x) => x.orders)
  return c.problem ?? d.problem
})
function add(card: string) {
  picked.value = ''
  const name = cards.value.find((c) => c.id === card)?.name
  if (!name || wanted.value.cards.some((c) => c.card === card)) return
  wanted.value = { ...wanted.value, cards: [...wanted.value.cards, { card, name, dishes: 1 }] }
}
function set(card: string, dishes: number) {
  const all = wanted.value.cards
  wanted.value = {
    ...wanted.value,
    cards: dishes
      ? all.map((c) => (c.card === card ? { ...c, dishes } : c))
      : all.filter((c) => c.card !== card),
  }
}
</script>

<template>
  <section class="panel for" aria-labelledby="for-title">
    <h2 id="for-title">Make</h2>
    <p v-if="trouble" class="wrong" role="alert">{{ `${trouble.title}. Trying again every few seconds.` }}</p>
    <label class="field"
      ><span class="label">All orders of a day</span>
      <el-select v-model="wanted.date" clearable placeholder="No day" aria-label="Day" data-testid="for-day">
        <el-option
          v-if="wanted.date && !days.some((d) => d.date === wanted.date)"
          :value="wanted.date"
          :label="inWords(wanted.date)"
        />
        <el-option
          v-for="d in days"
          :key="d.date"
          :value="d.date"
          :label="`${inWords(d.date)}, ${d.orders} orders`"
          :data-testid="`for-${d.date}`"
        />
      </el-select>
    </label>
    <div v-for="c in wanted.cards" :key="c.card" class="card" :data-testid="`for-card-${c.name}`">
      <strong>{{ c.name }}</strong>
      <span class="count">
        <button class="push" :aria-label="`One dish less of ${c.name}`" @click="set(c.card, c.dishes - 1)">
          −
        </button>
        <span>{{ c.dishes }}</span>
        <button
          class="push"
          :aria-label="`One dish more of ${c.name}`"
          :data-testid="`more-${c.name}`"
          @click="set(c.card, c.dishes + 1)"
        >
          +
        </button>
      </span>
    </div>
    <el-select
      v-model="picked"
      filterable
      placeholder="Add card"
      aria-label="Add card"
      data-testid="for-card"
      @change="add"
    >
      <el-option
        v-for="c in cards"
        :key="c.id"
        :value="c.id"
        :label="c.name"
        :data-testid="`for-add-${c.name}`"
      />
    </el-select>
  </section>
</template>

<style scoped>
.for {
  display: grid;
  gap: 10px;
  padding: 8px 14px 14px;
}
.card {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}
.count {
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 1.125rem;
}
</style>
