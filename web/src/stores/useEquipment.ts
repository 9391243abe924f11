import { until } from '@vueuse/core'
import { defineStore } from 'pinia'
import type { Resources, OwnRow, Problem, Settings } from '@/api/client'
import { useHistory } from './useHistory'
import { useKitchen, type DishBody, type OvenBody } from './useKitchen'

/** What is kept of each kind of thing on the shelf. Nothing: it is not there. */
export interface Kept {
  dish: DishBody
  oven: OvenBody
  fruit: OwnRow
  ingredient: OwnRow
  thickener: OwnRow
  topping: OwnRow
  settings: Settings
  resources: Resources
}
type Thing = keyof Kept

/** A change of one thing: what it was, and what it is. */
interface Step {
  label: string
  thing: Thing
  id: string
  was?: Kept[Thing]
  is?: Kept[Thing]
}

/** Every change of what a kitchen has and knows goes through here, so that each can be undone and done again, after a reload too. */
export const useEquipment = defineStore('equipment', () => {
  const kitchen = useKitchen()

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
    thickener: (id) => kitchen.own.thickeners?.[id],
    topping: (id) => kitchen.own.toppings?.[id],
    settings: () => kitchen.kitchen?.settings,
    resources: () => kitchen.resources?.resources,
  }
  const put: { [T in Thing]: (id: string, is: Kept[T] | undefined) => Promise<Problem | undefined> } = {
    dish: kitchen.setDish,
    oven: kitchen.setOven,
    fruit: (id, is) => kitchen.setOwn('fruit', id, is),
    ingredient: (id, is) => kitchen.setOwn('ingredient', id, is),
    thickener: (id, is) => kitchen.setOwn('thickener', id, is),
    topping: (id, is) => kitchen.setOwn('topping', id, is),
    settings: async (_, is) => is && kitchen.setSettings(is),
    resources: async (_, is) => is && kitchen.setResources(is),
  }
  async function putStep(s: Step, to: 'was' | 'is') {
    await until(() => kitchen.ready).toBe(true) // what is still being loaded would take the place of what is put
    return (put[s.thing] as (id: string, x: Kept[Thing] | undefined) => Promise<Problem | undefined>)(
      s.id,
      s[to],
    )
  }

  const { moved: touched, ...history } = useHistory<Step>('mabbin.equipment', putStep)

  /** Changes one thing, or takes it away; says is what undo will name. It answers with what is wrong. */
  const change = <T extends Thing>(label: string, thing: T, id: string, is: Kept[T] | undefined) =>
    history.inTurn(() => changeNow(label, thing, id, is))
  async function changeNow<T extends Thing>(label: string, thing: T, id: string, is: Kept[T] | undefined) {
    const step = JSON.parse(JSON.stringify({ label, thing, id, was: now[thing](id), is })) as Step
    const wrong = await putStep(step, 'is')
    if (!wrong) history.did(step)
    return wrong
  }

  return { ...history, touched, change }
})
