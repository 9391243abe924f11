import { useSessionStorage } from '@vueuse/core'
import { ref, shallowRef } from 'vue'
import type { Problem } from '@/api/client'

const mostSteps = 100

/** Changes of saved things, each with what it was and what it is, so that they can be undone and done again, after a reload too. */
export function useHistory<S extends { label: string }>(
  key: string,
  put: (step: S, side: 'was' | 'is') => Promise<Problem | undefined>,
) {
  const undos = useSessionStorage<S[]>(`${key}.undos`, [])
  const redos = useSessionStorage<S[]>(`${key}.redos`, [])
  const problem = ref<Problem>()
  /** What was done last, in words. */
  const said = ref('')
  /** The step that was undone or done again last: its page goes there. */
  const moved = shallowRef<S>()

  /** One step after the other: a key pressed twice is two steps, whatever the first still waits for. */
  let last: Promise<unknown> = Promise.resolve()
  function inTurn<R>(step: () => Promise<R>): Promise<R> {
    const mine = last.then(step)
    last = mine.catch(() => undefined)
    return mine
  }

  /** Notes a change that is made. */
  function did(step: S) {
    undos.value = [...undos.value, JSON.parse(JSON.stringify(step)) as S].slice(-mostSteps)
    redos.value = []
    problem.value = undefined
    said.value = /[.?!]$/.test(step.label) ? step.label : `${step.label}.`
  }
  async function move(from: typeof undos, to: typeof redos, side: 'was' | 'is') {
    const step = from.value.at(-1)
    if (!step) return
    problem.value = await put(step, side)
    if (problem.value) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, step]
    const what = step.label.replace(/\.$/, '')
    said.value = side === 'was' ? `Undone: ${what}.` : `Redone: ${what}.`
    moved.value = { ...step }
  }
  const undo = () => inTurn(() => move(undos, redos, 'was'))
  const redo = () => inTurn(() => move(redos, undos, 'is'))

  /** Takes its words off the screen; the steps stay. */
  const forget = () => (said.value = '')

  return { undos, redos, problem, said, moved, inTurn, did, undo, redo, forget }
}
