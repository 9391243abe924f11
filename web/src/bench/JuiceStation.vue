<script setup lang="ts">
import { computed } from 'vue'
import BoldText from '@/parts/BoldText.vue'
import AmountField from '@/parts/AmountField.vue'
import { useKitchen } from '@/parts/useKitchen'
import { bandWords, integer, percent, asRead } from '@/parts/words'
import BakersDisagree from './BakersDisagree.vue'
import CustardChoice from './CustardChoice.vue'
import JuiceLedger from './JuiceLedger.vue'
import MacerateChoice from './MacerateChoice.vue'
import SetScale from './SetScale.vue'
import { useDessert } from './useDessert'
import { t } from '@/texts'

const kitchen = useKitchen()
const dessert = useDessert()
const request = computed(() => dessert.draft!.request)
const thickener = computed(() => kitchen.thickener.get(request.value.thickener?.key ?? 'cornflour'))
// An egg thickens a custard, which is not a crumble's filling.
const offered = computed(() => kitchen.larder?.thickeners.filter((t) => t.key !== 'egg'))

function target(score: number | undefined) {
  dessert.change(
    t('the set'),
    (d) => {
      d.request.set_target = score
      if (d.request.thickener) delete d.request.thickener.g
    },
    score !== undefined,
  )
}
function weigh(g: number | undefined) {
  dessert.change(t('the thickener'), (d) => {
    d.request.thickener = { key: 'cornflour', ...d.request.thickener, g }
    if (g === undefined) delete d.request.thickener.g
  })
}
const beside = computed(() => request.value.thickener?.with ?? [])
/** Another thickener beside the first, in grams; the first then only makes up what is missing. */
function besides(says: string, change: (list: { key: string; g: number }[]) => void, drag = false) {
  dessert.change(
    says,
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
  dessert.change(t('the thickener'), (d) => (d.request.thickener = { ...d.request.thickener, key }))
}
</script>

<template>
  <div class="juice">
    <JuiceLedger v-if="dessert.answer" :answer="dessert.answer" />
    <details class="stand" :open="!!request.macerate">
      <summary data-testid="macerate">
        {{
          request.macerate
            ? $t('Left to stand {n} min with the sugar', { n: integer(request.macerate.minutes) })
            : $t('Left to stand with the sugar?')
        }}
      </summary>
      <MacerateChoice />
    </details>
    <CustardChoice v-if="request.style === 'bar' || request.style === 'pie'" />
    <SetScale v-if="dessert.answer" :set="dessert.answer.set" @target="target" />
    <p v-if="dessert.answer" class="hot small">
      <span
        ><BoldText
          :text="
            $t('Cold **{cold}**, hot {hot}.', {
              cold: bandWords[dessert.answer.set.band],
              hot: bandWords[dessert.answer.set.hot_band],
            })
          "
      /></span>
      <button
        v-if="request.set_target !== undefined || request.thickener?.g !== undefined"
        class="plain"
        data-testid="usual-set"
        @click="target(undefined)"
      >
        {{ $t('Usual set') }}
      </button>
    </p>
    <div class="pair">
      <div class="field">
        <label for="thickener">{{ $t('Thickener') }}</label>
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
        </el-select>
      </div>
      <AmountField
        :label="$t('By weight: the set follows')"
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
        <label :for="`beside-${i}`">{{ $t('And beside it') }}</label>
        <el-select
          :id="`beside-${i}`"
          :model-value="b.key"
          :data-testid="`beside-${i}`"
          @update:model-value="(key: string) => besides($t('the thickener'), (l) => (l[i] = { ...b, key }))"
        >
          <el-option v-for="o in offered" :key="o.key" :value="o.key" :label="o.name" />
        </el-select>
      </div>
      <AmountField
        :label="$t('Grams')"
        kind="mass"
        unit="g"
        :step="1"
        :ingredient="b.key"
        :model-value="b.g"
        :problem="dessert.faultAt(`/thickener/with/${i}/g`)"
        :testid="`beside-g-${i}`"
        @update:model-value="
          (g) => g !== undefined && besides($t('the thickener'), (l) => (l[i] = { ...b, g }))
        "
      />
      <button
        class="plain"
        :data-testid="`beside-out-${i}`"
        @click="besides($t('the thickener taken out'), (l) => l.splice(i, 1))"
      >
        {{ $t('Out') }}
      </button>
    </div>
    <div class="more">
      <button
        v-if="spare() && beside.length < 3"
        class="plain"
        data-testid="beside"
        @click="besides($t('another thickener'), (l) => l.push({ key: spare()!.key, g: 5 }))"
      >
        {{ $t('Add another thickener') }}
      </button>
      <el-checkbox
        :model-value="!!request.long_boil"
        data-testid="long-boil"
        @update:model-value="
          (on: string | number | boolean) =>
            dessert.change($t('the long boil'), (d) => (d.request.long_boil = !!on || undefined))
        "
        >{{ $t('It bubbles on for over 40 min once it has set') }}</el-checkbox
      >
    </div>
    <p v-if="thickener" class="small quiet">
      {{
        $t('{clarity}; {how}; frozen it {freeze}', {
          clarity: thickener.clarity,
          how: asRead(thickener.how),
          freeze: thickener.freeze,
        })
      }}<template v-if="thickener.avoid">{{
        $t('. Not {replace}', { replace: thickener.avoid.replace(/^gluten-free$/, 'for gluten-free') })
      }}</template
      >.
    </p>
    <div class="pair">
      <div class="field">
        <span class="label">{{ $t('Sweetness') }}</span>
        <div class="choice" role="group" :aria-label="$t('Sweetness')">
          <button
            v-for="s in ['tart', 'standard', 'sweet', 'savoury'] as const"
            :key="s"
            :aria-pressed="(request.sweetness || 'standard') === s"
            :data-testid="`sweetness-${s}`"
            @click="
              dessert.change(
                $t('the sweetness'),
                (d) => ((d.request.sweetness = s), delete d.request.sugar_g),
              )
            "
          >
            {{ s === 'standard' ? $t('usual') : $t(s) }}
          </button>
        </div>
      </div>
      <AmountField
        :label="$t('Sugar')"
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
        @update:model-value="(v) => dessert.change($t('the sugar'), (d) => (d.request.sugar_g = v))"
      />
    </div>
    <p v-if="dessert.answer" class="small quiet">
      {{
        $t('Filling {percent} sugar (aim {percent2} at {percent3} acid); whole spoon {percent4}.', {
          percent: percent(dessert.answer.sugar_pct),
          percent2: percent(dessert.answer.sugar_target_pct),
          percent3: percent(dessert.answer.acid_pct),
          percent4: percent(dessert.answer.spoon_sugar_pct),
        })
      }}
    </p>
    <BakersDisagree :questions="['sugar']" />
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
