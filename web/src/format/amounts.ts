import { reactive } from 'vue'
import type { Band, Dish, Settings } from '@/api/client'

/* Figures that stand in a frame of the page, in the kitchen's units and with its decimal mark: no amount of the job is
   computed here. Sentences come finished from the server, which formats the same way: e2e/reading_test.go holds one to the other. */

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
const hundredthAlways = format(2, 2)
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
/** Inches as a ruler has them: to an eighth, and a sixteenth below a quarter. */
function inches(x: number): string {
  if (x < 0) return `-${inches(-x)}`
  let parts = x < 3 / 16 ? 16 : 8
  const n = Math.round(x * parts) || (x > 0.005 ? 1 : 0)
  const all = Math.floor(n / parts)
  let rest = n % parts
  for (; rest && rest % 2 === 0; rest /= 2) parts /= 2
  if (!rest) return String(all)
  return `${all ? `${all} ` : ''}${rest}/${parts}`
}
export const mm = (x: number) =>
  units.lengths === 'in'
    ? `${inches(x / 10 / cmInch)} in`
    : `${Math.abs(x) < 10 ? tenth.format(x) : whole.format(x)} mm`
export const cm = (x: number) =>
  units.lengths === 'in' ? `${inches(x / cmInch)} in` : `${tenth.format(x)} cm`
/** A volume: litres, or where lengths are inches the quarts, of half-pint cups the pints, that belong to them. */
export function litres(ml: number): string {
  if (units.lengths === 'in')
    return units.cup === 'imperial'
      ? `${tenth.format(ml / mlPint)} pints`
      : `${tenth.format(ml / mlQuart)} quarts`
  return ml < 950 ? `${whole.format(ml)} ml` : `${tenthAlways.format(ml / 1000)} l`
}
/** A figure with a unit of the core's. */
export const measured = (x: number, unit: string) => inCore[unit]?.(x) ?? `${tenth.format(x)} ${unit}`
export const percent = (x: number) => `${tenth.format(x)} %`
/** Money, of whole minor units. */
export const money = (minor: number, currency: string) =>
  currency.length > 1
    ? `${hundredthAlways.format(minor / 100)} ${currency}`
    : `${currency}${hundredthAlways.format(minor / 100)}`
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
/** Ovens are set by five degrees F. */
const dialF = (c: number) => Math.round((c * 1.8 + 32) / 5) * 5
export function heat(c: number, as: string = units.heat): string {
  switch (as) {
    case 'f':
      return `${whole.format(dialF(c))} °F`
    case 'fan':
      return `fan ${whole.format(c - 20)} °C`
    case 'gas':
      return `gas ${hundredth.format(gasMark(c)[0]).replace(/0.25/, '¼').replace(/0.5/, '½')}`
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
/** The dial of an oven is read as its words tell it, a thermometer to the degree. */
export function typedIn(kind: string, dial = false): Typed | undefined {
  if (kind === 'mass' && units.weights === 'oz') return { unit: 'oz', suffix: ' oz', show: (g) => g / gOunce }
  if (kind === 'length' && units.lengths === 'in')
    return { unit: 'in', suffix: ' in', show: (x) => x / cmInch }
  if (kind === 'temperature' && units.heat === 'f')
    return { unit: '°F', suffix: ' F', show: dial ? dialF : (c) => c * 1.8 + 32 }
  if (kind === 'temperature' && units.heat === 'fan')
    return { unit: '°C fan', suffix: '', prefix: 'fan ', show: (c) => c - 20 }
  if (kind === 'temperature' && units.heat === 'gas')
    return {
      unit: 'gas mark',
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
/** A range, with a unit that both ends have said once. */
export function fromTo(least = '', most = ''): string {
  const unit = / \S+$/.exec(most)?.[0]
  return `${unit && least.endsWith(unit) ? least.slice(0, -unit.length) : least} to ${most}`
}

/** 24 × 18 cm, 5 deep, or 26 cm round, 5 deep. */
export function sizes(d: Dish): string {
  const inch = units.lengths === 'in'
  const n = (x: number) => (inch ? inches(x / cmInch) : tenth.format(x))
  const unit = inch ? 'in' : 'cm'
  const across =
    d.shape === 'round'
      ? `${n(d.length_cm)} ${unit} round`
      : d.shape === 'square'
        ? `${n(d.length_cm)} ${unit} square`
        : `${n(d.length_cm)} × ${n(d.width_cm ?? 0)} ${unit}${d.shape === 'oval' ? ' oval' : ''}`
  return `${across}, ${n(d.depth_cm)} deep`
}

/** A name of the larder's without what stands in brackets or after a comma. */
export const short = (name: string) =>
  name
    .replace(/\s*\([^)]*\)/g, '')
    .split(',')[0]!
    .trim() || name
export const lower = (name: string) => name.charAt(0).toLowerCase() + name.slice(1)

export const bandWords: Record<Band, string> = {
  runny: 'runny',
  saucy: 'saucy',
  spoonable: 'spoonable',
  mounds: 'mounds on the spoon',
  slices: 'slices',
  stodgy: 'stodgy',
}

export const basisWords: Record<string, string> = {
  composition: 'food composition tables',
  handbook: 'baking handbooks',
  definition: 'by definition',
  working: 'working figure of this project; your log will correct it',
  kitchen: 'this kitchen’s own figure',
}

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
export const date = (iso: string) => day.format(new Date(iso))
