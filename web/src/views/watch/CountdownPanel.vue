<script setup lang="ts">
import type { Watch } from '@/api/client'
import { timeOf } from '@/format/clock'
import { useWatch } from '@/stores/useWatch'

/** A dessert on its way into the oven: what is to be done until it is in, each with its hour. */
defineProps<{ countdown: Watch['countdowns'][number] }>()
const watching = useWatch()
</script>

<template>
  <section class="panel way" :aria-label="countdown.title" :data-testid="`way-${countdown.title}`">
    <h2>{{ countdown.title }}</h2>
    <p class="quiet">{{ `Countdown to be ready at ${timeOf(countdown.ready_at)}.` }}</p>
    <ol>
      <li v-for="(s, i) in countdown.steps" :key="i" :class="{ past: s.state !== 'waiting' }">
        <strong>{{ timeOf(s.at) }}</strong>
        <span>{{ s.text }}</span>
        <button
          v-if="s.state === 'waiting'"
          class="push"
          :aria-label="`Done: ${s.text}`"
          :data-testid="`step-done-${s.kind}`"
          @click="watching.answerStep(countdown.id, i, { answer: 'done' })"
        >
          Done
        </button>
        <button v-else class="plain" @click="watching.answerStep(countdown.id, i, { answer: 'undo' })">
          {{ s.state === 'done' ? '✓ done' : 'skipped' }}
        </button>
      </li>
    </ol>
    <p class="quiet small">When it goes in, use “Start baking” on the Bench: it has its own reminders.</p>
    <button class="plain" data-testid="off-the-way" @click="watching.deleteCountdown(countdown.id)">
      Remove
    </button>
  </section>
</template>

<style scoped>
.way {
  padding: 12px 18px;
}
ol {
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 60px 1fr auto;
  align-items: center;
  gap: 8px;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
.past span,
.past strong {
  color: var(--ink-2);
}
</style>
