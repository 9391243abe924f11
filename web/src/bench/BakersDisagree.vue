<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, ask, type BakeSchool } from '@/api/client'
import { useKitchen } from '@/parts/useKitchen'
import { asRead, grams, integer, mm, percent, tenths } from '@/parts/words'
import { useDessert } from './useDessert'
import { usePlan } from './usePlan'
import { t, text } from '@/texts'

/** Where bakers disagree: each way as a switch, with what it changes in numbers for this dessert in this oven. */
const props = defineProps<{ questions: BakeSchool['question'][] }>()
const kitchen = useKitchen()
const dessert = useDessert()
const plan = usePlan()
const all = ref<BakeSchool[]>([])
const open = ref(false)
const titles: Record<string, string> = {
  fat: text('Fat in the topping'),
  ratio: text('Crumble ratio'),
  crumb: text('Size of crumb'),
  coverage: text('Coverage'),
  base: text('The base'),
  cover: text('Cover'),
  sugar: text('Sugar in the fruit'),
}
const question = computed(
  () =>
    open.value &&
    dessert.draft &&
    JSON.stringify({
      request: kitchen.ours(dessert.draft.request),
      setting: { ...plan.place, stages: plan.stages.length ? plan.stages : plan.answer?.plan.stages },
    }),
)
const settled = refDebounced(question, 60)
let asked = 0
watch(settled, async (q) => {
  const mine = ++asked
  if (!q) return
  const got = await ask(api.POST('/api/v1/bake/schools', { body: JSON.parse(q) }))
  if (mine === asked && got.data) all.value = got.data
})
const shown = computed(() =>
  props.questions
    .map((q) => ({ question: q, ways: all.value.filter((s) => s.question === q) }))
    .filter((g) => g.ways.length),
)
const numbers = (s: BakeSchool): string =>
  ({
    fat: () => [
      t('lumps of {depth}', { depth: mm(s.lump_mm) }),
      t('{n} min by hand', { n: integer(s.hand_min) }),
    ],
    ratio: () => [t('{percent} fat', { percent: percent(s.fat_pct) })],
    crumb: () => [
      t('lumps of {depth}', { depth: mm(s.lump_mm) }),
      t('{weight} steam', { weight: grams(s.steam_g) }),
    ],
    coverage: () => [t('{weight} steam', { weight: grams(s.steam_g) }), bubbles(s)],
    base: () => [s.base ? t('base {n} (1 is baked)', { n: tenths(s.base) }) : t('baked before'), bubbles(s)],
    cover: () => [t('colour {n} (1 is golden)', { n: tenths(s.colour) }), bubbles(s)],
    sugar: () => [
      t('{percent} sugar', { percent: percent(s.sugar_pct) }),
      t('set {n}', { n: tenths(s.set) }),
    ],
  })
    [s.question]?.()
    .filter(Boolean)
    .join(', ') ?? ''
const bubbles = (s: BakeSchool) =>
  s.minutes ? t('bubbles after {n} min', { n: integer(s.minutes) }) : t('the middle does not bubble')

function choose(s: BakeSchool) {
  if (s.question === 'cover') plan.set(t('the cover'), s.stages)
  else dessert.change(titles[s.question]!.toLowerCase(), (d) => (d.request = s.request))
}
</script>

<template>
  <details :open="open" @toggle="(e) => (open = (e.target as HTMLDetailsElement).open)">
    <summary :data-testid="`disagree-${questions[0]}`">{{ $t('Where bakers disagree') }}</summary>
    <p v-if="!shown.length" class="quiet small">{{ $t('Trying each way…') }}</p>
    <div
      v-for="g in shown"
      :key="g.question"
      class="group"
      role="group"
      :aria-label="$t(titles[g.question] ?? '')"
    >
      <h3>{{ $t(titles[g.question] ?? '') }}</h3>
      <button
        v-for="s in g.ways"
        :key="s.key"
        :aria-pressed="s.chosen"
        :data-testid="`way-${s.question}-${s.key}`"
        @click="choose(s)"
      >
        <span class="mark" aria-hidden="true" />
        <span>
          <strong>{{ asRead(s.name) }}</strong><span class="small">{{ numbers(s) }}</span
          ><span class="small quiet">{{ asRead(s.says) }}</span>
        </span>
      </button>
    </div>
  </details>
</template>

<style scoped>
summary {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 40px;
  color: var(--rim-ink);
  font-weight: 600;
  cursor: pointer;
}
summary::before {
  content: '+';
  width: 14px;
}
details[open] summary::before {
  content: '−';
}
h3 {
  padding-top: 6px;
}
button {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 52px;
  padding: 4px 0;
  border: 0;
  border-top: 1px solid var(--line);
  background: none;
  text-align: left;
  cursor: pointer;
}
button span > * {
  display: block;
  font-weight: 400;
}
button[aria-pressed='true'] strong {
  font-weight: 700;
}
.mark {
  flex: none;
  width: 16px;
  height: 16px;
  border: 2px solid var(--ink-2);
  border-radius: 50%;
}
button[aria-pressed='true'] .mark {
  border: 5px solid var(--rim-ink);
}
</style>
