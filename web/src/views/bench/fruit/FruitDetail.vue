<script setup lang="ts">
import type { FruitInput } from '@/api/client'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { lower, short } from '@/format/amounts'
import FruitTest from './FruitTest.vue'
import { useDessert } from '@/stores/useDessert'

/** What is reported of one fruit of the mix: how it is bought, prepared and cut, and how juicy it is today. */
const props = defineProps<{ fruit: FruitInput; index: number }>()
const kitchen = useKitchen()
const dessert = useDessert()
const row = () => kitchen.fruit.get(props.fruit.key)

function set(label: string, how: (f: FruitInput) => void) {
  dessert.change(label, (d) => how(d.request.fruits[props.index]!))
}
</script>

<template>
  <div class="more">
    <label class="tick"
      ><input
        type="checkbox"
        :checked="fruit.frozen"
        :data-testid="`frozen-${fruit.key}`"
        @change="set('fresh or frozen', (x) => (x.frozen = !x.frozen))"
      />
      Frozen</label
    >
    <label v-if="row()?.peelable" class="tick"
      ><input
        type="checkbox"
        :checked="fruit.peeled !== false"
        :data-testid="`peeled-${fruit.key}`"
        @change="set('peeling', (x) => (x.peeled = x.peeled === false))"
      />
      Peeled</label
    >
    <AmountField
      v-if="row()?.counted"
      label="Cut to"
      kind="length"
      unit="cm"
      optional
      :step="0.1"
      :instead="(row()?.default_cut_mm ?? 0) / 10"
      :model-value="fruit.cut_mm ? fruit.cut_mm / 10 : undefined"
      :problem="dessert.faultAt(`/fruits/${index}/cut_mm`)"
      :testid="`cut-${fruit.key}`"
      @update:model-value="(v) => set('the cut', (x) => (x.cut_mm = v && v * 10))"
    />
    <AmountField
      label="Waste from bruises and worm holes"
      kind="percent"
      unit="%"
      optional
      :step="5"
      :instead="0"
      :model-value="fruit.loss_pct || undefined"
      :problem="dessert.faultAt(`/fruits/${index}/loss_pct`)"
      :testid="`loss-${fruit.key}`"
      @update:model-value="(v) => set('the waste of windfalls', (x) => (x.loss_pct = v))"
    />
    <ChoiceButtons
      of="fruit_size"
      :model-value="fruit.size"
      label="Size"
      :testid="`size-${fruit.key}`"
      @update:model-value="(s) => set('the size', (x) => (x.size = s))"
    />
    <FruitTest :fruit="fruit" :index="index" :name="lower(short(row()?.name ?? fruit.key))" />
  </div>
</template>

<style scoped>
.more {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 10px;
  align-items: end;
}
.size {
  grid-column: 1 / -1;
}
</style>
