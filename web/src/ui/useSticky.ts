import { refDebounced, useElementSize, useWindowSize } from '@vueuse/core'
import { computed, type Ref } from 'vue'

/**
 * Keeps a column in view while a longer one in addition to it is scrolled: it stands under what stands above it, or, where it is
 * taller than the window, with its end at the window's end.
 */
export function useSticky(column: Ref<HTMLElement | null>, above: Ref<number>) {
  const { height: now } = useElementSize(column, undefined, { box: 'border-box' })
  const height = refDebounced(now, 200) // once it stands: each change that moves the column is rendered twice
  const { height: window } = useWindowSize()
  const margin = 8
  return computed(() => ({
    top: `${Math.min(above.value + margin, window.value - height.value - margin)}px`,
  }))
}
