import { refDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import type { BenchRequest, Problem } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { usePlan } from '@/stores/usePlan'
import { useWatch } from '@/stores/useWatch'

/** What is asked of the bake that is shown, each time that it has come to rest. */
export function useOfBake<T>(ask: (bake: BenchRequest) => Promise<{ data?: T; problem?: Problem }>) {
  const plan = usePlan()
  const watched = useWatch()
  const data = shallowRef<T>()
  const problem = ref<Problem>()
  const question = refDebounced(
    computed(() => {
      const stages = plan.answer?.plan.stages
      return plan.question && stages ? { ...plan.question, standing: stages, keep: true } : undefined
    }),
    300,
  )
  const newest = newestOnly()
  async function look() {
    const isNewest = newest()
    if (!question.value) return
    const got = await ask(question.value)
    if (!isNewest()) return
    data.value = got.data
    problem.value = got.problem
  }
  watch(() => JSON.stringify(question.value), look, { immediate: true })
  watch(
    () => watched.learnt,
    (_, was) => was !== undefined && void look(),
  )
  return { data, problem }
}
