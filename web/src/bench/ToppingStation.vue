<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, ask, why } from '@/api/client'
import BoldText from '@/parts/BoldText.vue'
import AmountField from '@/parts/AmountField.vue'
import { useKitchen } from '@/parts/useKitchen'
import { basisWords, lower, mm, percent, short, asRead, fromTo } from '@/parts/words'
import BakersDisagree from './BakersDisagree.vue'
import BaseChoice from './BaseChoice.vue'
import DoughLiquids from './DoughLiquids.vue'
import LateToppings from './LateToppings.vue'
import { useDessert } from './useDessert'
import { t, text } from '@/texts'

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
  () =>
    kitchen.ingredients.filter(
      (i) =>
        !parts.value.some((p) => p.key === i.key) &&
        !['liquid', 'thickener', 'acid', 'pastry'].includes(i.role),
    ) ?? [],
)
/** In the place of butter, by pure fat; an oil's crumb is not a solid fat's. */
const fats = [
  ['butter', 'butter'],
  ['vegan_block', text('plant block')],
  ['sunflower_oil', 'oil'],
  ['shortening', 'shortening'],
] as const
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
  swapped.value = got.problem ? why(got.problem) : `${asRead(s.to)}: ${asRead(s.costs)}.`
  if (got.data) dessert.change(t('a swap'), (d) => (d.request = got.data))
}
function swap(key: string) {
  dessert.change(t('the topping'), (d) => (d.request.topping = { key, amount: d.request.topping.amount }))
}
function pct(key: string, v: number | undefined) {
  dessert.change(t('the topping’s recipe'), (d) => {
    const own = { ...d.request.topping.bakers_pct }
    const usual = row.value?.parts.find((p) => p.key === key)?.pct
    if (v === undefined || v === usual) delete own[key]
    else own[key] = v
    d.request.topping.bakers_pct = Object.keys(own).length ? own : undefined
  })
}
const verdicts: Record<string, string> = {
  dusty: 'dusty',
  crumbly: 'crumbly',
  spreads: text('spreads and greases'),
  pale: text('stays pale'),
  sweet: text('colours well'),
  candied: text('hard and candied'),
}
</script>

<template>
  <div class="topping">
    <el-select
      :model-value="request.topping.key"
      :aria-label="$t('Topping')"
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
    <div class="pair">
      <div class="choice" role="group" :aria-label="$t('How much topping')">
        <button
          v-for="a in ['light', 'standard', 'generous'] as const"
          :key="a"
          :aria-pressed="!request.topping.thickness_mm && (request.topping.amount || 'standard') === a"
          :data-testid="`amount-${a}`"
          @click="
            dessert.change(
              $t('the amount of topping'),
              (d) => ((d.request.topping.amount = a), delete d.request.topping.thickness_mm),
            )
          "
        >
          {{ a === 'standard' ? $t('usual') : $t(a) }}
        </button>
      </div>
      <AmountField
        :label="$t('Thickness, raw')"
        hide-label
        kind="length"
        unit="mm"
        optional
        :instead="lies?.thickness_mm"
        :model-value="request.topping.thickness_mm || undefined"
        :problem="dessert.faultAt('/topping/thickness_mm')"
        testid="thickness"
        @update:model-value="
          (v) => dessert.change($t('the thickness'), (d) => (d.request.topping.thickness_mm = v))
        "
      />
    </div>
    <p v-if="lies" class="read" data-testid="depths">
      {{
        $t('{depth} on {depth2} of raw fruit; usual is {range}.', {
          depth: mm(lies.thickness_mm),
          depth2: mm(lies.fruit_depth_mm),
          range: fromTo(mm(lies.ratio_low * lies.fruit_depth_mm), mm(lies.ratio_high * lies.fruit_depth_mm)),
        })
      }}
    </p>
    <div
      v-if="row?.parts.some((x) => x.key === 'butter')"
      class="choice"
      role="group"
      :aria-label="$t('Fat')"
    >
      <button
        v-for="[key, says] in fats"
        :key="key"
        :aria-pressed="(request.topping.fat || 'butter') === key"
        :data-testid="`fat-${key}`"
        @click="
          dessert.change($t('the fat'), (d) => (d.request.topping.fat = key === 'butter' ? undefined : key))
        "
      >
        {{ $t(says) }}
      </button>
    </div>
    <table>
      <caption class="visually-hidden">
        {{
          $t('Recipe in baker’s percentages')
        }}
      </caption>
      <thead>
        <tr>
          <th scope="col">{{ $t('Recipe') }}</th>
          <th scope="col" class="n">{{ $t('Baker’s %') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(p, i) in parts" :key="p.key">
          <th scope="row">{{ short(p.name) }}</th>
          <td class="n">
            <span v-if="i === 0">{{ p.own === 0 ? $t('left out') : '100 %' }}</span>
            <AmountField
              v-else
              :label="$t('Baker’s percentage of {name}', { name: lower(p.name) })"
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
      model-value=""
      filterable
      :placeholder="$t('Add to the topping')"
      :aria-label="$t('Add to the topping')"
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
    </el-select>
    <el-select
      v-if="swaps.length"
      model-value=""
      filterable
      :placeholder="$t('Swap an ingredient by what it does')"
      :aria-label="$t('Swap an ingredient by what it does')"
      data-testid="swap"
      @update:model-value="swapIn"
    >
      <el-option
        v-for="s in swaps"
        :key="s.index"
        :value="s.index"
        :label="`${short(kitchen.ingredient.get(s.from)?.name ?? s.from)} → ${asRead(s.to)}`"
        :data-testid="`swap-${s.from}-${s.index}`"
      />
    </el-select>
    <p v-if="swapped" class="small" role="status" data-testid="swapped">{{ swapped }}</p>
    <p v-if="lies?.texture.fat" class="read" data-testid="texture">
      <BoldText
        :text="
          $t('Fat {fat}: **{holds}** (14 to 29 % holds). Sugar {sugar}: **{colours}** (12 to 38 %).', {
            fat: percent(lies.texture.fat_pct),
            holds: $t(verdicts[lies.texture.fat] ?? ''),
            sugar: percent(lies.texture.sugar_pct),
            colours: $t(verdicts[lies.texture.sugar] ?? ''),
          })
        "
      />
      <template v-for="(n, i) in lies.texture.notes" :key="i">{{ asRead(n) }}. </template>
    </p>
    <LateToppings />
    <BaseChoice />
    <BakersDisagree :questions="['fat', 'ratio', 'crumb', 'coverage', 'base']" />
    <p v-if="row" class="small quiet">
      {{
        $t('Ahead: {make_ahead}. Recipe from: {n}.', { make_ahead: row.make_ahead, n: basisWords[row.basis] })
      }}
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
  font-size: 14px;
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
