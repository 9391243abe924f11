<script setup lang="ts">
import { ref } from 'vue'
import { type Problem, type Rescue, type WatchedDessert, reasonOf } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import { integer } from '@/format/amounts'
import { useWatch, type Trouble } from '@/stores/useWatch'

/** It goes wrong in the oven: what may help from this minute on, each way tried on the model before it is offered. */
const props = defineProps<{ dessert: WatchedDessert }>()
const emit = defineEmits<{ done: [] }>()
const watching = useWatch()
const chosen = ref<Trouble>()
const off = ref(10)
const ways = ref<Rescue[]>([])
const problem = ref<Problem>()
const troubles: [Trouble, string][] = [
  ['dark_raw', 'top dark, middle not bubbling'],
  ['boils_over', 'boiling over'],
  ['pale', 'time is up, top pale'],
  ['oven_off', 'the oven was off'],
]
async function tell(t: Trouble) {
  chosen.value = t
  const got = await watching.rescue(props.dessert.id, {
    trouble: t,
    ...(t === 'oven_off' ? { off_min: off.value } : {}),
  })
  problem.value = got.problem
  ways.value = got.data ?? []
}
async function take(w: Rescue) {
  problem.value = await watching.change(props.dessert.id, w.stages)
  if (!problem.value) emit('done')
}
</script>

<template>
  <section class="rescue" aria-label="What is wrong" data-testid="rescue">
    <div class="choice" role="group" aria-label="What is wrong">
      <button
        v-for="[key, label] in troubles"
        :key="key"
        :aria-pressed="chosen === key"
        :data-testid="`trouble-${key}`"
        @click="tell(key)"
      >
        {{ label }}
      </button>
    </div>
    <AmountField
      v-if="chosen === 'oven_off'"
      class="narrow"
      label="for"
      kind="minutes"
      unit="min"
      :digits="0"
      :model-value="off"
      testid="off-min"
      @update:model-value="(v) => ((off = v ?? off), tell('oven_off'))"
    />
    <p v-if="problem" class="wrong" role="alert">
      {{ reasonOf(problem) }}
    </p>
    <ul v-if="ways.length">
      <li v-for="(w, i) in ways" :key="w.code">
        <span>
          <strong>{{ w.text }}</strong>{{ `: ${integer(w.minutes)} min from now.` }}
          <span :class="w.works ? 'settled' : 'wrong'">{{
            w.works ? 'It will come out right (by the model).' : `Remaining problem: ${w.unmet.join('; ')}.`
          }}</span>
        </span>
        <button :class="['push', { main: i === 0 && w.works }]" :data-testid="`rescue-${i}`" @click="take(w)">
          Apply
        </button>
      </li>
    </ul>
    <details>
      <summary>If it is already out</summary>
      <ul class="small">
        <li v-for="a in watching.all?.salvage_tips" :key="a.code">
          <span
            ><strong>{{ a.code }}</strong
            >: {{ a.text }}</span
          >
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.rescue {
  display: grid;
  gap: 8px;
  padding: 10px 12px;
  border-left: 5px solid var(--heat);
  background: var(--sunk);
}
.narrow {
  max-width: 220px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 10px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.settled {
  color: var(--settled);
  font-weight: 600;
}
summary {
  min-height: 44px;
  padding-top: 10px;
  cursor: pointer;
}
</style>
