<script setup lang="ts">
import { computed, onMounted, reactive, watch } from 'vue'
import type { Finding } from '@/api/client'
import { useWatch } from '@/stores/useWatch'
import WorkProgress from '@/ui/WorkProgress.vue'
import { capital, date, integer } from '@/format/amounts'
import HistoryChart from './HistoryChart.vue'
import PointChart from './PointChart.vue'
import type { useFindings } from './useFindings'

/** What the whole log teaches: where this kitchen differs from the tables, how surely, and whether knowing it helps. */
const props = defineProps<{ from: ReturnType<typeof useFindings> }>()
const { learnt, trouble, work } = props.from
onMounted(() => void props.from.learn())
// What was logged or put right meanwhile teaches something else.
const watched = useWatch()
watch(
  () => watched.learnt,
  () => void props.from.learn(),
)
const shown = computed(
  () => learnt.value?.findings.filter((l) => l.state === 'used' || l.state === 'off') ?? [],
)
const others = computed(() => learnt.value?.findings.filter((l) => !shown.value.includes(l)) ?? [])
const id = (l: Finding) => `${l.what}-${l.key}`
/** Juice, softness: two things may be learnt of one fruit. */
const about = { release: 'juice', softness: 'softness', colour: 'browning', thickener: 'strength' } as Record<
  string,
  string
>
const titled = (l: Finding) => (about[l.what] ? `${l.of}: ${about[l.what]}` : l.of)
const points = computed(() => learnt.value?.points ?? [])
const drawn = (of: 'before' | 'after') =>
  points.value.map((p) => ({ x: p[of], y: p.logged_min, label: `${p.title}, ${date(p.at)}: ${p.text}` }))
/** Which oven and which fruit is drawn; at first those with the most bakes. */
const chosen = reactive<Record<string, string>>({})
const mostChoices = 5
const histories = computed(() =>
  [
    { what: 'oven_offset', label: 'Which oven', season: false },
    { what: 'release', label: 'Which fruit', season: true },
  ].flatMap((kind) => {
    const of = (learnt.value?.histories ?? []).filter((h) => h.what === kind.what).slice(0, mostChoices)
    const shown = of.find((h) => h.key === chosen[kind.what]) ?? of[0]
    return shown ? [{ ...kind, of, shown }] : []
  }),
)
const series = computed(() => [
  { name: 'predicted from the other bakes', points: drawn('after') },
  { name: 'predicted from the tables', points: drawn('before') },
])
</script>

<template>
  <section class="panel learnt" aria-labelledby="learnt-title" data-testid="learnt">
    <h2 id="learnt-title">What your log shows</h2>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}.</p>
    <WorkProgress
      v-if="work.on.value"
      label="Recalculating all logged bakes"
      :share="work.share.value"
      @stop="work.stop"
    />
    <template v-if="learnt">
      <p data-testid="learnt-summary">{{ learnt.summary }}</p>
      <p
        v-for="n in learnt.oven_changes"
        :key="n.oven"
        class="notice"
        role="status"
        data-testid="oven-changed"
      >
        <span>{{ `Since ${date(n.since)}: ${n.text}` }}</span>
        <button class="push" data-testid="say-changed" @click="from.changed(n.oven, n.since)">
          Confirm the change
        </button>
      </p>
      <ul class="findings">
        <li
          v-for="l in shown"
          :key="id(l)"
          :class="{ off: l.state === 'off' }"
          :data-testid="`lesson-${l.what}`"
        >
          <p>{{ capital(l.text) }}</p>
          <label class="switch">
            <input
              type="checkbox"
              :checked="l.state === 'used'"
              :aria-label="`Use: ${titled(l)}`"
              :data-testid="`use-${l.what}`"
              @change="from.turn(l, ($event.target as HTMLInputElement).checked)"
            />
            {{ l.state === 'used' ? 'used' : 'off: table value used' }}
          </label>
        </li>
      </ul>
      <p v-if="!shown.length" class="quiet">No findings yet: everything agrees with the tables.</p>
      <details v-if="others.length" data-testid="lessons-none">
        <summary>
          {{ `${integer(others.length)} quantities in agreement with the tables` }}
        </summary>
        <ul class="none">
          <li v-for="l in others" :key="id(l)">
            <strong>{{ capital(titled(l)) }}</strong>: {{ l.text }}
          </li>
        </ul>
      </details>
      <div class="charts">
        <PointChart
          v-if="points.length"
          title="Time until the middle bubbled: predicted and logged"
          across="predicted, min"
          up="logged, min"
          :series="series"
          diagonal
          testid="chart-learnt"
        />
        <div v-for="h in histories" :key="h.what">
          <div v-if="h.of.length > 1" class="choice" role="group" :aria-label="h.label">
            <button
              v-for="(x, i) in h.of"
              :key="x.key"
              :aria-pressed="x.key === h.shown.key"
              :data-testid="`history-${h.what}-${i}`"
              @click="chosen[h.what] = x.key"
            >
              {{ capital(x.of) }}
            </button>
          </div>
          <HistoryChart :history="h.shown" :season="h.season" :testid="`chart-${h.what}`" />
        </div>
      </div>
      <template v-if="points.length">
        <details data-testid="learnt-table">
          <summary>Show as table, and exclude bakes</summary>
          <table>
            <thead>
              <tr>
                <th scope="col">Bake</th>
                <th scope="col">Logged, min</th>
                <th scope="col">90 % range, min</th>
                <th scope="col">Tables, min</th>
                <th scope="col">Excluded</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="p in points" :key="p.id" :class="{ odd: p.odd }">
                <th scope="row">{{ `${p.title}, ${date(p.at)}${p.odd ? ' (odd)' : ''}` }}</th>
                <td>{{ integer(p.logged_min) }}</td>
                <td>{{ `${integer(p.low)} to ${integer(p.high)}` }}</td>
                <td>{{ integer(p.before) }}</td>
                <td>
                  <input
                    type="checkbox"
                    :checked="from.left(p.id)"
                    :aria-label="`Exclude ${p.title}, ${date(p.at)}`"
                    @change="from.leaveOut(p.id, ($event.target as HTMLInputElement).checked)"
                  />
                </td>
              </tr>
            </tbody>
          </table>
        </details>
      </template>
    </template>
  </section>
</template>

<style scoped>
.learnt {
  display: grid;
  gap: 8px;
  margin-bottom: 8px;
  padding: 10px 16px 14px;
}
.findings {
  display: grid;
  margin: 0;
  padding: 0;
  list-style: none;
}
.findings li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 24px;
  align-items: center;
  padding: 4px 0;
  border-top: 1px solid var(--line);
  font-size: 1.125rem;
}
.off p {
  color: var(--ink-2);
}
.switch {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  font-size: 1rem;
}
.switch input,
td input {
  width: 22px;
  height: 22px;
  accent-color: var(--rim);
}
.charts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 520px), 1fr));
  gap: 16px 24px;
}
.notice {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  justify-content: space-between;
}
.none {
  columns: 2 420px;
  padding-left: 20px;
}
summary {
  min-height: 32px;
  color: var(--rim-ink);
  cursor: pointer;
}
table {
  border-collapse: collapse;
}
th,
td {
  padding: 4px 12px 4px 0;
  border-bottom: 1px solid var(--line);
  text-align: right;
}
th:first-child {
  text-align: left;
}
@media (width <= 700px) {
  .lessons li {
    grid-template-columns: 1fr;
  }
}
</style>
