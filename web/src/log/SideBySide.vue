<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, ask, type Bake, type Compared } from '@/api/client'
import { useFetched } from '@/parts/useFetched'
import { date, inUnits } from '@/parts/words'

/** Two bakes line by line: what differed, and, if wanted, what did not. */
const route = useRoute()
const rows = ref<Compared[]>()
const bakes = ref<[Bake, Bake]>()
const all = ref(false)
const { trouble } = useFetched(async (kitchen) => {
  const [bake, other] = [String(route.params.bake), String(route.params.other)]
  const one = (id: string) =>
    ask(api.GET('/api/v1/kitchens/{kitchen}/bakes/{bake}', { params: { path: { kitchen, bake: id } } }))
  const [a, b, r] = await Promise.all([
    one(bake),
    one(other),
    ask(
      api.GET('/api/v1/kitchens/{kitchen}/bakes/{bake}/beside/{other}', {
        params: { path: { kitchen, bake, other } },
      }),
    ),
  ])
  if (a.data && b.data && r.data) {
    bakes.value = [a.data, b.data]
    rows.value = r.data
  }
  return a.problem ?? b.problem ?? r.problem
})
const parts = computed(() => {
  const out = new Map<string, Compared[]>()
  for (const r of rows.value ?? []) {
    if (all.value || !r.same) out.set(r.part, [...(out.get(r.part) ?? []), r])
  }
  return [...out]
})
const same = computed(() => (rows.value ?? []).filter((r) => r.same).length)
</script>

<template>
  <div class="panel beside" data-testid="side-by-side">
    <div class="bar">
      <h1>Side by side</h1>
      <RouterLink class="link" to="/log">Back to the log</RouterLink>
      <label class="tick no-print"
        ><input v-model="all" type="checkbox" data-testid="also-same" /> also the {{ same }} lines that are
        the same</label
      >
    </div>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble.title }}.</p>
    <p v-else-if="!rows || !bakes" class="quiet">Laying them side by side…</p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">What</span></th>
          <th v-for="b in bakes" :key="b.id" scope="col">
            {{ b.title }}<span class="quiet small">{{ date(b.baked_at) }}</span>
          </th>
        </tr>
      </thead>
      <tbody v-for="[part, lines] in parts" :key="part">
        <tr>
          <th scope="rowgroup" colspan="3" class="part">{{ part }}</th>
        </tr>
        <tr v-for="r in lines" :key="r.what" :class="{ differs: !r.same }">
          <th scope="row">{{ r.what }}</th>
          <td>{{ inUnits(r.a) || '–' }}</td>
          <td>{{ inUnits(r.b) || '–' }}</td>
        </tr>
      </tbody>
      <tbody v-if="!parts.length">
        <tr>
          <td colspan="3">Nothing differs.</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.beside {
  max-width: 1040px;
  margin: 0 auto;
  padding: 10px 20px 20px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
}
.link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
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
}
thead th {
  font: 650 18px/1.25 var(--title);
}
thead .small {
  display: block;
  font: 400 14px var(--face);
}
.part {
  padding-top: 16px;
  color: var(--rim-ink);
  font: 650 16px var(--title);
  border-bottom: 1.5px solid var(--rim);
}
.differs td {
  font-weight: 700;
}
</style>
