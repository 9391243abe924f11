import { useEventListener, useLocalStorage } from '@vueuse/core'
import { reactive, ref } from 'vue'

interface Key {
  key: string
  label: string
  does: () => void
}

/** Letters can be switched off. */
export const lettersOn = useLocalStorage('mabbin.letters', true)
export const sheetOpen = ref(false)
const bound = reactive(new Map<string, Key[]>())
/** Keys that somebody changed, by the part of the page and what they do. */
const own = useLocalStorage<Record<string, string>>('mabbin.keys', {})

/** Every key that works now, by the part of the page that it belongs to. */
export const allKeys = bound
export const everywhere = 'Everywhere'

const nameOf = (part: string, k: Key) => `${part}: ${k.label}`
/** The key that does something: the usual one, or one's own. */
export const keyOf = (part: string, k: Key) => own.value[nameOf(part, k)] ?? k.key
export const anyOwn = () => Object.keys(own.value).length > 0
export const asTheyWere = () => (own.value = {})

/** Gives something another key. It says what the key does already, where that would be in the way. */
export function changeKey(part: string, k: Key, to: string): string {
  for (const [other, keys] of bound) {
    if (other !== part && other !== everywhere && part !== everywhere) continue
    const taken = keys.find((x) => x !== k && keyOf(other, x).toLowerCase() === to.toLowerCase())
    if (taken) return `${shownKey(to)} is already used for “${taken.label}”.`
  }
  own.value = { ...own.value, [nameOf(part, k)]: to }
  return ''
}
export const shownKey = (k: string) => (k === ' ' ? 'Space' : k.length === 1 ? k.toUpperCase() : k)

/** Binds keys while a part of the page is shown: the caller calls what it gets back when it goes away. */
export function bindKeys(part: string, keys: Key[]): () => void {
  bound.set(part, keys)
  return () => void bound.delete(part)
}

const inField = (el: EventTarget | null) =>
  el instanceof HTMLElement &&
  (el.isContentEditable || el.matches('input:not([type="checkbox"]), textarea, select, [role="combobox"]'))

/** A dialogue is in front. One that was closed stays in the page, unseen. */
const dialogue = () => [...document.querySelectorAll('.el-dialog')].some((d) => d.checkVisibility())

/** Listens for the whole page. Letters work outside fields only; a dialogue keeps them for itself. */
export function listen() {
  useEventListener('keydown', (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey || inField(e.target) || !lettersOn.value) return
    if (dialogue() && e.key !== '?') return
    const onButton = e.target instanceof HTMLElement && e.target.matches('button, a, summary, input')
    if (onButton && (e.key === ' ' || e.key === 'Enter')) return
    for (const [part, keys] of [...bound].reverse()) {
      const hit = keys.find((k) => keyOf(part, k).toLowerCase() === e.key.toLowerCase())
      if (hit) {
        e.preventDefault()
        hit.does()
        return
      }
    }
  })
}
