import { reactive } from 'vue'
import type { Band, Dish, Settings } from '@/api/client'

/* Formatting only: no amount of the job is computed here. Units are the kitchen's, as its settings say. */

type Units = Pick<Settings, 'weights' | 'heat' | 'lengths'>

/** What the kitchen reads. Everything that is shown asks here, so that one switch changes it everywhere. */
export const units = reactive<Units>({ weights: 'g', heat: 'c', lengths: 'cm' })

const format = (digits: number) =>
  new Intl.NumberFormat('en-GB', { maximumFractionDigits: digits, useGrouping: false })
const whole = format(0)
const tenth = format(1)
const hundredth = format(2)

const gOunce = 28.3495
const cmInch = 2.54

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
export const litres = (ml: number) => (ml < 950 ? `${whole.format(ml)} ml` : `${(ml / 1000).toFixed(1)} l`)
export const percent = (x: number) => `${tenth.format(x)} %`
export const number = (x: number) => tenth.format(x)
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

/** An oven's temperature: C, F to the next 5, the nearest gas mark, or the fan's. */
export function heat(c: number, as: string = units.heat): string {
  switch (as) {
    case 'f':
      return `${whole.format(Math.round((c * 1.8 + 32) / 5) * 5)} °F`
    case 'fan':
      return `fan ${whole.format(c - 20)} °C`
    case 'gas':
      return `gas ${hundredth.format(gasMark(c)[0]).replace('0.25', '¼').replace('0.5', '½')}`
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

/** A sentence of the core's in the kitchen's units. */
export const inUnits = (text: string) =>
  text.replace(
    /(\d+(?:\.\d+)?) (g|mm|cm|C)\b/g,
    (whole, n: string, unit: string) =>
      (({ g: grams, mm, cm, C: heat }) as Record<string, (x: number) => string>)[unit]?.(Number(n)) ?? whole,
  )

/** 24 × 18 cm, 5 deep, or 26 cm round, 5 deep. */
export function sizes(d: Dish): string {
  const inch = units.lengths === 'in'
  const n = (x: number) => tenth.format(inch ? x / cmInch : x)
  const unit = inch ? 'in' : 'cm'
  const across =
    d.shape === 'round'
      ? `${n(d.length_cm)} ${unit} round`
      : d.shape === 'square'
        ? `${n(d.length_cm)} ${unit} square`
        : `${n(d.length_cm)} × ${n(d.width_cm ?? 0)} ${unit}${d.shape === 'oval' ? ' oval' : ''}`
  return `${across}, ${n(d.depth_cm)} deep`
}

/** A name without what stands in brackets or after a comma. */
export const short = (name: string) => (name.replace(/\s*\([^)]*\)/g, '').split(',')[0] ?? name).trim()
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
