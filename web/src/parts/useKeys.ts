import { useEventListener, useLocalStorage } from '@vueuse/core'
import { reactive, ref } from 'vue'

interface Key {
  key: string
  says: string
  does: () => void
}

/** Letters can be switched off. */
export const lettersOn = useLocalStorage('mabbin.letters', true)
export const sheetOpen = ref(false)
const bound = reactive(new Map<string, Key[]>())

/** Every key that works now, by the part of the page that it belongs to. */
export const allKeys = bound

/** Binds keys while a part of the page is shown: the caller calls what it gets back when it goes away. */
export function bindKeys(part: string, keys: Key[]): () => void {
  bound.set(part, keys)
  return () => void bound.delete(part)
}

const inField = (el: EventTarget | null) =>
  el instanceof HTMLElement &&
  (el.isContentEditable || el.matches('input, textarea, select, [role="combobox"], [role="slider"]'))

/** Listens for the whole page. Letters work outside fields only; a dialogue keeps them for itself. */
export function listen() {
  useEventListener('keydown', (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey || inField(e.target) || !lettersOn.value) return
    if (document.querySelector('.el-dialog:not([style*="display: none"])') && e.key !== '?') return
    const onButton = e.target instanceof HTMLElement && e.target.matches('button, a')
    if (onButton && (e.key === ' ' || e.key === 'Enter')) return
    for (const keys of [...bound.values()].reverse()) {
      const hit = keys.find((k) => k.key.toLowerCase() === e.key.toLowerCase())
      if (hit) {
        e.preventDefault()
        hit.does()
        return
      }
    }
  })
}
