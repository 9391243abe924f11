<script setup lang="ts">
import { ref } from 'vue'
import { useDessert } from '@/stores/useDessert'
import { later, onceTrue } from '@/ui/later'
import { useReadyBy } from '@/stores/useReadyBy'
import { timeOf } from '@/format/clock'

/** When it is wanted, and when it goes in for that; opened, the whole way there. */
const ready = useReadyBy()
const open = ref(false)
const asked = onceTrue(() => open.value)
const ReadyDialog = later(() => import('@/ui/ReadyDialog.vue'))
const dessert = useDessert()
</script>

<template>
  <button class="line" data-testid="ready-by" @click="open = true">
    <template v-if="ready.way">
      <strong data-testid="goes-in">{{ `In at ${timeOf(ready.way.in_at)}` }}</strong>
      <span :class="{ late: !ready.way.in_time }">{{
        ready.way.in_time ? `ready ${timeOf(ready.way.ready_at)}` : `earliest ${timeOf(ready.way.not_before)}`
      }}</span>
    </template>
    <template v-else>Ready by…</template>
  </button>
  <ReadyDialog v-if="asked" v-model="open" :ready="ready" :name="dessert.draft?.name" />
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 8px;
  min-height: 28px;
  padding: 0 8px;
  border: 0;
  background: none;
  color: var(--rim-ink);
  font-size: 0.9375rem;
  text-align: left;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
.late {
  color: var(--danger);
  font-weight: 600;
}
</style>
