<script setup lang="ts">
import { computed } from 'vue'
import type { Watched } from '@/api/client'
import BoldText from '@/parts/BoldText.vue'
import MiddleCurve from '@/parts/MiddleCurve.vue'
import { integer, warmth, degrees } from '@/parts/words'
import { useWatch } from './useWatch'
import { text } from '@/texts'

/** The middle of the fruit: as predicted, and as the probe reads it. When they part, it says what that means. */
const props = defineProps<{ dessert: Watched }>()
const watching = useWatch()
const last = computed(() => props.dessert.readings.at(-1))
const places = [
  ['middle', text('in the middle')],
  ['air', text('slipped out')],
  ['', text('no probe')],
] as const
const cooler = text(
  'By the probe the oven is **{off} cooler** than was thought (give or take {sure}): out after **{out} min**, between {early} and {late}; {planned} were planned. The calls follow it.',
)
const hotter = text(
  'By the probe the oven is **{off} hotter** than was thought (give or take {sure}): out after **{out} min**, between {early} and {late}; {planned} were planned. The calls follow it.',
)
</script>

<template>
  <section class="probe" :aria-label="$t('Probe')" :data-testid="`probe-of-${dessert.title}`">
    <div class="where">
      <span class="small">{{ $t('Probe') }}</span>
      <div class="choice" role="group" :aria-label="$t('Where the probe is')">
        <button
          v-for="[key, says] in places"
          :key="key"
          :aria-pressed="dessert.probe === key"
          :data-testid="`probe-${key || 'none'}`"
          @click="watching.probe(dessert.id, key)"
        >
          {{ $t(says) }}
        </button>
      </div>
    </div>
    <template v-if="dessert.probe">
      <MiddleCurve
        :minute="dessert.curves.minute"
        :middle-c="dessert.curves.middle_c"
        :readings="dessert.readings"
        :end="dessert.estimate?.minutes ?? 0"
      />
      <p class="small">
        {{ $t('Line: predicted. Dots: the (simulated) probe')
        }}<template v-if="last"
          >{{ $t(', now') }} <strong>{{ warmth(last.c) }}</strong></template
        ><template v-else>{{ $t('; the first reading comes within a quarter of a minute') }}</template
        >.
      </p>
      <p v-if="dessert.estimate?.doubtful" class="wrong" role="status" data-testid="estimate">
        {{
          $t('These readings fit no oven: is the probe in the middle of the fruit? Nothing is moved by them.')
        }}
      </p>
      <p v-else-if="dessert.estimate" role="status" data-testid="estimate">
        <BoldText
          :text="
            $t(dessert.estimate.offset_c < 0 ? cooler : hotter, {
              off: degrees(Math.abs(dessert.estimate.offset_c)),
              sure: degrees(dessert.estimate.give_or_take_c),
              out: integer(dessert.estimate.minutes),
              early: integer(dessert.estimate.early_min),
              late: integer(dessert.estimate.late_min),
              planned: integer(dessert.plan_minutes),
            })
          "
        />
      </p>
    </template>
  </section>
</template>

<style scoped>
.probe {
  display: grid;
  gap: 6px;
}
.where {
  display: grid;
  grid-template-columns: auto 1fr;
  align-items: center;
  gap: 10px;
}
</style>
