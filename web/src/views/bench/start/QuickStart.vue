<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { BalanceRequest, Dish, ShelfDish } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { litres, lower, short, sizes } from '@/format/amounts'
import DishForm from '@/ui/DishForm.vue'
import DishOutline from '@/ui/DishOutline.vue'
import StartOptions from './StartOptions.vue'
import { useDessert } from '@/stores/useDessert'

/**
 * Dish, fruit and style in three touches, in any order, and the whole answer is there. Or begun from an amount of fruit
 * or from portions: then the dishes follow.
 */
const from = ref<'dish' | 'fruit' | 'portions'>('dish')
const starts = [
  ['dish', 'a dish'],
  ['fruit', 'an amount of fruit'],
  ['portions', 'portions'],
] as const
const kitchen = useKitchen()
const dessert = useDessert()
const dish = ref<ShelfDish>()
const own = ref<Dish>()
const fruit = ref<string>()
const style = ref<string>()
const find = ref('')
const ownOpen = ref(false)

const fruits = computed(() => {
  const all = kitchen.fruits
  const words = find.value.trim().toLowerCase()
  return words ? all.filter((f) => f.name.toLowerCase().includes(words)) : all
})
const chosen = computed(() => own.value ?? dish.value?.dish)

function takeDish(d: ShelfDish) {
  dish.value = d
  own.value = undefined
  ownOpen.value = false
  start()
}

function openOwn() {
  ownOpen.value = true
  dish.value = undefined
  own.value = { shape: 'rectangle', length_cm: 24, width_cm: 18, depth_cm: 5, material: 'stoneware' }
}

// with nothing on the shelf its sizes are what there is to begin with
watch(
  () => kitchen.ready && !kitchen.dishes.length,
  (bare) => bare && !own.value && openOwn(),
  { immediate: true },
)

function start() {
  if (from.value === 'dish' && chosen.value) begin(chosen.value)
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
</script>

<template>
  <div class="rough">
    <div class="head">
      <h1>Three touches, and the whole answer is there.</h1>
      <p v-if="dessert.undos.length" class="before" role="status">
        <span class="small">{{ dessert.undos.at(-1)?.says }}.</span>
        <button class="push" data-testid="undo" @click="dessert.undo()">Undo</button>
      </p>
      <div class="choice" role="group" aria-label="Start from">
        <button
          v-for="[key, says] in starts"
          :key="key"
          :aria-pressed="from === key"
          :data-testid="`from-${key}`"
          @click="from = key"
        >
          {{ `From ${says}` }}
        </button>
      </div>
    </div>
    <section v-if="from !== 'dish'" class="panel" aria-labelledby="rough-amount">
      <h2 id="rough-amount">1 · {{ from === 'fruit' ? 'How much fruit' : 'How many portions' }}</h2>
      <StartOptions :from="from" :fruit="fruit" :style-key="style" @begin="begin" />
    </section>
    <section v-else class="panel" aria-labelledby="rough-dish">
      <h2 id="rough-dish">1 · Dish</h2>
      <p v-if="kitchen.trouble" class="wrong">
        {{ `${kitchen.trouble.title}. A dish can still be given by its sizes.` }}
      </p>
      <p v-else-if="kitchen.ready && !kitchen.dishes.length" class="quiet">
        The shelf is empty: give a dish by its sizes, inside, at the rim.
      </p>
      <ul class="list">
        <li v-for="d in kitchen.dishes" :key="d.id">
          <button :aria-pressed="dish?.id === d.id" :data-testid="`dish-${d.name}`" @click="takeDish(d)">
            <DishOutline :dish="d.dish" />
            <span
              ><strong>{{ d.name }}</strong
              ><br /><span class="quiet small">{{ sizes(d.dish) }} · {{ litres(d.volume_ml) }}</span></span
            >
          </button>
        </li>
        <li>
          <button :aria-pressed="ownOpen" data-testid="dish-own" @click="openOwn">
            <span class="plus" aria-hidden="true">+</span>
            <strong>Another dish, by its sizes</strong>
          </button>
        </li>
      </ul>
      <div v-if="ownOpen && own" class="own">
        <DishForm :dish="own" @change="(d) => (own = d)" />
        <button class="push main" :disabled="!fruit || !style" data-testid="own-go" @click="start">
          {{ fruit && style ? 'Go' : 'Now the fruit and the style' }}
        </button>
      </div>
    </section>
    <section class="panel" aria-labelledby="rough-fruit">
      <h2 id="rough-fruit">2 · Fruit</h2>
      <el-input
        v-model="find"
        placeholder="Find a fruit"
        aria-label="Find a fruit"
        clearable
        data-testid="find-fruit"
        @keydown.enter="fruits[0] && ((fruit = fruits[0].key), start())"
      />
      <ul class="list fruit">
        <li v-for="f in fruits" :key="f.key">
          <button
            :aria-pressed="fruit === f.key"
            :data-testid="`fruit-${f.key}`"
            @click="((fruit = f.key), start())"
          >
            <span class="drop" :style="{ background: f.juice_colour }" aria-hidden="true" /> {{ f.name }}
          </button>
        </li>
        <li v-if="!fruits.length" class="quiet none">No fruit of that name. Clear the search to see all.</li>
      </ul>
    </section>
    <section class="panel" aria-labelledby="rough-style">
      <h2 id="rough-style">3 · Style</h2>
      <ul class="list">
        <li v-for="s in kitchen.larder?.styles" :key="s.key">
          <button
            :aria-pressed="style === s.key"
            :data-testid="`style-${s.key}`"
            @click="((style = s.key), start())"
          >
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
  grid-template: auto 1fr / 1.15fr 1.15fr 0.9fr;
  gap: 8px;
  height: calc(100vh - var(--above) - 16px);
  min-height: 420px;
}
.head {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px 20px;
  padding: 4px 8px;
}
section {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  padding: 12px;
}
.before {
  display: flex;
  flex: 1 1 200px;
  align-items: center;
  justify-content: flex-end;
  gap: 10px;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  flex: 1 1 auto;
}
.own {
  overflow: auto;
  display: grid;
  gap: 10px;
  flex: 0 1 auto;
}
.list button {
  display: flex;
  align-items: center;
  gap: 12px;
  width: 100%;
  min-height: 52px;
  padding: 4px 10px;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  text-align: left;
  cursor: pointer;
}
.fruit button {
  min-height: 44px;
}
.list button:hover:not(:disabled, [aria-pressed='true']) {
  background: var(--sunk);
}
.list button[aria-pressed='true'] {
  background: var(--rim);
  color: var(--on-rim);
}
.list button[aria-pressed='true'] .quiet {
  color: inherit;
}
.list button:focus-visible {
  outline-offset: -3px;
}
.list button:disabled {
  cursor: default;
  color: var(--ink-2);
}
.style {
  min-width: 92px;
  font-size: 18px;
}
.style::first-letter {
  text-transform: uppercase;
}
.plus {
  width: 54px;
  text-align: center;
  font-size: 26px;
}
.none {
  padding: 16px 8px;
}
@media (max-width: 900px) {
  .rough {
    display: flex;
    flex-direction: column;
    height: auto;
  }
  .list {
    max-height: 330px;
  }
}
</style>
