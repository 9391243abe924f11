import { useEventListener, useEventSource, useIntervalFn, useTimeoutFn, useWakeLock } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  ask,
  type CallAnswer,
  type Problem,
  type ReadyByRequest,
  type Rescue,
  type Stage,
  withoutBody,
  type TwoSettings,
  type Watch,
  type WatchCall,
  type WatchedDessert,
  type WatchStart,
} from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from './useKitchen'
import { ring } from './ring'

/** A call with the dessert that it is for: in the oven, out of it, or on its way there. */
export interface Called extends Pick<WatchCall, 'id' | 'text' | 'caution' | 'due_at'> {
  of: Pick<WatchedDessert, 'id' | 'title' | 'oven_id' | 'stages'>
  /** Its place among the calls of a dessert on its way; left out: it is in, or out again. */
  step?: number
  /** Minutes until it is due; below 0 it waits. */
  left: number
}

/** What is in the ovens. The server keeps the time and everything else: this is what it looked like a moment ago. */
export const useWatch = defineStore('watch', () => {
  const kitchen = useKitchen()
  const all = shallowRef<Watch>()
  const problem = ref<Problem>()
  /** The server's time, by this clock's ticking. */
  const now = ref(Date.now())
  let ahead = 0
  useIntervalFn(() => (now.value = Date.now() + ahead), 1000)

  /** Ovens that are asked to be at two settings, and what would serve both. */
  const shared = ref<TwoSettings[]>([])
  /** Asks for them where an oven holds more than one, also with one that would go in next. */
  async function twoSettings(next?: WatchStart): Promise<TwoSettings[]> {
    const inside = desserts.value.filter((w) => !w.out_at && w.oven_id)
    const ovens = [...inside.map((w) => w.oven_id), ...(next ? [next.setting.oven_id] : [])]
    if (new Set(ovens).size === ovens.length) return []
    const got = await ask(
      api.POST('/api/v1/kitchens/{kitchen}/watch/shared', { params: { path: path.value }, body: { next } }),
    )
    return got.data ?? []
  }

  const path = computed(() => ({ kitchen: kitchen.kitchen?.id ?? '' }))
  const newest = newestOnly()
  async function look() {
    if (!kitchen.kitchen) return
    const isNewest = newest()
    const got = await ask(api.GET('/api/v1/kitchens/{kitchen}/watch', { params: { path: path.value } }))
    if (!isNewest()) return
    problem.value = got.problem
    if (!got.data) return
    all.value = got.data
    ahead = Date.parse(got.data.now) - Date.now()
    now.value = Date.now() + ahead
  }
  /** How often something of the kitchen has changed, here or on another tablet. */
  const changes = ref(0)
  function changedNow() {
    changes.value++
    void look()
  }
  // The stream says when to look again, also as it comes back; should it be dead unnoticed, a look now and then does.
  const stream = useEventSource(
    computed(() => kitchen.kitchen && `/api/v1/kitchens/${kitchen.kitchen.id}/watch/live`),
    [],
    { autoReconnect: { delay: 2000 } },
  )
  // A page that is left may be kept for the way back: its line would be one of the few that a browser has.
  useEventListener(window, 'pagehide', () => stream.close())
  useEventListener(window, 'pageshow', (e) => e.persisted && stream.open())
  watch(stream.eventSource, (s) => s?.addEventListener('changed', changedNow), { immediate: true })
  useIntervalFn(() => void look(), 20000)
  /** The line has been down for so long that it is worth a word: it often is for a moment. */
  const down = ref(false)
  const quietMs = 10000
  const silence = useTimeoutFn(() => (down.value = true), quietMs, { immediate: false })
  watch(stream.status, (is) => {
    if (is !== 'OPEN') return silence.isPending.value ? undefined : silence.start()
    silence.stop()
    down.value = false
  })
  watch(() => kitchen.kitchen?.id, look, { immediate: true })

  /** The version of what the log has taught: another one predicts otherwise. */
  const learnt = computed(() => all.value?.learnt)
  const desserts = computed(() => all.value?.desserts ?? [])
  watch(
    () => JSON.stringify(desserts.value.map((w) => [w.id, w.oven_id, w.out_at, w.stages])),
    async () => (shared.value = await twoSettings()),
  )
  /** What waits to be done, what is due first first. */
  const until = (iso: string) => (Date.parse(iso) - now.value) / 60000
  const calls = computed<Called[]>(() =>
    desserts.value
      .flatMap((of) =>
        of.calls
          .filter((c) => c.state === 'waiting')
          .map((c): Called => ({ ...c, of, left: until(c.due_at) })),
      )
      .concat(
        (all.value?.countdowns ?? []).flatMap((w) =>
          w.steps
            .map((x, step): Called => ({
              id: `${w.id}/${step}`,
              text: x.text,
              caution: '',
              due_at: x.at,
              of: { id: w.id, title: w.title, stages: [] },
              step,
              left: until(x.at),
            }))
            .filter((c) => w.steps[c.step!]!.state === 'waiting'),
        ),
      )
      .sort((a, b) => a.left - b.left),
  )
  const countdowns = computed(() => all.value?.countdowns ?? [])
  const snoozeMin = computed(() => all.value?.snooze_min)
  const due = computed(() => calls.value.filter((c) => c.left <= 0))
  const minute = (w: WatchedDessert) => (now.value - Date.parse(w.started_at)) / 60000

  // It rings until it is answered, and the screen stays awake while something is in.
  watch(
    () => Math.floor(now.value / 1000),
    () => {
      const first = due.value[0]
      if (first) ring(-first.left, `${first.text}. ${first.of.title}`)
    },
  )
  const lock = useWakeLock()
  watch(
    () => desserts.value.some((w) => !w.out_at),
    (busy) => {
      if (lock.isSupported.value) void (busy ? lock.request('screen') : lock.release()).catch(() => {})
    },
  )

  function took(w: WatchedDessert | undefined) {
    if (!w || !all.value) return
    newest() // what is being fetched is older
    all.value = {
      ...all.value,
      desserts: [...all.value.desserts.filter((x) => x.id !== w.id), w].sort((a, b) =>
        a.started_at.localeCompare(b.started_at),
      ),
    }
    void look()
  }
  async function start(body: WatchStart) {
    const got = await ask(
      api.POST('/api/v1/kitchens/{kitchen}/watch', { params: { path: path.value }, body }),
    )
    took(got.data)
    return got.problem
  }
  /** Puts a dessert on its way: its calls come from the first thing that is done. */
  async function startCountdown(title: string, ready: ReadyByRequest) {
    const got = await ask(
      withoutBody(
        api.PUT('/api/v1/kitchens/{kitchen}/watch/countdowns/{countdown}', {
          params: { path: { ...path.value, countdown: crypto.randomUUID() } },
          body: { title, ready },
        }),
      ),
    )
    await look()
    return got.problem
  }
  async function deleteCountdown(countdown: string) {
    const got = await ask(
      withoutBody(
        api.DELETE('/api/v1/kitchens/{kitchen}/watch/countdowns/{countdown}', {
          params: { path: { ...path.value, countdown } },
        }),
      ),
    )
    problem.value = got.problem
    await look()
  }
  async function answerStep(countdown: string, step: number, body: CallAnswer) {
    const got = await ask(
      withoutBody(
        api.POST('/api/v1/kitchens/{kitchen}/watch/countdowns/{countdown}/steps/{step}', {
          params: { path: { ...path.value, countdown, step } },
          body,
        }),
      ),
    )
    problem.value = got.problem
    await look()
  }
  const answerCall = (c: Called, body: CallAnswer) =>
    c.step === undefined ? answer(c.of.id, c.id, body) : answerStep(c.of.id, c.step, body)
  async function answer(of: string, call: string, body: CallAnswer) {
    const got = await ask(
      api.POST('/api/v1/kitchens/{kitchen}/watch/{dessert}/calls/{call}', {
        params: { path: { ...path.value, dessert: of, call } },
        body,
      }),
    )
    problem.value = got.problem
    took(got.data)
  }
  async function rescue(of: string, body: { trouble: Trouble; off_min?: number }) {
    return ask<Rescue[]>(
      api.POST('/api/v1/kitchens/{kitchen}/watch/{dessert}/rescue', {
        params: { path: { ...path.value, dessert: of } },
        body,
      }),
    )
  }
  async function change(of: string, stages: Stage[]) {
    const got = await ask(
      api.PUT('/api/v1/kitchens/{kitchen}/watch/{dessert}/stages', {
        params: { path: { ...path.value, dessert: of } },
        body: { stages },
      }),
    )
    took(got.data)
    return got.problem
  }
  async function probe(of: string, place: WatchedDessert['probe']) {
    const got = await ask(
      api.PUT('/api/v1/kitchens/{kitchen}/watch/{dessert}/probe', {
        params: { path: { ...path.value, dessert: of } },
        body: { place },
      }),
    )
    problem.value = got.problem
    took(got.data)
  }
  async function simulate(of: string, body: { speed?: 1 | 10 | 60; door_min?: number }) {
    const got = await ask(
      api.PUT('/api/v1/kitchens/{kitchen}/watch/{dessert}/simulation', {
        params: { path: { ...path.value, dessert: of } },
        body,
      }),
    )
    problem.value = got.problem
    took(got.data)
  }
  /** What was taken off the watch last, without the log: to be taken back by a touch. */
  const gone = ref<WatchedDessert>()
  async function back() {
    const w = gone.value
    if (!w) return
    const got = await ask(
      api.POST('/api/v1/kitchens/{kitchen}/watch/{dessert}', {
        params: { path: { ...path.value, dessert: w.id } },
      }),
    )
    problem.value = got.problem
    if (got.data) gone.value = undefined
    took(got.data)
  }
  async function end(of: string, logged = false) {
    gone.value = logged ? undefined : desserts.value.find((w) => w.id === of)
    const got = await ask(
      withoutBody(
        api.DELETE('/api/v1/kitchens/{kitchen}/watch/{dessert}', {
          params: { path: { ...path.value, dessert: of } },
        }),
      ),
    )
    problem.value = got.problem
    await look()
  }

  return {
    all,
    changes,
    desserts,
    learnt,
    calls,
    due,
    now,
    problem,
    minute,
    shared,
    twoSettings,
    look,
    start,
    answer,
    answerCall,
    snoozeMin,
    answerStep,
    countdowns,
    startCountdown,
    deleteCountdown,
    rescue,
    change,
    probe,
    simulate,
    end,
    gone,
    back,
    down,
  }
})

export type Trouble = 'dark_raw' | 'boils_over' | 'pale' | 'oven_off'
