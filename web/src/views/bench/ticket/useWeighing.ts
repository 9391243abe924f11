import { useEventSource, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import {
  api,
  ask,
  reasonOf,
  type Bowl,
  type Doing,
  type ScaleChange,
  type ScaleReading,
  type WeighedLine,
} from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { play } from '@/stores/ring'
import { useDessert } from '@/stores/useDessert'

/** A line of the ticket, to be weighed. */
export interface ToWeigh {
  id: string
  bowl: Bowl
  line: Bowl['lines'][number]
}

/** What is kept of a weighing over a reload. */
interface Kept {
  /** The dessert that was weighed: another one begins afresh. */
  of: string
  on: boolean
  done: string[]
  checked: string[]
  shown: Record<string, number>
}

/** The weigh-off: which lines of the ticket are in their bowls, ticked by a key, a touch, or the scale. It survives a reload. */
export const useWeighing = defineStore('weighing', () => {
  const dessert = useDessert()
  const kitchen = useKitchen()
  const stored = useLocalStorage<Kept>('mabbin.weighing', {
    of: '',
    on: false,
    done: [],
    checked: [],
    shown: {},
  })
  const byScale = useLocalStorage('mabbin.scale', false)

  const lines = computed<ToWeigh[]>(() =>
    (dessert.answer?.ticket ?? []).flatMap((bowl) =>
      bowl.lines.map((line) => ({ id: `${bowl.key}/${line.key}`, bowl, line })),
    ),
  )
  const ticket = computed(() => JSON.stringify(dessert.draft?.request ?? ''))
  const done = computed(() => new Set(stored.value.of === ticket.value ? stored.value.done : []))
  const next = computed(() => lines.value.find((l) => !done.value.has(l.id)))
  const on = computed({
    get: () => stored.value.on && !!dessert.answer,
    set: (is) => {
      if (is && stored.value.of !== ticket.value) afresh()
      stored.value.on = is
    },
  })
  function afresh() {
    stored.value = { of: ticket.value, on: stored.value.on, done: [], checked: [], shown: {} }
  }
  function tick(id: string | undefined) {
    if (!id) return
    if (stored.value.of !== ticket.value) afresh()
    if (done.value.has(id)) {
      stored.value.done = stored.value.done.filter((d) => d !== id)
      delete stored.value.shown[id]
      return
    }
    if (byScale.value && reading.value?.settled && id === next.value?.id)
      stored.value.shown[id] = reading.value.g
    stored.value.done.push(id)
  }
  const untick = () => tick(stored.value.done.at(-1))
  /** A check by its words: a ticket may have one of a kind twice. */
  const checkId = (c: Doing) => c.code + (typeof c.text === 'string' ? c.text : JSON.stringify(c.text))
  function check(c: Doing) {
    const id = checkId(c)
    const all = stored.value.checked
    stored.value.checked = all.includes(id) ? all.filter((x) => x !== id) : [...all, id]
  }
  const isChecked = (c: Doing) =>
    stored.value.of === ticket.value && stored.value.checked.includes(checkId(c))
  /** What the scale showed, for the log. */
  const weighed = computed<WeighedLine[]>(() =>
    stored.value.of !== ticket.value
      ? []
      : lines.value.flatMap((l) => {
          const g = stored.value.shown[l.id]
          return g === undefined
            ? []
            : [
                {
                  bowl: l.bowl.key,
                  key: l.line.key,
                  name: l.line.name,
                  planned_g: l.line.g,
                  g: Math.max(0, g),
                },
              ]
        }),
  )

  // The scale: it is reported what comes next, and a line is ticked when it stands still at the right weight.
  const reading = ref<ScaleReading>()
  const trouble = ref('')
  const live = computed(() => on.value && byScale.value && !!kitchen.kitchen)
  const stream = useEventSource(
    computed(() => (live.value ? `/api/v1/kitchens/${kitchen.kitchen!.id}/scale/live` : undefined)),
    [],
    { autoReconnect: { delay: 2000 } },
  )
  watch(live, (is) => {
    if (!is) {
      stream.close()
      reading.value = undefined
    }
  })
  /** It has shown less than is wanted since the last line: what it showed before belongs to that one. */
  let fresh = false
  async function scale(body: ScaleChange) {
    if (!kitchen.kitchen) return
    const got = await ask(
      api.PUT('/api/v1/kitchens/{kitchen}/scale', {
        params: { path: { kitchen: kitchen.kitchen.id } },
        body,
      }),
    )
    trouble.value = got.problem ? reasonOf(got.problem) : ''
    if (got.data) took(got.data)
  }
  watch(
    [live, () => next.value?.id, () => next.value?.line.g],
    ([is, id], [was, before]) => {
      if (!is) return
      const another = !was || id !== before
      if (another) fresh = false
      void scale({ wanted_g: next.value?.line.g ?? 0, tare: another })
    },
    { immediate: true },
  )
  function took(r: ScaleReading) {
    reading.value = r
    const wanted = next.value?.line.g
    if (wanted === undefined || Math.abs(r.wanted_g - wanted) > 1e-6) return
    if (r.verdict === 'short') fresh = true
    if (fresh && r.settled && r.verdict === 'right') {
      fresh = false
      play('bell', 0.15)
      tick(next.value?.id)
    }
  }
  // each event counts, also one that says the same as the last
  watch(stream.eventSource, (from) =>
    from?.addEventListener('reading', (e) => {
      if (live.value) took(JSON.parse((e as MessageEvent<string>).data) as ScaleReading)
    }),
  )

  return {
    lines,
    done,
    next,
    on,
    tick,
    untick,
    afresh,
    check,
    isChecked,
    weighed,
    byScale,
    reading,
    trouble,
    scale,
  }
})
