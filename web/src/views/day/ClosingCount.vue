<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import { api, ask, type ListedCard, type DayOrders, type HowMany } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'

/** What was left at closing, counted by touches; and how much to make, by what this weekday sold before. */
const props = defineProps<{ request: DayOrders; date: string; cards: ListedCard[] }>()
const emit = defineEmits<{ change: [label: string, how: (a: DayOrders) => void] }>()
const kitchen = useKitchen()
const proposed = shallowRef<HowMany[]>([])
const newest = newestOnly()
watch(
  [() => props.date, () => kitchen.kitchen?.id],
  async () => {
    const isNewest = newest()
    if (!kitchen.kitchen) return
    const path = { kitchen: kitchen.kitchen.id, date: props.date }
    const got = await ask(api.GET('/api/v1/kitchens/{kitchen}/days/{date}/how-many', { params: { path } }))
    if (isNewest()) proposed.value = got.data ?? []
  },
  { immediate: true },
)
const nameOf = (card: string) => props.cards.find((c) => c.id === card)?.name ?? 'A card'
const sold = computed(() => props.request.sold ?? [])
/** Made by the day's orders, and not counted yet. */
const toCount = computed(() => {
  const dishes = new Map<string, number>()
  for (const o of props.request.orders) dishes.set(o.card, (dishes.get(o.card) ?? 0) + o.dishes)
  return [...dishes]
    .filter(([card]) => !sold.value.some((s) => s.card === card))
    .map(([card, n]) => ({
      card,
      made: Math.round(n * (props.cards.find((c) => c.id === card)?.brief?.portions ?? 1)),
    }))
})
const count = (card: string, made: number, left: number) =>
  emit('change', `${nameOf(card)}: ${left} left of ${made}`, (a) => {
    a.sold = [...(a.sold ?? []).filter((s) => s.card !== card), { card, made, left }]
  })
const steps = [-1, 1] as const
</script>

<template>
  <section class="panel closing" aria-labelledby="closing-title" data-testid="closing">
    <h2 id="closing-title">Portions made and left over</h2>
    <div class="proposed">
      <p v-for="p in proposed" :key="p.card" :data-testid="`how-many-${p.name}`">
        <strong class="make">{{ p.make }}</strong>
        <span>
          <strong>{{ p.name }}</strong>
          <span class="small">{{ p.text }}</span>
        </span>
      </p>
    </div>
    <p v-if="!proposed.length" class="quiet small">
      Count the leftovers at closing time. After a few days you will see here how much to make.
    </p>
    <ul>
      <li v-for="s in sold" :key="s.card" :data-testid="`sold-${nameOf(s.card)}`">
        <span class="what">{{ nameOf(s.card) }}</span>
        <span class="counter" role="group" :aria-label="`${nameOf(s.card)}, left`">
          <button
            v-for="by in steps"
            :key="by"
            class="push"
            :aria-label="by === 1 ? 'One more left' : 'One less left'"
            :disabled="by === 1 ? s.left >= s.made : !s.left"
            :data-testid="by === 1 ? 'one-more-left' : 'one-less-left'"
            @click="count(s.card, s.made, s.left + by)"
          >
            {{ by === 1 ? '+' : '−' }}
          </button>
        </span>
        <strong class="left">{{
          s.left ? `${s.left} of ${s.made} left` : `sold out, ${s.made} made`
        }}</strong>
      </li>
    </ul>
    <span class="acts">
      <button
        v-for="t in toCount"
        :key="t.card"
        class="push"
        :data-testid="`count-${nameOf(t.card)}`"
        @click="count(t.card, t.made, 0)"
      >
        {{ `Count ${nameOf(t.card)}` }}
      </button>
    </span>
  </section>
</template>

<style scoped>
.closing {
  display: grid;
  gap: 6px;
  padding: 8px 12px 12px;
}
.proposed,
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 21rem), 1fr));
  gap: 8px 24px;
}
.proposed p {
  display: grid;
  grid-template-columns: 3rem 1fr;
  gap: 8px;
}
.proposed p > span {
  display: grid;
  align-content: start;
}
.make {
  font-size: 2rem;
  line-height: 1;
  text-align: right;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 2px 8px;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.counter {
  display: flex;
  gap: 4px;
  grid-row: 1 / 3;
  grid-column: 2;
}
.counter .push {
  min-width: 48px;
  font-size: 1.25rem;
}
.left {
  font-size: 1.0625rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
