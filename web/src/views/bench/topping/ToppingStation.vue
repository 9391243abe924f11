<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, ask, reasonOf } from '@/api/client'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import OwnIngredientOption from '@/ui/OwnIngredientOption.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { lower, mm, short, fromTo } from '@/format/amounts'
import BakeAlternatives from '@/views/bench/bake/BakeAlternatives.vue'
import BaseChoice from './BaseChoice.vue'
import DoughLiquids from './DoughLiquids.vue'
import LateToppings from './LateToppings.vue'
import { useDessert } from '@/stores/useDessert'

const kitchen = useKitchen()
const dessert = useDessert()
const request = computed(() => dessert.draft!.request)
const row = computed(() => kitchen.topping.get(request.value.topping.key))
const families = computed(() => kitchen.style.get(request.value.style)?.families ?? [])
const offered = computed(
  // those that are usual on this style first
  () =>
    [...(kitchen.larder?.toppings ?? [])].sort(
      (a, b) => Number(families.value.includes(b.family)) - Number(families.value.includes(a.family)),
    ),
)
/** Nothing lies on the fruit. */
const bare = computed(() => row.value?.family === 'none')
/** Crumbs may lie between the fruit; a dough lies on it. */
const layered = computed(() => !!row.value?.layered)
const layers = [
  [1, 'on top'],
  [2, 'under and on top'],
  [3, 'three layers'],
] as const
/** A machine has a bowl that takes so much. */
const machine = computed(() => ['mixer', 'processor'].includes(request.value.topping.tool ?? ''))
const parts = computed(() => {
  const own = request.value.topping.bakers_pct ?? {}
  const recipe = row.value?.parts ?? []
  const added = Object.keys(own).filter((k) => !recipe.some((p) => p.key === k))
  return [
    ...recipe.map((p) => ({ ...p, own: own[p.key] })),
    ...added.map((key) => ({ key, name: kitchen.ingredient.get(key)?.name ?? key, pct: 0, own: own[key] })),
  ]
})
const addable = computed(
  () => kitchen.ingredients.filter((i) => i.for_topping && !parts.value.some((p) => p.key === i.key)) ?? [],
)
/** In the place of butter, by pure fat; an oil's crumb is not a solid fat's. */
const lies = computed(() => dessert.answer?.topping)

const swapped = ref('')
const swaps = computed(
  () =>
    kitchen.larder?.swaps.filter((s) => parts.value.some((p) => p.key === s.from && (p.own ?? p.pct) > 0)) ??
    [],
)
async function swapIn(index: number) {
  const s = kitchen.larder?.swaps.find((x) => x.index === index)
  if (!s) return
  const got = await ask(api.POST('/api/v1/swap', { body: { request: kitchen.ours(request.value), index } }))
  swapped.value = got.problem ? reasonOf(got.problem) : `${s.to}: ${s.costs}.`
  if (got.data) dessert.change('a swap', (d) => (d.request = got.data))
}
function swap(key: string) {
  dessert.change('the topping', (d) => (d.request.topping = { key, amount: d.request.topping.amount }))
}
function pct(key: string, v: number | undefined) {
  dessert.change('the topping’s recipe', (d) => {
    const own = { ...d.request.topping.bakers_pct }
    const usual = row.value?.parts.find((p) => p.key === key)?.pct
    if (v === undefined || v === usual) delete own[key]
    else own[key] = v
    d.request.topping.bakers_pct = Object.keys(own).length ? own : undefined
  })
}
</script>

