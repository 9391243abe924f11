<script setup lang="ts">
import { computed } from 'vue'
import type { FileFormat, Verdict } from '@/api/client'
import CutawayPicture from '@/ui/CutawayPicture.vue'
import VerdictText from '@/ui/VerdictText.vue'
import RemarkList from '@/ui/RemarkList.vue'
import { grams, heat, integer, mm, percent, measured } from '@/format/amounts'
import { useKitchen } from '@/stores/useKitchen'

/** What a recipe comes to: as it was written, mended, and as Mabbin would do it, side by side. */
const kitchen = useKitchen()
const props = defineProps<{ verdict: Verdict }>()
defineEmits<{
  open: [which: 'as_written' | 'mended' | 'own']
  save: [format: FileFormat, how: 'copy' | 'file']
}>()
/** The ways to take the mended recipe away, in its writer's own order and units. */
const files: [string, FileFormat, 'copy' | 'file'][] = [
  ['Copy', 'text', 'copy'],
  ['Text', 'text', 'file'],
  ['Page to print', 'html', 'file'],
  ['Recipe data', 'jsonld', 'file'],
]
const versions = [
  ['as_written', 'As written'],
  ['mended', 'Fixed'],
  ['own', 'Mabbin’s version'],
] as const
/** When the middle of it boils. */
const bubbles = computed(() => {
  const m = props.verdict.baked?.events.middle_bubbles_min
  return typeof m === 'number' ? `the middle bubbles after ${integer(m)} min.` : 'the middle never bubbles.'
})
const shown = computed(() => versions.filter(([key]) => key !== 'mended' || props.verdict.changes?.length))
</script>

<template>
  <section class="verdict" aria-label="Result" data-testid="verdict">
    <div class="three">
      <article v-for="[key, title] in shown" :key="key" :data-testid="`version-${key}`">
        <template v-if="verdict[key]">
          <h3>{{ title }}</h3>
          <CutawayPicture :cut="verdict[key].answer.cutaway" small />
          <dl>
            <dt>juice</dt>
            <dd>{{ kitchen.word('band', verdict[key].answer.set.band) }}</dd>
            <dt>below rim</dt>
            <dd :class="{ danger: verdict[key].answer.fit.room !== 'free' }">
              {{ mm(verdict[key].answer.fit.hot_headspace_mm) }}
            </dd>
            <dt>fruit</dt>
            <dd>{{ grams(verdict[key].answer.fruit_g) }}</dd>
            <dt>sugar</dt>
            <dd>{{ grams(verdict[key].answer.sugar_g) }}, {{ percent(verdict[key].answer.sugar_pct) }}</dd>
            <dt>thickener</dt>
            <dd>{{ grams(verdict[key].answer.thickener_g) }}</dd>
            <template v-if="verdict[key].answer.topping_g">
              <dt>topping</dt>
              <dd>
                {{ grams(verdict[key].answer.topping_g) }}, {{ mm(verdict[key].answer.topping.thickness_mm) }}
              </dd>
            </template>
            <template v-if="verdict[key].answer.base_g">
              <dt>base</dt>
              <dd>{{ grams(verdict[key].answer.base_g) }}</dd>
            </template>
          </dl>
          <button
            :class="['push', { main: key === 'as_written' }]"
            :data-testid="`open-${key}`"
            @click="$emit('open', key)"
          >
            Open
          </button>
        </template>
      </article>
    </div>
    <div class="take" role="group" aria-label="Export the fixed recipe in its own units">
      <span class="quiet">Fixed recipe in its own units:</span>
      <button
        v-for="[label, format, how] in files"
        :key="label"
        class="plain"
        :data-testid="`recipe-${how}-${format}`"
        @click="$emit('save', format, how)"
      >
        {{ label }}
      </button>
    </div>
    <p v-for="(a, i) in verdict.assumed ?? []" :key="i" class="quiet" data-testid="assumed">{{ a }}</p>
    <template v-if="verdict.wrong?.length">
      <h3>Ingredients as written</h3>
      <RemarkList :remarks="verdict.wrong" />
    </template>
    <template v-if="verdict.baked">
      <h3>
        {{
          `Its bake as written: ${verdict.baked.stages.map((s) => `${heat(s.oven_c)}, ${integer(s.minutes)} min`).join('; then ')}`
        }}
      </h3>
      <p data-testid="baked">
        <VerdictText :verdict="verdict.baked.verdict" />{{ ` By the model, ${bubbles}` }}
        <template v-if="verdict.baked.mend"
          ><br />Smallest change that fixes it: <strong>{{ verdict.baked.mend.text }}</strong>.</template
        >
      </p>
    </template>
    <template v-if="verdict.changes?.length">
      <h3>Smallest change to the ingredients</h3>
      <ul class="changes" data-testid="changes">
        <li v-for="c in verdict.changes" :key="c.code">
          <strong>{{ c.name }}: {{ measured(c.from, c.unit) }} → {{ measured(c.to, c.unit) }}</strong>
          <span class="quiet">{{ c.effect }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.verdict {
  display: grid;
  gap: 8px;
}
.three {
  display: grid;
  grid-auto-columns: minmax(0, 1fr);
  grid-auto-flow: column;
  gap: 14px;
}
article {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.take {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 12px;
}
article .push {
  padding: 0 6px;
}
dl {
  margin: 0;
  font-size: 0.9375rem;
}
dt {
  margin-top: 3px;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
dd {
  margin: 0;
  font-weight: 600;
}
dd:first-of-type {
  font-size: 1.0625rem;
}
.danger {
  color: var(--danger);
}
.changes {
  margin: 0;
  padding: 0;
  list-style: none;
}
.changes li {
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
.changes strong {
  display: block;
}
.right {
  color: var(--settled);
}
@media (max-width: 38.75em) {
  .three {
    grid-auto-flow: row;
  }
}
</style>
