import { refDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import type { BenchRequest, Problem } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { usePlan } from '@/stores/usePlan'
import { useWatch } from '@/stores/useWatch'

/** What is asked of the bake that is shown, each time that it has come to rest. A change that comes meanwhile breaks it
 off, in the server too: nothing competes with what the hand asks for. */
export function useBakeQuery<T>(
  ask: (bake: BenchRequest, signal: AbortSignal) => Promise<{ data?: T; problem?: Problem }>,
) {
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
  /** What was asked last, and how to break it off while it is under way. */
  let asked = ''
  let asking: AbortController | undefined
  async function look() {
    const key = JSON.stringify(question.value)
    if (!question.value || key === asked) return
    asked = key
    const isNewest = newest()
    const mine = (asking = new AbortController())
    const got = await ask(question.value, mine.signal)
    if (!isNewest() || mine.signal.aborted) return
    asking = undefined
    data.value = got.data
    problem.value = got.problem
  }
  function breakOff() {
    if (!asking) return
    asking.abort()
    asking = undefined
    asked = ''
  }
  watch(() => JSON.stringify(plan.question), breakOff, { flush: 'sync' })
  watch(question, look, { immediate: true })
  watch(
    () => watched.learnt,
    (_, was) => {
      asked = ''
      if (was !== undefined) void look()
    },
  )
  return { data, problem }
}
