import { nextTick, ref, watch } from 'vue'

/** Requests under way. <html data-idle> is there only when there are none and the page has been updated. */
export const pending = ref(0)

export function markIdle(ready: Promise<unknown>) {
  const html = document.documentElement
  const set = async () => {
    if (pending.value > 0) return delete html.dataset.idle
    await nextTick()
    if (pending.value === 0) html.dataset.idle = ''
  }
  void ready.then(() => watch(pending, set, { immediate: true, flush: 'sync' }))
}
