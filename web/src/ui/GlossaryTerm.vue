<script setup lang="ts">
import { computed } from 'vue'
import { explanationOf } from './glossary'

/** A term with its explanation behind a dotted underline; it opens by touch, by pointer and by keys. */
const props = defineProps<{ term: string }>()
const text = computed(() => explanationOf(props.term))
</script>

<template>
  <span>
    <span class="print-only"><slot /></span>
    <el-popover trigger="click" :width="280" :content="text">
      <template #reference>
        <button type="button" class="term no-print" :data-testid="`term-${term}`"><slot /></button>
      </template>
    </el-popover>
  </span>
</template>

<style scoped>
.term {
  padding: 0;
  border: 0;
  border-bottom: 2px dotted currentcolor;
  background: none;
  color: inherit;
  font: inherit;
  text-align: inherit;
  cursor: help;
}
</style>
