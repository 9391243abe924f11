<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import {
  api,
  ask,
  type BalanceRequest,
  type Dish,
  inWords,
  type Problem,
  type StartOption,
} from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { grams } from '@/format/amounts'
import DishOutline from '@/ui/DishOutline.vue'
import type { Amount } from './AmountChoice.vue'

/** Begun from an amount of fruit or from portions: which of the dishes, how many, and what is left over. */
const props = defineProps<{ amount: Amount; fruit?: string; styleKey?: string }>()
const emit = defineEmits<{ begin: [dish: Dish, more: Partial<BalanceRequest>, note: string] }>()
const kitchen = useKitchen()
/** The kitchen's dishes, or the typical ones where it has none. */
const dishes = computed(() => (kitchen.dishes.length ? kitchen.dishes : kitchen.typical))

const options = ref<StartOption[]>()
const prepared = ref(0)
const problem = ref<Problem>()
const asking = ref(false)

const question = computed(() => {
  const { of, g, bought, count, portion } = props.amount
  if (!props.fruit || !props.styleKey || !dishes.value.length) return undefined
  if (of === 'fruit' && g === undefined) return undefined
  return {
    style: props.styleKey as 'crumble',
    fruits: [kitchen.picked(props.fruit, 1)],
    portion,
    own: kitchen.own,
    dishes: dishes.value.map((d) => ({ id: d.id, name: d.name, count: d.count, dish: d.dish })),
    ...(of === 'portions' ? { portions: count } : bought ? { bought_g: g } : { fruit_g: g }),
  }
})
const settled = refDebounced(question, 60)
const newest = newestOnly()
watch(
  settled,
  async (q) => {
    const isNewest = newest()
    problem.value = undefined
    if (!q) {
      options.value = undefined
      return
    }
    asking.value = true
    const got = await ask(api.POST('/api/v1/start', { body: q }))
    if (!isNewest()) return
    asking.value = false
    problem.value = got.problem
    options.value = got.data?.options
    prepared.value = got.data?.prepared_g ?? 0
  },
  { immediate: true, deep: true },
)
const missing = computed(() =>
  [
    props.amount.of === 'fruit' && props.amount.g === undefined ? 'the amount' : '',
    props.fruit ? '' : 'the fruit',
    props.styleKey ? '' : 'the style',
  ].filter(Boolean),
)
const dishOf = (id: string) => dishes.value.find((d) => d.id === id)

function take(o: StartOption, i: number) {
  const use = o.uses[i]!
  const dish = dishOf(use.id)
  if (!dish) return
  const note = use.count > 1 ? `, one of ${use.count} in ${dish.name}` : ''
  emit(
    'begin',
    dish.dish,
    { portion: props.amount.portion, ...(!o.usual_fill ? { weighed_fruit_g: Math.round(use.fruit_g) } : {}) },
    note,
  )
}
</script>

<template>
  <div class="start">
    <p v-if="problem" class="wrong" role="alert">
      {{ inWords(problem) }}
    </p>
    <p v-else-if="missing.length" class="quiet">{{ `Now ${missing.join(' and ')}.` }}</p>
    <p v-else-if="asking && !options" class="quiet">Comparing dishes…</p>
    <p v-else-if="options && !options.length" class="quiet" data-testid="no-way">
      No dish or pair of dishes has the right size. Choose “to fill the dish”, or add a dish.
    </p>
    <ol v-if="options?.length" class="options">
      <li v-for="(o, n) in options" :key="n" :data-testid="`option-${n}`">
        <span class="uses">
          <button
            v-for="(u, i) in o.uses"
            :key="u.id"
            class="push"
            :data-testid="`take-${n}-${i}`"
            @click="take(o, i)"
          >
            <DishOutline v-if="dishOf(u.id)" :dish="dishOf(u.id)!.dish" />
            <span
              ><strong>{{ u.count > 1 ? `${u.count} × ` : '' }}{{ u.name }}</strong
              ><br /><span class="small">{{
                `${grams(u.fruit_g)} fruit${u.count > 1 ? ' each' : ''}`
              }}</span></span
            >
          </button>
        </span>
        <span class="text">{{ o.text }}</span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.start {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.start > * {
  flex: none;
}
.start > .options {
  flex: 1 1 auto;
}
.options {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  min-height: 0;
}
.options li {
  display: grid;
  gap: 4px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
.uses {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.uses .push {
  min-height: 52px;
  padding: 4px 12px 4px 8px;
  font-weight: 400;
  text-align: left;
}
</style>
