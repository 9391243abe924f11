<script setup lang="ts">
import { computed } from 'vue'
import UndoRedo from '@/ui/UndoRedo.vue'
import { useDessert } from '@/stores/useDessert'

/** The name of the dessert, whether it is saved, and what is done with it. */
defineProps<{ weighing: boolean; ready: boolean }>()
defineEmits<{ save: [asNew: boolean]; weigh: []; baked: []; oven: [] }>()
const dessert = useDessert()
const draft = computed(() => dessert.draft)
/** What is typed is taken when the field is left: an answer that comes meanwhile does not touch it. */
const name = computed({
  get: () => dessert.draft?.name ?? '',
  set: (to) => dessert.change('the name', (d) => (d.name = to)),
})
</script>

<template>
  <div v-if="draft" class="bar">
    <input
      v-model.lazy="name"
      class="name"
      maxlength="80"
      aria-label="Name of the dessert"
      data-testid="dessert-name"
    />
    <span class="quiet small state" data-testid="save-state"
      >{{ draft.version ? `version ${draft.version}` : draft.cardId ? 'waits to be saved' : 'not a card yet'
      }}{{ draft.cardId && dessert.unsaved ? ', changed' : '' }}</span
    >
    <span class="acts">
      <UndoRedo :undos="dessert.undos" :redos="dessert.redos" @undo="dessert.undo()" @redo="dessert.redo()" />
      <button v-if="!weighing" class="push" data-testid="new" @click="dessert.clear()">New</button>
      <button v-if="draft.cardId" class="push" data-testid="save-as" @click="$emit('save', true)">
        Save as another
      </button>
      <button
        class="push"
        :disabled="!!draft.cardId && !dessert.unsaved"
        data-testid="save"
        @click="$emit('save', false)"
      >
        {{ draft.cardId ? 'Save version' : 'Save card' }}
      </button>
      <button class="push" data-testid="weigh" @click="$emit('weigh')">
        {{ weighing ? 'Back' : 'Weigh' }}
      </button>
      <button class="push" data-testid="baked" @click="$emit('baked')">Baked it</button>
      <button class="push main" :disabled="!ready" data-testid="into-oven" @click="$emit('oven')">
        In the oven
      </button>
    </span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.name {
  flex: 1 1 300px;
  min-width: 160px;
  height: 44px;
  padding: 0 8px;
  border: 0;
  border-bottom: 1.5px solid var(--line);
  background: none;
  font: 650 22px var(--title);
  text-overflow: ellipsis;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-left: auto;
}
.acts :deep(.push) {
  padding: 0 9px;
}
</style>
