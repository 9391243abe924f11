<script setup lang="ts">
import { computed } from 'vue'
import type { BalanceRequest } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { lower, short } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'

/** What makes a biscuit dough up: the texture wanted, and the liquid or a mix of them. Grams follow from water and fat. */
const kitchen = useKitchen()
const dessert = useDessert()
const topping = computed(() => dessert.draft!.request.topping)
const row = computed(() => kitchen.topping.get(topping.value.key))
const liquids = computed(() => topping.value.liquids ?? [{ key: 'whole_milk', share: 1 }])
const offered = computed(() =>
  kitchen.ingredients.filter((i) => i.role === 'liquid' && !liquids.value.some((l) => l.key === i.key)),
)
const texture = computed(() => dessert.answer?.topping.texture)

type Liquids = NonNullable<BalanceRequest['topping']['liquids']>
function set(label: string, how: (l: Liquids) => Liquids) {
  dessert.change(label, (d) => (d.request.topping.liquids = how(liquids.value.map((l) => ({ ...l })))))
}
const swap = (key: string) =>
  key && set('the liquid', (l) => (l.length > 1 ? [...l, { key, share: 0.5 }] : [{ key, share: 1 }]))
const mix = (key: string) => key && set('a mix of liquids', (l) => [...l, { key, share: 1 }])
</script>

<template>
  <div class="dough">
    <div class="pair">
      <div class="choice" role="group" aria-label="Texture of the dough">
        <button
          v-for="x in kitchen.larder?.doughs"
          :key="x.dough"
          :aria-pressed="texture?.dough === x.dough"
          :data-testid="`dough-${x.dough}`"
          @click="dessert.change('the dough', (d) => (d.request.topping.hydration_pct = x.hydration_pct))"
        >
          {{ kitchen.word('dough', x.dough) }}
        </button>
      </div>
      <AmountField
        label="Hydration"
        hide-label
        kind="percent"
        unit="%"
        optional
        :digits="0"
        :instead="row?.hydration_pct"
        :model-value="topping.hydration_pct || undefined"
        :problem="dessert.faultAt('/topping/hydration_pct')"
        testid="hydration"
        @update:model-value="(v) => dessert.change('the dough', (d) => (d.request.topping.hydration_pct = v))"
      />
    </div>
    <div v-for="(l, i) in liquids" :key="l.key" class="liquid">
      <span>{{ short(kitchen.ingredient.get(l.key)?.name ?? l.key) }}</span>
      <AmountField
        v-if="liquids.length > 1"
        :label="`Share of ${lower(kitchen.ingredient.get(l.key)?.name ?? l.key)}`"
        hide-label
        kind="percent"
        unit="%"
        :digits="0"
        :step="5"
        :model-value="(100 * l.share) / liquids.reduce((s, x) => s + x.share, 0)"
        :testid="`liquid-${l.key}`"
        @update:model-value="
          (v) =>
            set('the mix of liquids', (all) => {
              const rest = all.reduce((s, x, n) => s + (n === i ? 0 : x.share), 0) || 1
              return all.map((x, n) =>
                n === i
                  ? { ...x, share: Math.min(99, v ?? 0) / 100 }
                  : { ...x, share: (x.share / rest) * (1 - Math.min(99, v ?? 0) / 100) },
              )
            })
        "
      />
      <button
        v-if="liquids.length > 1"
        class="plain"
        :aria-label="`Remove ${kitchen.ingredient.get(l.key)?.name}`"
        @click="set('a liquid removed', (all) => all.filter((_, n) => n !== i))"
      >
        Remove
      </button>
    </div>
    <div class="pair two">
      <el-select
        model-value=""
        placeholder="Use another liquid"
        aria-label="Use another liquid"
        data-testid="liquid-instead"
        @update:model-value="swap"
      >
        <el-option
          v-for="o in offered"
          :key="o.key"
          :value="o.key"
          :label="o.name"
          :data-testid="`instead-${o.key}`"
        />
      </el-select>
      <el-select
        model-value=""
        placeholder="Mix with"
        aria-label="Mix with"
        data-testid="liquid-mix"
        @update:model-value="mix"
      >
        <el-option
          v-for="o in offered"
          :key="o.key"
          :value="o.key"
          :label="o.name"
          :data-testid="`mix-${o.key}`"
        />
      </el-select>
    </div>
    <p v-if="texture" class="read small" data-testid="dough">{{ texture.text }}</p>
  </div>
</template>

<style scoped>
.dough {
  display: grid;
  gap: 6px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 104px;
  gap: 8px;
}
.pair.two {
  grid-template-columns: 1fr 1fr;
}
.liquid {
  display: grid;
  grid-template-columns: 1fr 104px auto;
  align-items: center;
  gap: 8px;
  min-height: 40px;
}
.read {
  padding: 8px 10px;
  background: var(--sunk);
}
</style>
