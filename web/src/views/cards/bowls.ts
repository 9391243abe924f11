import type { RecipeBowl, RecipeRow } from '@/api/client'

/** The bowls of a recipe in the order of the work, with the name of each and its colour. */
export const bowls: { key: RecipeBowl; label: string; colour: string }[] = [
  { key: 'filling', label: 'Filling', colour: 'var(--bowl-filling)' },
  { key: 'pour', label: 'Poured over', colour: 'var(--bowl-pour)' },
  { key: 'base', label: 'Base', colour: 'var(--bowl-base)' },
  { key: 'base_and_topping', label: 'Base and topping', colour: 'var(--bowl-base)' },
  { key: 'topping', label: 'Topping', colour: 'var(--bowl-topping)' },
  { key: 'finish', label: 'On top at the end', colour: 'var(--bowl-finish)' },
]
export const unused = { key: '' as RecipeBowl, label: 'Not weighed', colour: 'var(--bowl-out)' }

/** The group that a line stands in: what is left out, and what greases or is served, is not weighed. */
export const groupOf = (row: Pick<RecipeRow, 'bowl' | 'out'> | undefined) =>
  (!row?.out && bowls.find((b) => b.key === row?.bowl)) || unused
