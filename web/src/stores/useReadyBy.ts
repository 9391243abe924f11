import { useIntervalFn, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, type Problem, type ReadyBy, type ReadyByRequest } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { hourOf } from '@/format/clock'
import { usePlan } from './usePlan'

/** How often the way back is looked at again: the hour comes nearer. */
const againMs = 60_000

/** When a dessert is wanted, and the way back from there. The hour and how it is served stay from one to the next. */
export function useWayBack(bench: () => ReadyByRequest['bench'] | undefined) {
  /** The hour, as a clock shows it; empty: whenever. */
  const hour = useLocalStorage('mabbin.ready.hour', '')
  const serve = useLocalStorage<'hot' | 'warm' | 'cold'>('mabbin.ready.serve', 'warm')
  const way = shallowRef<ReadyBy>()
  const problem = ref<Problem>()
  const question = computed(() => {
    const what = bench()
    return hour.value && what ? { bench: what, serve: serve.value } : undefined
  })
  /** What the way back is worked out from. */
  const request = () => question.value && { ...question.value, ready_at: hourOf(hour.value).toISOString() }
  const newest = newestOnly()
  async function look() {
    const isNewest = newest()
    if (!question.value) {
      way.value = undefined
      problem.value = undefined
      return
    }
    const got = await ask(api.POST('/api/v1/bench/ready-by', { body: request()! }))
    if (!isNewest()) return
    way.value = got.data
    problem.value = got.problem
  }
  watch(() => JSON.stringify([question.value, hour.value]), look, { immediate: true })
  useIntervalFn(() => void look(), againMs)
  return { hour, serve, way, problem, request }
}
export type WayBack = Pick<ReturnType<typeof useReadyBy>, keyof ReturnType<typeof useWayBack>>

/** The way back of the dessert on the Bench, by the bake that is shown of it. */
export const useReadyBy = defineStore('ready-by', () => {
  const plan = usePlan()
  return useWayBack(() => {
    const stages = plan.answer?.plan.stages
    return plan.question && stages ? { ...plan.question, standing: stages, keep: true } : undefined
  })
})
