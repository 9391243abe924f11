import { defineStore } from 'pinia'
import { api, ask, type Outcome } from '@/api/client'
import { useHistory } from '@/stores/useHistory'
import { useKitchen } from '@/stores/useKitchen'

/** What was put right in the log. The log keeps what was reported before, and every undo as a correction of its own. */
export const useLogHistory = defineStore('log-history', () => {
  const kitchen = useKitchen()
  return useHistory<{ label: string; id: string; was: Outcome; is: Outcome }>(
    'mabbin.log',
    async (step, side) =>
      (
        await ask(
          api.PUT('/api/v1/kitchens/{kitchen}/bakes/{bake}/outcome', {
            params: { path: { kitchen: kitchen.kitchen!.id, bake: step.id } },
            body: { correction_id: crypto.randomUUID(), outcome: step[side] },
          }),
        )
      ).problem,
  )
})
