<script setup lang="ts">
import type { Remark } from '@/api/client'
import { levelSigns } from './remarks'

defineProps<{ remarks: Remark[] }>()
</script>

<template>
  <ul class="remarks">
    <li v-for="(r, i) in remarks" :key="r.code + i" :class="r.level" :data-testid="`remark-${r.code}`">
      <span class="sign" aria-hidden="true">{{ levelSigns[r.level].sign }}</span>
      <div>
        <span class="visually-hidden">{{ levelSigns[r.level].word }}: </span>
        <strong>{{ r.text }}</strong> {{ r.reason }} <em v-if="r.action">{{ r.action }}</em>
      </div>
    </li>
  </ul>
</template>

<style scoped>
.remarks {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
li {
  display: grid;
  grid-template-columns: 22px 1fr;
  font-size: 0.9375rem;
}
em {
  font-style: normal;
  color: var(--rim-ink);
  font-weight: 600;
}
.sign {
  font-weight: 700;
  color: var(--ink-2);
}
.warning .sign,
.warning strong {
  color: var(--danger);
}
.advice .sign,
.caution .sign {
  color: var(--heat);
}
@media (min-width: 100em) {
  li {
    font-size: 1.0625rem;
  }
}
</style>
