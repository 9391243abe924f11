import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { OwnRow, Problem, Settings } from '@/api/client'
import { useKitchen, type DishBody, type OvenBody } from './useKitchen'
import { t } from '@/texts'

/** What is kept of each kind of thing on the shelf. Nothing: it is not there. */
export interface Kept {
  dish: DishBody
  oven: OvenBody
  fruit: OwnRow
  ingredient: OwnRow
  settings: Settings
}
type Thing = keyof Kept

/** A change of one thing: what it was, and what it is. */
interface Step {
  says: string
  thing: Thing
  id: string
  was?: Kept[Thing]
  is?: Kept[Thing]
}
const mostSteps = 100

/** Every change of what a kitchen has and knows goes through here, so that each can be undone and done again, after a reload too. */
export const useShelf = defineStore('shelf', () => {
  const kitchen = useKitchen()
  const undos = useSessionStorage<Step[]>('mabbin.shelf.undos', [])
  const redos = useSessionStorage<Step[]>('mabbin.shelf.redos', [])
  const problem = ref<Problem>()
  /** What was changed last, by undo and redo too: its page goes there. */
  const touched = ref<{ thing: Thing; id: string }>()
  const said = ref('')

  const now: { [T in Thing]: (id: string) => Kept[T] | undefined } = {
    dish: (id) => {
      const d = kitchen.dishes.find((x) => x.id === id)
      return d && { name: d.name, count: d.count, dish: d.dish }
    },
    oven: (id) => {
      const o = kitchen.ovens.find((x) => x.id === id)
      return o && { name: o.name, oven: o.oven }
    },
    fruit: (id) => kitchen.own.fruits?.[id],
    ingredient: (id) => kitchen.own.ingredients?.[id],
    settings: () => kitchen.kitchen?.settings,
  }
  const put: { [T in Thing]: (id: string, is: Kept[T] | undefined) => Promise<Problem | undefined> } = {
    dish: kitchen.setDish,
    oven: kitchen.setOven,
    fruit: (id, is) => kitchen.setOwn('fruit', id, is),
    ingredient: (id, is) => kitchen.setOwn('ingredient', id, is),
    settings: async (_, is) => is && kitchen.setSettings(is),
  }
  const putStep = (s: Step, to: 'was' | 'is') =>
    (put[s.thing] as (id: string, x: Kept[Thing] | undefined) => Promise<Problem | undefined>)(s.id, s[to])

  /** One step after the other: a key pressed twice is two steps, whatever the first still waits for. */
  let last: Promise<unknown> = Promise.resolve()
  function inTurn<R>(step: () => Promise<R>): Promise<R> {
    const mine = last.then(step)
    last = mine.catch(() => undefined)
    return mine
  }

  /** Changes one thing, or takes it away; says is what undo will name. It answers with what is wrong. */
  const change = <T extends Thing>(says: string, thing: T, id: string, is: Kept[T] | undefined) =>
    inTurn(() => changeNow(says, thing, id, is))
  async function changeNow<T extends Thing>(says: string, thing: T, id: string, is: Kept[T] | undefined) {
    const step = JSON.parse(JSON.stringify({ says, thing, id, was: now[thing](id), is })) as Step
    problem.value = undefined
    const wrong = await putStep(step, 'is')
    if (wrong) return wrong
    undos.value = [...undos.value, step].slice(-mostSteps)
    redos.value = []
    said.value = `${says}.`
    return undefined
  }

  async function move(from: typeof undos, to: typeof redos, side: 'was' | 'is', word: string) {
    const step = from.value.at(-1)
    if (!step) return
    problem.value = await putStep(step, side)
    if (problem.value) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, step]
    said.value = `${word}: ${step.says}.`
    touched.value = { thing: step.thing, id: step.id }
  }
  const undo = () => inTurn(() => move(undos, redos, 'was', t('Undone')))
  const redo = () => inTurn(() => move(redos, undos, 'is', t('Done again')))

  return { undos, redos, problem, touched, said, change, undo, redo }
})
