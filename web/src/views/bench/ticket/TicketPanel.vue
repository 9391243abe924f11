<script setup lang="ts">
import GlossaryTerm from '@/ui/GlossaryTerm.vue'
import { computed, nextTick, ref, watch } from 'vue'
import type { Answer, Bowl, Original } from '@/api/client'
import OriginalRecipe from '@/ui/OriginalRecipe.vue'
import FigureText from '@/ui/FigureText.vue'
import { percent, scale, short, units } from '@/format/amounts'
import { timeOf } from '@/format/clock'
import { usePlan } from '@/stores/usePlan'
import { useReadyBy } from '@/stores/useReadyBy'
import { useKitchen } from '@/stores/useKitchen'
import { useWeighing } from './useWeighing'

/** What to weigh, in the order and in the bowls in which it is weighed. Weighing is a state of its own: large, ticked off. */
const props = defineProps<{ answer: Answer; name: string; weighing?: boolean; original?: Original }>()
defineEmits<{ diet: [] }>()
const bakers = ref(false)
const told = ref('')
const kitchen = useKitchen()
const w = useWeighing()
const allergens = computed(() => props.answer.allergens)
const plan = usePlan()
const ready = useReadyBy()
/** How it is baked, kept or only proposed, and when, if an hour is wanted: for a sheet of paper. */
const times = computed(() => {
  const way = ready.way
  const when = way && `In at ${timeOf(way.in_at)}, ready at ${timeOf(way.ready_at)}.`
  return [plan.answer?.verdict.summary, plan.answer?.stations.stages, when].filter(Boolean).join(' ')
})

/** Two apples of different kinds are reported by their kinds. */
const named = (b: Bowl, name: string) =>
  b.lines.filter((l) => short(l.name) === short(name)).length > 1
    ? name.replace(/ \([^)]*\)/, '')
    : short(name)
const bowls = ref<HTMLElement>()
/** What is weighed next is in sight. */
watch(
  () => props.weighing && w.next?.id,
  () =>
    void nextTick(() =>
      bowls.value?.querySelector('li.next')?.scrollIntoView({ block: 'nearest', behavior: 'instant' }),
    ),
)
</script>

