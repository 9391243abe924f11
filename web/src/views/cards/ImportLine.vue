<script setup lang="ts">
import { computed, ref } from 'vue'
import type { LineRequest, RecipeBowl, RecipeRow } from '@/api/client'
import OwnIngredientOption from '@/ui/OwnIngredientOption.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { grams, short } from '@/format/amounts'

/** One line of a recipe as it was understood, with what has to be asked about it. */
const props = defineProps<{ row: RecipeRow; line: LineRequest; index: number }>()
const emit = defineEmits<{
  answer: [how: Partial<LineRequest>]
  rewrite: [text: string]
  remember: [container: string, g: number]
  sort: [name: string, kind: string]
}>()
const kitchen = useKitchen()
const editing = ref(false)
/** Whether what is not known is being taken into the kitchen's own larder. */
const bowls: [RecipeBowl, string][] = [
  ['filling', 'filling'],
  ['topping', 'topping'],
  ['base', 'base'],
  ['base_and_topping', 'both'],
  ['finish', 'finish'],
]
const things = computed(() => [...kitchen.fruits, ...kitchen.ingredients])
/** The line as it is written. What is typed is taken when the field is left: a verdict that comes meanwhile does not touch it. */
const written = computed({
  get: () => props.line.text,
  set: (to) => {
    emit('rewrite', to)
    editing.value = false
  },
})
const nameOf = (key: string) => short(things.value.find((t) => t.key === key)?.name ?? key)
/** With what tells it from others of its name. */
const full = (key: string) => things.value.find((t) => t.key === key)?.name ?? key
const asksThing = (code: string) => code === 'unknown_ingredient' || code === 'which_ingredient'
const asksGrams = (code: string) =>
  ['no_amount', 'no_density', 'no_piece_weight', 'unknown_unit'].includes(code)
</script>

<template>
  <li :class="['line', { out: row.out, asks: row.questions.length }]" :data-testid="`line-${index}`">
    <h3 v-if="row.heading">{{ row.text }}</h3>
    <template v-else>
      <div class="top">
        <input
          v-if="editing"
          v-model.lazy="written"
          class="text edit"
          maxlength="300"
          :aria-label="`Line ${index + 1}, as written`"
          :data-testid="`text-${index}`"
          @keydown.esc.stop="editing = false"
        />
        <button
          v-else
          class="text"
          title="Edit this line"
          :data-testid="`edit-${index}`"
          @click="editing = true"
        >
          {{ row.text }}
        </button>
        <span class="is">
          <template v-if="row.ingredient"
            ><strong v-if="row.g !== null" class="g">{{ grams(row.g) }}</strong>
            {{ short(row.name) }}</template
          >
          <span v-for="a in row.also ?? []" :key="a.ingredient"
            >, <strong>{{ grams(a.g) }}</strong> {{ short(a.name) }}</span
          >
          <span v-if="row.as" class="as">{{ row.as }}</span>
        </span>
        <span class="choice bowls" role="group" :aria-label="`Bowl of line ${index + 1}`">
          <button
            v-for="[key, label] in bowls"
            :key="key"
            :aria-pressed="!row.out && row.bowl === key"
            :data-testid="`bowl-${index}-${key}`"
            @click="emit('answer', { bowl: key, out: false })"
          >
            {{ label }}
          </button>
          <button
            :aria-pressed="!!row.out"
            :data-testid="`out-${index}`"
            @click="emit('answer', { out: !row.out })"
          >
            out
          </button>
        </span>
      </div>
      <div v-for="q in row.questions" :key="q.code" class="question" role="group" :aria-label="q.text">
        <p :data-testid="`ask-${index}-${q.code}`">{{ q.text }}</p>
        <span class="answers">
          <template v-if="asksThing(q.code)">
            <button
              v-for="k in q.suggest_key ?? []"
              :key="k"
              class="push"
              :data-testid="`is-${index}-${k}`"
              @click="q.sort ? emit('sort', q.sort, k) : emit('answer', { key: k })"
            >
              {{ q.sort ? full(k) : nameOf(k) }}
            </button>
            <el-select
              class="thing"
              model-value=""
              filterable
              placeholder="Another ingredient"
              :aria-label="`Ingredient of line ${index + 1} is`"
              :data-testid="`thing-${index}`"
              @update:model-value="(k: string) => k && emit('answer', { key: k })"
            >
              <el-option v-for="t in things" :key="t.key" :value="t.key" :label="t.name" />
            </el-select>
            <OwnIngredientOption
              :name="row.name"
              :among="things"
              :take="(key) => emit('answer', { key })"
              :testid="`own-${index}`"
            />
          </template>
          <AmountField
            v-else-if="asksGrams(q.code)"
            label="Weight"
            hide-label
            kind="mass"
            unit="g"
            optional
            :ingredient="row.ingredient ?? undefined"
            instead="grams"
            :testid="`grams-${index}`"
            @update:model-value="(g) => g !== undefined && emit('answer', { g })"
          />
          <AmountField
            v-else-if="q.code === 'container'"
            label="Content of one"
            hide-label
            kind="mass"
            unit="g"
            optional
            instead="in each"
            :testid="`container-${index}`"
            @update:model-value="(g) => g !== undefined && emit('remember', q.container ?? '', g)"
          />
          <template v-else-if="q.code === 'slip' || q.code === 'notations_disagree'">
            <button class="push" :data-testid="`sure-${index}`" @click="emit('answer', { sure: true })">
              {{ `${row.g !== null ? grams(row.g) : 'As written'}, as written` }}
            </button>
            <button
              v-if="q.suggest_g"
              class="push"
              :data-testid="`suggest-${index}`"
              @click="emit('answer', { g: q.suggest_g })"
            >
              {{ grams(q.suggest_g) }}
            </button>
          </template>
          <button class="plain" @click="emit('answer', { out: true })">Leave out</button>
        </span>
      </div>
    </template>
  </li>
</template>

<style scoped>
.line {
  border-bottom: 1px solid var(--line);
  padding: 3px 0;
}
.line.asks {
  border-left: 5px solid var(--heat);
  padding-left: 8px;
}
h3 {
  padding: 10px 0 4px;
  color: var(--rim-ink);
}
.top {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr) 318px;
  align-items: center;
  gap: 10px;
}
.text {
  min-height: 44px;
  padding: 2px 6px;
  border: 0;
  border-radius: 4px;
  background: none;
  text-align: left;
  cursor: text;
}
.text:hover {
  background: var(--sunk);
}
.edit {
  border: 1.5px solid var(--rim-ink);
  background: var(--panel);
}
.is {
  line-height: 1.25;
}
.g {
  font-size: 1.1875rem;
}
.as {
  display: block;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.bowls > button {
  min-height: 44px;
  padding: 0 7px;
  font-size: 0.875rem;
}
.out .text,
.out .is {
  text-decoration: line-through;
  color: var(--ink-2);
}
.question {
  padding: 4px 6px 8px;
}
.question p {
  font-weight: 600;
}
.answers {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-top: 4px;
}
.answers .amount {
  width: 150px;
}
.thing {
  width: 210px;
}
@media (max-width: 56.25em) {
  .top {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
