<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, ask, type Pairings } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { useDessert } from '@/stores/useDessert'
import { grams } from '@/format/amounts'

/** What goes with the fruit, and whether it is in season: offered, and put in by a touch. */
defineEmits<{ fruit: [key: string] }>()
const kitchen = useKitchen()
const dessert = useDessert()
const found = ref<Pairings>()
const question = computed(() => {
  const r = dessert.draft?.request
  if (!r) return ''
  return JSON.stringify({
    fruits: r.fruits.map((f) => f.key),
    fruit_g: dessert.answer?.fruit_g ?? 0,
    month: new Date().getMonth() + 1,
    taken: [...(r.extras ?? []), ...(r.liquids ?? [])].map((x) => x.key),
    own: kitchen.own,
  })
})
const settled = refDebounced(question, 60)
const newest = newestOnly()
watch(
  settled,
  async (q) => {
    const isNewest = newest()
    if (!q) return
    const got = await ask(api.POST('/api/v1/balance/pairings', { body: JSON.parse(q) }))
    if (isNewest() && got.data) found.value = got.data
  },
  { immediate: true },
)
const titles = {
  fruit: 'Other fruit',
  spice: 'Spices',
  herb: 'Herbs',
  nut: 'Nuts',
  liquid: 'Liquids',
} as const
type Kind = keyof typeof titles
const groups = computed(() =>
  (Object.keys(titles) as Kind[])
    .map((kind) => ({ kind, offers: found.value?.offers.filter((o) => o.kind === kind) ?? [] }))
    .filter((g) => g.offers.length),
)
const isFruit = (key?: string) => !!key && kitchen.fruit.has(key)
function take(o: Pairings['offers'][number]) {
  dessert.change(o.name, (d) => {
    const list = o.kind === 'liquid' ? 'liquids' : 'extras'
    d.request[list] = [...(d.request[list] ?? []), { key: o.key!, g: Math.round(o.g * 10) / 10 }]
  })
}
</script>

<template>
  <section v-if="found" class="pairings" aria-label="Pairings" data-testid="pairings">
    <p v-for="s in found.seasons" :key="s.fruit" class="small" :class="{ quiet: s.now }">{{ s.text }}</p>
    <details>
      <summary data-testid="goes-with">Pairings</summary>
      <div v-for="g in groups" :key="g.kind" class="group">
        <span class="label">{{ titles[g.kind] }}</span>
        <template v-for="o in g.offers" :key="o.name">
          <button
            v-if="o.key"
            class="push chip"
            :title="o.text"
            :data-testid="`offer-${o.key}`"
            @click="isFruit(o.key) ? $emit('fruit', o.key) : take(o)"
          >
            {{ isFruit(o.key) ? o.name : `${o.name}, ${grams(o.g)}` }}
          </button>
          <span v-else class="chip bare" :title="o.text">{{ o.name }}</span>
        </template>
      </div>
      <p v-if="found.served_with.length" class="small">
        {{ `Serve with ${found.served_with.join(', ')}.` }}
      </p>
    </details>
  </section>
</template>

<style scoped>
.pairings {
  display: grid;
  gap: 2px;
}
.group {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  padding: 4px 0;
}
.group .label {
  width: 100%;
}
.chip {
  min-height: 44px;
  padding: 0 10px;
  font-weight: 400;
}
.bare {
  display: inline-flex;
  align-items: center;
  color: var(--ink-2);
}
</style>