<template>
  <section :class="['ticket panel', { weighing }]" aria-label="Ticket">
    <header>
      <h2>
        <span v-if="!weighing" class="no-print">Ticket</span
        ><span :class="{ 'print-only': !weighing }">{{ name }}</span>
      </h2>
      <span v-if="weighing" class="quiet" aria-live="polite">{{
        w.next ? `${w.done.size} of ${w.lines.length} weighed` : 'All weighed'
      }}</span>
      <span v-else class="tick no-print"
        ><input v-model="bakers" type="checkbox" aria-label="baker’s %" />
        <GlossaryTerm term="baker's percentage">baker’s %</GlossaryTerm></span
      >
    </header>
    <p class="print-only times" data-testid="printed-times">{{ times }}</p>
    <div ref="bowls" class="bowls">
      <div class="columns">
        <article v-for="b in answer.ticket" :key="b.key" :data-testid="`bowl-${b.key}`">
          <h3>{{ b.title }}</h3>
          <ul>
            <li
              v-for="l in b.lines"
              :key="l.key"
              :class="{
                done: weighing && w.done.has(`${b.key}/${l.key}`),
                next: weighing && w.next?.id === `${b.key}/${l.key}`,
              }"
            >
              <component
                :is="weighing ? 'button' : 'div'"
                class="line"
                :aria-pressed="weighing ? w.done.has(`${b.key}/${l.key}`) : undefined"
                :data-testid="`line-${b.key}-${l.key}`"
                @click="weighing && w.tick(`${b.key}/${l.key}`)"
              >
                <span v-if="units.weights === 'spoons' && l.spoons && b.key !== 'fruit'" class="g spooned"
                  ><FigureText :text="l.spoons"
                /></span>
                <span v-else class="g"
                  ><FigureText :text="scale(l.g).figure" /><span class="unit"
                    >&nbsp;{{ scale(l.g).unit }}</span
                  ></span
                >
                <span class="what">
                  <span class="name"
                    >{{ named(b, l.name)
                    }}<template v-if="l.note && (b.key === 'fruit' || l.to_feel)"
                      >, {{ l.note }}</template
                    ></span
                  >
                  <span class="spoons">
                    <template v-if="bakers && l.bakers_pct">{{ percent(l.bakers_pct) }}</template>
                    <template v-else-if="units.weights === 'spoons' && b.key !== 'fruit'"
                      >{{ l.shown }} g</template
                    >
                    <template v-else>{{ l.spoons }}</template>
                  </span>
                  <span v-if="l.pieces" class="spoons">{{ l.pieces }}</span>
                </span>
                <span v-if="weighing" class="box" aria-hidden="true">{{
                  w.done.has(`${b.key}/${l.key}`) ? '✓' : ''
                }}</span>
              </component>
            </li>
          </ul>
          <p v-if="weighing" class="how">{{ b.instructions }}</p>
          <button
            v-else
            class="where no-print"
            :aria-expanded="told === b.key"
            @click="told = told === b.key ? '' : b.key"
          >
            {{ told === b.key ? 'Less' : 'Method and sources' }}
          </button>
          <p v-if="!weighing && told === b.key" class="how">
            {{ b.instructions }}
            <template
              v-for="f in b.key === 'fruit'
                ? ['fruit_g']
                : b.key === 'dry'
                  ? ['sugar_g', 'thickener_g']
                  : b.key === 'topping'
                    ? ['topping_g']
                    : b.key === 'base'
                      ? ['base_g']
                      : []"
              :key="f"
            >
              {{ answer.sources[f]?.text ?? '' }} ({{ kitchen.word('basis', answer.sources[f]?.basis) }}.)
            </template>
          </p>
        </article>
        <article v-if="weighing" class="steps" data-testid="method">
          <h3>Method</h3>
          <ol>
            <li v-for="(m, i) in answer.method" :key="i">
              {{ m.text }} <span v-if="m.helper" class="helper">Suitable for a helper or child.</span>
            </li>
          </ol>
        </article>
        <article v-if="weighing" class="steps" data-testid="checks">
          <h3>Before baking, check</h3>
          <label v-for="c in answer.checks" :key="c.code" class="tick check"
            ><input
              type="checkbox"
              :checked="w.isChecked(c)"
              :data-testid="`check-${c.code}`"
              @change="w.check(c)"
            />
            {{ c.text }}</label
          >
        </article>
        <article v-else class="steps print-only">
          <h3>Method</h3>
          <ol>
            <li v-for="(m, i) in answer.method" :key="i">
              {{ m.text }} <span v-if="m.helper" class="helper">Suitable for a helper or child.</span>
            </li>
          </ol>
          <h3>Before baking, check</h3>
          <p v-for="c in answer.checks" :key="c.code">☐ {{ c.text }}</p>
        </article>
        <OriginalRecipe v-if="original" :original="original" :open="weighing || undefined" />
        <p class="allergens small">
          <strong>Contains:</strong>
          {{ kitchen.allergens(allergens.contains) || 'none of the listed allergens' }}.
          <template v-if="allergens.check_label.length">
            <strong>Check the label:</strong>
            {{ allergens.check_label.map(short).join(', ') }}.</template
          >
          This list does not rule out cross-contact.
          <button v-if="!weighing" class="where no-print" data-testid="diet" @click="$emit('diet')">
            Adapt to a diet…
          </button>
        </p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.ticket {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 6px 12px 2px;
}
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 32px;
  font-size: 0.875rem;
}
.bowls {
  overflow: auto;
  padding: 0 12px 10px;
  min-height: 0;
}
article {
  padding-top: 6px;
}
h3 {
  color: var(--rim-ink);
  border-bottom: 1.5px solid var(--rim);
  padding-bottom: 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.line {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 12px;
  align-items: center;
  width: 100%;
  padding: 3px 0;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  text-align: left;
}
.g {
  font-size: 1.6875rem;
  font-weight: 700;
  line-height: 1.1;
  text-align: right;
  white-space: nowrap;
}
.line:has(.spooned) {
  grid-template-columns: minmax(92px, min(40%, 12rem)) 1fr;
}
.g.spooned {
  font-size: 1.1875rem;
}
.g.spooned,
.g.spooned :deep(.figure) {
  white-space: normal;
}
.weighing .g.spooned {
  font-size: 1.75rem;
}
.unit {
  font-size: 1rem;
  font-weight: 400;
}
.what {
  display: grid;
  line-height: 1.2;
}
.name {
  font-weight: 600;
}
.spoons {
  font-size: 0.875rem;
  color: var(--ink-2);
  min-height: 17px;
}
.where {
  border: 0;
  background: none;
  padding: 2px 0;
  min-height: 26px;
  font-size: 0.8125rem;
  color: var(--ink-2);
  text-decoration: underline;
  cursor: pointer;
}
.how {
  font-size: 0.875rem;
  color: var(--ink-2);
}
.print-only {
  display: none;
}
.steps ol {
  margin: 4px 0;
  padding-left: 26px;
  font-size: 1.125rem;
}
.steps li {
  padding: 3px 0;
}
.check {
  min-height: 46px;
  font-size: 1.125rem;
}
.allergens {
  margin-top: 8px;
}
.weighing .columns {
  columns: 2 420px;
  column-gap: 28px;
}
.weighing .bowls {
  padding: 4px 20px 16px;
}
.weighing article {
  break-inside: avoid;
}
.weighing .line {
  grid-template-columns: 170px 1fr 44px;
  min-height: 58px;
  cursor: pointer;
}
.weighing .g {
  font-size: 2.625rem;
}
.weighing .name {
  font-size: 1.375rem;
}
.weighing .spoons {
  font-size: 1rem;
}
.weighing .how {
  font-size: 1rem;
  padding: 4px 0 8px;
}
.box {
  display: grid;
  place-items: center;
  width: 38px;
  height: 38px;
  border: 2px solid var(--ink-2);
  border-radius: 4px;
  font-size: 1.5rem;
  font-weight: 700;
}
.weighing li.done .line {
  opacity: 0.65;
}
li.done .box {
  background: var(--settled);
  border-color: var(--settled);
  color: var(--panel);
}
li.next .line {
  background: var(--moved);
  outline: 3px solid var(--heat);
  outline-offset: -3px;
}
@media screen and (min-width: 100em) {
  .g {
    font-size: 2.125rem;
  }
  .name {
    font-size: 1.125rem;
  }
  .spoons {
    font-size: 0.9375rem;
  }
}
@media (max-width: 38.75em) {
  .weighing .bowls {
    padding: 4px 12px 12px;
  }
  .weighing .line {
    grid-template-columns: 116px minmax(0, 1fr) 40px;
    gap: 8px;
  }
  .weighing .g {
    font-size: 2.25rem;
  }
  .weighing .name {
    font-size: 1.1875rem;
  }
}
@media print {
  .print-only {
    display: block;
  }
  .bowls {
    overflow: visible;
  }
}
.times {
  margin: 0;
  padding: 2px 12px 4px;
  font-size: 1.25rem;
  font-weight: 600;
}
.helper {
  color: var(--rim-ink);
  font-size: 0.875rem;
}
</style>
