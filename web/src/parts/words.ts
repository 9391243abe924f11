import type { Band, Dish, Line, LineValue } from '@/api/client'
import { t, text, worded } from '@/texts'
import { units } from '@/texts/reading'

/* Formatting only: no amount of the job is computed here. Words, units and the decimal mark are the kitchen's, as its
   settings say; core/wording has the same for what the server prints. */

export { units }

const format = (digits: number, least = 0) => {
  const as = (locale: string) =>
    new Intl.NumberFormat(locale, {
      maximumFractionDigits: digits,
      minimumFractionDigits: least,
      useGrouping: false,
    })
  const by = { point: as('en-GB'), comma: as('de-DE') }
  return { format: (x: number) => by[units.decimal].format(x) }
}
const whole = format(0)
const tenth = format(1)
const hundredth = format(2)
const thousandth = format(3)
const tenthAlways = format(1, 1)

/** A figure that is written already, with the kitchen's decimal mark. */
export const marked = (figure: string) => (units.decimal === 'comma' ? figure.replace('.', ',') : figure)

const gOunce = 28.3495
const cmInch = 2.54
const mlQuart = 946.35
const mlPint = 568.26

/** A weight as the scale shows it: 1 g, and 0.1 g below 10 g; or ounces, to a tenth, and finer below one. */
export function scale(g: number): { figure: string; unit: string } {
  if (units.weights !== 'oz') return { figure: g < 9.95 ? tenth.format(g) : whole.format(g), unit: 'g' }
  const oz = g / gOunce
  return { figure: (oz < 1 ? hundredth : tenth).format(oz), unit: 'oz' }
}

/** Grams, or ounces where the kitchen reads those. */
export const grams = (g: number) => {
  const s = scale(g)
  return `${s.figure} ${s.unit}`
}
export const mm = (x: number) =>
  units.lengths === 'in'
    ? `${hundredth.format(x / 10 / cmInch)} in`
    : `${Math.abs(x) < 10 ? tenth.format(x) : whole.format(x)} mm`
export const cm = (x: number) =>
  units.lengths === 'in' ? `${tenth.format(x / cmInch)} in` : `${tenth.format(x)} cm`
/** A volume: litres, or where lengths are inches the quarts, of half-pint cups the pints, that belong to them. */
export function litres(ml: number): string {
  if (units.lengths === 'in')
    return units.cup === 'imperial'
      ? t('{n} pints', { n: tenth.format(ml / mlPint) })
      : t('{n} quarts', { n: tenth.format(ml / mlQuart) })
  return ml < 950 ? `${whole.format(ml)} ml` : `${tenthAlways.format(ml / 1000)} l`
}
/** A figure with a unit of the core's. */
export const measured = (x: number, unit: string) => inCore[unit]?.(x) ?? `${tenth.format(x)} ${unit}`
export const percent = (x: number) => `${tenth.format(x)} %`
export const number = (x: number) => tenth.format(x)
/** To a tenth, always with it: 1.0. */
export const tenths = (x: number) => tenthAlways.format(x)
export const integer = (x: number) => whole.format(x)
export const fine = (x: number) => hundredth.format(x)

const gasMarks: [number, number][] = [
  [0.25, 110],
  [0.5, 130],
  [1, 140],
  [2, 150],
  [3, 170],
  [4, 180],
  [5, 190],
  [6, 200],
  [7, 220],
  [8, 230],
  [9, 240],
]
const gasMark = (c: number) => gasMarks.reduce((a, b) => (Math.abs(b[1] - c) < Math.abs(a[1] - c) ? b : a))

/** What an oven is set to: C, F to the next 5, the nearest gas mark, or the fan's. */
export function heat(c: number, as: string = units.heat): string {
  switch (as) {
    case 'f':
      return `${whole.format(Math.round((c * 1.8 + 32) / 5) * 5)} °F`
    case 'fan':
      return t('fan {c} °C', { c: whole.format(c - 20) })
    case 'gas':
      return t('gas {mark}', {
        mark: hundredth.format(gasMark(c)[0]).replace(/0.25/, '¼').replace(/0.5/, '½'),
      })
    default:
      return `${whole.format(c)} °C`
  }
}

/** What a field of a kind is typed in: the unit beside it, and how a value in the core's unit is shown. */
export interface Typed {
  unit: string
  /** What is put to a bare number before it is read. */
  suffix: string
  prefix?: string
  show: (v: number) => number
}
export function typedIn(kind: string): Typed | undefined {
  if (kind === 'mass' && units.weights === 'oz') return { unit: 'oz', suffix: ' oz', show: (g) => g / gOunce }
  if (kind === 'length' && units.lengths === 'in')
    return { unit: 'in', suffix: ' in', show: (x) => x / cmInch }
  if (kind === 'temperature' && units.heat === 'f')
    return { unit: '°F', suffix: ' F', show: (c) => c * 1.8 + 32 }
  if (kind === 'temperature' && units.heat === 'fan')
    return { unit: t('°C fan'), suffix: '', prefix: 'fan ', show: (c) => c - 20 }
  if (kind === 'temperature' && units.heat === 'gas')
    return {
      unit: t('gas mark'),
      suffix: '',
      prefix: 'gas ',
      show: (c) => gasMark(c)[0],
    }
  return undefined
}

