<script setup lang="ts">
import { computed } from 'vue'
import type { Bake, Outcome } from '@/api/client'
import { date } from '@/format/amounts'

/** What was reported of a bake until it was put right, each time with what changed. */
const props = defineProps<{ bake: Bake }>()
const words = (o: Outcome): Record<string, string> => {
  const told = o.details ?? {}
  const yes = (b: boolean | undefined) => (b === undefined ? '' : b ? 'yes' : 'no')
  const n = (x: number | undefined, unit: string) => (x === undefined ? '' : `${x} ${unit}`)
  return {
    ['juice, cold']: o.juice ?? '',
    ['juice, hot']: told.juice_hot ?? '',
    ['fruit']: o.fruit ?? '',
    ['top']: o.top ?? '',
    ['base']: told.base ?? '',
    ['sweetness']: told.sweetness ?? '',
    ['boiled over']: yes(o.boiled_over),
    ['same way again']: yes(told.again),
    ['rim bubbled']: n(told.rim_min, 'min'),
    ['middle bubbled']: n(told.middle_min, 'min'),
    ['weight before baking']: n(told.before_g, 'g'),
    ['weight after baking']: n(told.after_g, 'g'),
    ['note']: o.note ? `“${o.note}”` : '',
    ['picture']: o.picture_id ? 'with a picture' : '',
  }
}
const changes = computed(() => {
  let after = words(props.bake.outcome)
  return props.bake.corrections.map((c) => {
    const before = words(c.was)
    const what = Object.keys(after)
      .filter((k) => before[k] !== after[k])
      .map((k) => `${k}: ${before[k] || 'not logged'} → ${after[k] || 'not logged'}`)
    after = before
    return { at: c.at, what }
  })
})
</script>

<template>
  <section v-if="changes.length" data-testid="told-before">
    <h3>Corrected</h3>
    <ul>
      <li v-for="c in changes" :key="c.at">{{ date(c.at) }}: {{ c.what.join('; ') || 'nothing changed' }}</li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
</style>
