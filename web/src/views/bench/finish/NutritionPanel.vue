<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, ask, inWords } from '@/api/client'
import { grams } from '@/format/amounts'
import { useBakeQuery } from '../useBakeQuery'

/** Energy and nutrients as it stands at the table: an estimate from tables, and said to be one. */
const open = ref(false)
const { data: told, problem } = useBakeQuery((body, signal) =>
  ask(api.POST('/api/v1/bench/nutrition', { body, signal })),
)
const energy = computed(() => told.value?.rows.find((r) => r.key === 'energy_kcal'))
</script>

<template>
  <div class="nutrition" data-testid="nutrition">
    <p v-if="problem" class="wrong" role="alert">{{ inWords(problem) }}.</p>
    <template v-else-if="told && energy">
      <p>
        <strong class="sum">{{ energy.each }}</strong>
        {{ ` per portion of ${grams(told.portion_g)}; ${energy.shown} in 100 g.` }}
        <button class="plain" :aria-expanded="open" data-testid="nutrients" @click="open = !open">
          {{ open ? 'Less' : 'Nutrients' }}
        </button>
      </p>
      <table v-if="open">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">Nutrient</span></th>
            <th scope="col" class="n">100 g</th>
            <th scope="col" class="n">per portion</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in told.rows" :key="r.key">
            <th scope="row">{{ r.name }}</th>
            <td class="n">{{ r.shown }}</td>
            <td class="n">{{ r.each }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="open && told.estimated.length" class="small quiet">
        {{ `Working figures are used for ${told.estimated.join(', ')}.` }}
      </p>
      <p v-for="s in told.text" :key="s" class="small quiet">{{ s }}</p>
    </template>
  </div>
</template>

<style scoped>
.nutrition {
  display: grid;
  gap: 4px;
}
.sum {
  font-size: 1.5rem;
}
table {
  width: 100%;
  border-collapse: collapse;
}
tr {
  border-bottom: 1px solid var(--line);
}
th {
  font-weight: 400;
  text-align: left;
}
.n {
  text-align: right;
}
</style>
