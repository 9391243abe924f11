<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, inWords } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'

/** The first day: a kitchen gets its name, or somebody looks around in another one first. */
const kitchen = useKitchen()
const name = ref('')
const wrong = ref('')
const loading = ref(false)
async function begin() {
  const got = await ask(
    api.POST('/api/v1/kitchens', { body: { id: crypto.randomUUID(), name: name.value.trim() } }),
  )
  wrong.value = got.problem ? inWords(got.problem) : ''
  if (got.data) await kitchen.load()
}
async function look() {
  loading.value = true
  const got = await ask(api.POST('/api/v1/kitchens/demo'))
  loading.value = false
  wrong.value = got.problem ? inWords(got.problem) : ''
  if (got.data) kitchen.choose(got.data.id)
}
</script>

<template>
  <section class="panel first" aria-label="The first day" data-testid="first-day">
    <p>
      <strong>What is the kitchen called?</strong>
      Cards, dishes and the log are kept under its name. It can also wait: the three touches below answer
      without one.
    </p>
    <form @submit.prevent="begin">
      <el-input
        v-model="name"
        maxlength="80"
        placeholder="Name of the kitchen"
        aria-label="Name of the kitchen"
        data-testid="first-name"
      />
      <button class="push main" :disabled="!name.trim()" data-testid="first-begin">Begin</button>
      <button type="button" class="push" :disabled="loading" data-testid="look-around" @click="look">
        {{ loading ? 'A month of bakes is written…' : 'Or look around in a made-up one' }}
      </button>
    </form>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}.</p>
  </section>
</template>

<style scoped>
.first {
  display: grid;
  gap: 8px;
  padding: 10px 16px 14px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.el-input {
  flex: 1 1 220px;
  max-width: 420px;
}
</style>
