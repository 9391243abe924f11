<script setup lang="ts" generic="T extends string | number">
/** One thing that a list is narrowed by; empty, it is not. */
defineProps<{
  label: string
  options: (readonly [value: T, label: string])[]
  testid: string
  /** Among many, by typing. */
  filterable?: boolean
}>()
const value = defineModel<T | undefined>()
</script>

<template>
  <el-select
    v-model="value"
    clearable
    :filterable="filterable"
    :placeholder="label"
    :aria-label="label"
    :data-testid="testid"
  >
    <el-option
      v-for="[v, text] in options"
      :key="v"
      :value="v"
      :label="text"
      :data-testid="`${testid}-${v}`"
    />
  </el-select>
</template>
