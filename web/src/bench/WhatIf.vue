<script setup lang="ts">
import { computed, onUnmounted, ref, watch } from 'vue'
import type { PlanAnswer } from '@/api/client'
import { asRead, integer, tenths } from '@/parts/words'
import { useDessert } from './useDessert'
import { usePlan, type Changed } from './usePlan'
import { t } from '@/texts'

/** One thing changed, the same stages: what moves, in numbers here and as a dotted curve on the strip. */
const dessert = useDessert()
const plan = usePlan()
const chosen = ref<string>()

interface Way {
  key: string
  name: string
  change: (c: Changed) => void
}
const chilled = 4
const hard = -18
const less = 20
/** Each way: half the area again. */
const wider = Math.sqrt(1.5)
const ways = computed<Way[]>(() => {
  const d = dessert.draft
  if (!d) return []
  const metal = d.request.dish.material === 'thin_metal'
  const fan = plan.heating === 'fan'
  const frozen = d.request.fruits.some((f) => f.frozen)
  const heated = (c: Changed, to: 'conventional' | 'fan') => {
    c.setting.heating = to
    for (const s of c.setting.stages)
      if (!s.heating || s.heating === 'conventional' || s.heating === 'fan') s.heating = to
  }
  return [
    {
      key: 'dish',
      name: metal ? t('glass instead of metal') : t('thin metal instead'),
      change: (c) => (c.request.dish.material = metal ? 'glass' : 'thin_metal'),
    },
    {
      key: 'cold',
      name: frozen ? t('fruit frozen hard') : t('fruit out of the fridge'),
      change: (c) => (c.setting.filling_c = frozen ? hard : chilled),
    },
    {
      key: 'cooler',
      name: t('20 °C less'),
      change: (c) => c.setting.stages.forEach((s) => (s.oven_c -= less)),
    },
    {
      key: 'foil',
      name: t('foil for the first half'),
      change: (c) => {
        let left = (plan.answer?.plan.minutes ?? 0) / 2
        c.setting.stages = c.setting.stages.flatMap((s) => {
          const under = Math.min(left, s.minutes)
          left -= under
          return [
            { ...s, minutes: under, cover: 'foil' as const },
            {
              ...s,
              minutes: s.minutes - under,
              cover: 'none' as const,
              push_under: under ? false : s.push_under,
            },
          ].filter((x) => x.minutes > 0)
        })
      },
    },
    {
      key: 'shallow',
      name: t('a shallower, wider dish'),
      change: (c) => {
        const was = c.request.dish
        const of = (x: number | undefined) => x && wider * x
        c.request.weighed_fruit_g = dessert.answer?.fruit_g
        c.request.dish = {
          ...was,
          length_cm: wider * was.length_cm,
          width_cm: of(was.width_cm),
          floor_length_cm: of(was.floor_length_cm),
          floor_width_cm: of(was.floor_width_cm),
          measured_ml: 0,
        }
      },
    },
    {
      key: 'fan',
      name: fan ? t('without the fan') : t('with the fan'),
      change: (c) => heated(c, fan ? 'conventional' : 'fan'),
    },
  ]
})
function touch(w: Way) {
  chosen.value = chosen.value === w.key ? undefined : w.key
  if (!chosen.value) plan.forget()
}
// What is tried follows the dessert and its stages.
watch([chosen, () => plan.answer], () => {
  const w = ways.value.find((x) => x.key === chosen.value)
  if (w) void plan.tryIf(w.name, w.change)
})
onUnmounted(() => plan.forget())
function hold() {
  chosen.value = undefined
  plan.hold()
}
function clear() {
  chosen.value = undefined
  plan.forget()
}

const minutes = (m: number | null | undefined) =>
  m === null || m === undefined ? 'not' : t('{n} min', { n: integer(m) })
const rows = (a: PlanAnswer) => {
  const { events: e, end } = a.plan.answer
  return [
    [t('middle bubbles'), minutes(e.middle_bubbles_min)],
    ['golden', minutes(e.golden_min)],
    [t('colour at the end (1 is golden)'), tenths(end.colour)],
    [
      t('fruit, minutes at a boil'),
      t('{n} of {n2}', { n: integer(end.fruit_minutes), n2: integer(a.tender_min) }),
    ],
    [t('starch set'), `${integer(100 * end.set_share)} %`],
    ['steam', `${integer(end.steamed_off_g)} g`],
    ...(end.base || e.base_baked_min !== null ? [[t('base (1 is baked)'), tenths(end.base)]] : []),
  ] as [string, string][]
}
const table = computed(() => {
  if (!plan.answer || !plan.beside) return []
  const other = new Map(rows(plan.beside.answer))
  return rows(plan.answer).map(([name, now]) => ({ name, now, then: other.get(name) ?? '–' }))
})
</script>

<template>
  <section v-if="plan.answer" class="what" :aria-label="$t('What if')">
    <h3>{{ $t('What if…') }}</h3>
    <div class="touches" role="group" :aria-label="$t('What if')">
      <button
        v-for="w in ways"
        :key="w.key"
        type="button"
        :aria-pressed="chosen === w.key"
        :data-testid="`if-${w.key}`"
        @click="touch(w)"
      >
        {{ asRead(w.name) }}
      </button>
    </div>
    <table v-if="plan.beside" data-testid="what-moves">
      <thead>
        <tr>
          <th scope="col">
            <span class="hidden">{{ $t('Clock') }}</span>
          </th>
          <th scope="col">{{ $t('now') }}</th>
          <th scope="col">{{ asRead(plan.beside.name) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in table" :key="r.name" :class="{ moved: r.now !== r.then }">
          <th scope="row">{{ asRead(r.name) }}</th>
          <td>{{ r.now }}</td>
          <td>{{ r.then }}</td>
        </tr>
      </tbody>
    </table>
    <p class="small quiet">
      {{
        $t('The same stages, one thing changed. It is dotted on the strip and changes nothing on the card.')
      }}
    </p>
    <span>
      <button class="plain" data-testid="hold" @click="hold">
        {{ $t('Hold this plan to compare with') }}
      </button>
      <button v-if="plan.beside" class="plain" data-testid="forget" @click="clear">
        {{ $t('Take the other off') }}
      </button>
    </span>
  </section>
</template>

<style scoped>
.what {
  display: grid;
  gap: 6px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
.touches {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.touches button {
  min-height: 44px;
  padding: 2px 8px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: none;
  cursor: pointer;
}
.touches button[aria-pressed='true'] {
  border-color: var(--rim);
  background: var(--rim);
  color: var(--on-rim);
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 15px;
}
th,
td {
  padding: 4px 6px 4px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  font-weight: 400;
  font-variant-numeric: tabular-nums;
}
thead th {
  vertical-align: bottom;
  color: var(--ink-2);
  font-size: 14px;
}
.moved td:last-child {
  font-weight: 700;
}
.hidden {
  position: absolute;
  clip-path: inset(50%);
}
</style>
