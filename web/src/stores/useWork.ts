import { onBeforeUnmount, ref } from 'vue'
import { api, ask, withoutBody, type Work } from '@/api/client'

/** How a request is begun so that its work can be watched and stopped. */
export interface Begun {
  signal: AbortSignal
  id: string
}

/** One long piece of work at a time: how far it is, and how to stop it. */
export function useWork() {
  const on = ref(false)
  /** How far it is, 0 to 1; not yet known: undefined. */
  const share = ref<number>()
  let stopper: AbortController | undefined
  let running = ''
  const lookMs = 400
  const look = (id: string) => ask(api.GET('/api/v1/work/{work}', { params: { path: { work: id } } }))

  /** Runs a piece of work. It answers with nothing where it was stopped. */
  async function run<T>(work: (how: Begun) => Promise<T>): Promise<T | undefined> {
    stopper?.abort()
    const mine = (stopper = new AbortController())
    const id = (running = crypto.randomUUID())
    on.value = true
    share.value = undefined
    const looks = setInterval(() => {
      void look(id).then((got) => {
        if (stopper === mine && got.data?.of) share.value = got.data.done / got.data.of
      })
    }, lookMs)
    try {
      const done = await work({ signal: mine.signal, id })
      return mine.signal.aborted ? undefined : done
    } finally {
      clearInterval(looks)
      if (stopper === mine) on.value = false
    }
  }
  /** What came of work whose line broke: it goes on without its caller, and is asked for until it has ended. */
  async function afterBreak(how: Begun): Promise<Work | undefined> {
    while (!how.signal.aborted) {
      const got = await look(how.id)
      if (got.data && got.data.state !== 'running') return got.data
      await new Promise((again) => setTimeout(again, lookMs))
    }
    return undefined
  }
  /** Follows work that goes on in the server by itself, until it has ended or is stopped here; true: it has ended. */
  async function follow(id: string): Promise<boolean> {
    stopper?.abort()
    const mine = (stopper = new AbortController())
    running = id
    on.value = true
    share.value = undefined
    while (!mine.signal.aborted) {
      const got = await look(id)
      if (mine.signal.aborted) return false
      if (got.data?.of) share.value = got.data.done / got.data.of
      if (got.data && got.data.state !== 'running') {
        on.value = false
        return got.data.state !== 'failed'
      }
      await new Promise((again) => setTimeout(again, lookMs))
    }
    return false
  }
  function stop() {
    if (on.value)
      void ask(withoutBody(api.DELETE('/api/v1/work/{work}', { params: { path: { work: running } } })))
    stopper?.abort()
    on.value = false
  }
  onBeforeUnmount(() => stopper?.abort())
  return { on, share, run, follow, afterBreak, stop }
}
