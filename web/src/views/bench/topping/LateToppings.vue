<script setup lang="ts">
import type { BalanceRequest } from '@/api/client'
import { computed } from 'vue'
import { useKitchen } from '@/stores/useKitchen'
import { lower } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'

/** More toppings on one dessert: nuts put on late, crumbs on a lid. They add up. */
const kitchen = useKitchen()
const dessert = useDessert()
const late = computed(() => dessert.draft!.request.late ?? [])
const offered = computed(() =>
  kitchen.larder?.toppings.filter(
    (t) =>
      t.key !== dessert.draft!.request.topping.key &&
      !late.value.some((l) => l.key === t.key) &&
      t.family !== 'biscuit',
  ),
)
function add(key: string) {
  if (key) dessert.change('a second topping', (d) => (d.request.late = [...(d.request.late ?? []), { key }]))
}
function drop(i: number) {
  dessert.change('a topping removed', (d) => {
    const rest = (d.request.late ?? []).filter((_, n) => n !== i)
    d.request.late = rest.length ? rest : undefined
  })
}
function amount(i: number, a: BalanceRequest['topping']['amount']) {
  dessert.change('the second topping', (d) => d.request.late && (d.request.late[i]!.amount = a))
}
</script>

<template>
  <div class="late">
    <div v-for="(l, i) in late" :key="l.key" class="one">
      <span>{{ kitchen.topping.get(l.key)?.name }}</span>
      <button
        class="plain"
        :aria-label="`Remove ${lower(kitchen.topping.get(l.key)?.name ?? '')}`"
        @click="drop(i)"
      >
        Remove
      </button>
      <ChoiceButtons
        of="amount"
        :model-value="l.amount"
        label="Amount"
        @update:model-value="(a) => amount(i, a)"
      />
    </div>
    <el-select
      model-value=""
      filterable
      placeholder="Add a second topping for the last minutes"
      aria-label="Add a second topping for the last minutes"
      data-testid="add-late"
      @update:model-value="add"
    >
      <el-option
        v-for="o in offered"
        :key="o.key"
        :value="o.key"
        :label="o.name"
        :data-testid="`late-${o.key}`"
      />
    </el-select>
  </div>
</template>

<style scoped>
.late {
  display: grid;
  gap: 6px;
}
.one {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
}
.one .choice {
  grid-column: 1 / -1;
}
</style>
