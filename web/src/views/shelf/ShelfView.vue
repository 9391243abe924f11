<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { inWords } from '@/api/client'
import UndoRedo from '@/ui/UndoRedo.vue'
import { bindKeys } from '@/ui/useKeys'
import PartNav from '@/ui/PartNav.vue'
import { useFetched } from '@/ui/useFetched'
import { type Kind, useKitchen } from '@/stores/useKitchen'
import { heat } from '@/format/amounts'
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
const count = (list: Record<string, unknown> | undefined) => Object.keys(list ?? {}).length
const ours = (all: number, own: number) => (own ? `${all}, ${own} own` : String(all))
const measured = computed(() => kitchen.dishes.filter((d) => d.dish.measured_ml).length)
useFetched(() => kitchen.loadHouse())
const parts = computed(
  () =>
    [
      ['dishes', 'Dishes', `${kitchen.dishes.length}, ${measured.value} measured`],
      ['ovens', 'Ovens', kitchen.ovens.map((o) => o.name).join(', ')],
      ['house', 'People', kitchen.house?.house.people.map((p) => p.id).join(', ')],
      ['fruit', 'Fruit', ours(kitchen.fruits.length, count(kitchen.own.fruits))],
      ['stores', 'Ingredients', ours(kitchen.ingredients.length, count(kitchen.own.ingredients))],
      ['kitchen', 'Units', heat(180)],
      ['kitchens', 'Backup', kitchen.kitchen?.name],
    ] as const,
)
/** Table of the stores is shown. */
const kind = ref<Kind>('ingredient')
const kinds: [Kind, string][] = [
  ['ingredient', 'Ingredients'],
  ['thickener', 'Thickeners'],
  ['topping', 'Toppings'],
]
watch(
  () => shelf.touched,
  (t) => (kind.value = kinds.find(([k]) => k === t?.thing)?.[0] ?? kind.value),
)
const part = computed(() => (typeof route.params.part === 'string' && route.params.part) || 'dishes')
const unbind = bindKeys('On this page', [
  { key: 'u', says: 'undo', does: () => void shelf.undo() },
  { key: 'r', says: 'redo', does: () => void shelf.redo() },
])
onBeforeUnmount(unbind)
</script>

<template>
  <div class="shelf">
    <div class="bar">
      <h1>Kitchen</h1>
      <span v-if="part !== 'kitchens'" class="acts">
        <span class="small quiet said" role="status" data-testid="shelf-said">{{ shelf.said }}</span>
        <UndoRedo :undos="shelf.undos" :redos="shelf.redos" @undo="shelf.undo()" @redo="shelf.redo()" />
      </span>
    </div>
    <PartNav label="Parts of the kitchen" at="shelf" :part="part" :parts="parts" />
    <p v-if="shelf.problem" class="wrong" role="alert">
      {{ `Not undone. ${inWords(shelf.problem)}.` }}
    </p>
    <p v-if="kitchen.trouble" class="wrong" role="alert">
      {{ `${kitchen.trouble.title}. Trying again every few seconds.` }}
    </p>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet. Create one on the <RouterLink to="/">Bench</RouterLink>.
    </p>
    <p v-else-if="!kitchen.ready && !kitchen.trouble" class="empty quiet">Loading…</p>
    <template v-else-if="kitchen.kitchen">
      <KitchenSettings v-if="part === 'kitchen'" />
      <KitchensShelf v-else-if="part === 'kitchens'" />
      <FiguresShelf v-else-if="part === 'fruit'" key="fruit" kind="fruit" />
      <FiguresShelf v-else-if="part === 'stores'" :key="kind" :kind="kind">
        <div class="choice" role="group" aria-label="Table">
          <button
            v-for="[key, says] in kinds"
            :key="key"
            :aria-pressed="kind === key"
            :data-testid="`kind-${key}`"
            @click="kind = key"
          >
            {{ says }}
          </button>
        </div>
      </FiguresShelf>
      <HouseShelf v-else-if="part === 'house'" />
      <OvenShelf v-else-if="part === 'ovens'" />
      <DishShelf v-else />
    </template>
  </div>
</template>

<style scoped>
.shelf {
  display: flex;
  flex-direction: column;
  height: calc(100vh - var(--above) - 14px);
}
.shelf > :deep(.panel:last-child),
.shelf > :deep(.house) {
  flex: 1;
  overflow: auto;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  min-height: 52px;
  padding: 0 8px 6px;
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
@media (max-width: 62.5em) {
  .shelf {
    height: auto;
  }
}
</style>
