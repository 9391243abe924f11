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
import { useEquipment } from '@/stores/useEquipment'
import FiguresEditor from './FiguresEditor.vue'
import DishEditor from './DishEditor.vue'
import OvenEditor from './OvenEditor.vue'
import ResourcesEditor from './ResourcesEditor.vue'
import KitchenSettings from './KitchenSettings.vue'
import KitchenList from './KitchenList.vue'

/** What the kitchen has and knows: its dishes, the tables with its own figures in addition to them, and how it measures. */
const kitchen = useKitchen()
const equipment = useEquipment()
const route = useRoute()
const count = (list: Record<string, unknown> | undefined) => Object.keys(list ?? {}).length
const ours = (all: number, own: number) => (own ? `${all}, ${own} own` : String(all))
const measured = computed(() => kitchen.dishes.filter((d) => d.dish.measured_ml).length)
useFetched(() => kitchen.loadResources())
const parts = computed(
  () =>
    [
      ['dishes', 'Dishes', `${kitchen.dishes.length}, ${measured.value} measured`],
      ['ovens', 'Ovens', kitchen.ovens.map((o) => o.name).join(', ')],
      ['people', 'People', kitchen.resources?.resources.people.map((p) => p.id).join(', ')],
      ['fruit', 'Fruit', ours(kitchen.fruits.length, count(kitchen.own.fruits))],
      ['ingredients', 'Ingredients', ours(kitchen.ingredients.length, count(kitchen.own.ingredients))],
      ['units', 'Units', heat(180)],
      ['backup', 'Backup', kitchen.kitchen?.name],
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
  () => equipment.touched,
  (t) => (kind.value = kinds.find(([k]) => k === t?.thing)?.[0] ?? kind.value),
)
const part = computed(() => (typeof route.params.part === 'string' && route.params.part) || 'dishes')
const unbind = bindKeys('On this page', [
  { key: 'u', label: 'undo', does: () => void equipment.undo() },
  { key: 'r', label: 'redo', does: () => void equipment.redo() },
])
onBeforeUnmount(unbind)
</script>

<template>
  <div class="kitchen-view">
    <div class="bar">
      <h1>Kitchen</h1>
      <span v-if="part !== 'kitchens'" class="acts">
        <span class="small quiet said" role="status" data-testid="kitchen-said">{{ equipment.said }}</span>
        <UndoRedo
          :undos="equipment.undos"
          :redos="equipment.redos"
          @undo="equipment.undo()"
          @redo="equipment.redo()"
        />
      </span>
    </div>
    <PartNav label="Parts of the kitchen" at="kitchen" :part="part" :parts="parts" />
    <p v-if="equipment.problem" class="wrong" role="alert">
      {{ `Not undone. ${inWords(equipment.problem)}.` }}
    </p>
    <p v-if="kitchen.trouble" class="wrong" role="alert">
      {{ `${kitchen.trouble.title}. Trying again every few seconds.` }}
    </p>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet. Create one on the <RouterLink to="/">Bench</RouterLink>.
    </p>
    <p v-else-if="!kitchen.ready && !kitchen.trouble" class="empty quiet">Loading…</p>
    <template v-else-if="kitchen.kitchen">
      <KitchenSettings v-if="part === 'units'" />
      <KitchenList v-else-if="part === 'backup'" />
      <FiguresEditor v-else-if="part === 'fruit'" key="fruit" kind="fruit" />
      <FiguresEditor v-else-if="part === 'ingredients'" :key="kind" :kind="kind">
        <div class="choice" role="group" aria-label="Table">
          <button
            v-for="[key, label] in kinds"
            :key="key"
            :aria-pressed="kind === key"
            :data-testid="`kind-${key}`"
            @click="kind = key"
          >
            {{ label }}
          </button>
        </div>
      </FiguresEditor>
      <ResourcesEditor v-else-if="part === 'people'" />
      <OvenEditor v-else-if="part === 'ovens'" />
      <DishEditor v-else />
    </template>
  </div>
</template>

<style scoped>
.kitchen-view {
  display: flex;
  flex-direction: column;
  height: calc(100vh - var(--above) - 14px);
}
.kitchen-view > :deep(.panel:last-child),
.kitchen-view > :deep(.resources) {
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
  .kitchen-view {
    height: auto;
  }
}
</style>
