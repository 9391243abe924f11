<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Stock } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { grams, money } from '@/format/amounts'

/** In what packs the kitchen's own shops sell: the list rounds up to these. */
const props = defineProps<{ store: Stock }>()
const emit = defineEmits<{ change: [label: string, how: (s: Stock) => void] }>()
const kitchen = useKitchen()
const key = ref('')
const g = ref<number>()
const price = ref<number>()
const { nameOf } = kitchen
const rows = computed(() =>
  Object.entries(props.store.packs)
    .filter(([, packs]) => packs.length)
    .sort(([a], [b]) => nameOf(a).localeCompare(nameOf(b))),
)
const currency = computed(() => kitchen.kitchen?.settings.currency ?? '')
function add() {
  const [of, pack] = [key.value, { g: g.value ?? 0, minor: Math.round(100 * (price.value ?? 0)) }]
  emit('change', `${nameOf(of)}, a pack of ${grams(pack.g)}`, (s) => {
    s.packs[of] = [...(s.packs[of] ?? []), pack]
  })
  g.value = price.value = undefined
}
const drop = (of: string, i: number) =>
  emit('change', `${nameOf(of)}, pack removed`, (s) => {
    const left = (s.packs[of] ?? []).filter((_, k) => k !== i)
    if (left.length) s.packs[of] = left
    else s.packs = Object.fromEntries(Object.entries(s.packs).filter(([k]) => k !== of))
  })
</script>

<template>
  <section class="panel packs" aria-labelledby="packs-title">
    <h2 id="packs-title">Pack sizes in your shops</h2>
    <p class="quiet small">Without your own pack sizes, usual ones are used: 250 g butter, 1 kg flour.</p>
    <ul>
      <li v-for="[of, packs] in rows" :key="of" :data-testid="`packs-${of}`">
        <strong>{{ nameOf(of) }}</strong>
        <span v-for="(p, i) in packs" :key="i" class="pack">
          {{ grams(p.g) }}<template v-if="p.minor">{{ `, ${money(p.minor, currency)}` }}</template>
          <button
            class="plain"
            :aria-label="`No pack of ${grams(p.g)} of ${nameOf(of)}`"
            @click="drop(of, i)"
          >
            Remove
          </button>
        </span>
      </li>
    </ul>
    <form class="new" @submit.prevent="add">
      <el-select
        v-model="key"
        filterable
        placeholder="Ingredient"
        aria-label="Ingredient of the pack"
        data-testid="pack-of"
      >
        <el-option
          v-for="t in [...kitchen.fruits, ...kitchen.ingredients]"
          :key="t.key"
          :value="t.key"
          :label="t.name"
          :data-testid="`pack-of-${t.key}`"
        />
      </el-select>
      <AmountField v-model="g" label="Contents" kind="mass" unit="g" optional :digits="0" testid="pack-g" />
      <AmountField
        v-model="price"
        label="Price"
        kind="percent"
        :unit="currency"
        optional
        instead="per kilogram"
        :digits="2"
        testid="pack-price"
      />
      <button class="push" :disabled="!key || !g" data-testid="pack-add">Add pack</button>
    </form>
  </section>
</template>

<style scoped>
.packs {
  display: grid;
  gap: 8px;
  margin-top: 8px;
  padding: 10px 16px 14px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 18px;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
li strong {
  min-width: 14rem;
}
.new {
  display: grid;
  grid-template-columns: minmax(0, 18rem) 10rem 12rem auto;
  align-items: end;
  gap: 10px;
}
@media (max-width: 56.25em) {
  .new {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
