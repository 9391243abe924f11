<script setup lang="ts">
import { computed } from 'vue'
import type { BakeChange, PlanAnswer } from '@/api/client'
import MoreMenu from '@/ui/MoreMenu.vue'
import UndoRedo from '@/ui/UndoRedo.vue'
import { useDessert } from '@/stores/useDessert'
import ReadyByLine from './ReadyByLine.vue'
import VerdictLine from './VerdictLine.vue'

/** What a dessert comes to next: it is weighed, it goes into the oven, and then it receives how it came out. */
export type BenchMoment = 'weigh' | 'oven' | 'baked'

/** The name of the dessert, what will become of it, and what is done with it now. */
const props = defineProps<{
  weighing: boolean
  ready: boolean
  moment: BenchMoment
  verdict?: PlanAnswer['verdict']
}>()
const emit = defineEmits<{
  save: [asNew: boolean]
  weigh: []
  baked: []
  oven: []
  mend: [label: string, change: BakeChange]
}>()
const dessert = useDessert()
const draft = computed(() => dessert.draft)
/** What is typed is taken when the field is left: an answer that comes meanwhile does not touch it. */
const name = computed({
  get: () => dessert.draft?.name ?? '',
  set: (to) => dessert.change('the name', (d) => (d.name = to)),
})
const deeds = computed(() => [
  {
    key: 'weigh' as const,
    id: 'weigh',
    label: props.weighing ? 'Back' : 'Weigh',
    off: false,
    does: () => emit('weigh'),
  },
  {
    key: 'oven' as const,
    id: 'into-oven',
    label: 'Start baking',
    off: !props.ready,
    does: () => emit('oven'),
  },
  {
    key: 'baked' as const,
    id: 'baked',
    label: 'Log result',
    off: false,
    does: () => emit('baked'),
  },
])
const now = computed(() => deeds.value.find((d) => d.key === props.moment)!)
const others = computed(() => deeds.value.filter((d) => d.key !== props.moment))
</script>

<template>
  <div v-if="draft" class="bar">
    <div class="named">
      <input
        v-model.lazy="name"
        class="name"
        maxlength="80"
        aria-label="Name of the dessert"
        data-testid="dessert-name"
      />
      <span class="below">
        <span class="quiet small state" data-testid="save-state"
          >{{
            draft.version
              ? `version ${draft.version}`
              : draft.cardId
                ? 'not saved yet'
                : 'not saved as a card'
          }}{{ draft.cardId && dessert.unsaved ? ', changed' : '' }}</span
        >
        <ReadyByLine v-if="!weighing" />
      </span>
    </div>
    <VerdictLine
      v-if="verdict"
      class="what-becomes"
      :verdict="verdict"
      @mend="(label, change) => $emit('mend', label, change)"
    />
    <span class="acts">
      <UndoRedo :undos="dessert.undos" :redos="dessert.redos" @undo="dessert.undo()" @redo="dessert.redo()" />
      <button
        class="push"
        :disabled="!!draft.cardId && !dessert.unsaved"
        data-testid="save"
        @click="$emit('save', false)"
      >
        {{ draft.cardId ? 'Save version' : 'Save card' }}
      </button>
      <button class="push main" :disabled="now.off" :data-testid="now.id" @click="now.does()">
        {{ now.label }}
      </button>
      <MoreMenu label="More">
        <button
          v-for="d in others"
          :key="d.key"
          class="push"
          :disabled="d.off"
          :data-testid="d.id"
          @click="d.does()"
        >
          {{ d.label }}
        </button>
        <button v-if="draft.cardId" class="push" data-testid="save-as" @click="$emit('save', true)">
          Save as a new card
        </button>
        <button v-if="!weighing" class="push" data-testid="new" @click="dessert.clear()">New dessert</button>
      </MoreMenu>
    </span>
  </div>
</template>

<style scoped>
.bar {
  display: grid;
  grid-template-columns: minmax(220px, 340px) minmax(0, 1fr) auto;
  align-items: center;
  gap: 6px 14px;
  min-height: 52px;
}
.named {
  display: grid;
  min-width: 0;
}
.name {
  width: 100%;
  height: 36px;
  padding: 0 8px;
  border: 0;
  border-bottom: 1.5px solid var(--line);
  background: none;
  font: 700 1.3125rem var(--title);
  text-overflow: ellipsis;
}
.below {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 6px;
}
.state {
  padding-left: 8px;
}
.acts {
  grid-column: 3;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.acts :deep(.push) {
  padding: 0 10px;
}
@media (max-width: 68.75em) {
  .bar {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .what-becomes {
    grid-row: 2;
    grid-column: 1 / -1;
  }
  .acts {
    grid-column: 2;
  }
}
@media (max-width: 43.75em) {
  .bar {
    grid-template-columns: minmax(0, 1fr);
  }
  .acts {
    grid-column: 1;
  }
}
</style>
