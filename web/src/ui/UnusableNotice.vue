<script setup lang="ts">
import type { Unusable } from '@/api/client'
import { date } from '@/format/amounts'

/** What is there and can't be read any more: it is named, and nothing else waits for it. */
defineProps<{ list: Unusable[]; what: string }>()
</script>

<template>
  <p v-if="list.length" class="notice panel wrong" role="alert" data-testid="unusable">
    {{
      `The stored data of ${what} can't be read any more: ${list.map((u) => `${u.title} (${date(u.started_at)})`).join(', ')}. Other data is not affected; a backup may still contain it.`
    }}
  </p>
</template>

<style scoped>
.notice {
  margin: 0;
  padding: 10px 16px;
}
</style>
