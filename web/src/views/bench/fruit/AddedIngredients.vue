<script setup lang="ts">
import { computed } from 'vue'
import type { Larder } from '@/api/client'
import OwnIngredientOption from '@/ui/OwnIngredientOption.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { short } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'

/** Liquids or extras among the fruit, in grams each. */
const props = defineProps<{
  list: 'liquids' | 'extras'
  title: string
  add: string
  offered: Larder['ingredients']
}>()
const kitchen = useKitchen()
const dessert = useDessert()
const things = computed(() => dessert.draft!.request[props.list] ?? [])

function put(key: string) {
  if (key)
    dessert.change(
      `what is ${props.title.toLowerCase()}`,
      (d) => (d.request[props.list] = [...(d.request[props.list] ?? []), { key, g: 20 }]),
    )
}
function set(i: number, g: number | undefined) {
  dessert.change(`what is ${props.title.toLowerCase()}`, (d) => {
    const list = d.request[props.list] ?? []
    if (g) list[i]!.g = g
    else list.splice(i, 1)
    d.request[props.list] = list.length ? list : undefined
  })
}
</script>

<template>
  <div class="field">
    <span class="label">{{ title }}</span>
    <div v-for="(thing, i) in things" :key="thing.key" class="thing">
      <span>{{ short(kitchen.ingredient.get(thing.key)?.name ?? thing.key) }}</span>
      <AmountField
        :label="kitchen.ingredient.get(thing.key)?.name ?? thing.key"
        hide-label
        kind="mass"
        unit="g"
        optional
        :step="5"
        :ingredient="thing.key"
        :model-value="thing.g"
        :problem="dessert.faultAt(`/${list}/${i}/g`)"
        :testid="`${list}-${thing.key}`"
        @update:model-value="(v) => set(i, v)"
      />
      <button
        class="plain"
        :aria-label="`Remove ${kitchen.ingredient.get(thing.key)?.name}`"
        @click="set(i, undefined)"
      >
        Remove
      </button>
    </div>
    <el-select
      model-value=""
      filterable
      :placeholder="add"
      :aria-label="add"
      :data-testid="`add-${list}`"
      @update:model-value="put"
    >
      <el-option
        v-for="o in offered.filter((x) => !things.some((t) => t.key === x.key))"
        :key="o.key"
        :value="o.key"
        :label="o.name"
        :data-testid="`add-${list}-${o.key}`"
      />
      <template #footer
        ><OwnIngredientOption :among="offered" :take="put" :testid="`own-${list}`"
      /></template>
    </el-select>
  </div>
</template>

<style scoped>
.thing {
  display: grid;
  grid-template-columns: 1fr 110px auto;
  gap: 8px;
  align-items: center;
}
</style>
