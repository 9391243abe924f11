import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

interface OwnThingAsked {
  name: string
  /** What it can be like; left out: every fruit and ingredient. */
  among?: readonly { key: string; name: string }[]
  /** What is done with it once it is known. */
  then: (key: string) => void
}

/** The question for what the larder does not know. It stands above every view: the list it was met in may be redrawn by the answer. */
export const useOwnIngredient = defineStore('own-thing', () => {
  const asked = shallowRef<OwnThingAsked>()
  const ask = (what: OwnThingAsked) => (asked.value = what)
  return { asked, ask }
})
