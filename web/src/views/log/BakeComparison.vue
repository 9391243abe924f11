<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, ask, type Bake, type Comparison } from '@/api/client'
import ComparisonTable from '@/ui/ComparisonTable.vue'
import { useFetched } from '@/ui/useFetched'
import { date } from '@/format/amounts'

/** Two bakes line by line: what differed, and, if wanted, what did not. */
const route = useRoute()
const rows = ref<Comparison[]>()
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
      api.GET('/api/v1/kitchens/{kitchen}/bakes/{bake}/compared-with/{other}', {
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
const same = computed(() => (rows.value ?? []).filter((r) => r.same).length)
</script>

<template>
  <div class="panel beside" data-testid="side-by-side">
    <div class="bar">
      <h1>Comparison</h1>
      <RouterLink class="link" to="/log">Back to the log</RouterLink>
      <label class="tick no-print"
        ><input v-model="all" type="checkbox" data-testid="also-same" />
        {{ `show the ${same} lines without differences` }}</label
      >
    </div>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble.title }}.</p>
    <p v-else-if="!rows || !bakes" class="quiet">Comparing…</p>
    <ComparisonTable
      v-else
      :rows="rows"
      :all="all"
      :heads="bakes.map((b) => ({ title: b.title, about: date(b.baked_at) }))"
    />
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
</style>
