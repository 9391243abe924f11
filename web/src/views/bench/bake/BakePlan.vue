<script setup lang="ts">
import { computed } from 'vue'
import type { Stage } from '@/api/client'
import ForecastLine from './ForecastLine.vue'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import AmountField from '@/ui/AmountField.vue'
import { degrees, heat, warmth } from '@/format/amounts'
import { outside, usePlan } from '@/stores/usePlan'

/** The stages, what they come to as a range, and what would settle clocks that fight. */
const plan = usePlan()
const p = computed(() => plan.answer?.plan)
const own = computed(() => plan.own)
/** What the oven's own dial has to say, where it says something else than the kitchen reads, or is off. */
function dialled(s: Stage) {
  const o = plan.oven?.oven
  if (!o || outside(s)) return ''
  const off = o.offset_c
    ? o.offset_c < 0
      ? ` (oven is ${degrees(-o.offset_c)} cooler than its dial)`
      : ` (oven is ${degrees(o.offset_c)} hotter than its dial)`
    : ''
  return o.dial || off ? `Dial: ${heat(s.oven_c, o.dial || undefined)}${off}.` : ''
}
/** Coals for each stage that is in the oven. */
const coals = computed(() => plan.answer?.fire?.coals ?? [])

function change(i: number, how: Partial<Stage>) {
  const next = plan.copied()
  next[i] = { ...next[i]!, ...how }
  plan.set('the stages', next)
}
function split(i: number) {
  const next = plan.copied()
  const s = next[i]!
  const half = Math.max(1, Math.round(s.minutes / 2))
  next.splice(i, 1, { ...s, minutes: half }, { ...s, minutes: Math.max(1, s.minutes - half) })
  plan.set('a stage split', next)
}
function drop(i: number) {
  const next = plan.copied().filter((_, n) => n !== i)
  if (next.length) plan.set('a stage removed', next)
}
</script>

<template>
  <div v-if="p" class="plan" data-testid="plan">
    <p>{{ p.text }}</p>
    <ForecastLine />
    <p class="small" data-testid="plan-end">{{ plan.answer?.verdict.detail }}</p>
    <p v-if="p.unmet.length" class="wrong" role="status" data-testid="unmet">
      {{ own ? 'As entered' : 'No plan meets every condition' }}: {{ p.unmet.join('; ') }}.
    </p>
    <ul v-if="p.remedies.length" class="ways" data-testid="remedies">
      <li v-for="w in p.remedies" :key="w.code">
        <strong>{{ w.name }}</strong>, {{ heat(w.oven_c) }}:
        {{ w.settles ? `fixes it (${w.result})` : w.unmet.join('; ') }}
        <button
          v-if="w.change"
          class="plain"
          :data-testid="`take-${w.code}`"
          @click="plan.apply(w.name, w.change)"
        >
          Apply
        </button>
      </li>
    </ul>
    <div v-for="(s, i) in p.stages" :key="i" class="stage">
      <AmountField
        :label="`Stage ${i + 1}: heat`"
        kind="temperature"
        dial
        unit="°C"
        :step="5"
        :digits="0"
        :model-value="s.oven_c"
        :testid="`stage-c-${i}`"
        @update:model-value="(v) => v !== undefined && change(i, { oven_c: v })"
      />
      <AmountField
        label="minutes"
        kind="minutes"
        unit="min"
        :digits="0"
        :model-value="s.minutes"
        :testid="`stage-min-${i}`"
        @update:model-value="(v) => v !== undefined && change(i, { minutes: v })"
      />
      <span class="acts">
        <button class="plain" :data-testid="`split-${i}`" @click="split(i)">Split</button>
        <button v-if="p.stages.length > 1" class="plain" @click="drop(i)">Remove</button>
      </span>
      <p v-if="dialled(s) || coals[i]" class="wide small told" :data-testid="`told-${i}`">
        {{ dialled(s) }}
        <template v-if="coals[i]"
          ><strong>{{ coals[i].above }}</strong> briquettes on the lid,
          <strong>{{ coals[i].below }}</strong> below, under the rim</template
        >
      </p>
      <ChoiceButtons
        v-if="!coals.length"
        class="wide"
        of="cover"
        :model-value="s.cover"
        :label="`Cover of stage ${i + 1}`"
        :testid="`cover-${i}`"
        @update:model-value="(c) => change(i, { cover: c })"
      />
      <label v-if="s.cover && s.cover !== 'none'" class="tick wide"
        ><input
          type="checkbox"
          :checked="s.tight"
          :data-testid="`tight-${i}`"
          @change="change(i, { tight: !s.tight || undefined })"
        />
        Crimped all round</label
      >
    </div>
    <span class="acts">
      <button v-if="own" class="push" data-testid="propose" @click="plan.propose()">Propose again</button>
      <button v-else class="push" data-testid="take-plan" @click="plan.take()">Save with the card</button>
    </span>
    <p class="small quiet">
      {{ `${`Boiling point here ${warmth(p.answer.boiling_point_c)}.`} The times only say when to check.` }}
    </p>
  </div>
</template>

<style scoped>
.plan {
  display: grid;
  gap: 8px;
}
.stage {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  align-items: end;
  gap: 6px 8px;
  padding-top: 6px;
  border-top: 1px solid var(--line);
}
.wide {
  grid-column: 1 / -1;
}
.choice button {
  padding: 0 6px;
  font-size: 0.875rem;
}
.ways {
  margin: 0;
  padding-left: 18px;
  font-size: 0.875rem;
}
</style>
