import { defineStore } from 'pinia'
import { api, ask, type Card, upon } from '@/api/client'
import { useClash } from '@/stores/useClash'
import { useHistory } from '@/stores/useHistory'
import { useKitchen } from '@/stores/useKitchen'

/** What is changed of a card as a whole; its versions are never changed. */
export interface CardBody {
  name?: string
  archived?: boolean
  tags?: string[]
}

/** Every change of a card's name and of its place in the box. */
export const useCardHistory = defineStore('card-history', () => {
  const kitchen = useKitchen()
  const clash = useClash()
  const put = (id: string, body: CardBody, card?: Card) => {
    const path = { kitchen: kitchen.kitchen!.id, card: id }
    return clash.settle(card?.name ?? 'The card', card?.revision, (ifMatch) =>
      ask(
        api.PUT('/api/v1/kitchens/{kitchen}/cards/{card}', {
          params: { path, header: upon(ifMatch) },
          body,
        }),
      ),
    )
  }
  const history = useHistory<{ label: string; id: string; was: CardBody; is: CardBody }>(
    'mabbin.cards',
    async (step, side) => (await put(step.id, step[side])).problem,
  )
  return { ...history, put }
})
