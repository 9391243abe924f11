<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'
import { useRoute } from 'vue-router'
import { inWords } from '@/api/client'
import UndoRedo from '@/ui/UndoRedo.vue'
import { bindKeys } from '@/ui/useKeys'
import PartNav from '@/ui/PartNav.vue'
import { useKitchen } from '@/stores/useKitchen'
import { useShelf } from '@/stores/useShelf'
import FiguresShelf from './FiguresShelf.vue'
import DishShelf from './DishShelf.vue'
import OvenShelf from './OvenShelf.vue'
import HouseShelf from './HouseShelf.vue'
import KitchenSettings from './KitchenSettings.vue'
import KitchensShelf from './KitchensShelf.vue'

/** What the kitchen has and knows: its dishes, the tables with its own figures beside them, and how it measures. */
const kitchen = useKitchen()
const shelf = useShelf()
const route = useRoute()
const parts = [
  ['dishes', 'Dishes'],
  ['ovens', 'Ovens'],
  ['house', 'Hands and room'],
  ['fruit', 'Fruit'],
  ['stores', 'Stores'],
  ['kitchen', 'How we measure'],
  ['kitchens', 'Backup'],
] as const
const part = computed(() => (typeof route.params.part === 'string' && route.params.part) || 'dishes')
const unbind = bindKeys('On the Shelf', [
  { key: 'u', says: 'undo', does: () => void shelf.undo() },
  { key: 'r', says: 'redo', does: () => void shelf.redo() },
])
onBeforeUnmount(unbind)
</script>

<template>
  <div class="shelf">
    <div class="bar">
      <h1>Shelf</h1>
      <PartNav label="Parts of the shelf" at="shelf" :part="part" :parts="parts" />
      <span v-if="part !== 'kitchens'" class="acts">
        <span class="small quiet said" role="status" data-testid="shelf-said">{{ shelf.said }}</span>
        <UndoRedo :undos="shelf.undos" :redos="shelf.redos" @undo="shelf.undo()" @redo="shelf.redo()" />
      </span>
    </div>
    <p v-if="shelf.problem" class="wrong" role="alert">
      {{ `Not undone. ${inWords(shelf.problem)}.` }}
    </p>
    <p v-if="kitchen.trouble" class="wrong" role="alert">
      {{ `${kitchen.trouble.title}. Trying again every few seconds.` }}
    </p>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet: begin one on the <RouterLink to="/">Bench</RouterLink>.
    </p>
    <p v-else-if="!kitchen.ready && !kitchen.trouble" class="empty quiet">Fetching the kitchen…</p>
    <template v-else-if="kitchen.kitchen">
      <KitchenSettings v-if="part === 'kitchen'" />
      <KitchensShelf v-else-if="part === 'kitchens'" />
      <FiguresShelf v-else-if="part === 'fruit'" key="fruit" kind="fruit" />
      <FiguresShelf v-else-if="part === 'stores'" key="stores" kind="ingredient" />
      <HouseShelf v-else-if="part === 'house'" />
      <OvenShelf v-else-if="part === 'ovens'" />
      <DishShelf v-else />
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
.acts {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-left: auto;
}
.said {
  max-width: 300px;
}
.empty {
  padding: 40px 12px;
  text-align: center;
  font-size: 1.125rem;
}
</style>
