<script setup lang="ts">
import { computed, ref } from 'vue'
import type { RecipeStep } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'

/** The steps of the method in their order. One is opened to correct it. */
const props = defineProps<{ steps: RecipeStep[]; texts: string[] }>()
const emit = defineEmits<{ change: [index: number, to?: RecipeStep] }>()
const open = ref<number>()
const step = computed(() => (open.value === undefined ? undefined : props.steps[open.value]))
/** What stands open for a while: minutes, and for a bake its heat and cover. */
const patch = (how: Partial<RecipeStep>) =>
  open.value !== undefined && step.value && emit('change', open.value, { ...step.value, ...how })
function remove() {
  if (open.value !== undefined) emit('change', open.value)
  open.value = undefined
}
const add = () => {
  emit('change', props.steps.length, { kind: 'bake', cover: 'none' })
  open.value = props.steps.length
}
const covers = [
  ['none', 'Open'],
  ['foil', 'Foil'],
  ['lid', 'Lid'],
] as const
</script>

<template>
  <section class="steps" aria-label="Steps">
    <h3>Steps</h3>
    <ol data-testid="import-steps">
      <li v-for="(s, i) in steps" :key="i">
        <button
          :class="['push', s.kind, { missing: s.kind === 'bake' && (s.c === undefined || !s.minutes) }]"
          :aria-expanded="open === i"
          :data-testid="`step-${i}`"
          @click="open = open === i ? undefined : i"
        >
          {{ texts[i] ?? s.kind }}
        </button>
      </li>
      <li>
        <button class="plain" data-testid="step-add" @click="add">Add bake stage</button>
      </li>
    </ol>
    <div v-if="step" class="form" data-testid="step-form">
      <AmountField
        :key="`${open}-min`"
        label="Minutes"
        kind="minutes"
        unit="min"
        optional
        :model-value="step.minutes?.[0]"
        testid="step-minutes"
        @update:model-value="(m) => patch({ minutes: m === undefined ? undefined : [m, m] })"
      />
      <template v-if="step.kind === 'bake' || step.kind === 'par_bake'">
        <AmountField
          :key="`${open}-c`"
          label="Oven temperature"
          kind="temperature"
          unit="°C"
          dial
          optional
          :model-value="step.c"
          testid="step-heat"
          @update:model-value="(c) => patch({ c })"
        />
      </template>
      <div v-if="step.kind === 'bake'" class="choice" role="group" aria-label="Cover">
        <button
          v-for="[key, label] in covers"
          :key="key"
          :aria-pressed="(step.cover ?? 'none') === key"
          :data-testid="`step-cover-${key}`"
          @click="patch({ cover: key })"
        >
          {{ label }}
        </button>
      </div>
      <button class="push" data-testid="step-remove" @click="remove">Remove step</button>
    </div>
  </section>
</template>

<style scoped>
.steps {
  margin-top: 14px;
}
ol {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
ol .push {
  border-radius: 22px;
  font-size: 0.9375rem;
}
.bake,
.par_bake {
  border-color: var(--heat);
  color: var(--heat);
}
.missing {
  border-style: dashed;
  border-width: 2px;
}
.form {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
}
.form .amount {
  width: 170px;
}
</style>
