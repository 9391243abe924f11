<script setup lang="ts">
import VerdictText from '@/ui/VerdictText.vue'
import { computed, ref } from 'vue'
import type { WatchCall, WatchedDessert } from '@/api/client'
import BoldText from '@/ui/BoldText.vue'
import ForecastLines from '@/ui/ForecastLines.vue'
import BakeOutcome from '@/ui/BakeOutcome.vue'
import { useKitchen } from '@/stores/useKitchen'
import { heat, integer, warmth } from '@/format/amounts'
import { timeOf } from '@/format/clock'
import ProbeCurve from './ProbeCurve.vue'
import RescuePanel from './RescuePanel.vue'
import SimulationPanel from './SimulationPanel.vue'
import { useWatch } from '@/stores/useWatch'

/** One dessert from the oven to the table: how far it is, its calls with what became of them, and help. */
const props = defineProps<{ dessert: WatchedDessert }>()
const watching = useWatch()
const kitchen = useKitchen()
const trouble = ref(false)
const baked = ref(false)
const minute = computed(() => watching.minute(props.dessert))
const start = computed(() => Date.parse(props.dessert.started_at))
const at = (iso: string) => (Date.parse(iso) - start.value) / 60000
const out = computed(() => props.dessert.calls.find((c) => c.kind === 'take_out'))
const total = computed(() => (out.value ? at(out.value.due_at) : props.dessert.plan_minutes))
const whole = computed(() => Math.max(...props.dessert.calls.map((c) => at(c.due_at)), minute.value, 1))
const x = (m: number) => `${Math.min(100, (100 * m) / whole.value)}%`
const oven = computed(() => kitchen.ovens.find((o) => o.id === props.dessert.oven_id)?.name ?? 'In the oven')
const state = computed(() => {
  if (props.dessert.out_at) return `out since ${timeOf(props.dessert.out_at)}`
  const left = total.value - minute.value
  return left > 0 ? `${integer(Math.ceil(left))} min left` : `${integer(-left)} min over`
})
const now = computed(() => {
  let from = 0
  for (const s of props.dessert.stages) {
    from += s.minutes
    if (minute.value < from) return s
  }
  return props.dessert.stages.at(-1)!
})
/** What the model has in the middle by now. */
const middle = computed(() => {
  const c = props.dessert.curves
  const i = c.minute.findIndex((m) => m >= minute.value)
  return props.dessert.out_at || i < 0 ? undefined : c.middle_c[i]
})
/** What goes into the log: the stages as they were in the end. */
const bake = computed(() => {
  const { id, title, card_id, version, request, stages, oven_id, started_at } = props.dessert
  return {
    watch_id: id,
    title,
    card_id,
    version,
    request,
    baked_at: started_at,
    setting: {
      oven_id,
      stages,
      oven_c: stages[0]?.oven_c,
      minutes: Math.max(1, Math.round(out.value?.answered_at ? at(out.value.answered_at) : total.value)),
    },
  }
})
const became = (c: WatchCall) =>
  c.state === 'waiting' ? '' : `${c.state} ${c.answered_at ? timeOf(c.answered_at) : ''}`
</script>

<template>
  <article class="panel dessert" :data-testid="`watched-${dessert.title}`">
    <header>
      <h2>{{ dessert.title }}</h2>
      <p class="state" data-testid="state">
        <strong>{{ state }}</strong>
      </p>
    </header>
    <p class="small">
      {{ `${oven}, in since ${timeOf(dessert.started_at)}`
      }}<template v-if="!dessert.out_at">{{
        `; now ${heat(now.oven_c)}${now.cover && now.cover !== 'none' ? `, ${now.cover}` : ''}`
      }}</template
      ><template v-if="middle !== undefined"
        ><BoldText :text="`; middle about **${warmth(middle)}** by the model`" /></template
      >.
    </p>
    <p
      v-if="dessert.verdict && !dessert.estimate && !dessert.out_at"
      class="verdict"
      data-testid="watched-verdict"
    >
      <VerdictText :verdict="dessert.verdict" :likely="dessert.forecast?.likely" />
    </p>
    <div v-if="dessert.forecast && !dessert.out_at" class="forecast">
      <ForecastLines :outlook="dessert.forecast" />
    </div>
    <div class="bar" role="img" :aria-label="`${integer(minute)} of ${integer(total)} min`">
      <div class="cool" :style="{ left: x(total) }" />
      <div class="passed" :style="{ width: x(minute), background: dessert.juice_colour }" />
      <span
        v-for="c in dessert.calls"
        :key="c.id"
        :class="['mark', c.state]"
        :style="{ left: x(at(c.due_at)) }"
      />
    </div>
    <RescuePanel v-if="trouble" :dessert="dessert" @done="trouble = false" />
    <ul>
      <li v-for="c in dessert.calls" :key="c.id" :class="c.state" :data-testid="`call-${c.kind}`">
        <span class="when">{{ timeOf(c.due_at) }}</span>
        <span class="text">{{ c.text }}</span>
        <span v-if="c.state !== 'waiting'" class="became"
          >{{ became(c) }}
          <button
            class="plain"
            :data-testid="`undo-${c.kind}`"
            @click="watching.answer(dessert.id, c.id, { answer: 'undo' })"
          >
            Undo
          </button></span
        >
        <button
          v-else
          class="push"
          :data-testid="`done-${c.kind}`"
          @click="watching.answer(dessert.id, c.id, { answer: 'done' })"
        >
          Done
        </button>
      </li>
    </ul>
    <ProbeCurve v-if="!dessert.out_at || dessert.readings.length" :dessert="dessert" />
    <SimulationPanel :dessert="dessert" />
    <span class="acts">
      <button v-if="!dessert.out_at" class="push" data-testid="trouble" @click="trouble = !trouble">
        Something went wrong
      </button>
      <button
        :class="['push', { main: dessert.out_at }]"
        data-testid="how-did-it-come-out"
        @click="baked = true"
      >
        Log result
      </button>
      <button class="plain" data-testid="off-the-watch" @click="watching.end(dessert.id)">
        Remove without logging
      </button>
    </span>
    <BakeOutcome v-model="baked" :bake="bake" @logged="watching.end(dessert.id, true)" />
  </article>
</template>

<style scoped>
.verdict {
  margin: 0;
}
.dessert {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 8px;
  padding: 12px 18px 14px;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0 16px;
}
h2 {
  font-size: 1.5rem;
}
.state {
  font-size: 1.75rem;
  white-space: nowrap;
}
.bar {
  position: relative;
  height: 26px;
  overflow: hidden;
  border: 2px solid var(--rim);
  border-radius: 4px;
  background: var(--panel);
}
.cool {
  position: absolute;
  inset: 0;
  background: repeating-linear-gradient(135deg, var(--sunk) 0 6px, transparent 6px 12px);
}
.passed {
  position: absolute;
  inset: 0 auto 0 0;
  opacity: 0.75;
}
.mark {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 4px;
  margin-left: -2px;
  background: var(--heat);
}
.mark.done,
.mark.skipped {
  opacity: 1;
  background: var(--ink-2);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 64px 1fr auto;
  align-items: center;
  gap: 8px;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
  font-size: 1.125rem;
}
li.done .text,
li.skipped .text {
  color: var(--ink-2);
  text-decoration: line-through;
}
.when {
  font-weight: 700;
}
.became {
  font-size: 0.875rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
