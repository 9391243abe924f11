<script setup lang="ts">
import { computed } from 'vue'
import type { Bake } from '@/api/client'
import { grams, heat, inUnits, integer } from '@/parts/words'

/** One bake beside what was predicted for it: times, calls, the probe's curve, what was weighed. */
const props = defineProps<{ bake: Bake }>()
const h = computed(() => props.bake.happened)
const told = computed(() => props.bake.outcome.told ?? {})
const minutes = (m: number | null | undefined) => (typeof m === 'number' ? `${integer(m)} min` : '–')
const lost = computed(() =>
  told.value.before_g && told.value.after_g ? told.value.before_g - told.value.after_g : undefined,
)
const rows = computed(() => {
  const t = told.value
  const e = h.value?.events
  return (
    [
      ['in the oven', minutes(h.value?.planned_min), minutes(h.value?.minutes)],
      ['rim bubbles', minutes(e?.rim_bubbles_min), minutes(t.rim_min)],
      ['middle bubbles', minutes(e?.middle_bubbles_min), minutes(t.middle_min)],
      [
        'steamed off',
        h.value ? grams(h.value.end.steamed_off_g) : '–',
        lost.value === undefined ? '–' : grams(lost.value),
      ],
      ['juice, hot', '–', t.juice_hot ?? '–'],
      ['base', '–', t.base ?? '–'],
      ['sweetness', '–', t.sweetness ?? '–'],
    ] as [string, string, string][]
  ).filter(([, a, b]) => b !== '–' || (h.value && a !== '–'))
})
const w = 420
const tall = 120
const end = computed(() => Math.max(h.value?.minute.at(-1) ?? 1, h.value?.minutes ?? 1))
const hottest = computed(() => Math.max(110, ...(h.value?.readings.map((r) => r.c) ?? [])))
const x = (m: number) => 40 + ((w - 48) * m) / end.value
const y = (c: number) => 6 + (tall - 26) * (1 - (c + 20) / (hottest.value + 25))
const line = computed(() =>
  (h.value?.minute ?? [])
    .map((m, i) => `${i ? 'L' : 'M'}${x(m).toFixed(1)} ${y(h.value!.middle_c[i]!).toFixed(1)}`)
    .join(''),
)
</script>

<template>
  <div class="went" data-testid="how-it-went">
    <table v-if="rows.length">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">What</span></th>
          <th scope="col">predicted</th>
          <th scope="col">happened</th>
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
      <svg
        :viewBox="`0 0 ${w} ${tall}`"
        role="img"
        :aria-label="`Middle of the fruit: predicted, and ${h.readings.length} readings of a probe`"
      >
        <g v-for="c in [0, 100]" :key="c">
          <line class="grid" x1="40" :x2="w - 8" :y1="y(c)" :y2="y(c)" />
          <text x="36" :y="y(c) + 4" text-anchor="end">{{ heat(c) }}</text>
        </g>
        <text x="40" :y="tall - 4">0 min</text>
        <text :x="w - 8" :y="tall - 4" text-anchor="end">{{ integer(end) }}</text>
        <path :d="line" />
        <circle v-for="r in h.readings" :key="r.minute" :cx="x(r.minute)" :cy="y(r.c)" r="2" />
      </svg>
      <figcaption class="small quiet">
        Middle of the fruit: the line as predicted{{ h.readings.length ? ', dots by the probe' : '' }}.
      </figcaption>
    </figure>
    <ul v-if="h?.calls.length" class="small">
      <li v-for="(c, i) in h.calls" :key="i">
        {{ integer(c.due_min) }} min: {{ inUnits(c.says)
        }}<template v-if="c.at_min !== undefined">, {{ c.state }} at {{ integer(c.at_min) }}</template
        ><template v-else>, not answered</template>
      </li>
    </ul>
    <p v-if="told.again !== undefined">
      {{ told.again ? 'Would be made again so.' : 'Would not be made again so.' }}
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
svg {
  width: 100%;
}
text {
  font: 12px var(--face);
  fill: var(--ink-2);
}
.grid {
  stroke: var(--line);
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
circle {
  fill: var(--heat);
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
