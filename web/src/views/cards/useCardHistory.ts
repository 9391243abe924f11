import { defineStore } from 'pinia'
import { api, ask } from '@/api/client'
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
  const put = (card: string, body: CardBody) =>
    ask(
      api.PUT('/api/v1/kitchens/{kitchen}/cards/{card}', {
        params: { path: { kitchen: kitchen.kitchen!.id, card } },
        body,
      }),
    )
  const history = useHistory<{ says: string; id: string; was: CardBody; is: CardBody }>(
    'mabbin.cards',
    async (step, side) => (await put(step.id, step[side])).problem,
  )
  return { ...history, put }
})
