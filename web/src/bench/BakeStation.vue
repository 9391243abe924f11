<script setup lang="ts">
import { computed } from 'vue'
import AmountField from '@/parts/AmountField.vue'
import RemarkList from '@/parts/RemarkList.vue'
import { useKitchen } from '@/parts/useKitchen'
import { heat, integer } from '@/parts/words'
import BakersDisagree from './BakersDisagree.vue'
import BakePlan from './BakePlan.vue'
import CampFire from './CampFire.vue'
import { useDessert } from './useDessert'
import { usePlan } from './usePlan'
import WhatIf from './WhatIf.vue'

const kitchen = useKitchen()
const dessert = useDessert()
const plan = usePlan()
/** How hot filling and dish go in, C; undefined is as the fruit is: raw, pre-cooked or frozen. */
const fillings: [string, number | undefined][] = [
  ['as it is', undefined],
  ['chilled', 5],
  ['boiling hot', 90],
]
const starts: [string, number | undefined][] = [
  ['as it is', undefined],
  ['chilled', 5],
  ['hot from the hob', 180],
]
const shelves = ['low', 'middle', 'high'] as const
/** Which runner of this oven, from below. */
function runner(s: (typeof shelves)[number]) {
  const n = plan.oven?.oven.runners
  if (!n) return ''
  const middle = Math.ceil(n / 2)
  return ` (${{ low: Math.max(1, Math.round(n / 4)), middle, high: Math.min(n, Math.max(middle + 1, n - 1)) }[s]})`
}
const setting = computed(() => dessert.draft!.setting)
const remarks = computed(() => dessert.answer?.remarks.filter((r) => r.station === 'bake') ?? [])
const inRange = (v: number | undefined, lo: number, hi: number, unit: string) =>
  v !== undefined && (v < lo || v > hi) ? `is ${integer(v)} ${unit}: give ${lo} ${unit} to ${hi} ${unit}` : ''
/** Asked about, not refused: an oven or a time far outside what is usual. */
const unusual = computed(() => {
  const { oven_c: c, minutes: m } = setting.value
  const u = kitchen.larder?.usual
  if (!u) return []
  return [
    c !== undefined && c >= 50 && c <= 350 && (c < u.oven_low_c || c > u.oven_high_c)
      ? `${heat(c)}: is that meant? Usual is ${heat(u.oven_low_c)} to ${heat(u.oven_high_c)}.`
      : '',
    m !== undefined && m >= 1 && (m < u.minutes_low || m > u.minutes_high)
      ? `${integer(m)} min in the oven: is that meant? Usual is ${u.minutes_low} to ${u.minutes_high} min.`
      : '',
  ].filter(Boolean)
})
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
      <span class="label">Shelf{{ plan.oven?.oven.runners ? ' (runner, from below)' : '' }}</span>
      <div class="choice" role="group" aria-label="Shelf">
        <button
          v-for="s in shelves"
          :key="s"
          :aria-pressed="(setting.shelf || 'middle') === s"
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
        unit="°C"
        optional
        :step="5"
        :digits="0"
        :model-value="setting.oven_c"
        :problem="inRange(setting.oven_c, 50, 350, 'C')"
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
        :problem="inRange(setting.minutes, 1, 720, 'min')"
        testid="minutes"
        @update:model-value="
          (v) => dessert.change('the minutes', (d) => ((d.setting.minutes = v), delete d.setting.stages))
        "
      />
    </div>
    <p v-for="u in unusual" :key="u" class="wrong" role="status" data-testid="unusual">{{ u }}</p>
    <BakePlan />
    <div class="field">
      <span class="label">The filling goes in</span>
      <div class="choice" role="group" aria-label="The filling goes in">
        <button
          v-for="[says, c] in fillings"
          :key="says"
          :aria-pressed="setting.filling_c === c"
          :data-testid="`filling-${says}`"
          @click="dessert.change('how hot the filling goes in', (d) => (d.setting.filling_c = c))"
        >
          {{ says }}
        </button>
      </div>
      <span class="label">in a dish</span>
      <div class="choice" role="group" aria-label="In a dish">
        <button
          v-for="[says, c] in starts"
          :key="says"
          :aria-pressed="setting.dish_c === c"
          :data-testid="`dish-start-${says}`"
          @click="dessert.change('how hot the dish is', (d) => (d.setting.dish_c = c))"
        >
          {{ says }}
        </button>
      </div>
    </div>
    <WhatIf />
    <BakersDisagree :questions="['cover']" />
    <RemarkList :remarks="remarks" />
  </div>
</template>

<style scoped>
.label {
  font-size: 14px;
  color: var(--ink-2);
}
.choice button {
  padding: 0 6px;
  font-size: 14px;
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
