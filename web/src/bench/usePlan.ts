import { refDebounced, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  ask,
  type BakeSetting,
  type BalanceRequest,
  type PlanAnswer,
  type Problem,
  type Stage,
} from '@/api/client'
import type { Moment } from '@/parts/cutaway'
import { useKitchen } from '@/parts/useKitchen'
import { useDessert, type Draft } from './useDessert'
import { t } from '@/texts'

/** What a "what if" may change of a bake. */
export interface Changed {
  request: BalanceRequest
  setting: BakeSetting & { stages: Stage[] }
}

/** The bake of the dessert on the Bench: by the card's own stages, or by those that are proposed. */
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
  /** Another bake that is laid over this one. */
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
  const heating = computed(() => oven.value?.oven.heating ?? 'conventional')
  /** Round a camp oven, today. */
  const weather = useLocalStorage<{ wind: 'calm' | 'breeze' | 'windy'; cold: boolean; wet: boolean }>(
    'mabbin.weather',
    { wind: 'calm', cold: false, wet: false },
  )
  /** Where it bakes: the oven with what is known of it, the shelf, how high the kitchen lies, and a fire's weather. */
  const place = computed<BakeSetting>(() => {
    const o = oven.value
    return {
      heating: heating.value,
      shelf: dessert.draft?.setting.shelf,
      filling_c: dessert.draft?.setting.filling_c,
      dish_c: dessert.draft?.setting.dish_c,
      altitude_m: kitchen.kitchen?.settings.altitude_m,
      oven_offset_c: o?.oven.offset_c,
      off_by_c: o?.off_by_c,
      bottom_heat: o?.oven.bottom_heat,
      fire: o?.oven.kind === 'camp' ? { diameter_cm: o.oven.diameter_cm ?? 30, ...weather.value } : undefined,
    }
  })
  const question = computed(
    () =>
      dessert.draft &&
      !dessert.faults.length && {
        request: kitchen.ours(dessert.draft.request),
        setting: { ...place.value, stages: stages.value.length ? stages.value : undefined },
      },
  )
  const settled = refDebounced(
    computed(() => JSON.stringify(question.value)),
    20,
  )
  let asking = false
  let again = false
  async function calculate() {
    if (asking) {
      again = true
      return
    }
    asking = true
    busy.value = true
    do {
      again = false
      if (!question.value) break
      const entered = question.value.setting.stages !== undefined
      const { request, setting } = question.value
      const standing = own.value ? undefined : answer.value?.plan.stages
      const got = await ask(
        api.POST('/api/v1/bake/plan', { body: { request, setting: { ...setting, standing } } }),
      )
      problem.value = got.problem
      if (!got.data) continue
      answer.value = got.data
      own.value = entered
      dessert.steam = got.data.plan.answer.end.steamed_off_g
    } while (again)
    asking = false
    busy.value = false
  }
  watch(settled, () => void calculate(), { immediate: true })
  // Another dessert: what stands on the strip is not its own.
  watch(
    () => dessert.opened,
    () => {
      answer.value = undefined
      minute.value = undefined
    },
    { flush: 'sync' },
  )

  /** A copy of the stages to change: the card's own, or the proposed ones. */
  const copied = () =>
    (stages.value.length ? stages.value : (answer.value?.plan.stages ?? [])).map((s) => ({ ...s }))
  function set(says: string, next: Stage[], drag = false, and?: (d: Draft) => void) {
    dessert.change(
      says,
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
    dessert.change(t('the proposed bake'), (d) => {
      delete d.setting.stages
      delete d.setting.oven_c
      delete d.setting.minutes
    })
  }
  /** Takes the proposal over as the card's own. */
  const take = () => answer.value && set(t('the stages'), answer.value.plan.stages)

  /** What the dish looks like at the scrubber's minute. */
  const moment = computed<Moment | undefined>(() => {
    const a = answer.value
    if (!a || minute.value === undefined) return undefined
    const { curves: c, boiling_point_c: boil } = a.plan.answer
    const i = pointAt(c.minute, minute.value)
    return {
      bare: minute.value < toppingOn(a.plan.stages),
      late: minute.value < (a.late_at_min ?? 0),
      rim_c: c.rim_c[i]!,
      middle_c: c.middle_c[i]!,
      sunk: Math.min(1, c.fruit_minutes[i]! / Math.max(0.1, a.tender_min)),
      colour: c.colour[i]!,
      base: a.bake.base ? c.base[i]! : 1,
      // As the marks on the strip have it.
      rim_bubbles: c.rim_c[i]! > boil - 1.5,
      middle_bubbles: c.middle_c[i]! > boil - 2,
    }
  })
  /** Lays this bake under what comes next. */
  const hold = () => answer.value && (beside.value = { name: t('the plan held'), answer: answer.value })
  let tried = 0
  /** Lays the same stages over it, with one thing changed. */
  async function tryIf(name: string, change: (c: Changed) => void) {
    const mine = ++tried
    if (!question.value || !answer.value) return
    const changed: Changed = JSON.parse(
      JSON.stringify({
        request: question.value.request,
        setting: { ...place.value, stages: answer.value.plan.stages },
      }),
    )
    change(changed)
    const got = await ask(api.POST('/api/v1/bake/plan', { body: changed }))
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
    place,
    copied,
    set,
    propose,
    take,
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
