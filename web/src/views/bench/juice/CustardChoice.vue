<script setup lang="ts">
import { computed } from 'vue'
import AmountField from '@/ui/AmountField.vue'
import { useDessert } from '@/stores/useDessert'

/** A custard poured over the fruit of a bar or a pie, by its own ratio. */
const dessert = useDessert()
const request = computed(() => dessert.draft!.request)
const custard = computed(() => request.value.custard)
const usual = { egg: 100, sugar: 170, flour: 25, salt: 1 } as const
type Part = keyof typeof usual

function toggle() {
  dessert.change('the custard', (d) => {
    d.request.custard = d.request.custard ? undefined : {}
    if (d.request.custard) {
      delete d.request.sugar_g
      delete d.request.thickener?.g
    }
  })
}
function set(part: Part, v: number | undefined) {
  dessert.change('the custard', (d) => {
    if (d.request.custard) d.request.custard = { ...usual, ...d.request.custard, [part]: v ?? usual[part] }
  })
}
</script>

<template>
  <div class="custard">
    <label class="tick"
      ><input type="checkbox" :checked="!!custard" data-testid="custard" @change="toggle" /> Pour a custard
      over the fruit</label
    >
    <div v-if="custard" class="parts">
      <AmountField
        v-for="p in ['egg', 'sugar', 'flour', 'salt'] as const"
        :key="p"
        :label="p"
        kind="percent"
        unit=""
        optional
        :digits="0"
        :step="5"
        :instead="usual[p]"
        :model-value="custard[p]"
        :problem="dessert.faultAt(`/custard/${p}`)"
        :testid="`custard-${p}`"
        @update:model-value="(v) => set(p, v)"
      />
    </div>
    <p v-if="custard" class="small quiet">
      Parts by weight. It is done when the middle trembles but no longer ripples.
    </p>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}
</style>
