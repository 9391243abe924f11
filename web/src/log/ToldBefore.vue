<script setup lang="ts">
import { computed } from 'vue'
import type { Bake, Outcome } from '@/api/client'
import { asRead, date } from '@/parts/words'
import { t } from '@/texts'

/** What was told of a bake until it was put right, each time with what changed. */
const props = defineProps<{ bake: Bake }>()
const words = (o: Outcome): Record<string, string> => {
  const told = o.told ?? {}
  const yes = (b: boolean | undefined) => (b === undefined ? '' : b ? t('yes') : t('no'))
  const n = (x: number | undefined, unit: string) => (x === undefined ? '' : `${x} ${unit}`)
  return {
    [t('juice, cold')]: o.juice ?? '',
    [t('juice, hot')]: told.juice_hot ?? '',
    [t('fruit')]: o.fruit ?? '',
    [t('top')]: o.top ?? '',
    [t('base')]: told.base ?? '',
    [t('sweetness')]: told.sweetness ?? '',
    [t('boiled over')]: yes(o.boiled_over),
    [t('again so')]: yes(told.again),
    [t('rim bubbled')]: n(told.rim_min, 'min'),
    [t('middle bubbled')]: n(told.middle_min, 'min'),
    [t('weight going in')]: n(told.before_g, 'g'),
    [t('weight coming out')]: n(told.after_g, 'g'),
    [t('note')]: o.note ? `“${o.note}”` : '',
    [t('picture')]: o.picture_id ? t('with a picture') : '',
  }
}
const changes = computed(() => {
  let after = words(props.bake.outcome)
  return props.bake.corrections.map((c) => {
    const before = words(c.was)
    const what = Object.keys(after)
      .filter((k) => before[k] !== after[k])
      .map((k) => `${k}: ${before[k] || t('not told')} → ${after[k] || t('not told')}`)
    after = before
    return { at: c.at, what }
  })
})
</script>

<template>
  <section v-if="changes.length" data-testid="told-before">
    <h3>{{ $t('Put right') }}</h3>
    <ul>
      <li v-for="c in changes" :key="c.at">
        {{ date(c.at) }}: {{ asRead(c.what.join('; ')) || $t('nothing changed') }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
</style>
