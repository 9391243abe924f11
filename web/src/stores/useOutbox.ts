import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { unreachable, type Problem } from '@/api/client'
import { busyUntil } from '@/api/pending'

/** From this status on it is the server that failed, and not what was sent. */
const serverFailed = 500
/** The server is there, and has no database at the moment: what is sent has not been looked at. */
const away = 503
/** So often a server may fail on one thing before that thing is put aside. */
const mostTries = 5

/** Something that is to be saved. It carries its own id, so that saving it twice is saving it once. */
export interface Parcel {
  what: string
  path: string
  body: object
  /** How often the server failed on it, while it answered otherwise. */
  tries?: number
}

/** Something that the server does not take, with why. */
export interface Refused extends Parcel {
  problem: Problem
}

export type Sent =
  { stored: 'saved'; data: unknown } | { stored: 'waiting' } | { stored: 'refused'; problem: Problem }

/**
 * Saves, and where the database or the server is away keeps what was to be saved, says so, and saves it when it is
 * back. What the server refuses is put aside with its reason: nothing is dropped, and nothing waits behind it.
 */
export const useOutbox = defineStore('outbox', () => {
  const waiting = useLocalStorage<Parcel[]>('mabbin.outbox', [])
  const refused = useLocalStorage<Refused[]>('mabbin.outbox.refused', [])
  const lately = ref('')
  const why = ref('')
  let timer: ReturnType<typeof setTimeout> | undefined

  const post = (p: Parcel) => busyUntil(posted(p))

  async function posted(p: Parcel): Promise<Sent> {
    try {
      const r = await fetch(p.path, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(p.body),
      })
      const answer: unknown = await r
        .json()
        .catch(() => ({ ...unreachable, title: r.statusText, status: r.status }))
      if (r.ok) return { stored: 'saved', data: answer }
      const problem = answer as Problem
      if (r.status < serverFailed) return { stored: 'refused', problem }
      why.value = problem.title
      if (r.status !== away || (await ready())) p.tries = (p.tries ?? 0) + 1
      if ((p.tries ?? 0) >= mostTries) return { stored: 'refused', problem }
    } catch {
      why.value = unreachable.title
    }
    return { stored: 'waiting' }
  }

  /** Whether the server could save at all: then it is what was sent that it fails on. */
  const ready = () =>
    fetch('/readyz')
      .then((r) => r.ok)
      .catch(() => false)

  /** Sends a parcel, behind those that wait already: a card goes before its next version. */
  async function send(p: Parcel): Promise<Sent> {
    if (waiting.value.length > 0) await retry()
    const sent = waiting.value.length > 0 ? ({ stored: 'waiting' } as const) : await post(p)
    if (sent.stored === 'waiting') {
      waiting.value.push(p)
      later()
    }
    if (sent.stored === 'saved') lately.value = p.what
    return sent
  }

  async function retry() {
    clearTimeout(timer)
    while (waiting.value.length > 0) {
      const first = waiting.value[0]!
      const sent = await post(first)
      if (sent.stored === 'waiting') return later()
      waiting.value.shift()
      lately.value = sent.stored === 'saved' ? first.what : ''
      if (sent.stored === 'refused') refused.value.push({ ...first, problem: sent.problem })
    }
  }

  function later() {
    clearTimeout(timer)
    timer = setTimeout(() => void retry(), 3000)
  }

  /** Sends something that was put aside again, as it is by now. */
  async function again(r: Refused) {
    const sent = await send({ what: r.what, path: r.path, body: r.body })
    if (sent.stored === 'refused') r.problem = sent.problem
    else drop(r)
  }
  /** Forgets something that was put aside. */
  const drop = (r: Refused) => (refused.value = refused.value.filter((x) => x !== r))

  if (waiting.value.length > 0) void retry()
  return {
    waiting,
    refused,
    lately,
    why,
    send,
    retry,
    again,
    drop,
    any: computed(() => waiting.value.length > 0),
  }
})
