<script setup lang="ts">
import { computed, ref } from 'vue'
import type { LineRequest, RecipeBowl, RecipeRow } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import { grams, short } from '@/format/amounts'
import { bowls, unused } from './bowls'

/** One line of a recipe as it was understood. It is moved to another bowl by its list, or by dragging it. */
const props = defineProps<{ row: RecipeRow; line: LineRequest; index: number; here?: boolean }>()
const emit = defineEmits<{
  answer: [how: Partial<LineRequest>]
  rewrite: [text: string]
  look: [line: number | undefined]
}>()
const editing = ref<'text' | 'grams'>()
/** The line as it is written. What is typed is taken when the field is left: a verdict that comes meanwhile does not touch it. */
const written = computed({
  get: () => props.line.text,
  set: (to) => {
    emit('rewrite', to)
    editing.value = undefined
  },
})
const places = [...bowls, unused]
const place = computed({
  get: () => (props.row.out ? unused.key : props.row.bowl),
  set: (bowl: RecipeBowl) =>
    emit(
      'answer',
      bowl === unused.key ? { out: true } : { bowl, out: false, kind: undefined, guessed: undefined },
    ),
})
function weigh(g?: number) {
  if (g !== undefined) emit('answer', { g, unweighed: undefined })
  editing.value = undefined
}
</script>

<template>
  <li
    :class="['line', { out: row.out, asks: row.questions.length, here }]"
    :data-testid="`line-${index}`"
    draggable="true"
    @dragstart="(e) => e.dataTransfer?.setData('text/x-line', String(index))"
    @mouseenter="emit('look', line.at)"
    @mouseleave="emit('look', undefined)"
  >
    <span class="is">
      <AmountField
        v-if="editing === 'grams'"
        label="Weight"
        hide-label
        kind="mass"
        unit="g"
        optional
        :ingredient="row.ingredient ?? undefined"
        :model-value="row.g ?? undefined"
        :testid="`weigh-${index}`"
        @update:model-value="weigh"
      />
      <template v-else-if="row.ingredient">
        <button
          v-if="row.g !== null"
          class="g"
          title="Change the weight"
          :data-testid="`g-${index}`"
          @click="editing = 'grams'"
        >
          {{ grams(row.g) }}
        </button>
        <span class="what">{{ short(row.name) }}</span>
      </template>
      <span v-for="a in row.also ?? []" :key="a.ingredient"
        >, <strong>{{ grams(a.g) }}</strong> {{ short(a.name) }}</span
      >
      <span v-if="row.questions.length" class="asked">asked</span>
      <button
        v-else-if="line.guessed && !row.out"
        class="plain guessed"
        title="Only its place in the list tells the bowl. Touch where it is right."
        :data-testid="`guessed-${index}`"
        @click="emit('answer', { guessed: undefined })"
      >
        check bowl
      </button>
    </span>
    <span class="from">
      <input
        v-if="editing === 'text'"
        v-model.lazy="written"
        class="text edit"
        maxlength="300"
        :aria-label="`Line ${index + 1}, as written`"
        :data-testid="`text-${index}`"
        @keydown.esc.stop="editing = undefined"
      />
      <button
        v-else
        class="text"
        title="Edit this line"
        :data-testid="`edit-${index}`"
        @click="editing = 'text'"
      >
        {{ row.text }}
      </button>
      <span v-if="row.reason || row.as" class="as">{{ row.reason || row.as }}</span>
    </span>
    <el-select
      v-model="place"
      class="place"
      :aria-label="`Bowl of line ${index + 1}`"
      :data-testid="`bowl-${index}`"
    >
      <el-option
        v-for="b in places"
        :key="b.key"
        :value="b.key"
        :label="b.label"
        :data-testid="`bowl-${index}-${b.key || 'out'}`"
      />
    </el-select>
  </li>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr) 136px;
  align-items: center;
  gap: 8px;
  border-bottom: 1px solid var(--line);
  padding: 2px 6px;
}
.line.asks {
  background: var(--moved);
}
.line.here {
  outline: 2px solid var(--rim-ink);
}
.text,
.g {
  min-height: 44px;
  padding: 2px 6px;
  border: 0;
  border-radius: 4px;
  background: none;
  text-align: left;
  cursor: text;
}
.text {
  width: 100%;
  font-size: 0.9375rem;
  line-height: 1.25;
}
.g {
  min-width: 76px;
  font-size: 1.1875rem;
  font-weight: 700;
}
.what {
  flex: 1;
}
.text:hover,
.g:hover {
  background: var(--sunk);
}
.edit {
  border: 1.5px solid var(--rim-ink);
  background: var(--panel);
}
.is {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 4px;
  line-height: 1.25;
}
.as {
  display: block;
  padding-left: 6px;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.asked {
  margin-left: 6px;
  font-weight: 600;
  color: var(--heat);
}
.guessed {
  font-size: 0.875rem;
}
.out .text {
  text-decoration: line-through;
  color: var(--ink-2);
}
@media (max-width: 56.25em) {
  .line {
    grid-template-columns: 1fr 136px;
  }
  .from {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
</style>
