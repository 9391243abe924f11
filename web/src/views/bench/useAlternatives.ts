import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, ask, type Alternative } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { useDessert } from '@/stores/useDessert'

/** What each way of doing comes to for the dessert on the Bench, asked for when it has changed. */
export function useAlternatives() {
  const kitchen = useKitchen()
  const dessert = useDessert()
  const all = ref<Alternative[]>([])
  const request = computed(() => dessert.draft && kitchen.ours(dessert.draft.request))
  const settled = refDebounced(
    computed(() => JSON.stringify(request.value)),
    40,
  )
  const newest = newestOnly()
  watch(
    settled,
    async () => {
      const isNewest = newest()
      if (!request.value) return
      const got = await ask(api.POST('/api/v1/balance/alternatives', { body: request.value }))
      if (isNewest() && got.data) all.value = got.data
    },
    { immediate: true },
  )
  return (question: Alternative['question']) =>
    computed(() => all.value.filter((s) => s.question === question))
}
