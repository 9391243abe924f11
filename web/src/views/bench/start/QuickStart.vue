<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { BalanceRequest, Dish } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { lower, short } from '@/format/amounts'
import DishChoice, { type Chosen } from '@/ui/DishChoice.vue'
import UndoRedo from '@/ui/UndoRedo.vue'
import OwnIngredientOption from '@/ui/OwnIngredientOption.vue'
import FruitMark from '@/ui/FruitMark.vue'
import AmountChoice, { type Amount } from './AmountChoice.vue'
import StartOptions from './StartOptions.vue'
import { useDessert } from '@/stores/useDessert'

/**
 * Dish, fruit and style in three touches, in any order, and the whole answer is there. Where an amount of fruit or
 * a number of portions is said first, the dishes that it fits follow; a dish that was chosen takes the amount.
 */
const kitchen = useKitchen()
const dessert = useDessert()
const dish = ref<Chosen>()
const fruit = ref<string>()
const style = ref<string>()
const find = ref('')
const amount = reactive<Amount>({ of: 'dish', bought: false, count: 8, portion: 'standard' })

const fruits = computed(() => {
  const all = kitchen.fruits
  const words = find.value.trim().toLowerCase()
  return words ? all.filter((f) => f.name.toLowerCase().includes(words)) : all
})
/** What the fruit is given by, where it was said. */
const given = computed<Partial<BalanceRequest>>(() => {
  if (amount.of !== 'fruit' || amount.g === undefined) return {}
  return amount.bought ? { bought_fruit_g: amount.g } : { weighed_fruit_g: amount.g }
})

function takeDish(d: Chosen) {
  dish.value = d
  start()
}
function takeFruit(key: string) {
  fruit.value = key
  start()
}
function takeStyle(key: string) {
  style.value = key
  start()
}
function start() {
  if (dish.value && amount.of !== 'portions') begin(dish.value.dish, given.value)
}

function begin(dish: Dish, more: Partial<BalanceRequest> = {}, note = '') {
  const s = style.value ? kitchen.style.get(style.value) : undefined
  const f = fruit.value ? kitchen.fruit.get(fruit.value) : undefined
  if (!s || !f) return
  dessert.open(
    {
      name: `${short(f.name)} ${s.key}${note}`,
      request: {
        dish,
        style: s.key as 'crumble',
        fruits: [kitchen.picked(f.key, 1)],
        topping: { key: s.topping },
        ...(s.base ? { base: { key: s.base } } : {}),
        thickener: { key: 'cornflour' },
        ...more,
      },
      setting: {},
    },
    false,
  )
}
const fits = computed(() => amount.of === 'portions' || (amount.of === 'fruit' && !dish.value))
</script>

<template>
  <div class="rough">
    <div class="head">
      <h1>Dish, fruit and style</h1>
      <AmountChoice v-model="amount" :fruit="fruit" />
      <UndoRedo
        v-if="dessert.undos.length || dessert.redos.length"
        :undos="dessert.undos"
        :redos="dessert.redos"
        @undo="dessert.undo()"
        @redo="dessert.redo()"
      />
    </div>
    <section class="panel" aria-labelledby="rough-dish">
      <h2 id="rough-dish">1 · Dish</h2>
      <p v-if="kitchen.trouble" class="wrong">
        {{ `${kitchen.trouble.title}. You can still enter the sizes of a dish.` }}
      </p>
      <StartOptions v-if="fits" :amount="amount" :fruit="fruit" :style-key="style" @begin="begin" />
      <DishChoice v-if="amount.of !== 'portions'" :chosen="dish?.id" @choose="takeDish" />
    </section>
    <section class="panel" aria-labelledby="rough-fruit">
      <h2 id="rough-fruit">2 · Fruit</h2>
      <el-input
        v-model="find"
        placeholder="Find a fruit"
        aria-label="Find a fruit"
        clearable
        data-testid="find-fruit"
        @keydown.enter="fruits[0] && takeFruit(fruits[0].key)"
      />
      <ul class="rows close">
        <li v-for="f in fruits" :key="f.key">
          <button :aria-pressed="fruit === f.key" :data-testid="`fruit-${f.key}`" @click="takeFruit(f.key)">
            <FruitMark :fruit="f" /> {{ f.name }}
          </button>
        </li>
        <li v-if="!fruits.length" class="quiet none">No fruit of that name. Clear the search to see all.</li>
        <li>
          <OwnIngredientOption :among="kitchen.fruits" :name="find" :take="takeFruit" testid="own-fruit" />
        </li>
      </ul>
    </section>
    <section class="panel" aria-labelledby="rough-style">
      <h2 id="rough-style">3 · Style</h2>
      <ul class="rows">
        <li v-for="s in kitchen.larder?.styles" :key="s.key">
          <button :aria-pressed="style === s.key" :data-testid="`style-${s.key}`" @click="takeStyle(s.key)">
            <strong class="style">{{ s.key === 'bar' ? 'bar pan' : s.key }}</strong>
            <span class="quiet small"
              >{{ kitchen.topping.get(s.topping)?.name
              }}{{ s.base ? `, on ${lower(kitchen.base.get(s.base)?.name ?? '')}` : '' }}</span
            >
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.rough {
  display: grid;
  grid-template: auto minmax(0, 1fr) / 1.15fr 1.15fr 0.9fr;
  gap: 8px;
  height: calc(100vh - var(--above) - var(--first-day, 0px) - 16px);
  min-height: 420px;
}
.head {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  padding: 0 8px;
}
.how-much {
  margin-right: auto;
}
section {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  padding: 12px;
}
.style {
  min-width: 92px;
  font-size: 1.125rem;
}
.style::first-letter {
  text-transform: uppercase;
}
.none {
  padding: 16px 8px;
}
@media (max-width: 56.25em) {
  .rough {
    display: flex;
    flex-direction: column;
    height: auto;
  }
  .rough :deep(.rows) {
    max-height: 330px;
  }
}
</style>
