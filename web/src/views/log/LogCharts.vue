<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, type Band, type BakeChart, type Problem } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { date } from '@/format/amounts'
import PointChart from './PointChart.vue'

/** The log as pictures: minutes planned and taken, and how far set and colour were from what was meant. */
const props = defineProps<{ words?: string; juice?: Band; oven?: string }>()
const kitchen = useKitchen()
const chart = shallowRef<BakeChart>()
const problem = ref<Problem>()
const newest = newestOnly()
watch(
  () => [kitchen.kitchen?.id, props.words, props.juice, props.oven] as const,
  async ([id, words, juice, oven]) => {
    if (!id) return
    const isNewest = newest()
    const got = await ask(
      api.GET('/api/v1/kitchens/{kitchen}/bakes/chart', {
        params: { path: { kitchen: id }, query: { words, juice, oven } },
      }),
    )
    if (!isNewest()) return
    problem.value = got.problem
    if (got.data) chart.value = got.data
  },
  { immediate: true },
)
const bakes = computed(() => chart.value?.bakes ?? [])
const label = (b: BakeChart['bakes'][number]) => `${b.title}, ${date(b.at)}: ${b.point.text}`
const minutes = computed(() =>
  bakes.value
    .filter((b) => b.point.planned_min !== undefined)
    .map((b) => ({ x: b.point.planned_min!, y: b.point.happened_min!, label: label(b) })),
)
const steps = (of: 'set_steps' | 'colour_steps') =>
  bakes.value
    .map((b, i) => ({ x: i + 1, y: b.point[of], label: label(b) }))
    .filter((p): p is { x: number; y: number; label: string } => p.y !== undefined)
const set = computed(() => steps('set_steps'))
const colour = computed(() => steps('colour_steps'))
const signed = (n: number | undefined) => (n === undefined ? '' : `${n > 0 ? '+' : ''}${n}`)
</script>

<template>
  <section class="panel charts" aria-labelledby="charts-title" data-testid="charts">
    <h2 id="charts-title">The last bakes</h2>
    <p v-if="problem" class="wrong" role="alert">{{ problem.title }}.</p>
    <p v-if="chart && !minutes.length && !set.length" class="quiet">
      Nothing to show yet. Results appear here when bakes are logged; times come from the Watch.
    </p>
    <div v-else-if="chart" class="two">
      <PointChart
        title="Bake time: planned and actual"
        across="planned, min"
        up="actual, min"
        :series="[{ name: 'a bake', points: minutes }]"
        diagonal
        testid="chart-minutes"
      />
      <PointChart
        title="Juice and top compared with the plan"
        across="bake after bake"
        up="thinner, paler · thicker, darker"
        :series="[
          { name: 'set', points: set },
          { name: 'colour of the top', points: colour },
        ]"
        testid="chart-steps"
      />
    </div>
    <details v-if="bakes.length" data-testid="chart-table">
      <summary>Show as table</summary>
      <table>
        <thead>
          <tr>
            <th scope="col">Bake</th>
            <th scope="col">Planned, min</th>
            <th scope="col">Actual, min</th>
            <th scope="col">Juice, steps thicker</th>
            <th scope="col">Top, steps darker</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="b in bakes" :key="b.id">
            <th scope="row">{{ `${b.title}, ${date(b.at)}` }}</th>
            <td>{{ b.point.planned_min === undefined ? '' : Math.round(b.point.planned_min) }}</td>
            <td>{{ b.point.happened_min === undefined ? '' : Math.round(b.point.happened_min) }}</td>
            <td>{{ signed(b.point.set_steps) }}</td>
            <td>{{ signed(b.point.colour_steps) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </section>
</template>

<style scoped>
.charts {
  margin-bottom: 8px;
  padding: 10px 16px 14px;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
  gap: 16px;
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
</style>
