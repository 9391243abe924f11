<script setup lang="ts">
import { computed } from 'vue'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import BoldText from '@/ui/BoldText.vue'
import OwnIngredientOption from '@/ui/OwnIngredientOption.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { capital, integer, percent } from '@/format/amounts'
import BakeAlternatives from '@/views/bench/bake/BakeAlternatives.vue'
import CustardChoice from './CustardChoice.vue'
import JuiceLedger from './JuiceLedger.vue'
import MacerateChoice from './MacerateChoice.vue'
import JuiceScale from './JuiceScale.vue'
import { useDessert } from '@/stores/useDessert'

const kitchen = useKitchen()
const dessert = useDessert()
const request = computed(() => dessert.draft!.request)
const sugars = computed(() => kitchen.ingredients.filter((i) => i.role === 'sugar'))
const thickenerKey = computed(() => request.value.thickener?.key ?? dessert.answer?.thickener_key ?? '')
const thickener = computed(() => kitchen.thickener.get(thickenerKey.value))
// An egg thickens a custard, which is not a crumble's filling.
const offered = computed(() => kitchen.larder?.thickeners.filter((t) => t.key !== 'egg'))

function target(score: number | undefined) {
  dessert.change(
    'the thickness of the juice',
    (d) => {
      d.request.set_target = score
      if (d.request.thickener) delete d.request.thickener.g
    },
    score !== undefined,
  )
}
function weigh(g: number | undefined) {
  dessert.change('the thickener', (d) => {
    d.request.thickener = { key: thickenerKey.value, ...d.request.thickener, g }
    if (g === undefined) delete d.request.thickener.g
  })
}
const beside = computed(() => request.value.thickener?.with ?? [])
/** Another thickener in addition to the first, in grams; the first then only makes up what is missing. */
function besides(label: string, change: (list: { key: string; g: number }[]) => void, drag = false) {
  dessert.change(
    label,
    (d) => {
      const t = (d.request.thickener ??= { key: 'cornflour' })
      const list = [...(t.with ?? [])]
      change(list)
      t.with = list.length ? list : undefined
    },
    drag,
  )
}
const spare = () =>
  offered.value?.find((t) => t.key !== thickener.value?.key && !beside.value.some((b) => b.key === t.key))
function swap(key: string) {
  dessert.change('the thickener', (d) => (d.request.thickener = { ...d.request.thickener, key }))
}
</script>