/** A temperature as a thermometer tells it: nothing that an oven is set to. */
export const warmth = (c: number) =>
  units.heat === 'f' ? `${whole.format(c * 1.8 + 32)} °F` : `${whole.format(c)} °C`
/** A difference of temperatures: a gas mark has no even steps, so that kitchen reads degrees Celsius too. */
export const degrees = (c: number) =>
  units.heat === 'f' ? `${whole.format(Math.round((c * 1.8) / 5) * 5)} °F` : `${whole.format(c)} °C`

const inCore: Record<string, (x: number) => string> = { g: grams, mm, cm, C: (c) => warmth(c) }
const figures = (text: string) =>
  text
    .replace(/(\d+(?:\.\d+)?) (g|mm|cm|C)\b/g, (_, n: string, unit: string) => inCore[unit]!(Number(n)))
    .replace(/\d\.\d/g, marked)

/** What the core says, as the kitchen reads it. */
export function asRead(line: Line): string {
  if (typeof line === 'string') return line && figures(worded(line))
  return figures(worded(line.text)).replace(/\{([^}]*)\}/g, (_, place: string) => {
    const says = valueRead(line.values[place])
    return /^[A-Z]/.test(place) ? says.charAt(0).toUpperCase() + says.slice(1) : says // the head of a sentence
  })
}
/** Lines one after the other. */
export const allRead = (lines: Line[], between: string) => lines.map(asRead).join(between)

function valueRead(v: LineValue | undefined): string {
  if (v?.g !== undefined) return grams(v.g)
  if (v?.mm !== undefined) return mm(v.mm)
  if (v?.cm !== undefined) return cm(v.cm)
  if (v?.ml !== undefined) return litres(v.ml)
  if (v?.c !== undefined) return heat(v.c)
  if (v?.t !== undefined) return warmth(v.t)
  if (v?.dc !== undefined) return degrees(v.dc)
  if (v?.n !== undefined) return thousandth.format(v.n)
  if (v?.name !== undefined) return worded(v.name)
  if (v?.line !== undefined) return asRead(v.line)
  if (v?.to) return fromTo(...v.to.map(valueRead))
  if (v?.and) return joined(v.and.map(asRead), worded(text(' and ')))
  if (v?.or) return joined(v.or.map(asRead), worded(text(' or ')))
  return v?.as ?? ''
}
/** A range, with a unit that both ends have said once. */
export function fromTo(least = '', most = ''): string {
  const unit = / \S+$/.exec(most)?.[0]
  return `${unit && least.endsWith(unit) ? least.slice(0, -unit.length) : least}${worded(text(' to '))}${most}`
}
const joined = (parts: string[], last: string) =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')}${last}${parts.at(-1)}`

/** 24 × 18 cm, 5 deep, or 26 cm round, 5 deep. */
export function sizes(d: Dish): string {
  const inch = units.lengths === 'in'
  const n = (x: number) => tenth.format(inch ? x / cmInch : x)
  const unit = inch ? 'in' : 'cm'
  const across =
    d.shape === 'round'
      ? t('{across} round', { across: `${n(d.length_cm)} ${unit}` })
      : d.shape === 'square'
        ? t('{across} square', { across: `${n(d.length_cm)} ${unit}` })
        : `${n(d.length_cm)} × ${n(d.width_cm ?? 0)} ${unit}${d.shape === 'oval' ? ` ${t('oval')}` : ''}`
  return t('{across}, {depth} deep', { across, depth: n(d.depth_cm) })
}

/** A name of the larder's without what stands in brackets or after a comma. */
export const short = (name: string) =>
  worded((name.replace(/\s*\([^)]*\)?/g, '').split(',')[0] ?? name).trim())
export const lower = (name: string) => name.charAt(0).toLowerCase() + name.slice(1)

/** Words by their keys, each in the kitchen's when it is looked up. */
const shown = <K extends string>(words: Record<K, string>): Record<K, string> =>
  new Proxy(words, { get: (all, key: K) => (key in all ? t(all[key]) : undefined) })

export const bandWords: Record<Band, string> = shown({
  runny: text('runny'),
  saucy: text('saucy'),
  spoonable: text('spoonable'),
  mounds: text('mounds on the spoon'),
  slices: text('slices'),
  stodgy: text('stodgy'),
})

export const basisWords: Record<string, string> = shown({
  composition: text('food composition tables'),
  handbook: text('baking handbooks'),
  definition: text('by definition'),
  working: text('working figure of this project; your log will correct it'),
  kitchen: text('this kitchen’s own figure'),
})

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
export const date = (iso: string) => day.format(new Date(iso))