<template>
  <div class="topping">
    <el-select
      :model-value="request.topping.key"
      aria-label="Topping"
      data-testid="topping"
      @update:model-value="swap"
    >
      <el-option
        v-for="o in offered"
        :key="o.key"
        :value="o.key"
        :label="o.name"
        :data-testid="`topping-${o.key}`"
      />
    </el-select>
    <DoughLiquids v-if="row?.hydration_pct" />
    <div v-if="layered" class="field">
      <span class="label">Position</span>
      <div class="choice" role="group" aria-label="Position of the topping">
        <button
          v-for="[n, label] in layers"
          :key="n"
          :aria-pressed="(request.topping.layers ?? row?.layers) === n"
          :data-testid="`layers-${n}`"
          @click="
            dessert.change(
              'the layers',
              (d) => (d.request.topping.layers = n === row?.layers ? undefined : n),
            )
          "
        >
          {{ label }}
        </button>
      </div>
    </div>
    <div v-if="!bare" class="pair">
      <ChoiceButtons
        of="amount"
        :model-value="request.topping.amount"
        :none="!!request.topping.thickness_mm"
        label="Amount of topping"
        testid="amount"
        @update:model-value="
          (a) =>
            dessert.change(
              'the amount of topping',
              (d) => ((d.request.topping.amount = a), delete d.request.topping.thickness_mm),
            )
        "
      />
      <AmountField
        label="Thickness, raw"
        hide-label
        kind="length"
        unit="mm"
        optional
        :instead="lies?.thickness_mm"
        :model-value="request.topping.thickness_mm || undefined"
        :problem="dessert.faultAt('/topping/thickness_mm')"
        testid="thickness"
        @update:model-value="
          (v) => dessert.change('the thickness', (d) => (d.request.topping.thickness_mm = v))
        "
      />
    </div>
    <p v-if="lies && !bare" class="read" data-testid="depths">
      {{
        `${mm(lies.thickness_mm)} on ${mm(lies.fruit_depth_mm)} of raw fruit; usual: ${fromTo(mm(lies.ratio_low * lies.fruit_depth_mm), mm(lies.ratio_high * lies.fruit_depth_mm))}.`
      }}
    </p>
    <ChoiceButtons
      v-if="row?.parts.some((x) => x.key === 'butter')"
      of="topping_fat"
      :model-value="request.topping.fat"
      label="Fat"
      testid="fat"
      @update:model-value="(key) => dessert.change('the fat', (d) => (d.request.topping.fat = key))"
    />
    <table v-if="!bare">
      <caption class="visually-hidden">
        Recipe (baker’s percentages)
      </caption>
      <thead>
        <tr>
          <th scope="col">Recipe</th>
          <th scope="col" class="n">Baker’s %</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(p, i) in parts" :key="p.key">
          <th scope="row">{{ short(p.name) }}</th>
          <td class="n">
            <span v-if="i === 0">{{ p.own === 0 ? 'left out' : '100 %' }}</span>
            <AmountField
              v-else
              :label="`Baker’s percentage of ${lower(p.name)}`"
              hide-label
              kind="percent"
              unit="%"
              optional
              :step="1"
              :instead="p.pct"
              :model-value="p.own"
              :problem="dessert.faultAt(`/topping/bakers_pct/${p.key}`)"
              :testid="`pct-${p.key}`"
              @update:model-value="(v) => pct(p.key, v)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <el-select
      v-if="!bare"
      model-value=""
      filterable
      placeholder="Add an ingredient"
      aria-label="Add an ingredient"
      data-testid="add-part"
      @update:model-value="(k: string) => k && pct(k, 10)"
    >
      <el-option
        v-for="o in addable"
        :key="o.key"
        :value="o.key"
        :label="o.name"
        :data-testid="`add-part-${o.key}`"
      />
      <template #footer
        ><OwnIngredientOption
          :among="kitchen.ingredients"
          :take="(k: string) => pct(k, 10)"
          testid="own-part"
      /></template>
    </el-select>
    <el-select
      v-if="swaps.length"
      model-value=""
      filterable
      placeholder="Swap an ingredient"
      aria-label="Swap an ingredient"
      data-testid="swap"
      @update:model-value="swapIn"
    >
      <el-option
        v-for="s in swaps"
        :key="s.index"
        :value="s.index"
        :label="`${short(kitchen.ingredient.get(s.from)?.name ?? s.from)} → ${s.to}`"
        :data-testid="`swap-${s.from}-${s.index}`"
      />
    </el-select>
    <p v-if="swapped" class="small" role="status" data-testid="swapped">{{ swapped }}</p>
    <p v-if="lies?.texture.fat" class="read" data-testid="texture">{{ lies.texture.text }}</p>
    <AmountField
      v-if="machine"
      label="Mixer bowl"
      kind="volume"
      unit="ml"
      optional
      :step="100"
      instead="2000"
      :model-value="request.topping.bowl_ml || undefined"
      :problem="dessert.faultAt('/topping/bowl_ml')"
      testid="bowl-ml"
      @update:model-value="(v) => dessert.change('the bowl', (d) => (d.request.topping.bowl_ml = v))"
    />
    <LateToppings />
    <BaseChoice />
    <BakeAlternatives :questions="['fat', 'tool', 'ratio', 'crumb', 'coverage', 'base']" />
    <p v-if="row && !bare" class="small quiet">
      {{ `Ahead: ${row.make_ahead}. Recipe from: ${kitchen.word('basis', row.basis)}.` }}
    </p>
  </div>
</template>

<style scoped>
.topping {
  display: grid;
  gap: 8px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 104px;
  gap: 8px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
thead th {
  font-size: 0.875rem;
  color: var(--ink-2);
  font-weight: 400;
}
th {
  text-align: left;
  font-weight: 400;
}
td,
tbody th {
  border-top: 1px solid var(--line);
  height: 46px;
  padding: 1px 0;
}
.n {
  text-align: right;
  width: 112px;
}
td > span {
  padding-right: 12px;
  font-weight: 600;
}
.read {
  padding: 8px 10px;
  background: var(--sunk);
  border-radius: 4px;
}
</style>
