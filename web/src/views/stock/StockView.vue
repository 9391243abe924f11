<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import PartNav from '@/ui/PartNav.vue'
import { useKitchen } from '@/stores/useKitchen'
import InStock from './InStock.vue'
import LabelSheets from './LabelSheets.vue'
import ShoppingList from './ShoppingList.vue'
import CardCounts from './CardCounts.vue'
import { useWanted } from './useWanted'

/** Buying and selling: what to buy for what is to be baked, what is in store, and what is printed in addition to it. */
const kitchen = useKitchen()
const route = useRoute()
const parts = [
  ['buy', 'Shopping list'],
  ['items', 'In stock'],
  ['labels', 'Labels'],
] as const
const part = computed(() => (typeof route.params.part === 'string' && route.params.part) || 'buy')
const wanted = useWanted()
</script>

<template>
  <div class="stock-view">
    <div class="bar no-print">
      <h1>Stock</h1>
      <PartNav class="parts" label="Parts of the stock" at="stock" :part="part" :parts="parts" />
    </div>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet. Create one on the <RouterLink to="/">Bench</RouterLink>.
    </p>
    <template v-else-if="kitchen.kitchen">
      <InStock v-if="part === 'items'" />
      <div v-else class="two">
        <CardCounts v-model="wanted" class="no-print" />
        <LabelSheets v-if="part === 'labels'" :wanted="wanted" />
        <ShoppingList v-else :wanted="wanted" />
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
