<script setup lang="ts">
import { computed } from 'vue'
import { asRead, integer } from '@/parts/words'
import { useKitchen } from '@/parts/useKitchen'
import { useWatch, type Called } from './useWatch'
import { t } from '@/texts'

/** The call that is due first, to be read from a metre. */
const props = defineProps<{ call: Called }>()
const watching = useWatch()
const kitchen = useKitchen()
const oven = computed(() => kitchen.ovens.find((o) => o.id === props.call.of.oven_id)?.name)
const shelf = computed(() => {
  const s = [...props.call.of.stages].reverse().find((x) => x.shelf)?.shelf
  return s ? t('{s} shelf', { s }) : ''
})
/** Whole minutes, and seconds within the last one. */
const left = computed(() => {
  const s = Math.round(props.call.left * 60)
  if (s > 59) return t('{n} min', { n: integer(Math.ceil(s / 60)) })
  if (s > 0) return `${s} s`
  return s > -60 ? 'now' : t('{n} min ago', { n: integer(-s / 60) })
})
const done = (answer: 'done' | 'skipped' | 'snooze') =>
  void watching.answer(props.call.of.id, props.call.id, { answer })
</script>

<template>
  <section
    :class="['panel next', { due: call.left <= 0 }]"
    :aria-label="$t('Next call')"
    data-testid="next-call"
  >
    <p class="left" data-testid="call-left">{{ call.left > 0 ? $t('in') : '' }} {{ left }}</p>
    <div class="words">
      <h2>{{ asRead(call.says) }}</h2>
      <p class="of">
        {{ [call.of.title, oven, shelf].filter(Boolean).join(' · ') }}
      </p>
      <p v-if="call.caution" class="caution">{{ asRead(call.caution) }}</p>
    </div>
    <span class="acts">
      <button class="push main big" data-testid="call-done" @click="done('done')">{{ $t('Done') }}</button>
      <button class="push" data-testid="call-snooze" @click="done('snooze')">{{ $t('3 min more') }}</button>
      <button class="push" data-testid="call-skip" @click="done('skipped')">{{ $t('Skip') }}</button>
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
  font: 700 44px/1 var(--title);
  font-variant-numeric: tabular-nums;
}
h2 {
  font-size: 36px;
}
.of {
  margin-top: 2px;
  font-size: 20px;
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
  font-size: 24px;
}
@media (max-width: 800px) {
  .next {
    grid-template-columns: 1fr;
  }
  h2 {
    font-size: 28px;
  }
  .acts {
    grid-template-columns: 1fr 1fr;
  }
  .big {
    grid-column: 1 / -1;
  }
}
</style>
