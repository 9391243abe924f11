import { useMediaQuery } from '@vueuse/core'
import { shallowRef } from 'vue'
import type { AmountKind } from '@/api/client'

/** The field that numbers are entered into by thumb. */
export interface PadField {
  label: string
  kind: AmountKind
  get: () => string
  put: (text: string) => void
  take: () => void
}
export const pad = shallowRef<PadField>()

/** Where a finger is what points, the pad stands in for the keyboard: it knows fractions and units. */
export const byThumb = useMediaQuery('(pointer: coarse)')
