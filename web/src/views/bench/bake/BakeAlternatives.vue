<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, ask, type BakeAlternative } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useDessert } from '@/stores/useDessert'
import { usePlan } from '@/stores/usePlan'
import { useKitchen } from '@/stores/useKitchen'

/** Other ways to bake it: each way as a switch, with what it changes in numbers for this dessert in this oven. */
const kitchen = useKitchen()
const props = withDefaults(defineProps<{ questions: BakeAlternative['question'][]; title?: string }>(), {
  title: 'Other ways to bake it',
})
const dessert = useDessert()
const plan = usePlan()
const all = ref<BakeAlternative[]>([])
const open = ref(false)
const question = computed(
  () =>
    open.value &&
    plan.question &&
    JSON.stringify({
      ...plan.question,
      setting: { ...plan.question.setting, stages: plan.question.setting.stages ?? plan.answer?.plan.stages },
    }),
)
const settled = refDebounced(question, 60)
const newest = newestOnly()
watch(settled, async (q) => {
  const isNewest = newest()
  if (!q) return
  const got = await ask(api.POST('/api/v1/bench/alternatives', { body: JSON.parse(q) }))
  if (isNewest() && got.data) all.value = got.data
})
const shown = computed(() =>
  props.questions
    .map((q) => ({ question: q, ways: all.value.filter((s) => s.question === q) }))
    .filter((g) => g.ways.length),
)
function choose(s: BakeAlternative) {
  if (s.question === 'cover') plan.set('the cover', s.stages)
  else
    dessert.change(kitchen.word('question', s.question).toLowerCase(), (d) => {
      d.request = s.request
      d.setting.filling_c = s.filling_c
    })
}
</script>

<template>
  <details :open="open" @toggle="(e) => (open = (e.target as HTMLDetailsElement).open)">
    <summary :data-testid="`disagree-${questions[0]}`">{{ title }}</summary>
    <p v-if="!shown.length" class="quiet small">Comparing…</p>
    <div
      v-for="g in shown"
      :key="g.question"
      class="group"
      role="group"
      :aria-label="kitchen.word('question', g.question)"
    >
      <h3>{{ kitchen.word('question', g.question) }}</h3>
      <button
        v-for="s in g.ways"
        :key="s.key"
        :aria-pressed="s.chosen"
        :data-testid="`way-${s.question}-${s.key}`"
        @click="choose(s)"
      >
        <span class="mark" aria-hidden="true" />
        <span>
          <strong>{{ s.name }}</strong><span class="small">{{ s.effect }}</span
          ><span class="small quiet">{{ s.text }}</span>
        </span>
      </button>
    </div>
  </details>
</template>

<style scoped>
summary {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 40px;
  color: var(--rim-ink);
  font-weight: 600;
  cursor: pointer;
}
summary::before {
  content: '+';
  width: 14px;
}
details[open] summary::before {
  content: '−';
}
h3 {
  padding-top: 6px;
}
button {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 52px;
  padding: 4px 0;
  border: 0;
  border-top: 1px solid var(--line);
  background: none;
  text-align: left;
  cursor: pointer;
}
button span > * {
  display: block;
  font-weight: 400;
}
button[aria-pressed='true'] strong {
  font-weight: 700;
}
.mark {
  flex: none;
  width: 16px;
  height: 16px;
  border: 2px solid var(--ink-2);
  border-radius: 50%;
}
button[aria-pressed='true'] .mark {
  border: 5px solid var(--rim-ink);
}
</style>
