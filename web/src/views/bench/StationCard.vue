<script setup lang="ts">
import { computed } from 'vue'
import type { Remark } from '@/api/client'
import FigureText from '@/ui/FigureText.vue'
import { levelSigns, sorted } from '@/ui/remarks'

/** One station of the work: open, or saying its result in a line. */
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
  if (props.wrong) return { sign: '✕', word: 'Something entered here can’t be used', level: 'warning' }
  const worst = sorted(props.remarks).find((r) => r.level === 'warning' || r.level === 'advice')
  return worst && { ...levelSigns[worst.level], level: worst.level, word: worst.what }
})
</script>

<template>
  <section :class="['station panel', { open }]" :aria-label="title">
    <button
      class="head"
      :aria-expanded="open"
      :data-testid="`station-${title.toLowerCase()}`"
      @click="$emit('open')"
    >
      <span class="no">{{ number }}</span>
      <span class="words">
        <span class="title">{{ title }}</span>
        <FigureText class="line" :text="line" />
      </span>
      <span v-if="mark" :class="['mark', mark.level]" :title="mark.word"
        >{{ mark.sign }}<span class="visually-hidden">{{ mark.word }}</span></span
      >
    </button>
    <div v-if="open" class="body"><slot /></div>
  </section>
</template>

<style scoped>
.station {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.station.open {
  flex: 1 1 auto;
}
.station:not(.open) {
  flex: none;
  border-top-width: 2px;
}
.head {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 45px;
  padding: 2px 12px;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.head:focus-visible {
  outline-offset: -3px;
}
.no {
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  border: 2px solid var(--rim-ink);
  border-radius: 50%;
  color: var(--rim-ink);
  font-weight: 700;
  flex: none;
}
.open .no {
  background: var(--rim);
  border-color: var(--rim);
  color: var(--on-rim);
}
.words {
  display: grid;
  flex: 1;
  min-width: 0;
}
.station:not(.open) .words {
  grid-template-columns: 74px 1fr;
  align-items: baseline;
}
.title {
  font: 650 16px/1.2 var(--title);
}
.line {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--ink-2);
}
.mark {
  margin-left: auto;
  font-size: 18px;
  font-weight: 700;
  color: var(--heat);
}
.mark.warning {
  color: var(--danger);
}
.body {
  overflow: auto;
  min-height: 0;
  padding: 4px 12px 12px;
}
</style>
