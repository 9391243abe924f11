import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Problem } from '@/api/client'

/** The status of a change that was refused for somebody else was quicker. */
const changedMeanwhile = 412

export type Kept<T> = { data: T; problem?: undefined } | { data?: undefined; problem: Problem }

/** One field in which what is stored and what was sent differ. */
interface Difference {
  field: string
  theirs: string
  mine: string
}

interface Clash {
  what: string
  differences: Difference[]
  choose: (mine: boolean) => void
}

const shown = (x: unknown) =>
  x === undefined || x === null || x === '' ? 'nothing' : typeof x === 'object' ? JSON.stringify(x) : `${x}`

/** The fields of what was sent that are stored otherwise. */
function differing(stored: unknown, sent: unknown, at = ''): Difference[] {
  if (typeof sent === 'object' && sent !== null && !Array.isArray(sent)) {
    const from = (stored ?? {}) as Record<string, unknown>
    return Object.entries(sent).flatMap(([key, mine]) =>
      // what the sender gives only for this request is stored nowhere
      key in from || at ? differing(from[key], mine, `${at} ${key}`) : [],
    )
  }
  if (JSON.stringify(stored) === JSON.stringify(sent)) return []
  return [{ field: at.trim().replaceAll('_', ' '), theirs: shown(stored), mine: shown(sent) }]
}

/** Two tablets that change one thing: whoever comes second sees both and chooses. */
export const useClash = defineStore('clash', () => {
  const open = shallowRef<Clash>()

  /** Sends a change upon a revision; where it is of yesterday, asks which one stays. */
  async function settle<T extends { revision: string }>(
    what: string,
    revision: string | undefined,
    send: (ifMatch?: string) => Promise<Kept<T>>,
  ): Promise<Kept<T> & { theirs?: boolean }> {
    const got = await send(revision)
    if (got.problem?.status !== changedMeanwhile) return got
    const stored = got.problem.stored as T
    const differences = differing(stored, got.problem.sent)
    if (!differences.length) return { data: stored } // both made the same of it
    const mine = await new Promise<boolean>((choose) => (open.value = { what, differences, choose }))
    open.value = undefined
    return mine ? settle(what, stored.revision, send) : { data: stored, theirs: true }
  }

  /** What a change comes to where the other's stays: it was not made. */
  const keptTheirs: Problem = {
    type: 'about:blank',
    title: 'The version saved elsewhere was kept',
    status: changedMeanwhile,
  }
  return { open, settle, keptTheirs }
})
