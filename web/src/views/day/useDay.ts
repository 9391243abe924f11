import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import {
  api,
  ask,
  upon,
  type DayOrders,
  type DayBar,
  type StoredDay,
  type DaySchedule,
  type DayPin,
  type DayRemedy,
  type Problem,
} from '@/api/client'
import { useClash } from '@/stores/useClash'
import { useHistory } from '@/stores/useHistory'
import { useKitchen } from '@/stores/useKitchen'
import { useWatch } from '@/stores/useWatch'
import { useWork } from '@/stores/useWork'

/** A change of what is wanted of a day. */
interface Step {
  label: string
  date: string
  was: DayOrders
  is: DayOrders
}

/** It is wanted otherwise than it is planned, or not planned at all. */
const unlaid = (d: StoredDay) => d.request.orders.length > 0 && (!d.schedule || d.stale)
const copy = <T>(x: T): T => JSON.parse(JSON.stringify(x)) as T

/** One day of the kitchen: what is wanted, and how it is planned. Every change is kept, planned again, and can be undone. */
export function useDay(date: Ref<string>) {
  const kitchen = useKitchen()
  const clash = useClash()
  const watching = useWatch()
  const work = useWork()
  const day = shallowRef<StoredDay>()
  const problem = ref<Problem>()
  const schedule = computed<DaySchedule | undefined>(() => day.value?.schedule)
  const request = computed<DayOrders>(() => day.value?.request ?? { orders: [] })
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
  /** Opens the date: what is wanted, planned if it is not yet. */
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
        api.POST(`${url}/schedule`, {
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
  /** Stops the planning: the best plan until then is kept. */
  async function stop() {
    work.stop()
    problem.value = await look()
  }

  async function put(of: string, next: DayOrders): Promise<Problem | undefined> {
    const now = day.value?.date === of ? day.value : undefined
    if (now) day.value = { ...now, request: next }
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
  const change = (label: string, how: (a: DayOrders) => void) =>
    history.inTurn(async () => {
      const was = copy(request.value)
      const is = copy(was)
      how(is)
      if (JSON.stringify(was) === JSON.stringify(is)) return
      problem.value = await put(date.value, is)
      if (!problem.value) history.did({ label, date: date.value, was, is })
    })

  /** Takes a remedy of a clash. */
  const take = (w: DayRemedy) =>
    change(w.text, (a) => {
      const { code, batch, task, dish, oven, person, minutes } = w
      a.remedies = [...(a.remedies ?? []), { code, batch, task, dish, oven, person, minutes }]
    })
  const takeBack = (i: number, label: string) =>
    change(`undo: ${label}`, (a) => (a.remedies = (a.remedies ?? []).filter((_, k) => k !== i)))

  /** Keeps a thing where it is, or somewhere else. */
  const pin = (label: string, bar: DayBar, where: Partial<DayPin>) =>
    change(label, (a) => {
      const s = schedule.value?.plan.schedule.find((x) => x.task === bar.task)
      if (!s) return
      const { start_min, person, oven, tier, alternative } = s
      const stored = a.pinned?.find((p) => p.task === bar.task)
      const others = (a.pinned ?? []).filter((p) => p.task !== bar.task)
      a.pinned = [
        ...others,
        { ...stored, task: bar.task, start_min, person, oven, tier, alternative, ...where },
      ]
    })
  /** Begins a task later. */
  const later = (task: string, label: string, minute: number) =>
    change(label, (a) => {
      const s = schedule.value?.plan.schedule.find((x) => x.task === task)
      if (!s) return
      const { person, oven, tier, alternative } = s
      const others = (a.pinned ?? []).filter((p) => p.task !== task)
      a.pinned = [...others, { task, start_min: minute, person, oven, tier, alternative }]
    })
  const unpin = (bar: DayBar) =>
    change(`${bar.text}: no fixed time`, (a) => {
      a.pinned = (a.pinned ?? []).filter((p) => p.task !== bar.task)
    })

  watch([date, () => kitchen.kitchen?.id], async () => (problem.value = await open()), { immediate: true })
  /** Something has changed that was not looked at, for the day was being planned. */
  let unseen = false
  // another tablet has changed something, or a bake goes otherwise than it was planned
  watch([() => watching.changes, work.on], async ([changes], [before]) => {
    unseen ||= changes !== before
    if (!unseen || work.on.value || !day.value) return
    unseen = false
    await look()
    if (day.value?.schedule && day.value.stale && !work.on.value) void lay()
  })
  watch(moved, (step) => {
    if (step && step.date !== date.value) date.value = step.date
  })
  return {
    day,
    request,
    schedule,
    problem,
    history,
    work,
    change,
    take,
    takeBack,
    pin,
    later,
    unpin,
    lay,
    stop,
  }
}
