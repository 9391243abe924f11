<script setup lang="ts">
import { computed } from 'vue'
import AmountField from '@/ui/AmountField.vue'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import RemarkList from '@/ui/RemarkList.vue'
import { useKitchen } from '@/stores/useKitchen'
import BakeAlternatives from './BakeAlternatives.vue'
import BakePlan from './BakePlan.vue'
import CampFire from './CampFire.vue'
import { useDessert } from '@/stores/useDessert'
import { usePlan } from '@/stores/usePlan'
import WhatIf from './WhatIf.vue'

const kitchen = useKitchen()
const dessert = useDessert()
const plan = usePlan()
/** How hot filling and dish go in, C; undefined is as the fruit is: raw, pre-cooked or frozen. */
const fillings: [string, number | undefined][] = [
  ['unheated', undefined],
  ['chilled', 5],
  ['boiling', 90],
]
const starts: [string, number | undefined][] = [
  ['unheated', undefined],
  ['chilled', 5],
  ['hot from the stove', 180],
]
const shelves = ['low', 'middle', 'high'] as const
/** Which runner of this oven, from below. */
const runner = (s: (typeof shelves)[number]) => {
  const n = plan.oven?.shelves?.[s]
  return n === undefined ? '' : ` (${n})`
}
const setting = computed(() => dessert.draft!.setting)
const remarks = computed(() => dessert.answer?.remarks.filter((r) => r.station === 'bake') ?? [])
</script>

<template>
  <div class="bake">
    <div class="field">
      <label for="oven">Oven</label>
      <el-select
        id="oven"
        :model-value="setting.oven_id"
        placeholder="Which oven"
        clearable
        data-testid="oven"
        @update:model-value="
          (v?: string) => dessert.change('the oven', (d) => (d.setting.oven_id = v || undefined))
        "
      >
        <el-option
          v-for="o in kitchen.ovens"
          :key="o.id"
          :value="o.id"
          :label="`${o.name}, ${o.oven.kind === 'camp' ? 'coals' : o.oven.heating}`"
          :data-testid="`oven-${o.name}`"
        />
      </el-select>
    </div>
    <div v-if="plan.oven?.oven.kind !== 'camp'" class="field">
      <span class="label">{{ `Shelf${plan.oven?.oven.runners ? ' (runner, from below)' : ''}` }}</span>
      <div class="choice" role="group" aria-label="Shelf">
        <button
          v-for="s in shelves"
          :key="s"
          :aria-pressed="(setting.shelf || kitchen.usual('shelf')) === s"
          :data-testid="`shelf-height-${s}`"
          @click="dessert.change('the shelf', (d) => (d.setting.shelf = s))"
        >
          {{ s }}{{ runner(s) }}
        </button>
      </div>
    </div>
    <CampFire v-else />
    <div class="pair">
      <AmountField
        label="Temperature"
        kind="temperature"
        dial
        unit="°C"
        optional
        :step="5"
        :digits="0"
        :model-value="setting.oven_c"
        :problem="dessert.settingFault('/oven_c')"
        testid="oven-c"
        @update:model-value="
          (v) => dessert.change('the temperature', (d) => ((d.setting.oven_c = v), delete d.setting.stages))
        "
      />
      <AmountField
        label="Minutes"
        kind="minutes"
        unit="min"
        optional
        :digits="0"
        :model-value="setting.minutes"
        :problem="dessert.settingFault('/minutes')"
        testid="minutes"
        @update:model-value="
          (v) => dessert.change('the minutes', (d) => ((d.setting.minutes = v), delete d.setting.stages))
        "
      />
    </div>
    <p v-for="u in plan.answer?.asks" :key="u" class="wrong" role="status" data-testid="unusual">{{ u }}</p>
    <BakePlan />
    <div v-if="plan.answer?.bake.topping" class="field">
      <span class="label">Browning of the top</span>
      <ChoiceButtons
        of="top_colour"
        :model-value="dessert.draft!.request.topping.colour"
        label="Browning of the top"
        testid="top-colour"
        @update:model-value="
          (c) => dessert.change('the browning of the top', (d) => (d.request.topping.colour = c))
        "
      />
    </div>
    <div class="field">
      <span class="label">Filling temperature</span>
      <div class="choice" role="group" aria-label="Filling temperature">
        <button
          v-for="[label, c] in fillings"
          :key="label"
          :aria-pressed="setting.filling_c === c"
          :data-testid="`filling-${label}`"
          @click="dessert.change('the filling temperature', (d) => (d.setting.filling_c = c))"
        >
          {{ label }}
        </button>
      </div>
      <span class="label">in a dish that is</span>
      <div class="choice" role="group" aria-label="Dish temperature">
        <button
          v-for="[label, c] in starts"
          :key="label"
          :aria-pressed="setting.dish_c === c"
          :data-testid="`dish-start-${label}`"
          @click="dessert.change('the dish temperature', (d) => (d.setting.dish_c = c))"
        >
          {{ label }}
        </button>
      </div>
    </div>
    <WhatIf />
    <BakeAlternatives :questions="['cover', 'frozen']" />
    <RemarkList :remarks="remarks" />
  </div>
</template>

<style scoped>
.label {
  font-size: 0.875rem;
  color: var(--ink-2);
}
.choice button {
  padding: 0 6px;
  font-size: 0.875rem;
}
.bake {
  display: grid;
  gap: 10px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
</style>
