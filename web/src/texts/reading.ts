import { reactive } from 'vue'
import type { Larder, Settings } from '@/api/client'

type Reading = Required<Pick<Settings, 'weights' | 'heat' | 'lengths' | 'cup' | 'english' | 'decimal'>>

/** What the kitchen reads. Everything that is shown asks here, so that one switch changes it everywhere. */
export const units = reactive<Reading>({
  weights: 'g',
  heat: 'c',
  lengths: 'cm',
  cup: 'metric',
  english: 'uk',
  decimal: 'point',
})

let british = /(?!)/g
const american = new Map<string, string>()

/** Takes the core's table of British and American words: the longest first, a hyphen stands for any ending. */
export function learnEnglish(pairs: Larder['english']) {
  const open = (w: string) => w.endsWith('-')
  const bare = (w: string) => w.replace(/-$/, '')
  const found = (w: string) => bare(w).replace(/[()]/g, '\\$&') + (!open(w) && /[a-z]$/.test(w) ? '\\b' : '')
  const inOrder = [...pairs.filter((p) => !open(p.british)), ...pairs.filter((p) => open(p.british))]
  british = new RegExp(`\\b(${inOrder.map((p) => found(p.british)).join('|')})`, 'gi')
  for (const p of pairs) american.set(bare(p.british), bare(p.american))
}

/** A text in the kitchen's English. Capitals stay where they were. What a baker wrote is not given to it. */
export const english = (text: string) =>
  units.english === 'us'
    ? text.replace(british, (word) => {
        const says = american.get(word.toLowerCase()) ?? word
        return /^[A-Z]/.test(word) ? says.charAt(0).toUpperCase() + says.slice(1) : says
      })
    : text
