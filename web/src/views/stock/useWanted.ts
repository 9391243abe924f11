import { useLocalStorage } from '@vueuse/core'
import type { CardCounts } from '@/api/client'

/** What is bought for and labelled: a day, cards, or both. It outlives a reload, and a shop without a line. */
export interface Wanted {
  date: string
  cards: { card: string; name: string; dishes: number }[]
}

export const useWanted = () => useLocalStorage<Wanted>('mabbin.wanted', { date: '', cards: [] })

export const toCounts = (w: Wanted): CardCounts => ({
  ...(w.date && { date: w.date }),
  cards: w.cards.map(({ card, dishes }) => ({ card, dishes })),
})
export const nothing = (w: Wanted) => !w.date && !w.cards.length
