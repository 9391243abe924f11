import type { Remark } from '@/api/client'

/** Each level has a sign of its own shape and a word in addition to its colour. */
export const levelSigns: Record<Remark['level'], { sign: string; word: string; rank: number }> = {
  warning: { sign: '▲', word: 'Warning', rank: 0 },
  advice: { sign: '●', word: 'Advice', rank: 1 },
  note: { sign: '–', word: 'Note', rank: 2 },
  caution: { sign: '◆', word: 'Caution', rank: 3 },
}

/** The weightiest first; within a level as the core gave them. */
export const sorted = (remarks: Remark[]) =>
  [...remarks].sort((a, b) => levelSigns[a.level].rank - levelSigns[b.level].rank)
