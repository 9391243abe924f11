<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'
import { inWords } from '@/api/client'
import { timeOf } from '@/format/clock'
import { bindKeys } from '@/ui/useKeys'
import { play, sound, type Tone } from '@/stores/ring'
import OvenTimeline from './OvenTimeline.vue'
import CountdownPanel from './CountdownPanel.vue'
import NextCall from './NextCall.vue'
import WatchedDessert from './WatchedDessert.vue'
import { useWatch } from '@/stores/useWatch'

/** What is in the ovens now and what cools: the next call huge, then each dessert. */
const watching = useWatch()
const next = computed(() => watching.calls[0])
const tones: [Tone, string][] = [
  ['bell', 'bell'],
  ['knock', 'knock'],
  ['off', 'off'],
]
function choose(t: Tone) {
  sound.value = { ...sound.value, tone: t }
  if (t !== 'off') play(t, 0.4)
}
const answer = (a: 'done' | 'skipped' | 'snooze') =>
  next.value && void watching.answerCall(next.value, { answer: a })
onBeforeUnmount(
  bindKeys('On this page', [
    { key: 'd', label: 'mark the next reminder as done', does: () => answer('done') },
    { key: 'm', label: 'postpone it 3 min', does: () => answer('snooze') },
    { key: 'x', label: 'skip it', does: () => answer('skipped') },
  ]),
)
</script>

<template>
  <div class="watch">
    <div class="bar">
      <h1>Watch</h1>
      <div class="choice" role="group" aria-label="Sound of reminders">
        <button
          v-for="[key, label] in tones"
          :key="key"
          :aria-pressed="sound.tone === key"
          :data-testid="`tone-${key}`"
          @click="choose(key)"
        >
          {{ label }}
        </button>
        <button
          :aria-pressed="sound.spoken"
          data-testid="spoken"
          @click="sound = { ...sound, spoken: !sound.spoken }"
        >
          read aloud
        </button>
      </div>
      <span v-if="watching.down" class="small wrong" role="status" data-testid="not-live">
        No connection to the server; retrying. Reminders continue from the last known state.
      </span>
    </div>
    <p v-if="watching.problem" class="wrong" role="alert">{{ inWords(watching.problem) }}</p>
    <p
      v-for="u in watching.all?.unusable"
      :key="u.id"
      class="notice panel wrong"
      role="alert"
      data-testid="unusable"
    >
      <strong>{{ u.title }}</strong>
      {{
        `went in at ${timeOf(u.started_at)}, but its stored data can’t be read: there are no reminders for it. Check it by eye; other desserts are not affected.`
      }}
      <button class="push" data-testid="unusable-off" @click="watching.end(u.id)">Remove</button>
    </p>
    <p v-if="watching.gone" class="notice panel" role="status" data-testid="off-watch">
      {{ `${watching.gone.title} was removed without logging.` }}
      <button class="push" data-testid="back-on-watch" @click="watching.back()">Undo</button>
      <button class="plain" @click="watching.gone = undefined">Close</button>
    </p>
    <p
      v-if="
        watching.all &&
        !watching.desserts.length &&
        !watching.countdowns.length &&
        !watching.all.unusable.length
      "
      class="empty"
      data-testid="nothing-in"
    >
      Nothing is in the oven. On the <RouterLink to="/">Bench</RouterLink>, use “Start baking”. Every tablet
      of the kitchen then shows the next step and sounds reminders.
    </p>
    <NextCall v-if="next" :call="next" />
    <p
      v-for="t in watching.shared"
      :key="t.text"
      class="notice panel wrong two"
      role="alert"
      data-testid="two-settings"
    >
      {{ `${t.text}.` }}
    </p>
    <OvenTimeline />
    <div class="all">
      <CountdownPanel v-for="w in watching.countdowns" :key="w.id" :countdown="w" />
      <WatchedDessert v-for="w in watching.desserts" :key="w.id" :dessert="w" />
    </div>
  </div>
</template>

<style scoped>
.watch {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  padding: 4px 8px 0;
}
.all {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 560px), 1fr));
  gap: 8px;
}
.two {
  font-size: 1.0625rem;
  font-weight: 600;
}
.empty {
  padding: 60px 12px;
  text-align: center;
  font-size: 1.25rem;
}
</style>
