import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, ask, type School } from '@/api/client'
import { useKitchen } from '@/parts/useKitchen'
import { useDessert } from './useDessert'

/** What each way of doing comes to for the dessert on the Bench, asked for when it has changed. */
export function useSchools() {
  const kitchen = useKitchen()
  const dessert = useDessert()
  const all = ref<School[]>([])
  const request = computed(() => dessert.draft && kitchen.ours(dessert.draft.request))
  const settled = refDebounced(
    computed(() => JSON.stringify(request.value)),
    40,
  )
  let asked = 0
  watch(
    settled,
    async () => {
      const mine = ++asked
      if (!request.value) return
      const got = await ask(api.POST('/api/v1/schools', { body: request.value }))
      if (mine === asked && got.data) all.value = got.data
    },
    { immediate: true },
  )
  return (question: School['question']) => computed(() => all.value.filter((s) => s.question === question))
}
