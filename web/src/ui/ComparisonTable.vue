<script setup lang="ts">
import { computed } from 'vue'
import type { Comparison } from '@/api/client'

/** Two desserts line by line, under the headings of the work: what differs, and, if wanted, what does not. */
const props = defineProps<{ rows: Comparison[]; heads: { title: string; about: string }[]; all?: boolean }>()
const parts = computed(() => {
  const out = new Map<string, Comparison[]>()
  for (const r of props.rows) {
    const part = r.part
    if (props.all || !r.same) out.set(part, [...(out.get(part) ?? []), r])
  }
  return [...out]
})
</script>

<template>
  <table>
    <thead>
      <tr>
        <th scope="col">
          <span class="visually-hidden">What</span>
        </th>
        <th v-for="(h, i) in heads" :key="i" scope="col">
          {{ h.title }}<span class="quiet small">{{ h.about }}</span>
        </th>
      </tr>
    </thead>
    <tbody v-for="[part, lines] in parts" :key="part">
      <tr>
        <th scope="rowgroup" colspan="3" class="part">{{ part }}</th>
      </tr>
      <tr v-for="(r, i) in lines" :key="i" :class="{ differs: !r.same }">
        <th scope="row">{{ r.name }}</th>
        <td>{{ r.a || '–' }}</td>
        <td>{{ r.b || '–' }}</td>
      </tr>
    </tbody>
    <tbody v-if="!parts.length">
      <tr>
        <td colspan="3">No differences.</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}
th,
td {
  padding: 6px 16px 6px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
  font-weight: 400;
  overflow-wrap: anywhere;
}
thead th {
  font: 700 1.125rem/1.25 var(--title);
}
thead .small {
  display: block;
  font: 400 0.875rem var(--face);
}
.part {
  padding-top: 16px;
  color: var(--rim-ink);
  font: 700 1rem var(--title);
  border-bottom: 1.5px solid var(--rim);
}
.differs td {
  font-weight: 700;
}
</style>
