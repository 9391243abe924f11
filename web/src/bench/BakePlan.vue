<script setup lang="ts">
import { computed } from 'vue'
import type { Stage } from '@/api/client'
import BoldText from '@/parts/BoldText.vue'
import AmountField from '@/parts/AmountField.vue'
import { bandWords, grams, heat, asRead, integer, allRead, degrees, warmth } from '@/parts/words'
import type { Draft } from './useDessert'
import { outside, usePlan } from './usePlan'
import { t } from '@/texts'

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
      ? t(' (it is {degrees} cooler than it says)', { degrees: degrees(-o.offset_c) })
      : t(' (it is {degrees} hotter than it says)', { degrees: degrees(o.offset_c) })
    : ''
  return o.dial || off ? t('Dial: {heat}{off}.', { heat: heat(s.oven_c, o.dial || undefined), off }) : ''
}
/** Coals for each stage that is in the oven. */
const coals = computed(() => plan.answer?.fire?.coals ?? [])
const covers = ['none', 'foil', 'lid', 'parchment', 'rim'] as const

const colourWord = (c: number) => (c < 0.7 ? 'pale' : c <= 1.35 ? 'golden' : c <= 2 ? 'dark' : 'burnt')
const range = computed(() => {
  if (!p.value) return ''
  const words = [p.value.early.colour, p.value.answer.end.colour, p.value.late.colour].map(colourWord)
  return words[0] === words[2]
    ? words[1]!
    : t('{n} to {n2}, most likely {n3}', { n: words[0], n2: words[2], n3: words[1] })
})
const fruit = computed(() => {
  const a = plan.answer
  if (!a) return ''
  const m = a.plan.answer.end.fruit_minutes
  return m < a.tender_min
    ? 'hard'
    : m > a.mush_min
      ? 'mush'
      : m > 0.8 * a.mush_min
        ? t('very soft')
        : 'tender'
})

function change(i: number, how: Partial<Stage>) {
  const next = plan.copied()
  next[i] = { ...next[i]!, ...how }
  plan.set(t('the stages'), next)
}
function split(i: number) {
  const next = plan.copied()
  const s = next[i]!
  const half = Math.max(1, Math.round(s.minutes / 2))
  next.splice(i, 1, { ...s, minutes: half }, { ...s, minutes: Math.max(1, s.minutes - half) })
  plan.set(t('a stage split'), next)
}
/** What a way out changes of the card, besides its stages. */
const takes: Record<string, (d: Draft) => void> = {
  late_topping: () => {},
  falling: () => {},
  rim_shield: () => {},
  bottom_heat: () => {},
  low_shelf: (d) => (d.setting.shelf = 'low'),
  metal: (d) => (d.request.dish.material = 'thin_metal'),
  par_bake: (d) => d.request.base && (d.request.base.par_baked = true),
}
const takeWay = (code: string, says: string, stages: Stage[]) => plan.set(says, stages, false, takes[code])
function drop(i: number) {
  const next = plan.copied().filter((_, n) => n !== i)
  if (next.length) plan.set(t('a stage taken out'), next)
}
</script>

