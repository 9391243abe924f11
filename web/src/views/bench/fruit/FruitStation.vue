<script setup lang="ts">
import { computed, ref } from 'vue'
import type { FruitInput } from '@/api/client'
import OwnIngredientOption from '@/ui/OwnIngredientOption.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { lower, short } from '@/format/amounts'
import FruitMark from '@/ui/FruitMark.vue'
import FruitDetail from './FruitDetail.vue'
import PairingsPanel from './PairingsPanel.vue'
import PrecookChoice from './PrecookChoice.vue'
import AddedIngredients from './AddedIngredients.vue'
import { useDessert } from '@/stores/useDessert'

const kitchen = useKitchen()
const dessert = useDessert()
const request = computed(() => dessert.draft!.request)
const fruits = computed(() => request.value.fruits)
const detail = ref(0)

const asBought = ref(false)
/** Whether the fruit is given as it is bought. */
const bought = computed(
  () =>
    request.value.bought_fruit_g !== undefined ||
    (asBought.value && request.value.weighed_fruit_g === undefined),
)
const given = computed(() => request.value.weighed_fruit_g ?? request.value.bought_fruit_g)
/** The field that it is given in, and what the dish takes of it. */
const field = computed(() => (bought.value ? 'bought_fruit_g' : 'weighed_fruit_g'))
const takes = computed(() => (bought.value ? dessert.answer?.fruit_bought_g : dessert.answer?.fruit_g))
/** The same fruit, given the other way. */
function weighAs(isBought: boolean) {
  asBought.value = isBought
  const a = dessert.answer
  if (given.value === undefined || !a) return
  dessert.change(isBought ? 'the fruit as bought' : 'the prepared fruit', (d) => {
    d.request.bought_fruit_g = isBought ? Math.round(a.fruit_bought_g) : undefined
    d.request.weighed_fruit_g = isBought ? undefined : Math.round(a.fruit_g)
  })
}

function set(i: number, label: string, how: (f: FruitInput) => void) {
  dessert.change(label, (d) => how(d.request.fruits[i]!))
}
function add(key: string) {
  if (!key) return
  dessert.change('another fruit', (d) => {
    const share = d.request.fruits.reduce((sum, f) => sum + f.share, 0) / d.request.fruits.length
    d.request.fruits.push(kitchen.picked(key, share || 1))
  })
  detail.value = fruits.value.length - 1
}
function remove(i: number) {
  dessert.change('a fruit removed', (d) => d.request.fruits.splice(i, 1))
  detail.value = 0
}
const row = (f: FruitInput) => kitchen.fruit.get(f.key)
const offered = computed(() => kitchen.fruits.filter((f) => !fruits.value.some((x) => x.key === f.key)))
const liquids = computed(() => kitchen.ingredients.filter((i) => i.with_fruit === 'liquid'))
const extras = computed(() => kitchen.ingredients.filter((i) => i.with_fruit === 'extra'))
</script>

<template>
  <div class="fruit">
    <div class="weigh">
      <AmountField
        :key="field"
        :label="bought ? 'Fruit as bought' : 'Prepared fruit (weighed)'"
        kind="mass"
        unit="g"
        :step="10"
        :digits="0"
        optional
        :ingredient="fruits[0]?.key"
        :instead="given ? 'to fit the dish' : (takes ?? 'to fit the dish')"
        instead-is="to fit the dish"
        :model-value="request[field]"
        :problem="dessert.faultAt(`/${field}`)"
        :testid="bought ? 'bought' : 'weighed'"
        @update:model-value="(v) => dessert.change('the weight of the fruit', (d) => (d.request[field] = v))"
      />
    </div>
    <div class="choice" role="group" aria-label="As bought or prepared">
      <button :aria-pressed="!bought" data-testid="weigh-prepared" @click="weighAs(false)">prepared</button>
      <button :aria-pressed="bought" data-testid="weigh-bought" @click="weighAs(true)">as bought</button>
    </div>
    <article v-for="(f, i) in fruits" :key="f.key" class="one">
      <div class="top">
        <button class="name" :aria-expanded="detail === i" @click="detail = detail === i ? -1 : i">
          <FruitMark v-if="row(f)" :fruit="row(f)!" />
          {{ row(f)?.name }}
        </button>
        <AmountField
          v-if="fruits.length > 1"
          :label="`Share of ${lower(short(row(f)?.name ?? ''))}`"
          hide-label
          kind="percent"
          unit="%"
          :step="5"
          :digits="0"
          :model-value="f.share * 100"
          :problem="dessert.faultAt(`/fruits/${i}/share`)"
          :testid="`share-${f.key}`"
          @update:model-value="(v) => set(i, 'the shares', (x) => (x.share = (v ?? 0) / 100))"
        />
        <button
          v-if="fruits.length > 1"
          class="plain"
          :aria-label="`Remove ${row(f)?.name}`"
          @click="remove(i)"
        >
          Remove
        </button>
      </div>
      <FruitDetail v-if="detail === i" :fruit="f" :index="i" />
    </article>
    <el-select
      model-value=""
      filterable
      placeholder="Add another fruit"
      aria-label="Add another fruit"
      data-testid="add-fruit"
      @update:model-value="add"
    >
      <el-option
        v-for="f in offered"
        :key="f.key"
        :value="f.key"
        :label="f.name"
        :data-testid="`add-fruit-${f.key}`"
      />
      <template #footer
        ><OwnIngredientOption :among="kitchen.fruits" :take="add" testid="own-fruit"
      /></template>
    </el-select>
    <div v-if="dessert.answer" class="buy" data-testid="buy">
      <span v-for="p in dessert.answer.purchase" :key="p.key">
        {{ p.text }}
      </span>
    </div>
    <div class="ticks">
      <label class="tick"
        ><input
          type="checkbox"
          :checked="request.washed"
          data-testid="washed"
          @change="dessert.change('washing', (d) => (d.request.washed = !d.request.washed))"
        />
        Wet from washing</label
      >
    </div>
    <PairingsPanel @fruit="add" />
    <PrecookChoice />
    <AddedIngredients
      list="liquids"
      title="Liquids on the fruit"
      add="Add lemon juice, syrup, …"
      :offered="liquids"
    />
    <AmountField
      label="Crumbs with the fruit"
      kind="mass"
      unit="g"
      optional
      :step="5"
      :digits="0"
      instead="none"
      ingredient="dry_breadcrumbs"
      :model-value="request.crumb_layer_g || undefined"
      :problem="dessert.faultAt('/crumb_layer_g')"
      testid="crumbs"
      @update:model-value="(v) => dessert.change('the crumbs', (d) => (d.request.crumb_layer_g = v))"
    />
    <AddedIngredients
      list="extras"
      title="Added to the fruit"
      add="Add butter, dried fruit, spice, …"
      :offered="extras"
    />
  </div>
</template>

<style scoped>
.fruit {
  display: grid;
  gap: 10px;
}
.one {
  border-bottom: 1px solid var(--line);
  padding-bottom: 6px;
}
.top {
  display: grid;
  grid-template-columns: 1fr 108px auto;
  align-items: center;
  gap: 6px;
}
.top .name {
  grid-column: 1;
}
.top:not(:has(.amount)) .name {
  grid-column: 1 / -1;
}
.name {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  font-weight: 600;
  font-size: 1.0625rem;
  text-align: left;
  cursor: pointer;
}
.buy {
  display: grid;
  gap: 2px;
  padding: 8px 10px;
  background: var(--sunk);
  border-radius: 4px;
}
</style>
