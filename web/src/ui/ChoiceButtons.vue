<script setup lang="ts" generic="T extends string">
import type { ChoiceName } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'

/** The values that a field may have, side by side: the usual one is pressed where nothing was chosen. */
defineProps<{
  of: ChoiceName
  modelValue: T | undefined
  label: string
  testid?: string
  /** Something else was said: not even the usual one is pressed. */
  none?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
const kitchen = useKitchen()
</script>

<template>
  <div class="choice" role="group" :aria-label="label">
    <button
      v-for="c in kitchen.choices(of)"
      :key="c.value"
      type="button"
      :aria-pressed="!none && (modelValue ? modelValue === c.value : (c.usual ?? c.value === ''))"
      :data-testid="testid && `${testid}-${c.value || 'usual'}`"
      @click="emit('update:modelValue', c.value as T)"
    >
      {{ c.label }}
    </button>
  </div>
</template>
