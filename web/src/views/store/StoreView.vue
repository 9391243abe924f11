<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import PartNav from '@/ui/PartNav.vue'
import { useKitchen } from '@/stores/useKitchen'
import InStore from './InStore.vue'
import LabelSheets from './LabelSheets.vue'
import ToBuy from './ToBuy.vue'
import WhatFor from './WhatFor.vue'
import { useWanted } from './useWanted'

/** Buying and selling: what to buy for what is to be baked, what is in store, and what is printed beside it. */
const kitchen = useKitchen()
const route = useRoute()
const parts = [
  ['buy', 'Shopping list'],
  ['stock', 'In stock'],
  ['labels', 'Labels'],
] as const
const part = computed(() => (typeof route.params.part === 'string' && route.params.part) || 'buy')
const wanted = useWanted()
</script>

<template>
  <div class="store">
    <div class="bar no-print">
      <h1>Stock</h1>
      <PartNav class="parts" label="Parts of the stock" at="store" :part="part" :parts="parts" />
    </div>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet. Create one on the <RouterLink to="/">Bench</RouterLink>.
    </p>
    <template v-else-if="kitchen.kitchen">
      <InStore v-if="part === 'stock'" />
      <div v-else class="two">
        <WhatFor v-model="wanted" class="no-print" />
        <LabelSheets v-if="part === 'labels'" :wanted="wanted" />
        <ToBuy v-else :wanted="wanted" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  padding: 4px 8px 8px;
}
.parts {
  flex: 0 1 32rem;
  min-width: min(100%, 20rem);
}
.two {
  display: grid;
  grid-template-columns: 20rem minmax(0, 1fr);
  align-items: start;
  gap: 8px;
}
.empty {
  padding: 40px 12px;
  text-align: center;
}
@media (max-width: 62em) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .two {
    display: block;
  }
}
</style>
