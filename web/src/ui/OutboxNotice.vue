<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { ref, watch } from 'vue'
import RefusedParcel from './RefusedParcel.vue'
import { useOutbox } from '@/stores/useOutbox'

const outbox = useOutbox()
const shown = ref('')
const { start } = useTimeoutFn(() => (shown.value = ''), 5000, { immediate: false })
watch(
  () => outbox.lately,
  (what) => {
    if (!what) return
    shown.value = what
    outbox.lately = ''
    start()
  },
)
</script>

<template>
  <div v-if="outbox.any" class="notice away no-print" role="alert" data-testid="not-saved">
    <strong>Not saved yet.</strong>
    {{
      `${outbox.why}. Kept here, and saved as soon as the server is back: ${outbox.waiting.map((p) => p.what).join(', ')}.`
    }}
    <button class="plain" @click="outbox.retry()">Retry</button>
  </div>
  <ul v-if="outbox.refused.length" class="notice away no-print" role="alert" data-testid="put-aside">
    <RefusedParcel v-for="(r, i) in outbox.refused" :key="i" :parcel="r" />
  </ul>
  <div v-if="!outbox.any && shown" class="notice stored no-print" role="status" data-testid="saved">
    {{ `✓ Saved: ${shown}` }}
  </div>
</template>

<style scoped>
.notice {
  padding: 8px 16px;
}
ul {
  display: grid;
  gap: 12px;
  max-height: 40vh;
  overflow-y: auto;
  margin: 0;
  list-style: none;
}
.away {
  background: var(--danger-wash);
  color: var(--ink);
  border-left: 6px solid var(--danger);
}
.stored {
  position: fixed;
  z-index: 10;
  right: 16px;
  bottom: 16px;
  background: var(--settled);
  color: var(--panel);
  font-weight: 600;
  border-radius: 4px;
}
</style>
