import { useLocalStorage, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, type Problem, type ReadyBy } from '@/api/client'
import { newestOnly } from '@/api/newest'
import { hourOf } from '@/format/clock'
import { usePlan } from './usePlan'

/** How often the way back is looked at again: the hour comes nearer. */
const againMs = 60_000

/** When the dessert on the Bench is wanted, and the way back from there. */
export const useReadyBy = defineStore('ready-by', () => {
  const plan = usePlan()
  /** The hour, as a clock shows it; empty: whenever. */
  const hour = useLocalStorage('mabbin.ready.hour', '')
  const serve = useLocalStorage<'hot' | 'warm' | 'cold'>('mabbin.ready.serve', 'warm')
  const way = shallowRef<ReadyBy>()
  const problem = ref<Problem>()
  const question = computed(() => {
    const q = plan.question
    const stages = plan.answer?.plan.stages
    if (!hour.value || !q || !stages) return undefined
    return { bench: { ...q, standing: stages, keep: true }, serve: serve.value }
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
})
