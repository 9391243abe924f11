import { ref } from 'vue'
import { reasonOf, type Card } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { useOutbox } from '@/stores/useOutbox'
import { useDessert } from '@/stores/useDessert'

/** Saves the dessert on the Bench as a card, or as the next version of its card. What was refused stays on the Bench, with the reason. */
export function useSaving() {
  const dessert = useDessert()
  const kitchen = useKitchen()
  const outbox = useOutbox()
  const refused = ref('')

  async function save(asNew: boolean) {
    const d = dessert.draft
    const k = kitchen.kitchen
    if (!d || !k) return
    refused.value = ''
    const saves = { request: kitchen.ours(d.request), setting: d.setting, original: d.original }
    const fresh = asNew || !d.cardId
    const cardId = fresh ? crypto.randomUUID() : d.cardId!
    const path = `/api/v1/kitchens/${k.id}/cards`
    const parcel = fresh
      ? {
          what: d.name,
          path,
          body: { id: cardId, version_id: crypto.randomUUID(), name: d.name.trim(), ...saves },
        }
      : {
          what: `${d.name}, a new version`,
          path: `${path}/${cardId}/versions`,
          body: { id: crypto.randomUUID(), ...saves },
        }
    const sent = await outbox.send(parcel)
    if (sent.stored === 'refused') {
      refused.value = reasonOf(sent.problem)
      return
    }
    dessert.keptAs(cardId, sent.stored === 'saved' ? (sent.data as Card).versions[0]?.number : undefined)
  }
  return { refused, save }
}
