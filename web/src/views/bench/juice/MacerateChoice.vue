<script setup lang="ts">
import { computed } from 'vue'
import type { Alternative } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import AlternativeChoice from '@/views/bench/AlternativeChoice.vue'
import { useDessert } from '@/stores/useDessert'
import { useAlternatives } from '@/views/bench/useAlternatives'

/** Sugared fruit left to stand, in its three alternatives: the ledger above follows at once. */
const dessert = useDessert()
const alternatives = useAlternatives()('macerate')
const macerate = computed(() => dessert.draft!.request.macerate)

function choose(s: Alternative) {
  dessert.change('the juice drawn out', (d) => (d.request.macerate = s.macerate))
}
</script>

<template>
  <div class="macerate">
    <AlternativeChoice :alternatives="alternatives" label="Juice drawn out by sugar" @choose="choose" />
    <div v-if="macerate" class="pair">
      <AmountField
        label="Standing time"
        kind="minutes"
        unit="min"
        :step="5"
        :digits="0"
        :model-value="macerate.minutes"
        :problem="dessert.faultAt('/macerate/minutes')"
        testid="macerate-minutes"
        @update:model-value="
          (v) =>
            dessert.change('the minutes', (d) => d.request.macerate && (d.request.macerate.minutes = v ?? 0))
        "
      />
      <label class="tick"
        ><input
          type="checkbox"
          :checked="macerate.with_thickener"
          data-testid="macerate-thickener"
          @change="
            dessert.change(
              'when the thickener goes in',
              (d) =>
                d.request.macerate &&
                (d.request.macerate.with_thickener = !d.request.macerate.with_thickener),
            )
          "
        />
        Thickener added before standing</label
      >
    </div>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  align-items: end;
}
</style>
