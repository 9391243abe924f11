import { defineAsyncComponent, ref, watch, type Component } from 'vue'
import { busyUntil } from '@/api/pending'

/** A component whose files are fetched when it is shown for the first time: a first visit does without them. */
export const later = <T extends Component>(load: () => Promise<T | { default: T }>) =>
  defineAsyncComponent<T>(() => busyUntil(load() as Promise<T>))

/** Whether something has been so at least once: a dialog is there from its first opening on, and closes as it likes. */
export function onceTrue(source: () => unknown) {
  const was = ref(false)
  watch(source, (now) => now && (was.value = true), { immediate: true })
  return was
}
