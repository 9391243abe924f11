<script setup lang="ts">
import { computed } from 'vue'
import type { Remark } from '@/api/client'
import FigureText from '@/ui/FigureText.vue'
import { levelSigns, sorted } from '@/ui/remarks'

/** One station of the work on the strip: its result in a line, and what is to be looked at there. */
const props = defineProps<{
  number: number
  title: string
  line: string
  open: boolean
  remarks: Remark[]
  wrong?: boolean
}>()
defineEmits<{ open: [] }>()
const mark = computed(() => {
  if (props.wrong) return { sign: '✕', word: 'An entry here is not valid', level: 'warning' }
  const worst = sorted(props.remarks).find((r) => r.level === 'warning' || r.level === 'advice')
  return worst && { ...levelSigns[worst.level], level: worst.level, word: worst.text }
})
</script>

<template>
  <button
    :class="['station', { open }]"
    :aria-expanded="open"
    :data-testid="`station-${title.toLowerCase()}`"
    @click="$emit('open')"
  >
    <span class="head">
      <span class="no">{{ number }}</span>
      <span class="title">{{ title }}</span>
      <span v-if="mark" :class="['mark', mark.level]" :title="mark.word"
        >{{ mark.sign }}<span class="visually-hidden">{{ mark.word }}</span></span
      >
    </span>
    <FigureText class="line" :text="line" />
  </button>
</template>

<style scoped>
.station {
  display: grid;
  align-content: start;
  gap: 2px;
  min-width: 0;
  min-height: 62px;
  padding: 6px 10px 5px;
  border: 0;
  border-top: 3px solid var(--line);
  border-radius: 4px 4px 0 0;
  background: var(--sunk);
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.station.open {
  border-top-color: var(--rim);
  background: var(--panel);
}
.station:focus-visible {
  outline-offset: -3px;
}
.head {
  display: flex;
  align-items: center;
  gap: 7px;
}
.no {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border: 2px solid var(--rim-ink);
  border-radius: 50%;
  color: var(--rim-ink);
  font-size: 0.875rem;
  font-weight: 700;
  flex: none;
}
.open .no {
  background: var(--rim);
  border-color: var(--rim);
  color: var(--on-rim);
}
.title {
  font: 700 1.0625rem/1.2 var(--title);
}
.line {
  overflow: hidden;
  font-size: 0.9375rem;
  white-space: nowrap;
  text-overflow: ellipsis;
  color: var(--ink-2);
}
.mark {
  margin-left: auto;
  font-size: 1.125rem;
  font-weight: 700;
  color: var(--heat);
}
.mark.warning {
  color: var(--danger);
}
</style>
