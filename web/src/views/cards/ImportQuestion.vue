<script setup lang="ts">
import { computed } from 'vue'
import type { LineRequest, RecipeRow } from '@/api/client'
import OwnIngredientOption from '@/ui/OwnIngredientOption.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { grams, short } from '@/format/amounts'

/** One question about a line of a recipe, with its likeliest answer first. */
const props = defineProps<{ row: RecipeRow; question: RecipeRow['questions'][number]; index: number }>()
const emit = defineEmits<{
  answer: [how: Partial<LineRequest>]
  remember: [container: string, g: number]
  sort: [name: string, kind: string]
}>()
const kitchen = useKitchen()
const things = computed(() => [...kitchen.fruits, ...kitchen.ingredients])
const nameOf = (key: string) => short(things.value.find((t) => t.key === key)?.name ?? key)
/** With what tells it from others of its name. */
const full = (key: string) => things.value.find((t) => t.key === key)?.name ?? key
const is = (...codes: string[]) => codes.includes(props.question.code)
</script>

<template>
  <div class="question" role="group" :aria-label="question.text">
    <blockquote>{{ row.text }}</blockquote>
    <p :data-testid="`ask-${index}-${question.code}`">{{ question.text }}</p>
    <span class="answers">
      <template v-if="is('unknown_ingredient', 'which_ingredient')">
        <button
          v-for="k in question.suggest_key ?? []"
          :key="k"
          class="push"
          :data-testid="`is-${index}-${k}`"
          @click="question.sort ? emit('sort', question.sort, k) : emit('answer', { key: k })"
        >
          {{ question.sort ? full(k) : nameOf(k) }}
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
      <button
        v-if="is('no_amount') && question.suggest_g"
        class="push"
        :data-testid="`suggest-${index}`"
        @click="emit('answer', { g: question.suggest_g })"
      >
        {{ grams(question.suggest_g) }}
      </button>
      <AmountField
        v-if="is('no_amount', 'no_density', 'no_piece_weight', 'unknown_unit')"
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
        v-if="is('container')"
        label="Content of one"
        hide-label
        kind="mass"
        unit="g"
        optional
        instead="in each"
        :testid="`container-${index}`"
        @update:model-value="(g) => g !== undefined && emit('remember', question.container ?? '', g)"
      />
      <template v-if="is('slip', 'notations_disagree')">
        <button class="push" :data-testid="`sure-${index}`" @click="emit('answer', { sure: true })">
          {{ `${row.g !== null ? grams(row.g) : 'As written'}, as written` }}
        </button>
        <button
          v-if="question.suggest_g"
          class="push"
          :data-testid="`suggest-${index}`"
          @click="emit('answer', { g: question.suggest_g })"
        >
          {{ grams(question.suggest_g) }}
        </button>
      </template>
      <button class="plain" :data-testid="`skip-${index}`" @click="emit('answer', { out: true })">
        Leave out
      </button>
    </span>
  </div>
</template>

<style scoped>
blockquote {
  margin: 0 0 6px;
  padding-left: 10px;
  border-left: 4px solid var(--heat);
  font-size: 1.125rem;
}
p {
  font-weight: 600;
}
.answers {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-top: 8px;
}
.answers .amount {
  width: 150px;
}
.thing {
  width: 210px;
}
</style>
