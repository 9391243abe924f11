<script setup lang="ts">
import { useKitchen } from '@/stores/useKitchen'

/** How a new kitchen measures, in one touch. Each can be changed on its own later. */
const habit = defineModel<string>()
const kitchen = useKitchen()
</script>

<template>
  <div class="habits" role="group" aria-label="Units">
    <button
      v-for="h in kitchen.larder?.habits"
      :key="h.key"
      type="button"
      class="push"
      :aria-pressed="habit === h.key"
      :data-testid="`habit-${h.key}`"
      @click="habit = h.key"
    >
      <strong>{{ h.name }}</strong>
      <span class="small">{{ h.text }}</span>
    </button>
  </div>
</template>

<style scoped>
.habits {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.push {
  display: grid;
  justify-items: start;
  height: auto;
  min-height: 52px;
  padding: 6px 14px;
  font-weight: 400;
  text-align: left;
}
.push[aria-pressed='true'] {
  border-color: var(--rim);
  background: var(--rim);
  color: var(--on-rim);
}
</style>
