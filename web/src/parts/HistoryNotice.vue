<script setup lang="ts">
import { inWords, type Problem } from '@/api/client'
import UndoRedo from './UndoRedo.vue'

/** What was changed last on a list, with its undo and redo. */
defineProps<{ said: string; problem?: Problem; undos: { says: string }[]; redos: { says: string }[] }>()
defineEmits<{ undo: []; redo: []; fine: [] }>()
</script>

<template>
  <p v-if="problem" class="wrong" role="alert">
    {{ $t('Not undone. {problem}.', { problem: inWords(problem) }) }}
  </p>
  <p v-if="said" class="notice panel" role="status" data-testid="lately">
    {{ said }}
    <UndoRedo :undos="undos" :redos="redos" @undo="$emit('undo')" @redo="$emit('redo')" />
    <button class="plain" data-testid="lately-fine" @click="$emit('fine')">{{ $t('Fine') }}</button>
  </p>
</template>
