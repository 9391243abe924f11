import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, type BakeChange, type PlanAnswer, type Problem, type Stage } from '@/api/client'
import type { Moment } from './moment'
import { useKitchen } from './useKitchen'
import { units } from '@/format/amounts'
import { useDessert, type Draft } from './useDessert'
import { useWatch } from './useWatch'

/** How long nothing may be changed until better stages are looked for: a plan stands still while a handle is drawn. */
const searchAfterMs = 400

/** What the Bench is answered, in one request for each change: the balance, the bake by the card's own stages or by those
 that are proposed, and the verdict. */
export const usePlan = defineStore('plan', () => {
  const kitchen = useKitchen()
  const dessert = useDessert()
  const answer = shallowRef<PlanAnswer>()
  /** Whether the answer is of stages that were entered, or was proposed. */
  const own = ref(false)
  const problem = ref<Problem>()
  const busy = ref(false)
  /** The minute that the scrubber stands at. */
  const minute = ref<number>()
  /** Another bake that is put over this one. */
  const beside = shallowRef<{ name: string; answer: PlanAnswer }>()

  /** The stages as they are entered: in full, or one by temperature and minutes. None: they are proposed. */
  const stages = computed<Stage[]>(() => {
    const s = dessert.draft?.setting
    if (!s) return []
    if (s.stages?.length) return s.stages
    if (s.oven_c && s.minutes) return [{ oven_c: s.oven_c, minutes: s.minutes, heating: heating.value }]
    return []
  })
  const oven = computed(() => kitchen.ovens.find((o) => o.id === dessert.draft?.setting.oven_id))
  const heating = computed(() => oven.value?.oven.heating ?? (kitchen.usual('heating') as 'conventional'))
  /** Round a camp oven, today. */
  const weather = useLocalStorage<{
    wind: 'calm' | 'breeze' | 'windy'
    cold: boolean
    wet: boolean
    fuel?: 'briquettes' | 'lumps'
    stacked?: boolean
  }>('mabbin.weather', { wind: 'calm', cold: false, wet: false })
  /** Nothing is asked until the kitchen is known: its own figures would change what has just been shown. */
  const question = computed(() =>
    dessert.draft && kitchen.ready
      ? {
          kitchen: kitchen.kitchen?.id,
          request: kitchen.ours(dessert.draft.request),
          setting: { ...dessert.draft.setting, stages: stages.value.length ? stages.value : undefined },
          weather: oven.value?.oven.kind === 'camp' ? weather.value : undefined,
        }
      : undefined,
  )
  const key = computed(() => JSON.stringify([question.value, units]))
  let asking = false
  let again = false
  let search: ReturnType<typeof setTimeout> | undefined
  /** Ends a search that is under way: what has changed since does not wait for it. */
  let searching: AbortController | undefined
  /** Asks for all that is shown; what is proposed and stands is only looked for anew once nothing changes any more. */
  async function calculate(look = false) {
    if (asking) {
      again = true
      searching?.abort()
      return
    }
    clearTimeout(search)
    asking = true
    busy.value = true
    let looking = look
    do {
      again = false
      const asked = question.value
      const mine = dessert.opened
      if (!asked) break
      const entered = asked.setting.stages !== undefined
      const standing = entered || own.value ? undefined : answer.value?.plan.stages
      const keep = standing !== undefined && !looking
      searching = looking ? new AbortController() : undefined
      looking = false
      const signal = searching?.signal
      const got = await ask(api.POST('/api/v1/bench', { body: { ...asked, standing, keep }, signal }))
      if (signal?.aborted) continue
      if (mine !== dessert.opened) {
        again = true // it was of another dessert
        continue
      }
      problem.value = got.problem
      dessert.take(got)
      if (!got.data) continue
      answer.value = got.data
      own.value = entered
      if (keep && !again) search = setTimeout(() => void calculate(true), searchAfterMs)
    } while (again)
    asking = false
    busy.value = false
    if (problem.value?.status === 0) setTimeout(() => void calculate(), 3000) // the server is away: the last answer stays
  }
  watch(key, () => void calculate(), { immediate: true })
  const watched = useWatch()
  watch(
    () => watched.learnt,
    (_, was) => was !== undefined && void calculate(),
  )
  // Another dessert: what stands on the strip is not its own.
  watch(
    () => dessert.opened,
    () => {
      answer.value = undefined
      own.value = false
      minute.value = undefined
    },
    { flush: 'sync' },
  )

  /** A copy of the stages to change: the card's own, or the proposed ones. */
  const copied = () =>
    (stages.value.length ? stages.value : (answer.value?.plan.stages ?? [])).map((s) => ({ ...s }))
  function set(label: string, next: Stage[], drag = false, and?: (d: Draft) => void) {
    dessert.change(
      label,
      (d) => {
        and?.(d)
        d.setting.stages = next
        d.setting.oven_c = next[0]?.oven_c
        d.setting.minutes = next.reduce((sum, s) => sum + (outside(s) ? 0 : s.minutes), 0)
      },
      drag,
    )
  }
  /** Back to what is proposed. */
  function propose() {
    dessert.change('the proposed bake', (d) => {
      delete d.setting.stages
      delete d.setting.oven_c
      delete d.setting.minutes
    })
  }
  /** Does what a remedy or the verdict proposes, as it was answered. */
  function apply(label: string, c: BakeChange) {
    set(label, c.stages, false, (d) => {
      if (c.shelf) d.setting.shelf = c.shelf
      if (c.material) d.request.dish.material = c.material
      if (c.par_baked && d.request.base) d.request.base.par_baked = true
    })
  }
  /** Takes the proposal over as the card's own. */
  const take = () => answer.value && set('the stages', answer.value.plan.stages)

  /** What the dish looks like at the scrubber's minute. */
  const moment = computed<Moment | undefined>(() => {
    const a = answer.value
    if (!a || minute.value === undefined) return undefined
    const { curves: c, events: e } = a.plan.answer
    const at = minute.value
    const i = pointAt(c.minute, at)
    const happened = (m: number | null) => m !== null && at >= m
    return {
      minute: c.minute[i]!,
      bare: minute.value < toppingOn(a.plan.stages),
      late: minute.value < (a.late_at_min ?? 0),
      rim_c: c.rim_c[i]!,
      middle_c: c.middle_c[i]!,
      sunk: Math.min(1, c.fruit_minutes[i]! / Math.max(0.1, a.tender_min)),
      colour: c.colour[i]!,
      base: a.bake.base ? c.base[i]! : 1,
      // As the marks on the strip have it.
      rim_bubbles: happened(e.rim_bubbles_min),
      middle_bubbles: happened(e.middle_bubbles_min),
    }
  })
  /** Draws this bake under what comes next. */
  const hold = () =>
    answer.value && (beside.value = { name: 'the plan kept to compare', answer: answer.value })
  let tried = 0
  /** Draws the same stages over it, with one thing changed. */
  async function tryIf(name: string, what: string) {
    const mine = ++tried
    if (!question.value || !answer.value) return
    const setting = { ...question.value.setting, stages: answer.value.plan.stages }
    const got = await ask(
      api.POST('/api/v1/bench/what-if', { body: { bench: { ...question.value, setting }, if: what } }),
    )
    if (mine === tried && got.data) beside.value = { name, answer: got.data }
    if (got.problem) problem.value = got.problem
  }
  function forget() {
    tried++
    beside.value = undefined
  }

  return {
    answer,
    own,
    problem,
    busy,
    minute,
    moment,
    stages,
    oven,
    heating,
    weather,
    question,
    copied,
    set,
    propose,
    take,
    apply,
    beside,
    hold,
    tryIf,
    forget,
  }
})

/** The point of curves at or after a minute. */
export function pointAt(minutes: number[], m: number) {
  const i = minutes.findIndex((t) => t >= m)
  return i < 0 ? minutes.length - 1 : i
}

/** The minute at which a topping that goes on late is put on. */
function toppingOn(stages: Stage[]) {
  const i = stages.findIndex((s) => s.add_topping)
  return stages.slice(0, Math.max(0, i)).reduce((sum, s) => sum + s.minutes, 0)
}

/** Whether a stage is outside of the oven. */
export const outside = (s: Stage) => ['rack', 'fridge', 'freezer'].includes(s.heating ?? '')
