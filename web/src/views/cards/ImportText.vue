<script setup lang="ts">
import { computed } from 'vue'
import type { LineRequest, RecipeReading, RecipeRow } from '@/api/client'
import { groupOf } from './bowls'

/** The recipe as it was pasted: each line in the colour of its bowl, each sentence that gives a step underlined. */
const props = defineProps<{
  reading: RecipeReading
  lines: LineRequest[]
  rows: RecipeRow[]
  stepTexts: string[]
  at?: number
}>()
const emit = defineEmits<{ look: [line: number | undefined] }>()
const paragraphs = computed(() => {
  const out: RecipeReading['method'][] = []
  for (const s of props.reading.method) (out[s.paragraph] ??= []).push(s)
  return out.filter(Boolean)
})
const rowAt = (line: number) => props.rows[props.lines.findIndex((l) => l.at === line)]
const words = (steps?: number[]) =>
  (steps ?? [])
    .map((i) => props.stepTexts[i])
    .filter(Boolean)
    .join('. ')
</script>

<template>
  <section class="recipe-text" aria-label="The recipe as pasted" data-testid="recipe-text">
    <h2>{{ reading.title }}</h2>
    <p v-if="reading.yield" class="quiet">{{ reading.yield }}</p>
    <ul>
      <li
        v-for="(l, i) in reading.lines"
        :key="i"
        :class="[l.kind, { here: at === i }]"
        :style="{ '--bowl': l.kind === 'ingredient' ? groupOf(rowAt(i)).colour : 'var(--bowl-out)' }"
        :data-testid="`text-line-${i}`"
        @mouseenter="emit('look', i)"
        @mouseleave="emit('look', undefined)"
      >
        {{ l.text }}
      </li>
    </ul>
    <p v-for="(p, n) in paragraphs" :key="n" class="method">
      <template v-for="(s, k) in p" :key="k"
        ><span :class="{ step: s.steps?.length, quiet: s.skipped }" :title="words(s.steps) || undefined">{{
          s.text
        }}</span
        >{{ ' ' }}</template
      >
    </p>
    <details v-if="reading.notes.length" data-testid="recipe-notes">
      <summary>Not used: notes, tips and the like</summary>
      <p v-for="(n, i) in reading.notes" :key="i" class="quiet">{{ n }}</p>
    </details>
  </section>
</template>

<style scoped>
.recipe-text {
  font-size: 0.9375rem;
}
h2 {
  font-size: 1.125rem;
}
ul {
  margin: 6px 0 10px;
  padding: 0;
  list-style: none;
}
li {
  margin: 2px 0;
  padding: 2px 6px;
  white-space: pre-line;
}
li.ingredient {
  border-left: 5px solid var(--bowl);
  background: color-mix(in srgb, var(--bowl) 12%, transparent);
}
li.heading {
  margin-top: 8px;
  font-weight: 600;
}
li.note,
li.serve,
li.equipment {
  color: var(--ink-2);
}
li.here {
  outline: 2px solid var(--bowl);
}
.method {
  margin-bottom: 8px;
}
.step {
  text-decoration: underline;
  text-decoration-color: var(--rim-ink);
  text-decoration-thickness: 2px;
  text-underline-offset: 3px;
}
summary {
  min-height: 44px;
  color: var(--rim-ink);
  cursor: pointer;
}
</style>
