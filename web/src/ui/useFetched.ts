import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'
import type { Problem } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'

/** Fetches something of the kitchen's as soon as there is one, and tries again every few seconds while that fails. */
export function useFetched(fetch: (kitchen: string) => Promise<Problem | undefined>): {
  trouble: Ref<Problem | undefined>
} {
  const kitchen = useKitchen()
  const trouble = ref<Problem>()
  let timer: ReturnType<typeof setTimeout> | undefined
  async function load() {
    if (!kitchen.kitchen) {
      if (!kitchen.ready) timer = setTimeout(() => void load(), 200)
      return
    }
    trouble.value = await fetch(kitchen.kitchen.id)
    if (trouble.value) timer = setTimeout(() => void load(), 4000)
  }
  onMounted(() => void load())
  onBeforeUnmount(() => clearTimeout(timer))
  return { trouble }
}
