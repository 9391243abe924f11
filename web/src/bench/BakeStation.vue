<script setup lang="ts">
import { computed } from 'vue'
import AmountField from '@/parts/AmountField.vue'
import RemarkList from '@/parts/RemarkList.vue'
import { useKitchen } from '@/parts/useKitchen'
import { heat, integer, warmth } from '@/parts/words'
import BakersDisagree from './BakersDisagree.vue'
import BakePlan from './BakePlan.vue'
import CampFire from './CampFire.vue'
import { useDessert } from './useDessert'
import { usePlan } from './usePlan'
import WhatIf from './WhatIf.vue'
import { t, text } from '@/texts'

const kitchen = useKitchen()
const dessert = useDessert()
const plan = usePlan()
/** How hot filling and dish go in, C; undefined is as the fruit is: raw, pre-cooked or frozen. */
const fillings: [string, number | undefined][] = [
  [text('as it is'), undefined],
  ['chilled', 5],
  [text('boiling hot'), 90],
]
const starts: [string, number | undefined][] = [
  [text('as it is'), undefined],
  ['chilled', 5],
  [text('hot from the hob'), 180],
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
const inRange = (v: number | undefined, lo: number, hi: number, shown: (x: number) => string) =>
  v !== undefined && (v < lo || v > hi)
    ? t('is {given}: give {least} to {most}', { given: shown(v), least: shown(lo), most: shown(hi) })
    : ''
const minutes = (n: number) => t('{n} min', { n: integer(n) })
/** Asked about, not refused: an oven or a time far outside what is usual. */
const unusual = computed(() => {
  const { oven_c: c, minutes: m } = setting.value
  const u = kitchen.larder?.usual
  if (!u) return []
  return [
    c !== undefined && c >= 50 && c <= 350 && (c < u.oven_low_c || c > u.oven_high_c)
      ? t('{heat}: is that meant? Usual is {heat2} to {heat3}.', {
          heat: heat(c),
          heat2: heat(u.oven_low_c),
          heat3: heat(u.oven_high_c),
        })
      : '',
    m !== undefined && m >= 1 && (m < u.minutes_low || m > u.minutes_high)
      ? t('{n} min in the oven: is that meant? Usual is {minutes_low} to {minutes_high} min.', {
          n: integer(m),
          minutes_low: u.minutes_low,
          minutes_high: u.minutes_high,
        })
      : '',
  ].filter(Boolean)
})
</script>

<template>
  <div class="bake">
    <div class="field">
      <label for="oven">{{ $t('Oven') }}</label>
      <el-select
        id="oven"
        :model-value="setting.oven_id"
        :placeholder="$t('Which oven')"
        clearable
        data-testid="oven"
        @update:model-value="
          (v?: string) => dessert.change($t('the oven'), (d) => (d.setting.oven_id = v || undefined))
        "
      >
        <el-option
          v-for="o in kitchen.ovens"
          :key="o.id"
          :value="o.id"
          :label="`${o.name}, ${o.oven.kind === 'camp' ? $t('coals') : o.oven.heating}`"
          :data-testid="`oven-${o.name}`"
        />
      </el-select>
    </div>
    <div v-if="plan.oven?.oven.kind !== 'camp'" class="field">
      <span class="label">{{
        $t('Shelf{n}', { n: plan.oven?.oven.runners ? $t(' (runner, from below)') : '' })
      }}</span>
      <div class="choice" role="group" :aria-label="$t('Shelf')">
        <button
          v-for="s in shelves"
          :key="s"
          :aria-pressed="(setting.shelf || 'middle') === s"
          :data-testid="`shelf-height-${s}`"
          @click="dessert.change($t('the shelf'), (d) => (d.setting.shelf = s))"
        >
          {{ $t(s) }}{{ runner(s) }}
        </button>
      </div>
    </div>
    <CampFire v-else />
    <div class="pair">
      <AmountField
        :label="$t('Temperature')"
        kind="temperature"
        unit="°C"
        optional
        :step="5"
        :digits="0"
        :model-value="setting.oven_c"
        :problem="inRange(setting.oven_c, 50, 350, warmth)"
        testid="oven-c"
        @update:model-value="
          (v) =>
            dessert.change($t('the temperature'), (d) => ((d.setting.oven_c = v), delete d.setting.stages))
        "
      />
      <AmountField
        :label="$t('Minutes')"
        kind="minutes"
        unit="min"
        optional
        :digits="0"
        :model-value="setting.minutes"
        :problem="inRange(setting.minutes, 1, 720, minutes)"
        testid="minutes"
        @update:model-value="
          (v) => dessert.change($t('the minutes'), (d) => ((d.setting.minutes = v), delete d.setting.stages))
        "
      />
    </div>
    <p v-for="u in unusual" :key="u" class="wrong" role="status" data-testid="unusual">{{ u }}</p>
    <BakePlan />
    <div class="field">
      <span class="label">{{ $t('The filling goes in') }}</span>
      <div class="choice" role="group" :aria-label="$t('The filling goes in')">
        <button
          v-for="[says, c] in fillings"
          :key="says"
          :aria-pressed="setting.filling_c === c"
          :data-testid="`filling-${says}`"
          @click="dessert.change($t('how hot the filling goes in'), (d) => (d.setting.filling_c = c))"
        >
          {{ $t(says) }}
        </button>
      </div>
      <span class="label">{{ $t('in a dish') }}</span>
      <div class="choice" role="group" :aria-label="$t('In a dish')">
        <button
          v-for="[says, c] in starts"
          :key="says"
          :aria-pressed="setting.dish_c === c"
          :data-testid="`dish-start-${says}`"
          @click="dessert.change($t('how hot the dish is'), (d) => (d.setting.dish_c = c))"
        >
          {{ $t(says) }}
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
