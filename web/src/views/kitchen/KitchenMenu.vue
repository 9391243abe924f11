<script setup lang="ts">
import { ref } from 'vue'
import { useKitchen } from '@/stores/useKitchen'
import MoreMenu from '@/ui/MoreMenu.vue'
import { later, onceTrue } from '@/ui/later'

/** The kitchen that is worked in, and the way to another one. */
const kitchen = useKitchen()
const naming = ref(false)
const fresh = ref(false)
const removing = ref(false)
const KitchenNameDialog = later(() => import('./KitchenNameDialog.vue'))
const DeleteKitchenDialog = later(() => import('./DeleteKitchenDialog.vue'))
const namingAsked = onceTrue(() => naming.value)
const removingAsked = onceTrue(() => removing.value)
function name(isNew: boolean) {
  fresh.value = isNew
  naming.value = true
}
</script>

<template>
  <div class="kitchen">
    <MoreMenu v-if="kitchen.kitchen" :label="kitchen.kitchen.name" testid="kitchen-menu">
      <template v-for="k in kitchen.all" :key="k.id">
        <button
          v-if="k.id !== kitchen.kitchen.id"
          class="push"
          :data-testid="`to-${k.name}`"
          @click="kitchen.choose(k.id)"
        >
          {{ `Switch to ${k.name}` }}
        </button>
      </template>
      <button class="push" data-testid="rename-kitchen" @click="name(false)">Rename…</button>
      <button class="push" data-testid="new-kitchen" @click="name(true)">Add kitchen…</button>
      <a
        class="push"
        :href="`/api/v1/kitchens/${kitchen.kitchen.id}/backup.zip`"
        :download="`${kitchen.kitchen.name}.zip`"
        >Download backup</a
      >
      <button class="push" data-testid="delete-kitchen" @click="removing = true">Delete kitchen…</button>
    </MoreMenu>
    <KitchenNameDialog v-if="namingAsked" v-model="naming" :fresh="fresh" />
    <DeleteKitchenDialog
      v-if="kitchen.kitchen && removingAsked"
      v-model="removing"
      :kitchen="kitchen.kitchen"
    />
  </div>
</template>

<style scoped>
.kitchen {
  min-width: 0;
  margin-left: auto;
}
.kitchen :deep([data-testid='kitchen-menu']) {
  overflow: hidden;
  max-width: 260px;
  border-color: transparent;
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
