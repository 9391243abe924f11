<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, ask, inWords, type CardLabel, type Problem } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { grams } from '@/format/amounts'
import { dateOf, dayAfter, inWords as dayInWords } from '@/format/minutes'
import { asked, nothing, type Wanted } from './useWanted'

/** What is printed beside each dessert: labels for its box, or a card for the counter. */
const props = defineProps<{ wanted: Wanted }>()
const kitchen = useKitchen()
const labels = ref<CardLabel[]>([])
const problem = ref<Problem>()
const counter = ref(false)
const each = ref(4)
const newest = newestOnly()
watch(
  () => JSON.stringify([asked(props.wanted), kitchen.kitchen?.id]),
  async () => {
    const isNewest = newest()
    if (!kitchen.kitchen || nothing(props.wanted)) {
      labels.value = []
      return
    }
    const got = await ask(
      api.POST('/api/v1/kitchens/{kitchen}/labels', {
        params: { path: { kitchen: kitchen.kitchen.id } },
        body: asked(props.wanted),
      }),
    )
    if (!isNewest()) return
    problem.value = got.problem
    labels.value = got.data?.labels ?? []
  },
  { immediate: true },
)
/** Each card once, however often it is ordered. */
const once = computed(() =>
  labels.value.filter((l, i) => labels.value.findIndex((x) => x.card === l.card) === i),
)
const baked = computed(() => props.wanted.date || dateOf(new Date()))
const until = (days: number) => dayInWords(dayAfter(baked.value, days))
const print = () => window.print()
</script>

<template>
  <section class="sheets" aria-label="Labels">
    <div class="panel head no-print">
      <div class="choice" role="group" aria-label="What is printed">
        <button :aria-pressed="!counter" data-testid="label-box" @click="counter = false">Labels</button>
        <button :aria-pressed="counter" data-testid="label-counter" @click="counter = true">
          Counter cards
        </button>
      </div>
      <label v-if="!counter"
        >of each
        <input v-model.number="each" class="number" type="number" min="1" max="60" data-testid="label-each"
      /></label>
      <button
        class="push main"
        :disabled="!once.some((l) => l.label)"
        data-testid="label-print"
        @click="print"
      >
        Print
      </button>
      <p class="quiet small">
        What must stand on a label, how long it keeps and where it may be made: the local food authority’s
        code and a licensed professional decide.
      </p>
    </div>
    <p v-if="problem" class="wrong no-print" role="alert">{{ inWords(problem) }}.</p>
    <p v-if="nothing(wanted)" class="panel empty no-print">
      Choose a day or some cards: here stand their labels.
    </p>
    <p v-for="l in once.filter((x) => !x.label)" :key="l.card" class="panel wrong why no-print" role="alert">
      <strong>{{ l.name }}</strong> {{ `No label: ${l.why}.` }}
    </p>
    <div :class="counter ? 'counter' : 'labels'">
      <template v-for="l in once" :key="l.card">
        <template v-if="l.label">
          <article
            v-for="n in counter ? 1 : each"
            :key="n"
            :class="['label', { 'print-only': n > 1 }]"
            :data-testid="n === 1 ? `label-${l.name}` : undefined"
          >
            <h3>{{ l.name }}</h3>
            <p v-if="counter" class="what">{{ `A portion is about ${grams(l.label.portion_g)}.` }}</p>
            <p class="list"><strong>Ingredients:</strong> {{ l.label.text }}</p>
            <p v-if="l.label.contains.length">
              <strong>{{ `Contains ${kitchen.allergens(l.label.contains)}.` }}</strong> Made where other
              allergens are handled.
            </p>
            <template v-if="!counter">
              <p>{{ `${grams(l.label.net_g)} as baked. ${l.label.keep}` }}</p>
              <p>{{ `Best before ${until(l.label.keep_days)}. ${l.label.rewarm}` }}</p>
              <p class="maker">{{ `${kitchen.kitchen!.name} · batch ${l.batch}` }}</p>
            </template>
          </article>
        </template>
      </template>
    </div>
  </section>
</template>

<style scoped>
.sheets {
  display: grid;
  gap: 8px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  padding: 10px 16px;
}
.head p {
  flex: 1 1 300px;
  margin: 0;
}
.number {
  width: 70px;
  min-height: 44px;
  padding: 0 8px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
}
.why {
  padding: 10px 16px;
}
.labels {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(360px, 1fr));
  align-items: start;
  gap: 8px;
}
.label {
  padding: 10px 14px;
  border: 1.5px solid var(--rim);
  background: var(--panel);
  font-size: 0.875rem;
  line-height: 1.3;
}
.label p {
  margin: 4px 0 0;
}
.label h3 {
  font: 700 1.1875rem var(--title);
}
.counter .label {
  margin-bottom: 8px;
  padding: 24px 28px;
  font-size: 1.125rem;
}
.counter h3 {
  font-size: 2.375rem;
}
.what {
  font-size: 1.25rem;
}
.maker {
  font-weight: 600;
}
.empty {
  padding: 30px;
  text-align: center;
}
@media print {
  .labels {
    grid-template-columns: 1fr 1fr;
    gap: 4mm;
  }
  .label {
    break-inside: avoid;
    border-color: #000;
    font-size: 8.5pt;
  }
  .counter .label {
    break-after: page;
    font-size: 16pt;
  }
  .counter h3 {
    font-size: 34pt;
  }
}
</style>
