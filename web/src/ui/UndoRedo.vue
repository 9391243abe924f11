<script setup lang="ts">
/** The two buttons of a history, each saying what it would undo or do again. */
defineProps<{ undos: { label: string }[]; redos: { label: string }[] }>()
defineEmits<{ undo: []; redo: [] }>()
</script>

<template>
  <span class="history">
    <button
      class="push"
      :disabled="!undos.length"
      :title="undos.at(-1)?.label"
      data-testid="undo"
      @click="$emit('undo')"
    >
      Undo <span v-if="undos.length" class="visually-hidden">{{ undos.at(-1)?.label }}</span>
    </button>
    <button
      class="push"
      :disabled="!redos.length"
      :title="redos.at(-1)?.label"
      data-testid="redo"
      @click="$emit('redo')"
    >
      Redo <span v-if="redos.length" class="visually-hidden">{{ redos.at(-1)?.label }}</span>
    </button>
  </span>
</template>

<style scoped>
.history {
  display: contents;
}
</style>
