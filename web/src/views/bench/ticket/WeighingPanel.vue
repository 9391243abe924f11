<script setup lang="ts">
import { computed } from 'vue'
import { grams, scale, short, units } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'
import { useWeighing } from './useWeighing'

/** What is weighed next, to be read from a metre; what the scale shows; and at the end the oven. */
defineProps<{ ready: boolean }>()
defineEmits<{ oven: [] }>()
const w = useWeighing()
const dessert = useDessert()
const line = computed(() => w.next?.line)
const spooned = computed(
  () => units.weights === 'spoons' && line.value?.spoons && w.next?.bowl.key !== 'fruit',
)
const share = computed(() => {
  const r = w.reading
  return r && r.wanted_g > 0 ? Math.min(115, Math.max(0, (100 * r.g) / r.wanted_g)) : 0
})
const label = computed(() => {
  const r = w.reading
  if (!r || !line.value) return ''
  if (r.verdict === 'right') return r.settled ? 'right' : 'settling…'
  return r.verdict === 'over' ? `${grams(-r.left_g)} too much` : `${grams(r.left_g)} to go`
})
const checks = computed(() => dessert.answer?.checks ?? [])
const unchecked = computed(() => checks.value.filter((c) => !w.isChecked(c)).length)
const hands = [
  ['pour', 'Add the rest'],
  ['spoon_in', 'Add a spoon'],
  ['spoon_out', 'Remove a spoon'],
  ['clear', 'Empty the bowl'],
] as const
</script>

<template>
  <section class="panel next" aria-label="Next to weigh" data-testid="weigh-next">
    <template v-if="line">
      <p class="of" aria-live="polite">
        {{ `${w.next?.bowl.title ?? ''} · ${w.done.size + 1} of ${w.lines.length}` }}
      </p>
      <p class="g">
        <template v-if="spooned">{{ line.spoons }}</template>
        <template v-else
          >{{ scale(line.g).figure }}<span class="unit">&nbsp;{{ scale(line.g).unit }}</span></template
        >
      </p>
      <p class="name">{{ short(line.name) }}</p>
      <p class="quiet more">
        {{ spooned ? grams(line.g) : line.spoons }}<template v-if="line.note">; {{ line.note }}</template>
      </p>
      <button class="push main go" data-testid="weigh-done" @click="w.tick(w.next?.id)">In the bowl</button>
      <span class="acts">
        <button class="push" :disabled="!w.done.size" @click="w.untick()">Back one line</button>
      </span>
    </template>
    <template v-else>
      <p class="of">{{ `All ${w.lines.length} weighed` }}</p>
      <p class="g" aria-hidden="true">✓</p>
      <p class="name" data-testid="all-weighed">
        {{ unchecked ? `${unchecked} to check before baking` : 'All checked' }}
      </p>
      <p class="more" />
      <button class="push main go" :disabled="!ready" data-testid="weighed-into-oven" @click="$emit('oven')">
        Start baking
      </button>
      <span class="acts">
        <button class="push" @click="w.untick()">Back one line</button>
        <button class="plain" @click="w.afresh()">Start over</button>
      </span>
      <label v-for="(c, i) in checks" :key="i" class="tick check"
        ><input type="checkbox" :checked="w.isChecked(c)" @change="w.check(c)" /> {{ c.text }}</label
      >
    </template>
    <div class="which">
      <label class="tick"
        ><input v-model="w.byScale" type="checkbox" data-testid="by-scale" /> Use the (simulated) scale</label
      >
      <button v-if="w.byScale" class="push" @click="w.scale({ tare: true })">Zero</button>
    </div>
    <div v-if="w.byScale" class="scale">
      <template v-if="w.reading">
        <p class="shows" :class="{ settled: w.reading.settled }">
          <strong data-testid="scale-shows">{{ scale(w.reading.g).figure }}</strong>
          <span class="unit">{{ scale(w.reading.g).unit }}</span>
          <span class="text" data-testid="scale-says" :class="w.reading.verdict">{{ label }}</span>
        </p>
        <div v-if="line" class="track" aria-hidden="true">
          <div class="fill" :class="w.reading.verdict" :style="{ width: `${share / 1.15}%` }" />
          <div class="mark" />
        </div>
        <p class="small quiet">
          A line is ticked, and the scale zeroed, when the weight is steady and within 2 %.
        </p>
        <div class="hands" role="group" aria-label="Simulated scale">
          <span class="small quiet">Simulated scale</span>
          <button
            v-for="[does, word] in hands"
            :key="does"
            class="plain"
            :data-testid="`hand-${does}`"
            @click="w.scale({ hand: does })"
          >
            {{ word }}
          </button>
        </div>
      </template>
      <p v-else class="quiet" role="status">{{ w.trouble || 'Connecting to the scale…' }}</p>
    </div>
  </section>
</template>

<style scoped>
.next {
  display: grid;
  align-content: start;
  gap: 6px;
  padding: 10px 16px 14px;
  overflow: auto;
}
.of {
  color: var(--ink-2);
  font-weight: 600;
}
.g {
  font-size: 5.25rem;
  font-weight: 700;
  line-height: 1;
  letter-spacing: -0.02em;
}
.unit {
  font-size: 1.5rem;
  font-weight: 400;
}
.name {
  font: 700 1.875rem/1.15 var(--title);
}
/* the same height for every line, so that the button under them never moves */
.name {
  display: -webkit-box;
  overflow: hidden;
  min-height: 2.3em;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
.more {
  min-height: 2.7em;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 4px 0;
}
.go {
  width: 100%;
  min-height: 72px;
  font-size: 1.5rem;
}
.which {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.check {
  font-size: 1.1875rem;
}
.scale {
  display: grid;
  gap: 8px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
.shows {
  display: flex;
  align-items: baseline;
  gap: 6px;
}
.shows strong {
  min-width: 96px;
  font-size: 2.75rem;
  line-height: 1;
  color: var(--ink-2);
}
.shows.settled strong {
  color: var(--ink);
}
.text {
  margin-left: auto;
  font-size: 1.25rem;
  font-weight: 600;
}
.text.right {
  color: var(--settled);
}
.text.over {
  color: var(--danger);
}
.track {
  position: relative;
  height: 18px;
  border: 2px solid var(--rim);
  border-radius: 4px;
  overflow: hidden;
}
.fill {
  height: 100%;
  background: var(--heat);
}
.fill.right {
  background: var(--settled);
}
.fill.over {
  background: var(--danger);
}
.mark {
  position: absolute;
  inset: 0 auto 0 calc(100% / 1.15);
  border-left: 3px solid var(--ink);
}
.hands {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
}
@media (max-width: 38.75em) {
  .g {
    font-size: 4.25rem;
  }
}
</style>
