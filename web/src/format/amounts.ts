import { reactive } from 'vue'
import type { FigureForm, FigureReading, Settings } from '@/api/client'

/* Figures that stand in a frame of the page, written by the forms that the server names (server/render/forms.go). Sentences
   come finished from there; e2e/reading_test.go holds one to the other. */

export type Reading = Required<Pick<Settings, 'weights' | 'heat' | 'lengths' | 'cup' | 'english' | 'decimal'>>

/** How the kitchen reads. */
export const units = reactive<Reading>({
  weights: 'g',
  heat: 'c',
  lengths: 'cm',
  cup: 'metric',
  english: 'uk',
  decimal: 'point',
})

/** How figures are written: by the forms that the server names, until then as they come. */
const reading = reactive<FigureReading>({ mark: '.', forms: {}, dials: {} })
export const readBy = (now: FigureReading) => Object.assign(reading, now)

/** A figure that is written already, with the kitchen's decimal mark. */
export const marked = (figure: string) => figure.replace('.', reading.mark)

const away = (x: number) => Math.sign(x) * Math.round(Math.abs(x))
/** To so many digits after the point at most, or always with all of them. */
function digits(x: number, most: number, always = false): string {
  const p = 10 ** most
  return marked(always ? x.toFixed(most) : String(away(x * p) / p || 0))
}
/** In so many parts of one, cancelled down: 1 3/8. There is at least one part of it. */
function fraction(x: number, parts: number): string {
  if (x < 0) return `-${fraction(-x, parts)}`
  const n = Math.max(1, Math.round(x * parts))
  const whole = Math.floor(n / parts)
  let [rest, of] = [n % parts, parts]
  for (; rest && rest % 2 === 0; rest /= 2) of /= 2
  return [whole || (rest ? '' : '0'), rest && `${rest}/${of}`].filter(Boolean).join(' ')
}

type Range = FigureForm[number]
const asItIs: Range = {
  below: 0,
  times: 1,
  plus: 0,
  nearest: 0,
  digits: 1,
  always: false,
  parts: 0,
  marks: [],
  before: '',
  unit: '',
}
const rangeOf = (form: FigureForm | undefined, x: number) =>
  form?.find((r) => !r.below || Math.abs(x) < r.below) ?? asItIs
const markOf = (r: Range, x: number) =>
  r.marks.length ? r.marks.reduce((a, b) => (Math.abs(b.c - x) < Math.abs(a.c - x) ? b : a)) : undefined
/** A value in the unit that it is shown in. */
function shown(r: Range, x: number): number {
  const v = x * r.times + r.plus
  return markOf(r, x)?.mark ?? (r.nearest ? away(v / r.nearest) * r.nearest : v)
}
function written(form: FigureForm | undefined, x: number) {
  const r = rangeOf(form, x)
  const v = shown(r, x)
  const figure = markOf(r, x)?.text ?? (r.parts ? fraction(v, r.parts) : digits(v, r.digits, r.always))
  return { before: r.before, figure, unit: r.unit }
}
const whole = (w: ReturnType<typeof written>) => [w.before, w.figure, w.unit].filter(Boolean).join(' ')
const by = (kind: string) => (x: number) => whole(written(reading.forms[kind], x))

/** A weight as the scale shows it. */
export const scale = (g: number) => written(reading.forms.g, g)
export const grams = by('g')
export const mm = by('mm')
export const cm = by('cm')
export const litres = by('ml')
/** A temperature as a thermometer tells it: nothing that an oven is set to. */
export const warmth = by('t')
/** A difference of temperatures. */
export const degrees = by('dc')
/** What an oven is set to, as the kitchen reads it or as its own dial shows it. */
export const heat = (c: number, dial?: string) =>
  whole(written(dial ? reading.dials[dial] : reading.forms.c, c))
/** A figure with a unit of the core's. */
export const measured = (x: number, unit: string) => {
  const form = reading.forms[unit === 'C' ? 't' : unit]
  return form ? whole(written(form, x)) : `${number(x)} ${unit}`
}
export const number = (x: number) => digits(x, 1)
/** To a tenth, always with it: 1.0. */
export const tenths = (x: number) => digits(x, 1, true)
export const integer = (x: number) => digits(x, 0)
export const fine = (x: number) => digits(x, 2)
export const percent = (x: number) => `${number(x)} %`
/** Money, of whole minor units. */
export const money = (minor: number, currency: string) =>
  currency.length > 1
    ? `${digits(minor / 100, 2, true)} ${currency}`
    : `${currency}${digits(minor / 100, 2, true)}`

/** What a field of a kind is typed in, where that is another unit than the core's. */
export interface Typed {
  /** What is next to the field, and what a bare number is read with. */
  before: string
  unit: string
  show: (v: number) => number
}
const kindOf: Record<string, string> = { mass: 'g', length: 'cm', temperature: 't' }
/** The dial of an oven is read as its words tell it, a thermometer to the degree. */
export function typedIn(kind: string, dial = false): Typed | undefined {
  const form = reading.forms[kind === 'temperature' && dial ? 'c' : (kindOf[kind] ?? '')]
  const r = form?.at(-1)
  if (!r || (r.times === 1 && !r.plus && !r.marks.length)) return undefined
  return { before: r.before, unit: r.unit, show: (v) => shown(dial ? r : { ...r, nearest: 0 }, v) }
}

/** A range, with a unit that both ends have said once. */
export function fromTo(least = '', most = ''): string {
  const unit = / \S+$/.exec(most)?.[0]
  return `${unit && least.endsWith(unit) ? least.slice(0, -unit.length) : least} to ${most}`
}

/** A name of the larder's without what stands in brackets or after a comma. */
export const short = (name: string) =>
  name
    .replace(/\s*\([^)]*\)/g, '')
    .split(',')[0]!
    .trim() || name
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
export const lower = (name: string) => name.charAt(0).toLowerCase() + name.slice(1)

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
export const date = (iso: string) => day.format(new Date(iso))
