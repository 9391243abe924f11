import { onBeforeUnmount, ref } from 'vue'
import { api, ask } from '@/api/client'

/** How a request is begun so that its work can be watched and stopped. */
export interface Begun {
  signal: AbortSignal
  id: string
}

/** One long piece of work at a time: how far it is, and how to stop it. It stops when what asked for it goes away. */
export function useWork() {
  const on = ref(false)
  /** How far it is, 0 to 1; not yet known: undefined. */
  const share = ref<number>()
  let stopper: AbortController | undefined
  const lookMs = 400

  /** Runs a piece of work. It answers with nothing where it was stopped. */
  async function run<T>(work: (how: Begun) => Promise<T>): Promise<T | undefined> {
    stopper?.abort()
    const mine = (stopper = new AbortController())
    const id = crypto.randomUUID()
    on.value = true
    share.value = undefined
    const look = setInterval(() => {
      void ask(api.GET('/api/v1/work/{work}', { params: { path: { work: id } } })).then((got) => {
        if (stopper === mine && got.data?.of) share.value = got.data.done / got.data.of
      })
    }, lookMs)
    try {
      const done = await work({ signal: mine.signal, id })
      return mine.signal.aborted ? undefined : done
    } finally {
      clearInterval(look)
      if (stopper === mine) on.value = false
    }
  }
  function stop() {
    stopper?.abort()
    on.value = false
  }
  onBeforeUnmount(stop)
  return { on, share, run, stop }
}
