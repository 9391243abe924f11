import { createSharedComposable } from '@vueuse/core'
import { api, ask } from '@/api/client'
import { useBakeQuery } from './useBakeQuery'

/** What is predicted of the bake that is shown, with its ranges: asked once for all that show a part of it. */
export const useForecast = createSharedComposable(() =>
  useBakeQuery((body, signal) => ask(api.POST('/api/v1/bench/forecast', { body, signal }))),
)
