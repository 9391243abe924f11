<script setup lang="ts">
import { computed } from 'vue'
import type { Bake } from '@/api/client'
import MiddleCurve from '@/ui/MiddleCurve.vue'
import { useKitchen } from '@/stores/useKitchen'

/** One bake compared with what was predicted for it: times, calls, the probe's curve, what was weighed. */
const props = defineProps<{ bake: Bake }>()
defineEmits<{ seek: [words: string] }>()
const kitchen = useKitchen()
const lots = computed(() =>
  Object.entries(told.value.lots ?? {}).map(([key, lot]) => ({
    lot,
    of: kitchen.calledOf(key),
  })),
)
const h = computed(() => props.bake.actual)
const told = computed(() => props.bake.outcome.details ?? {})
</script>

<template>
  <div
    v-if="bake.report.rows.length || h || bake.batch || lots.length || told.again !== undefined"
    class="went"
    data-testid="how-it-went"
  >
    <p v-if="bake.batch || lots.length" class="batch" data-testid="batch">
      <strong v-if="bake.batch">{{ `Batch ${bake.batch}` }}</strong>
      <span v-if="told.made_by">{{ ` made by ${told.made_by}` }}</span>
      <button
        v-for="l in lots"
        :key="l.of"
        class="plain"
        :title="`Every bake with ${l.lot}`"
        :data-testid="`seek-${l.lot}`"
        @click="$emit('seek', l.lot)"
      >
        {{ `${l.of}: ${l.lot}` }}
      </button>
    </p>
    <table v-if="bake.report.rows.length">
      <thead>
        <tr>
          <th scope="col">
            <span class="visually-hidden">Measure</span>
          </th>
          <th scope="col">predicted</th>
          <th scope="col">actual</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in bake.report.rows" :key="r.name">
          <th scope="row">{{ r.name }}</th>
          <td>{{ r.predicted ?? '–' }}</td>
          <td>
            <strong>{{ r.actual ?? '–' }}</strong>
          </td>
        </tr>
      </tbody>
    </table>
    <figure v-if="h">
      <MiddleCurve :minute="h.minute" :middle-c="h.middle_c" :readings="h.readings" :end="h.minutes" />
      <figcaption class="small quiet">
        {{ `Middle of the fruit: line: predicted${h.readings.length ? ', dots: probe readings' : ''}.` }}
      </figcaption>
    </figure>
    <p v-if="bake.report.weighed" class="small" data-testid="weighed">{{ bake.report.weighed }}</p>
    <ul v-if="bake.report.calls.length" class="small">
      <li v-for="(c, i) in bake.report.calls" :key="i">{{ c }}</li>
    </ul>
    <p v-if="told.again !== undefined">
      {{ told.again ? 'Make it the same way again.' : 'Do not make it the same way again.' }}
    </p>
  </div>
</template>

<style scoped>
.went {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  align-content: start;
  gap: 12px 28px;
  padding-top: 8px;
}
.batch {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin: 0;
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
  font-size: 0.875rem;
}
figure {
  margin: 0;
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
