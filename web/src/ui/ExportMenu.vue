<script setup lang="ts">
import { ref } from 'vue'
import { inWords, type FileFormat, type Problem, type Sheet, type WholeCard } from '@/api/client'
import { forms, printed, takeAway, type Baked } from './exportFormats'
import { useKitchen } from '@/stores/useKitchen'

/** Takes a card away: in the simulation, as one page of PDF, or as a file in an open form. */
const props = defineProps<{
  card: WholeCard
  cut?: boolean
  page?: boolean
  /** The bake on the screen: what is taken away weighs the same, and is baked so. */
  baked?: Baked
}>()
const kitchen = useKitchen()
const trouble = ref('')
const files = ref(false)
const sheets: [Sheet, string, string][] = [
  ['ticket', 'Ticket', 'what to weigh, the method and the cutaway on one page'],
  ['card', 'Card', 'for the card box, half a page'],
  ['cutting', 'Cuts', 'how topping, shell and bars are cut, drawn for the dish'],
]
async function tell(done: Promise<Problem | undefined>) {
  const problem = await done
  trouble.value = problem ? inWords(problem) : ''
}
const onPaper = (s: Sheet) => void tell(printed(s, props.card, kitchen.kitchen?.settings, props.baked))
const asFile = (f: FileFormat) => void tell(takeAway(f, props.card, props.baked))
const print = () => window.print()
</script>

<template>
  <div class="away no-print">
    <p v-if="trouble" class="wrong" role="alert">{{ `Not done. ${trouble}.` }}</p>
    <div role="group" aria-label="Print">
      <button v-if="page" class="plain" title="this page, with the browser" @click="print">Print</button>
      <span class="quiet small" aria-hidden="true">PDF</span>
      <button
        v-for="[sheet, label, about] in sheets.filter(([s]) => s !== 'cutting' || cut)"
        :key="sheet"
        class="plain"
        :title="about"
        :aria-label="`${label}, as PDF`"
        :data-testid="`away-${sheet}`"
        @click="onPaper(sheet)"
      >
        {{ label }}
      </button>
      <button class="plain" :aria-expanded="files" data-testid="files" @click="files = !files">
        {{ files ? 'Less' : 'Export…' }}
      </button>
    </div>
    <div v-if="files" role="group" aria-label="Export">
      <button
        v-for="[form, label, about] in forms"
        :key="form"
        class="plain"
        :title="about"
        :data-testid="`away-${form}`"
        @click="asFile(form)"
      >
        {{ label }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.away {
  display: flex;
  flex-wrap: wrap;
  column-gap: 20px;
}
[role='group'] {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
}
</style>
