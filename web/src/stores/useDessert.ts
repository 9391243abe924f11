import { useLocalStorage, useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  faultAt as faultIn,
  type Answer,
  type BalanceRequest,
  type FieldProblem,
  type Original,
  type PlanAnswer,
  type Problem,
  type Setting,
  type Verdict,
  type Version,
} from '@/api/client'
import { heldNow } from './hold'
import { useKitchen } from './useKitchen'

/** What is on the Bench: the request as it would be saved, and where it came from. */
export interface Draft {
  name: string
  cardId?: string
  version?: number
  request: BalanceRequest
  setting: Setting
  /** How a recipe that came in was made, in its writer's own words. */
  original?: Original
  /** Of a card that came in from elsewhere: what would mend it. */
  written?: {
    changes: NonNullable<Verdict['changes']>
    mended: BalanceRequest
    own: BalanceRequest
    wrong: number
    /** What Mabbin's own way comes to. */
    weighed: string
  }
}

/** What was on the Bench before a step; nothing: the Bench was empty. */
interface Past {
  label: string
  draft: Draft | null
  /** What of it was kept as a card, where the step put another dessert there. */
  saved?: string
}

const copy = <T>(x: T): T => JSON.parse(JSON.stringify(x)) as T
/** Steps by keys are one step of undo while they follow each other within this time. */
const oneStepMs = 900
/** A draft is some 2 kB, and a tab may keep 5 MB. */
const mostUndos = 100

/** The dessert on the Bench. It asks the core for every number, the newest request last, one at a time. */
export const useDessert = defineStore('dessert', () => {
  const kitchen = useKitchen()
  const draft = useLocalStorage<Draft | null>('mabbin.bench', null, {
    serializer: { read: JSON.parse, write: JSON.stringify },
  })
  const saved = useLocalStorage<string>('mabbin.bench.saved', '')
  const answer = shallowRef<Answer>()
  const problem = ref<Problem>()
  /** What steams off, by the ledger with the bake of this dessert, g. */
  const steam = ref<number>()
  // a reload takes no step back away
  const undos = useSessionStorage<Past[]>('mabbin.undos', [])
  const redos = useSessionStorage<Past[]>('mabbin.redos', [])
  let lastTag = ''
  let lastAt = 0
  let lastHold: number | undefined

  const faults = computed<FieldProblem[]>(() => problem.value?.errors ?? [])
  /** What is wrong with a field, by its pointer into the request. */
  const faultAt = (pointer: string) => faultIn(problem.value, `/request${pointer}`)
  /** What is wrong with a part of the setting. */
  const settingFault = (pointer: string) => faultIn(problem.value, `/setting${pointer}`)
  const unsaved = computed(() => draft.value !== null && JSON.stringify(draft.value) !== saved.value)

  function remember(past: Past) {
    undos.value.push(past)
    if (undos.value.length > mostUndos) undos.value.shift()
    redos.value = []
  }

  /** Changes the draft. says is what undo will name; what a handle does while it is held is one step, however long it takes. */
  function change(label: string, how: (d: Draft) => void, handle = false) {
    if (!draft.value) return
    const now = performance.now()
    const held = heldNow()
    const goesOn = label === lastTag && held === lastHold && (held !== undefined || now - lastAt <= oneStepMs)
    if (!handle || !goesOn) remember({ label, draft: copy(draft.value) })
    lastTag = label
    lastAt = now
    lastHold = held
    const next = copy(draft.value)
    how(next)
    draft.value = next
  }

  function step(from: typeof undos, to: typeof undos) {
    const past = from.value.pop()
    if (!past) return
    const other = past.saved !== undefined
    to.value.push({ ...past, draft: copy(draft.value), ...(other ? { saved: saved.value } : {}) })
    lastTag = ''
    if (other) put(past.draft, past.saved!)
    else draft.value = past.draft
  }
  const undo = () => step(undos, redos)
  const redo = () => step(redos, undos)

  /** How many desserts have been put here. */
  const opened = ref(0)
  function put(d: Draft | null, stored: string) {
    opened.value++
    steam.value = undefined
    draft.value = d
    saved.value = stored
    if (d) return
    answer.value = undefined
    problem.value = undefined
  }
  /** Puts another dessert on the Bench, or none; undo brings the one before back. */
  function replace(label: string, d: Draft | null, isSaved: boolean) {
    remember({ label, draft: copy(draft.value), saved: saved.value })
    put(d, isSaved ? JSON.stringify(d) : '')
  }
  function open(d: Draft, isSaved: boolean) {
    const next = copy(d)
    delete next.request.steamed_off_g // of another bake: this one works out its own
    replace(`${d.name || 'a dessert'}, opened on the Bench`, next, isSaved)
  }

  function openCard(id: string, name: string, v: Version) {
    open(
      {
        name,
        cardId: id,
        version: v.number,
        request: v.request,
        setting: v.setting,
        original: v.original,
      },
      true,
    )
  }

  function clear() {
    if (draft.value) replace(`${draft.value.name || 'a dessert'}, removed from the Bench`, null, false)
  }

  /** Notes that the draft is kept as that version of a card. */
  function keptAs(cardId: string, version: number | undefined) {
    if (!draft.value) return
    draft.value = { ...draft.value, cardId, version, written: undefined }
    saved.value = JSON.stringify(draft.value)
  }

  /** The request with the kitchen's own. */
  const written = computed(() => (draft.value ? kitchen.ours(draft.value.request) : null))
  /** The request with the kitchen's own and, as soon as it is known, the steam of its bake. */
  const asked = computed(() => {
    const r = written.value
    return !r || steam.value === undefined ? r : { ...r, steamed_off_g: steam.value }
  })
  /** Takes what the Bench was answered. */
  function take(a: { data?: PlanAnswer; problem?: Problem }) {
    if (!draft.value) return
    problem.value = a.problem
    if (!a.data) return
    answer.value = a.data.balance
    steam.value = a.data.balance.ledger.steamed_off_g
  }

  return {
    draft,
    answer,
    steam,
    asked,
    written,
    take,
    opened,
    problem,
    faults,
    faultAt,
    settingFault,
    unsaved,
    undos,
    redos,
    change,
    undo,
    redo,
    open,
    openCard,
    clear,
    keptAs,
  }
})
