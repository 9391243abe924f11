import { useLocalStorage, useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  ask,
  type Answer,
  type Band,
  type BalanceRequest,
  type FieldProblem,
  type Problem,
  type Setting,
  type Verdict,
  type Version,
} from '@/api/client'
import { useKitchen } from '@/parts/useKitchen'

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

interface Past {
  says: string
  draft: Draft
}

const copy = <T>(x: T): T => JSON.parse(JSON.stringify(x)) as T
/** A drag is one step of undo: its changes follow each other within this time. */
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

  const faults = computed<FieldProblem[]>(() => problem.value?.errors ?? [])
  /** What is wrong with a field, by its pointer into the request. */
  const faultAt = (pointer: string) => faults.value.find((f) => f.pointer === `#${pointer}`)?.detail ?? ''
  const unsaved = computed(() => draft.value !== null && JSON.stringify(draft.value) !== saved.value)

  /** Changes the draft. says is what undo will name; a drag's changes are one step. */
  function change(says: string, how: (d: Draft) => void, drag = false) {
    if (!draft.value) return
    const now = performance.now()
    if (!drag || says !== lastTag || now - lastAt > oneStepMs) {
      undos.value.push({ says, draft: copy(draft.value) })
      if (undos.value.length > mostUndos) undos.value.shift()
    }
    lastTag = says
    lastAt = now
    redos.value = []
    const next = copy(draft.value)
    how(next)
    draft.value = next
  }

  function step(from: typeof undos, to: typeof undos) {
    const past = from.value.pop()
    if (!past || !draft.value) return
    to.value.push({ says: past.says, draft: copy(draft.value) })
    draft.value = past.draft
    lastTag = ''
  }
  const undo = () => step(undos, redos)
  const redo = () => step(redos, undos)

  /** How many desserts have been put here. */
  const opened = ref(0)
  /** Puts another dessert on the Bench. */
  function open(d: Draft, isSaved: boolean) {
    opened.value++
    steam.value = undefined
    const next = copy(d)
    delete next.request.steamed_off_g // of another bake: this one works out its own
    draft.value = next
    saved.value = isSaved ? JSON.stringify(draft.value) : ''
    undos.value = []
    redos.value = []
  }

  function openCard(id: string, name: string, v: Version) {
    open({ name, cardId: id, version: v.number, request: v.request, setting: v.setting }, true)
  }

  function clear() {
    undos.value = []
    steam.value = undefined
    draft.value = null
    answer.value = undefined
    problem.value = undefined
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
