<script setup lang="ts">
import { computed } from 'vue'
import type { Bake } from '@/api/client'
import MiddleCurve from '@/parts/MiddleCurve.vue'
import { grams, asRead, integer, lower, scale, short } from '@/parts/words'
import { t } from '@/texts'

/** One bake beside what was predicted for it: times, calls, the probe's curve, what was weighed. */
const props = defineProps<{ bake: Bake }>()
const h = computed(() => props.bake.happened)
const told = computed(() => props.bake.outcome.told ?? {})
const minutes = (m: number | null | undefined) =>
  typeof m === 'number' ? t('{n} min', { n: integer(m) }) : '–'
const lost = computed(() =>
  told.value.before_g && told.value.after_g ? told.value.before_g - told.value.after_g : undefined,
)
const rows = computed(() => {
  const e = h.value?.events
  return (
    [
      [t('in the oven'), minutes(h.value?.planned_min), minutes(h.value?.minutes)],
      [t('rim bubbles'), minutes(e?.rim_bubbles_min), minutes(told.value.rim_min)],
      [t('middle bubbles'), minutes(e?.middle_bubbles_min), minutes(told.value.middle_min)],
      [
        t('steamed off'),
        h.value ? grams(h.value.end.steamed_off_g) : '–',
        lost.value === undefined ? '–' : grams(lost.value),
      ],
      [t('juice, hot'), '–', told.value.juice_hot ?? '–'],
      [t('base'), '–', told.value.base ?? '–'],
      [t('sweetness'), '–', told.value.sweetness ?? '–'],
    ] as [string, string, string][]
  ).filter(([, a, b]) => b !== '–' || (h.value && a !== '–'))
})
/** What the scale showed, where it differs from the ticket. */
const weighed = computed(() => {
  const all = h.value?.weighed ?? []
  if (!all.length) return ''
  const off = all.filter((w) => scale(w.g).figure !== scale(w.wanted_g).figure)
  return off.length
    ? t('Weighed: {list}; the other {off} as written.', {
        list: off
          .map((w) =>
            t('{weight} of {weight2} {name}', {
              weight: grams(w.g),
              weight2: grams(w.wanted_g),
              name: lower(short(w.name)),
            }),
          )
          .join(', '),
        off: all.length - off.length,
      })
    : t('Weighed: all {all} lines as written.', { all: all.length })
})
</script>

<template>
  <div v-if="rows.length || h || told.again !== undefined" class="went" data-testid="how-it-went">
    <table v-if="rows.length">
      <thead>
        <tr>
          <th scope="col">
            <span class="visually-hidden">{{ $t('What') }}</span>
          </th>
          <th scope="col">{{ $t('predicted') }}</th>
          <th scope="col">{{ $t('happened') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[what, before, after] in rows" :key="what">
          <th scope="row">{{ what }}</th>
          <td>{{ before }}</td>
          <td>
            <strong>{{ after }}</strong>
          </td>
        </tr>
      </tbody>
    </table>
    <figure v-if="h">
      <MiddleCurve :minute="h.minute" :middle-c="h.middle_c" :readings="h.readings" :end="h.minutes" />
      <figcaption class="small quiet">
        {{
          $t('Middle of the fruit: the line as predicted{n}.', {
            n: h.readings.length ? $t(', dots by the probe') : '',
          })
        }}
      </figcaption>
    </figure>
    <p v-if="weighed" class="small" data-testid="weighed">{{ weighed }}</p>
    <ul v-if="h?.calls.length" class="small">
      <li v-for="(c, i) in h.calls" :key="i">
        {{ $t('{n} min: {says}', { n: integer(c.due_min), says: asRead(c.says) })
        }}<template v-if="c.at_min !== undefined">{{
          $t(', {state} at {n}', { state: c.state, n: integer(c.at_min) })
        }}</template
        ><template v-else>{{ $t(', not answered') }}</template>
      </li>
    </ul>
    <p v-if="told.again !== undefined">
      {{ told.again ? $t('Would be made again so.') : $t('Would not be made again so.') }}
    </p>
  </div>
</template>

<style scoped>
.went {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 12px 28px;
  padding-top: 8px;
}
table {
  border-collapse: collapse;
  align-self: start;
}
th,
td {
  padding: 4px 18px 4px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  font-weight: 400;
}
thead th {
  color: var(--ink-2);
  font-size: 14px;
}
figure {
  margin: 0;
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
