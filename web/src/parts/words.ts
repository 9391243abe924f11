import type { Band, Dish } from '@/api/client'

/* Formatting only: no amount is computed here. */

const whole = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0, useGrouping: false })
const tenth = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 1, useGrouping: false })

/** Grams to the scale's step: 1 g, and 0.1 g below 10 g. */
export const grams = (g: number) => `${g < 9.95 ? tenth.format(g) : whole.format(g)} g`
export const mm = (x: number) => `${Math.abs(x) < 10 ? tenth.format(x) : whole.format(x)} mm`
export const litres = (ml: number) => (ml < 950 ? `${whole.format(ml)} ml` : `${(ml / 1000).toFixed(1)} l`)
export const percent = (x: number) => `${tenth.format(x)} %`
export const number = (x: number) => tenth.format(x)
export const integer = (x: number) => whole.format(x)

/** 24 × 18 × 5 cm, or 26 cm round, 5 deep. */
export function sizes(d: Dish): string {
  const across =
    d.shape === 'round'
      ? `${number(d.length_cm)} cm round`
      : d.shape === 'square'
        ? `${number(d.length_cm)} cm square`
        : `${number(d.length_cm)} × ${number(d.width_cm ?? 0)} cm${d.shape === 'oval' ? ' oval' : ''}`
  return `${across}, ${number(d.depth_cm)} deep`
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
}

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
export const date = (iso: string) => day.format(new Date(iso))
