import { nextTick, ref, watch } from 'vue'

/** Pieces of work under way. <html data-idle> is there only when there are none and the page has been updated. */
const pending = ref(0)

/** Counts a piece of work until it is done, and what follows from it has begun: what is asked for next is counted by then. */
export function busyUntil<T>(work: Promise<T>): Promise<T> {
  pending.value++
  void work.then(endOfTask, endOfTask)
  return work
}

/** What a touch or a key sets off begins within its own task. */
const touches = ['click', 'pointerup', 'keydown', 'input', 'change']

const endOfTask = () => void setTimeout(() => void pending.value--)

export function markIdle(ready: Promise<unknown>) {
  const html = document.documentElement
  const set = async () => {
    if (pending.value > 0) return delete html.dataset.idle
    await nextTick()
    if (pending.value === 0) html.dataset.idle = ''
  }
  for (const touch of touches)
    addEventListener(
      touch,
      () => {
        pending.value++
        endOfTask()
      },
      true,
    )
  void ready.then(() => watch(pending, set, { immediate: true, flush: 'sync' }))
}
