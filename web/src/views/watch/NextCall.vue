<script setup lang="ts">
import { computed } from 'vue'
import { timeLeft } from '@/format/clock'
import { useKitchen } from '@/stores/useKitchen'
import { useWatch, type Called } from '@/stores/useWatch'

/** The call that is due first, to be read from a metre. */
const props = defineProps<{ call: Called }>()
const watching = useWatch()
const kitchen = useKitchen()
const oven = computed(() => kitchen.ovens.find((o) => o.id === props.call.of.oven_id)?.name)
const shelf = computed(() => {
  const s = [...props.call.of.stages].reverse().find((x) => x.shelf)?.shelf
  return s ? `${s} shelf` : ''
})
const left = computed(() => timeLeft(props.call.left))
const done = (answer: 'done' | 'skipped' | 'snooze') => void watching.answerCall(props.call, { answer })
</script>

<template>
  <section
    :class="['panel next', { due: call.left <= 0 }]"
    aria-label="Next reminder"
    data-testid="next-call"
  >
    <p class="left" data-testid="call-left">{{ call.left > 0 ? 'in' : '' }} {{ left }}</p>
    <div class="words">
      <h2>{{ call.text }}</h2>
      <p class="of">
        {{ [call.of.title, oven, shelf].filter(Boolean).join(' · ') }}
      </p>
      <p v-if="call.caution" class="caution">{{ call.caution }}</p>
    </div>
    <span class="acts">
      <button class="push main big" data-testid="call-done" @click="done('done')">Done</button>
      <button class="push" data-testid="call-snooze" @click="done('snooze')">
        {{ `${watching.snoozeMin} min later` }}
      </button>
      <button class="push" data-testid="call-skip" @click="done('skipped')">Skip</button>
    </span>
  </section>
</template>

<style scoped>
.next {
  display: grid;
  grid-template-columns: minmax(190px, auto) 1fr auto;
  align-items: center;
  gap: 8px 28px;
  padding: 16px 22px;
}
.due {
  background: var(--moved);
  border-top-color: var(--heat);
}
.left {
  font: 700 2.75rem/1 var(--title);
  font-variant-numeric: tabular-nums;
}
h2 {
  font-size: 2.25rem;
}
.of {
  margin-top: 2px;
  font-size: 1.25rem;
}
.caution {
  margin-top: 6px;
  padding-left: 10px;
  border-left: 5px solid var(--danger);
}
.acts {
  display: grid;
  gap: 6px;
}
.big {
  min-height: 64px;
  min-width: 150px;
  font-size: 1.5rem;
}
@media (max-width: 50em) {
  .next {
    grid-template-columns: 1fr;
  }
  h2 {
    font-size: 1.75rem;
  }
  .acts {
    grid-template-columns: 1fr 1fr;
  }
  .big {
    grid-column: 1 / -1;
  }
}
</style>
