import { useLocalStorage, useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  ask,
  faultAt as faultIn,
  type Answer,
  type Band,
  type BalanceRequest,
  type FieldProblem,
  type Problem,
  type Setting,
  type Verdict,
  type Version,
} from '@/api/client'
import { heldNow } from '@/parts/hold'
import { useKitchen } from '@/parts/useKitchen'
import { t } from '@/texts'

/** What is on the Bench: the request as it would be saved, and where it came from. */
export interface Draft {
  name: string
  cardId?: string
  version?: number
  request: BalanceRequest
  setting: Setting
  /** Of a card that came in from elsewhere: what would mend it. */
  written?: {
    changes: NonNullable<Verdict['changes']>
    mended: BalanceRequest
    own: BalanceRequest
    wrong: number
    /** What Mabbin's own way comes to. */
    brief: { fruit_g: number; sugar_g: number; thickener_g: number; topping_g: number; band: Band }
  }
}

/** What was on the Bench before a step; nothing: the Bench was empty. */
interface Past {
  says: string
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
  /** What steams off, by the bake of this dessert, g. */
  const steam = ref<number>()
  // a reload takes no step back away
  const undos = useSessionStorage<Past[]>('mabbin.undos', [])
  const redos = useSessionStorage<Past[]>('mabbin.redos', [])
  let lastTag = ''
  let lastAt = 0
  let lastHold: number | undefined

  const faults = computed<FieldProblem[]>(() => problem.value?.errors ?? [])
  /** What is wrong with a field, by its pointer into the request. */
  const faultAt = (pointer: string) => faultIn(problem.value, pointer)
  const unsaved = computed(() => draft.value !== null && JSON.stringify(draft.value) !== saved.value)

  function remember(past: Past) {
    undos.value.push(past)
    if (undos.value.length > mostUndos) undos.value.shift()
    redos.value = []
  }

  /** Changes the draft. says is what undo will name; what a handle does while it is held is one step, however long it takes. */
  function change(says: string, how: (d: Draft) => void, handle = false) {
    if (!draft.value) return
    const now = performance.now()
    const held = heldNow()
    const goesOn = says === lastTag && held === lastHold && (held !== undefined || now - lastAt <= oneStepMs)
    if (!handle || !goesOn) remember({ says, draft: copy(draft.value) })
    lastTag = says
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
  function put(d: Draft | null, kept: string) {
    opened.value++
    steam.value = undefined
    draft.value = d
    saved.value = kept
    if (d) return
    answer.value = undefined
    problem.value = undefined
  }
  /** Puts another dessert on the Bench, or none; undo brings the one before back. */
  function replace(says: string, d: Draft | null, isSaved: boolean) {
    remember({ says, draft: copy(draft.value), saved: saved.value })
    put(d, isSaved ? JSON.stringify(d) : '')
  }
  function open(d: Draft, isSaved: boolean) {
    const next = copy(d)
    delete next.request.steamed_off_g // of another bake: this one works out its own
    replace(t('{n}, put on the Bench', { n: d.name || t('a dessert') }), next, isSaved)
  }

  function openCard(id: string, name: string, v: Version) {
    open({ name, cardId: id, version: v.number, request: v.request, setting: v.setting }, true)
  }

  function clear() {
    if (draft.value) replace(t('{n}, off the Bench', { n: draft.value.name || t('a dessert') }), null, false)
  }

  /** Notes that the draft is kept as that version of a card. */
  function keptAs(cardId: string, version: number | undefined) {
    if (!draft.value) return
    draft.value = { ...draft.value, cardId, version, written: undefined }
    saved.value = JSON.stringify(draft.value)
  }

  /** The request with the kitchen's own and, as soon as it is known, the steam of its bake. */
  const asked = computed(() => {
    if (!draft.value) return null
    const r = kitchen.ours(draft.value.request)
    return steam.value === undefined ? r : { ...r, steamed_off_g: steam.value }
  })
  let asking = false
  let again = false
  async function calculate() {
    if (asking) {
      again = true
      return
    }
    asking = true
    do {
      again = false
      if (!asked.value) break
      const got = await ask(api.POST('/api/v1/balance', { body: asked.value }))
      if (!draft.value) break
      problem.value = got.problem
      if (got.data) answer.value = got.data
    } while (again)
    asking = false
    if (problem.value?.status === 0) setTimeout(() => void calculate(), 3000) // the server is away: the last answer stays
  }
  watch(
    () => JSON.stringify(asked.value),
    () => void calculate(),
    { immediate: true },
  )

  return {
    draft,
    answer,
    steam,
    asked,
    opened,
    problem,
    faults,
    faultAt,
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
