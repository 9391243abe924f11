<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, inWords, type Problem } from '@/api/client'
import UnitPresets from '@/ui/UnitPresets.vue'
import { useKitchen } from '@/stores/useKitchen'

/** Welcome: one touch says how the kitchen measures, a name can follow; or somebody looks around in another one. */
const kitchen = useKitchen()
const name = ref('')
const wrong = ref('')
const loading = ref(false)
async function begin(habit?: string) {
  take(await kitchen.begin(name.value.trim() || 'My kitchen', habit), (id) => {
    kitchen.enter(id)
    void kitchen.load()
  })
}
async function look() {
  loading.value = true
  take(await ask(api.POST('/api/v1/kitchens/demo')), kitchen.choose)
  loading.value = false
}
function take(got: { data?: { id: string }; problem?: Problem }, go: (id: string) => void) {
  wrong.value = got.problem ? inWords(got.problem) : ''
  if (got.data) go(got.data.id)
}
</script>

<template>
  <section class="panel first" aria-label="Welcome" data-testid="first-day">
    <p>
      <strong>Which units do you use?</strong> One touch creates your kitchen. You can also continue without
      one: the three choices below still give a result.
    </p>
    <div class="row">
      <UnitPresets :model-value="undefined" @update:model-value="begin" />
      <el-input
        v-model="name"
        maxlength="80"
        placeholder="Name (optional)"
        aria-label="Name of the kitchen"
        data-testid="first-name"
        @keydown.enter="begin()"
      />
      <button class="plain" :disabled="loading" data-testid="look-around" @click="look">
        {{ loading ? 'Loading a month of demo bakes…' : 'Explore a demo kitchen' }}
      </button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}.</p>
  </section>
</template>

<style scoped>
.first {
  display: grid;
  gap: 8px;
  padding: 10px 16px 12px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.el-input {
  flex: 1 1 160px;
  max-width: 220px;
}
</style>
