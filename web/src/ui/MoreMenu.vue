<script setup lang="ts">
import { onClickOutside, useEventListener } from '@vueuse/core'
import { ref, useTemplateRef } from 'vue'

/** What is done now and then, behind one button. Whatever is chosen in it closes it. */
withDefaults(defineProps<{ label: string; about?: string; testid?: string }>(), {
  about: undefined,
  testid: 'more',
})
const open = ref(false)
const menu = useTemplateRef('menu')
onClickOutside(menu, () => (open.value = false))
useEventListener(menu, 'keydown', (e: KeyboardEvent) => {
  if (e.key !== 'Escape' || !open.value) return
  e.stopPropagation()
  open.value = false
  menu.value?.querySelector('button')?.focus()
})
</script>

<template>
  <div ref="menu" class="more">
    <button
      class="push"
      :aria-expanded="open"
      aria-haspopup="true"
      :aria-label="about ? `${label}: ${about}` : label"
      :data-testid="testid"
      @click="open = !open"
    >
      <span class="text">{{ label }}</span> <span class="down" aria-hidden="true">▾</span>
    </button>
    <div v-if="open" class="list panel" @click="open = false"><slot /></div>
  </div>
</template>

<style scoped>
.more {
  position: relative;
}
.list {
  position: absolute;
  z-index: 20;
  top: calc(100% + 4px);
  right: 0;
  display: grid;
  min-width: 220px;
  padding: 6px;
  border: 1.5px solid var(--rim);
  box-shadow: 0 6px 24px rgb(0 0 0 / 25%);
}
/* on a phone it comes up from the foot, in reach of a thumb */
@media (max-width: 43.75em) {
  .list {
    position: fixed;
    inset: auto 8px 8px;
  }
}
.list :deep(.push) {
  justify-content: start;
  border-color: transparent;
  text-align: left;
}
</style>
