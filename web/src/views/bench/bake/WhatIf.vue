<script setup lang="ts">
import { computed, onUnmounted, ref, watch } from 'vue'
import { usePlan } from '@/stores/usePlan'

/** One thing changed, the same stages: what moves, in numbers here and as a dotted curve on the strip. */
const plan = usePlan()
const chosen = ref<string>()

const ways = computed(() => plan.answer?.what_ifs ?? [])
type Way = (typeof ways.value)[number]
function touch(w: Way) {
  chosen.value = chosen.value === w.key ? undefined : w.key
  if (!chosen.value) plan.forget()
}
// What is tried follows the dessert and its stages.
watch([chosen, () => plan.answer], () => {
  const w = ways.value.find((x) => x.key === chosen.value)
  if (w) void plan.tryIf(w.name, w.key)
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

const table = computed(() => {
  const other = new Map(plan.beside?.answer.figures.map((f) => [f.key, f.text]))
  return (plan.answer?.figures ?? []).map((f) => ({ ...f, then: other.get(f.key) ?? '–' }))
})
</script>

<template>
  <section v-if="plan.answer" class="what" aria-label="What if">
    <h3>What if…</h3>
    <div class="touches" role="group" aria-label="What if">
      <button
        v-for="w in ways"
        :key="w.key"
        type="button"
        :aria-pressed="chosen === w.key"
        :data-testid="`if-${w.key}`"
        @click="touch(w)"
      >
        {{ w.name }}
      </button>
    </div>
    <table v-if="plan.beside" data-testid="what-moves">
      <thead>
        <tr>
          <th scope="col">
            <span class="hidden">Clock</span>
          </th>
          <th scope="col">now</th>
          <th scope="col">{{ plan.beside.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in table" :key="r.key" :class="{ moved: r.text !== r.then }">
          <th scope="row">{{ r.name }}</th>
          <td>{{ r.text }}</td>
          <td>{{ r.then }}</td>
        </tr>
      </tbody>
    </table>
    <p class="small quiet">
      Same stages with one change. Shown dotted on the strip; the card is not changed.
    </p>
    <span>
      <button class="plain" data-testid="hold" @click="hold">Keep this plan to compare</button>
      <button v-if="plan.beside" class="plain" data-testid="forget" @click="clear">Stop comparing</button>
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
  font-size: 0.9375rem;
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
  font-size: 0.875rem;
}
.moved td:last-child {
  font-weight: 700;
}
.hidden {
  position: absolute;
  clip-path: inset(50%);
}
</style>
