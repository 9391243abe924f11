import { createI18n } from 'vue-i18n'
import { english, units } from './reading'

/* Every text is its own key, in English: `npm run texts` collects them in en.json, those of the page and those of the core,
   and a translation is a file like it. What the core says comes with its values and is read by asRead. */

/** A text in the kitchen's English, without touching the names of what is put into it. */
const inEnglish = (text: string) =>
  units.english === 'us'
    ? text.replace(/\{[^}]*\}|[^{]+/g, (part) => (part.startsWith('{') ? part : english(part)))
    : text

declare global {
  interface Window {
    /** Where a test looks at which texts were asked for. */
    textsSeen?: Set<string>
  }
}

const messages: Record<string, Record<string, string>> = { en: {} }

const found = (translated: Record<string, string>, text: string) => {
  window.textsSeen?.add(text)
  return translated[text] ?? inEnglish(text)
}

export const i18n = createI18n({
  legacy: false,
  locale: 'en',
  messages,
  messageResolver: (translated, text) => found(translated as Record<string, string>, text),
})

/** A text in the kitchen's words, its places left open. */
export const worded = (text: string) => found(messages[i18n.global.locale.value] ?? {}, text)

/** A text in the kitchen's words, with values in its places: t('{done} of {all} weighed', { done, all }). */
export const t = i18n.global.t

/** Marks a text that is kept as it is, and goes through t where it is shown. */
export const text = <T extends string>(english: T): T => english
