import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import {
  api,
  ask,
  upon,
  type DayAsked,
  type DayBar,
  type DayKept,
  type DayLaid,
  type DayPin,
  type DayWayOut,
  type Problem,
} from '@/api/client'
import { useClash } from '@/stores/useClash'
import { useHistory } from '@/stores/useHistory'
import { useKitchen } from '@/stores/useKitchen'
import { useWatch } from '@/stores/useWatch'
import { useWork } from '@/stores/useWork'

/** A change of what is wanted of a day. */
interface Step {
  says: string
  date: string
  was: DayAsked
  is: DayAsked
}

/** It is wanted otherwise than it is laid, or not laid at all. */
const unlaid = (d: DayKept) => d.asked.orders.length > 0 && (!d.laid || d.stale)
const copy = <T>(x: T): T => JSON.parse(JSON.stringify(x)) as T

/** One day of the kitchen: what is wanted, and how it is laid. Every change is kept, laid anew, and can be undone. */
export function useDay(date: Ref<string>) {
  const kitchen = useKitchen()
  const clash = useClash()
  const watching = useWatch()
  const work = useWork()
  const day = shallowRef<DayKept>()
  const problem = ref<Problem>()
  const laid = computed<DayLaid | undefined>(() => day.value?.laid)
  const asked = computed<DayAsked>(() => day.value?.asked ?? { orders: [] })
  const path = (of: string) => ({ kitchen: kitchen.kitchen?.id ?? '', date: of })
  const url = '/api/v1/kitchens/{kitchen}/days/{date}'

  /** Looks what is kept; answers with what is wrong. */
  async function look(): Promise<Problem | undefined> {
    const of = date.value
    const got = await ask(api.GET(url, { params: { path: path(of) } }))
    if (of !== date.value) return undefined
    if (got.data) day.value = got.data
    return got.problem
  }
  /** Opens the date: what is wanted, laid if it is not yet. */
  async function open() {
    if (!kitchen.kitchen) return undefined
    work.stop()
    if (day.value?.date !== date.value) day.value = undefined
    const wrong = await look()
    if (day.value && unlaid(day.value)) void lay()
    return wrong
  }

  /** Where orders change while a day is planned, it is planned again, but not for ever. */
  const mostTries = 3
  async function lay(afresh = false, tries = mostTries) {
    const of = date.value
    const got = await work.run(({ signal, id }) =>
      ask(
        api.POST(`${url}/lay`, {
          params: { path: path(of), header: { 'X-Work': id } },
          body: { afresh },
          signal,
        }),
      ),
    )
    if (!got || of !== date.value) return
    if (got.problem?.status === 412 && tries > 1) {
      problem.value = await look()
      if (!problem.value && of === date.value) await lay(afresh, tries - 1)
      return
    }
    problem.value = got.problem
    if (got.data) day.value = got.data
  }
  /** Stops the laying: the best plan until then is kept. */
  async function stop() {
    work.stop()
    problem.value = await look()
  }

  async function put(of: string, next: DayAsked): Promise<Problem | undefined> {
    const now = day.value?.date === of ? day.value : undefined
    if (now) day.value = { ...now, asked: next }
    const got = await clash.settle('The day', now?.revision, (ifMatch) =>
      ask(api.PUT(url, { params: { path: path(of), header: upon(ifMatch) }, body: next })),
    )
    if (got.data && of === date.value) {
      day.value = got.data
      if (unlaid(got.data)) void lay()
    } else if (got.problem && now) day.value = now
    return got.theirs ? clash.keptTheirs : got.problem
  }
  const { moved, ...history } = useHistory<Step>('mabbin.day', (step, side) => put(step.date, step[side]))

  /** Changes what is wanted; says is what undo will name. */
  const change = (says: string, how: (a: DayAsked) => void) =>
    history.inTurn(async () => {
      const was = copy(asked.value)
      const is = copy(was)
      how(is)
      if (JSON.stringify(was) === JSON.stringify(is)) return
      problem.value = await put(date.value, is)
      if (!problem.value) history.did({ says, date: date.value, was, is })
    })

  /** Takes a way out of a clash. */
  const take = (w: DayWayOut) =>
    change(w.says, (a) => {
      const { code, batch, task, dish, oven, person, minutes } = w
      a.ways = [...(a.ways ?? []), { code, batch, task, dish, oven, person, minutes }]
    })
  const takeBack = (i: number, says: string) =>
    change(`undo: ${says}`, (a) => (a.ways = (a.ways ?? []).filter((_, k) => k !== i)))

  /** Keeps a thing where it is, or somewhere else. */
  const pin = (says: string, bar: DayBar, where: Partial<DayPin>) =>
    change(says, (a) => {
      const s = laid.value?.plan.schedule.find((x) => x.task === bar.task)
      if (!s) return
      const { start_min, person, oven, tier, alternative } = s
      const kept = a.pinned?.find((p) => p.task === bar.task)
      const others = (a.pinned ?? []).filter((p) => p.task !== bar.task)
      a.pinned = [
        ...others,
        { ...kept, task: bar.task, start_min, person, oven, tier, alternative, ...where },
      ]
    })
  const unpin = (bar: DayBar) =>
    change(`${bar.says}: no fixed time`, (a) => {
      a.pinned = (a.pinned ?? []).filter((p) => p.task !== bar.task)
    })

  watch([date, () => kitchen.kitchen?.id], async () => (problem.value = await open()), { immediate: true })
  // another tablet has changed something, or a bake goes otherwise than it was laid
  watch(
    () => watching.changes,
    async () => {
      if (work.on.value || !day.value) return
      await look()
      if (day.value.laid && day.value.stale && !work.on.value) void lay()
    },
  )
  watch(moved, (step) => {
    if (step && step.date !== date.value) date.value = step.date
  })
  return { day, asked, laid, problem, history, work, change, take, takeBack, pin, unpin, lay, stop }
}