<template>
  <div class="juice">
    <JuiceLedger v-if="dessert.answer" :answer="dessert.answer" />
    <details class="stand" :open="!!request.macerate">
      <summary data-testid="macerate">
        {{
          request.macerate
            ? `Stands ${integer(request.macerate.minutes)} min with the sugar`
            : 'Let it stand with the sugar?'
        }}
      </summary>
      <MacerateChoice />
    </details>
    <CustardChoice v-if="kitchen.style.get(request.style)?.custard" />
    <JuiceScale v-if="dessert.answer" :set="dessert.answer.set" @target="target" />
    <p v-if="dessert.answer" class="hot small">
      <span
        ><BoldText
          :text="`Cold **${kitchen.word('band', dessert.answer.set.band)}**, hot ${kitchen.word('band', dessert.answer.set.hot_band)}.`"
      /></span>
      <button
        v-if="request.set_target !== undefined || request.thickener?.g !== undefined"
        class="plain"
        data-testid="usual-set"
        @click="target(undefined)"
      >
        Usual thickness
      </button>
    </p>
    <div class="pair">
      <div class="field">
        <label for="thickener">Thickener</label>
        <el-select
          id="thickener"
          :model-value="thickener?.key"
          data-testid="thickener"
          @update:model-value="swap"
        >
          <el-option
            v-for="o in offered"
            :key="o.key"
            :value="o.key"
            :label="o.name"
            :data-testid="`thickener-${o.key}`"
          />
          <template #footer
            ><OwnIngredientOption :among="offered ?? []" :take="swap" testid="own-thickener"
          /></template>
        </el-select>
      </div>
      <AmountField
        label="By weight"
        kind="mass"
        unit="g"
        :step="1"
        optional
        :ingredient="thickener?.key"
        :instead="dessert.answer?.thickener_g"
        :model-value="request.thickener?.g"
        :problem="dessert.faultAt('/thickener/g')"
        testid="thickener-g"
        @update:model-value="weigh"
      />
    </div>
    <div v-for="(b, i) in beside" :key="i" class="beside">
      <div class="field">
        <label :for="`beside-${i}`">Second thickener</label>
        <el-select
          :id="`beside-${i}`"
          :model-value="b.key"
          :data-testid="`beside-${i}`"
          @update:model-value="(key: string) => besides('the thickener', (l) => (l[i] = { ...b, key }))"
        >
          <el-option v-for="o in offered" :key="o.key" :value="o.key" :label="o.name" />
        </el-select>
      </div>
      <AmountField
        label="Grams"
        kind="mass"
        unit="g"
        :step="1"
        :ingredient="b.key"
        :model-value="b.g"
        :problem="dessert.faultAt(`/thickener/with/${i}/g`)"
        :testid="`beside-g-${i}`"
        @update:model-value="(g) => g !== undefined && besides('the thickener', (l) => (l[i] = { ...b, g }))"
      />
      <button
        class="plain"
        :data-testid="`beside-out-${i}`"
        @click="besides('the thickener taken out', (l) => l.splice(i, 1))"
      >
        Remove
      </button>
    </div>
    <div class="more">
      <button
        v-if="spare()"
        class="plain"
        data-testid="beside"
        @click="besides('another thickener', (l) => l.push({ key: spare()!.key, g: 5 }))"
      >
        Add another thickener
      </button>
      <el-checkbox
        :model-value="!!request.long_boil"
        data-testid="long-boil"
        @update:model-value="
          (on: string | number | boolean) =>
            dessert.change('the long boil', (d) => (d.request.long_boil = !!on || undefined))
        "
        >Bubbles for over 40 min after thickening</el-checkbox
      >
    </div>
    <p v-if="thickener" class="small quiet">
      {{ `${capital(thickener.clarity)}. ${capital(thickener.how)}. After freezing: ${thickener.freeze}.`
      }}<template v-if="thickener.avoid">{{ ` Not ${thickener.avoid}.` }}</template>
    </p>
    <div class="pair">
      <div class="field">
        <span class="label">Sweetness</span>
        <ChoiceButtons
          of="sweetness"
          :model-value="request.sweetness"
          label="Sweetness"
          testid="sweetness"
          @update:model-value="
            (s) =>
              dessert.change('the sweetness', (d) => ((d.request.sweetness = s), delete d.request.sugar_g))
          "
        />
      </div>
      <AmountField
        label="Sugar"
        kind="mass"
        unit="g"
        :step="5"
        :digits="0"
        optional
        ingredient="caster_sugar"
        :instead="dessert.answer?.sugar_g"
        :model-value="request.sugar_g"
        :problem="dessert.faultAt('/sugar_g')"
        testid="sugar"
        @update:model-value="(v) => dessert.change('the sugar', (d) => (d.request.sugar_g = v))"
      />
    </div>
    <div class="field">
      <label for="sugar-key">Type of sugar</label>
      <el-select
        id="sugar-key"
        :model-value="request.sugar_key || dessert.answer?.sugar_key"
        data-testid="sugar-key"
        @update:model-value="(k: string) => dessert.change('which sugar', (d) => (d.request.sugar_key = k))"
      >
        <el-option
          v-for="s in sugars"
          :key="s.key"
          :value="s.key"
          :label="s.name"
          :data-testid="`sugar-key-${s.key}`"
        />
      </el-select>
    </div>
    <p v-if="dessert.answer" class="small quiet">
      {{
        `Filling ${percent(dessert.answer.sugar_pct)} sugar (aim ${percent(dessert.answer.sugar_target_pct)} at ${percent(dessert.answer.acid_pct)} acid); whole spoon ${percent(dessert.answer.spoon_sugar_pct)}.`
      }}
    </p>
    <BakeAlternatives :questions="['sugar']" />
  </div>
</template>

<style scoped>
.juice {
  display: grid;
  gap: 4px;
}
summary {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 36px;
  color: var(--rim-ink);
  font-weight: 600;
  cursor: pointer;
}
summary::before {
  content: '+';
  width: 14px;
}
.stand[open] summary::before {
  content: '−';
}
.beside {
  display: grid;
  grid-template-columns: 1.3fr 0.8fr auto;
  align-items: end;
  gap: 10px;
}
.pair {
  display: grid;
  grid-template-columns: 1.3fr 1fr;
  gap: 10px;
}
.hot {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 4px;
}
</style>
