<script setup lang="ts">
import { inWords, type Problem } from '@/api/client'
import UndoRedo from './UndoRedo.vue'

/** What was changed last on a list, with its undo and redo. */
defineProps<{
  history: {
    said: string
    problem?: Problem
    undos: { label: string }[]
    redos: { label: string }[]
    undo: () => unknown
    redo: () => unknown
    forget: () => unknown
  }
}>()
</script>

<template>
  <p v-if="history.problem" class="wrong" role="alert">
    {{ `Not undone. ${inWords(history.problem)}.` }}
  </p>
  <p v-if="history.said" class="notice panel" role="status" data-testid="lately">
    {{ history.said }}
    <UndoRedo :undos="history.undos" :redos="history.redos" @undo="history.undo()" @redo="history.redo()" />
    <button class="plain" data-testid="lately-fine" @click="history.forget()">Close</button>
  </p>
</template>
