<script setup lang="ts">
import type { DaySchedule } from '@/api/client'
import { clockOf } from '@/format/minutes'

/** The day as lists: what each person does and each oven holds, in the order of the clock. They print a page each. */
defineProps<{ schedule: DaySchedule; title: string; now?: number }>()
const past = (row: { at_min: number }, now: number | undefined) => now !== undefined && row.at_min < now
</script>

<template>
  <div class="sheets" data-testid="day-sheets">
    <section
      v-for="s in schedule.sheets.filter((x) => x.rows.length)"
      :key="s.kind + s.of"
      class="panel sheet"
      :aria-label="s.of"
    >
      <h2>
        {{ s.of }} <span class="print-only">{{ `· ${title}` }}</span>
      </h2>
      <table>
        <tbody>
          <tr v-for="r in s.rows" :key="r.task" :class="{ past: past(r, now) }">
            <td class="box" aria-hidden="true">☐</td>
            <th scope="row">{{ clockOf(r.at_min) }}</th>
            <td>
              {{ r.text }}<span v-if="r.caution" class="caution small"> {{ r.caution }}</span>
            </td>
            <td class="quiet">{{ r.minutes > 1 ? `${r.minutes} min` : '' }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
.sheets {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(380px, 1fr));
  align-items: start;
  gap: 8px;
}
.sheet {
  padding: 8px 14px 12px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
tr {
  border-bottom: 1px solid var(--line);
}
th,
td {
  padding: 5px 6px;
  text-align: left;
  vertical-align: top;
}
th {
  font-variant-numeric: tabular-nums;
}
td.quiet {
  white-space: nowrap;
}
.box {
  width: 26px;
}
.past {
  color: var(--ink-2);
}
.caution {
  display: block;
  color: var(--danger);
}
@media print {
  .sheets {
    display: block;
  }
  .sheet {
    break-after: page;
    border: 0;
    box-shadow: none;
    font-size: 15pt;
  }
  .sheet:last-child {
    break-after: auto;
  }
}
</style>