<template>
  <div v-if="p" class="plan" data-testid="plan">
    <p>
      <BoldText
        :text="
          $t(
            '**{what}: {minutes} min**. Look from **{look} min**, turn it at {turn}. {shield} {late} Then {rack} min on the rack{fridge}.',
            {
              what: own ? $t('As entered') : $t('Proposed'),
              minutes: integer(p.minutes),
              look: integer(p.look_from_min),
              turn: integer(p.turn_at_min),
              shield: p.rim_shield ? $t('Shield the rim with foil.') : '',
              late: plan.answer?.late_at_min
                ? $t('The second topping goes on at {n}.', { n: integer(plan.answer.late_at_min) })
                : '',
              rack: integer(p.rack_min),
              fridge: p.fridge_min ? $t(' and {n} min in the fridge', { n: integer(p.fridge_min) }) : '',
            },
          )
        "
      />
    </p>
    <p class="small" data-testid="plan-end">
      {{
        $t('Top {range} (the oven may be {n} off), fruit {fruit}, set {n2} %', {
          range,
          n: degrees(p.off_by_c),
          fruit,
          n2: integer(100 * p.answer.end.set_share),
        })
      }}<template v-if="p.answer.events.base_baked_min !== null || p.answer.end.base">{{
        $t(', base {n}', {
          n:
            p.answer.end.base < 0.6
              ? $t('soggy')
              : p.answer.end.base < 1
                ? $t('soft')
                : p.answer.end.base > 4
                  ? $t('burnt')
                  : $t('baked'),
        })
      }}</template
      >{{ $t('. {n} steam off', { n: grams(Math.round(p.answer.end.steamed_off_g)) })
      }}<template v-if="plan.answer">{{
        $t(': with that, {weight} of thickener, {n}', {
          weight: grams(plan.answer.balance.thickener_g),
          n: bandWords[plan.answer.balance.set.band],
        })
      }}</template
      >.
    </p>
    <p v-if="p.unmet.length" class="wrong" role="status" data-testid="unmet">
      {{ own ? $t('As entered') : $t('No plan meets it all') }}: {{ allRead(p.unmet, '; ') }}.
    </p>
    <ul v-if="p.ways_out.length" class="ways" data-testid="ways-out">
      <li v-for="w in p.ways_out" :key="w.code">
        <strong>{{ asRead(w.name) }}</strong>{{
          $t(', {heat}, {n2} min: {n}', {
            heat: heat(w.oven_c),
            n2: integer(w.minutes),
            n: w.settles ? $t('settles it') : allRead(w.unmet, '; '),
          })
        }}
        <button
          v-if="takes[w.code]"
          class="plain"
          :data-testid="`take-${w.code}`"
          @click="takeWay(w.code, asRead(w.name), w.stages)"
        >
          {{ $t('Do it') }}
        </button>
      </li>
    </ul>
    <div v-for="(s, i) in p.stages" :key="i" class="stage">
      <AmountField
        :label="$t('Stage {n}: heat', { n: i + 1 })"
        kind="temperature"
        unit="°C"
        :step="5"
        :digits="0"
        :model-value="s.oven_c"
        :testid="`stage-c-${i}`"
        @update:model-value="(v) => v !== undefined && change(i, { oven_c: v })"
      />
      <AmountField
        :label="$t('minutes')"
        kind="minutes"
        unit="min"
        :digits="0"
        :model-value="s.minutes"
        :testid="`stage-min-${i}`"
        @update:model-value="(v) => v !== undefined && change(i, { minutes: v })"
      />
      <span class="acts">
        <button class="plain" :data-testid="`split-${i}`" @click="split(i)">{{ $t('Split') }}</button>
        <button v-if="p.stages.length > 1" class="plain" @click="drop(i)">{{ $t('Out') }}</button>
      </span>
      <p v-if="dialled(s) || coals[i]" class="wide small told" :data-testid="`told-${i}`">
        {{ dialled(s) }}
        <template v-if="coals[i]"
          ><strong>{{ coals[i].above }}</strong> {{ $t('briquettes on the lid,') }}
          <strong>{{ coals[i].below }}</strong> {{ $t('below, under the rim') }}</template
        >
      </p>
      <div class="choice wide" role="group" :aria-label="$t('Cover of stage {n}', { n: i + 1 })">
        <button
          v-for="c in covers"
          :key="c"
          :aria-pressed="(s.cover || 'none') === c"
          :data-testid="`cover-${i}-${c}`"
          @click="change(i, { cover: c })"
        >
          {{ c === 'none' ? $t('open') : c === 'rim' ? $t('rim shield') : c }}
        </button>
      </div>
    </div>
    <span class="acts">
      <button v-if="own" class="push" data-testid="propose" @click="plan.propose()">
        {{ $t('Propose anew') }}
      </button>
      <button v-else class="push" data-testid="take-plan" @click="plan.take()">
        {{ $t('Keep it with the card') }}
      </button>
    </span>
    <p class="small quiet">
      {{
        $t('{n} The clock only says when to look.', {
          n: $t('Boiling point here {heat}.', { heat: warmth(p.answer.boiling_point_c) }),
        })
      }}
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
  font-size: 14px;
}
.ways {
  margin: 0;
  padding-left: 18px;
  font-size: 14px;
}
</style>
