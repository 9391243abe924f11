<script setup lang="ts">
import { ref } from 'vue'
import { inWords, type FileFormat, type Problem, type Sheet, type WholeCard } from '@/api/client'
import { forms, printed, takeAway } from './takeAway'
import { useKitchen } from './useKitchen'
import { text } from '@/texts'

/** Takes a card away: on paper, as one page of PDF, or as a file in an open form. */
const props = defineProps<{ card: WholeCard; cut?: boolean; page?: boolean }>()
const kitchen = useKitchen()
const trouble = ref('')
const files = ref(false)
const sheets: [Sheet, string, string][] = [
  ['ticket', text('Ticket'), text('what to weigh, the method and the cutaway on one page')],
  ['card', text('Card'), text('for the card box, on half a page')],
  ['cutting', text('Cuts'), text('how topping, shell and bars are cut, drawn on the dish')],
]
async function tell(done: Promise<Problem | undefined>) {
  const problem = await done
  trouble.value = problem ? inWords(problem) : ''
}
const onPaper = (s: Sheet) => void tell(printed(s, props.card, kitchen.kitchen?.settings))
const asFile = (f: FileFormat) => void tell(takeAway(f, props.card))
const print = () => window.print()
</script>

<template>
  <div class="away no-print">
    <p v-if="trouble" class="wrong" role="alert">{{ $t('Not done. {trouble}.', { trouble }) }}</p>
    <div role="group" :aria-label="$t('On paper')">
      <button v-if="page" class="plain" :title="$t('this page, by the browser')" @click="print">
        {{ $t('Print') }}
      </button>
      <span class="quiet small" aria-hidden="true">{{ $t('PDF') }}</span>
      <button
        v-for="[sheet, says, about] in sheets.filter(([s]) => s !== 'cutting' || cut)"
        :key="sheet"
        class="plain"
        :title="$t(about)"
        :aria-label="$t('{says}, as PDF', { says })"
        :data-testid="`away-${sheet}`"
        @click="onPaper(sheet)"
      >
        {{ $t(says) }}
      </button>
      <button class="plain" :aria-expanded="files" data-testid="files" @click="files = !files">
        {{ files ? $t('No file') : $t('File…') }}
      </button>
    </div>
    <div v-if="files" role="group" :aria-label="$t('As a file')">
      <button
        v-for="[form, says, about] in forms"
        :key="form"
        class="plain"
        :title="$t(about)"
        :data-testid="`away-${form}`"
        @click="asFile(form)"
      >
        {{ $t(says) }}
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
