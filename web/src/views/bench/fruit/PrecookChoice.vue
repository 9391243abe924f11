<script setup lang="ts">
import { computed } from 'vue'
import type { Alternative } from '@/api/client'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { lower, short } from '@/format/amounts'
import AlternativeChoice from '@/views/bench/AlternativeChoice.vue'
import { useDessert } from '@/stores/useDessert'
import { useAlternatives } from '@/views/bench/useAlternatives'

/** Cooking the fruit first: needed for some, advised for some, a school for the rest. */
const kitchen = useKitchen()
const dessert = useDessert()
const of = useAlternatives()
const alternatives = of('precook')
const peel = of('peel')
const precook = computed(() => dessert.draft!.request.precook)
const wants = computed(() =>
  dessert
    .draft!.request.fruits.map((f) => kitchen.fruit.get(f.key))
    .filter((f) => f && f.precook !== 'none')
    .map((f) => `${lower(short(f!.name))}: ${f!.precook}`),
)

function peelAll(s: Alternative) {
  dessert.change('peeling', (d) => d.request.fruits.forEach((f) => (f.peeled = s.key === 'peeled')))
}
function choose(s: Alternative) {
  dessert.change('pre-cooking', (d) => (d.request.precook = s.precook))
}
</script>

<template>
  <div>
    <p v-if="wants.length" class="small"><strong>Cook the fruit first</strong>, {{ wants.join('; ') }}.</p>
    <AlternativeChoice :alternatives="alternatives" label="Cook the fruit first" @choose="choose" />
    <AlternativeChoice v-if="peel.length" :alternatives="peel" label="Peel the fruit" @choose="peelAll" />
    <div v-if="precook" class="pair">
      <AmountField
        label="Pre-cooking time"
        kind="minutes"
        unit="min"
        :digits="0"
        :model-value="precook.minutes"
        :problem="dessert.faultAt('/precook/minutes')"
        testid="precook"
        @update:model-value="
          (v) =>
            dessert.change('pre-cooking', (d) => d.request.precook && (d.request.precook.minutes = v ?? 0))
        "
      />
      <ChoiceButtons
        v-if="!precook.open"
        of="precook"
        :model-value="precook.where"
        label="Where"
        testid="precook"
        @update:model-value="
          (w) =>
            dessert.change('where it is cooked', (d) => d.request.precook && (d.request.precook.where = w))
        "
      />
    </div>
    <p v-if="precook" class="small quiet">Let it cool before the topping goes on, or the fat melts.</p>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 120px 1fr;
  gap: 10px;
  align-items: end;
}
</style>
