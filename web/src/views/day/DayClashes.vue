<script setup lang="ts">
import type { DayClash, DayRemedy } from '@/api/client'

/** What will not be ready as wanted, and what would solve it: each was tried by planning. */
defineProps<{ clashes: DayClash[]; busy: boolean }>()
const emit = defineEmits<{ take: [way: DayRemedy] }>()
const comesTo = (w: DayRemedy) =>
  [
    w.left_out ? `${w.left_out} still does not fit` : '',
    w.late_min ? `still ${w.late_min} min late` : '',
    w.window_min ? `a step waits ${w.window_min} min too long` : '',
  ]
    .filter(Boolean)
    .join(', ') || 'solves everything'
</script>

<template>
  <section
    v-for="c in clashes"
    :key="c.batch"
    class="clash panel"
    role="status"
    :data-testid="`clash-${c.batch}`"
  >
    <p>
      <strong>{{
        c.minutes_over ? `${c.batch}: ${c.minutes_over} min over.` : `${c.batch} does not fit.`
      }}</strong>
      <span v-if="c.because" class="because" data-testid="clash-because">{{ `${c.because}.` }}</span>
      {{ c.remedies.length ? 'What would help:' : 'No remedy was found.' }}
    </p>
    <ul>
      <li v-for="(w, i) in c.remedies" :key="i">
        <button class="push" :disabled="busy" :data-testid="`way-${w.code}`" @click="emit('take', w)">
          {{ w.text }}
        </button>
        <span class="quiet small">{{ comesTo(w) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.because {
  display: block;
}
.because::first-letter {
  text-transform: uppercase;
}
.clash {
  padding: 8px 14px;
  border-left: 6px solid var(--danger);
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
}
li .push::first-letter {
  text-transform: uppercase;
}
</style>
