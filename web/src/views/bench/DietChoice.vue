<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, ask, inWords, type Problem, type DietProposal, type DietRequest } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { short } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'

/** What has to change in this card for a diet, and what each swap costs. */
const open = defineModel<boolean>({ required: true })
const kitchen = useKitchen()
const dessert = useDessert()
type Diet = DietRequest['diets'][number]
const diets = computed(() => kitchen.options<Diet>('diet'))
const chosen = ref<Diet[]>([])
const proposal = ref<DietProposal>()
const problem = ref<Problem>()
const question = computed(() => {
  const r = dessert.draft?.request
  return open.value && r && chosen.value.length
    ? { request: kitchen.ours(r), diets: chosen.value }
    : undefined
})
const newest = newestOnly()
watch(
  () => JSON.stringify(question.value),
  async () => {
    const isNewest = newest()
    problem.value = undefined
    proposal.value = undefined
    if (!question.value) return
    const got = await ask(api.POST('/api/v1/diets', { body: question.value }))
    if (!isNewest()) return
    problem.value = got.problem
    proposal.value = got.data
  },
)
function toggle(d: Diet) {
  chosen.value = chosen.value.includes(d) ? chosen.value.filter((x) => x !== d) : [...chosen.value, d]
}
function take() {
  const p = proposal.value
  if (!p) return
  const words = diets.value.filter(([k]) => chosen.value.includes(k)).map(([, label]) => label)
  dessert.change('the diet', (d) => {
    d.request = p.request
    d.name = `${d.name} (${words.join(', ')})`.slice(0, 80)
  })
  open.value = false
}
</script>

<template>
  <el-dialog v-model="open" title="Adapt to a diet" width="min(760px, 96vw)" top="6vh" data-testid="diets">
    <div class="chips" role="group" aria-label="Diets">
      <button
        v-for="[key, label] in diets"
        :key="key"
        class="push"
        :class="{ main: chosen.includes(key) }"
        :aria-pressed="chosen.includes(key)"
        :data-testid="`diet-${key}`"
        @click="toggle(key)"
      >
        {{ label }}
      </button>
    </div>
    <p v-if="problem" class="wrong" role="alert">
      {{ inWords(problem) }}
    </p>
    <p v-else-if="!chosen.length" class="quiet">Choose one or more.</p>
    <template v-if="proposal">
      <p v-if="!proposal.changes.length && !proposal.left.length" data-testid="diet-fits">
        <strong>No change needed:</strong>
        by the ingredient tables, this dessert is suitable.
      </p>
      <ul v-else class="changes" data-testid="diet-changes">
        <li v-for="(c, i) in proposal.changes" :key="i">
          <strong>{{ c.from }} → {{ c.to || 'left out' }}</strong>
          <span class="quiet">{{ c.where }}</span>
          <span class="costs">{{ c.costs }}</span>
        </li>
        <li v-for="(l, i) in proposal.left" :key="i" class="left">
          <strong>{{ `${l.name} stays: ${l.reason}.` }}</strong><span class="costs">{{ l.action }}</span>
        </li>
      </ul>
      <p>
        Juice <strong>{{ kitchen.word('band', proposal.answer.set.band) }}</strong>{{
          proposal.answer.set.band === proposal.before.set.band ? ' as before' : ''
        }}. <strong>Contains:</strong>
        {{ kitchen.allergens(proposal.answer.allergens.contains) || 'none of the listed allergens' }}.
        <template v-if="proposal.check_label.length"
          ><strong>Check the label:</strong> {{ proposal.check_label.map(short).join(', ') }}.</template
        >
      </p>
      <p class="small">
        This list does not rule out cross-contact: a shared board or flour in the air is enough. Ask your
        guests, and say what you do not know.
      </p>
      <p v-if="proposal.answer.remarks.some((r) => r.level === 'warning')" class="wrong">
        {{
          proposal.answer.remarks
            .filter((r) => r.level === 'warning')
            .map((r) => r.text)
            .join(' ')
        }}
      </p>
      <button class="push main" :disabled="!proposal.changes.length" data-testid="take-diet" @click="take">
        Apply to the card
      </button>
    </template>
  </el-dialog>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
}
.changes {
  margin: 0 0 10px;
  padding: 0;
  list-style: none;
}
.changes li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.costs {
  display: block;
  color: var(--ink-2);
}
.left strong {
  color: var(--danger);
}
p {
  margin: 6px 0;
}
</style>
