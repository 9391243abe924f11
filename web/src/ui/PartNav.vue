<script setup lang="ts">
/** The parts of a view, each with an address of its own. */
defineProps<{
  label: string
  at: string
  part: string
  parts: readonly (readonly [key: string, says: string])[]
}>()
</script>

<template>
  <nav class="choice" :aria-label="label">
    <RouterLink
      v-for="[key, says] in parts"
      :key="key"
      :to="`/${at}/${key}`"
      :class="{ on: part === key }"
      :data-testid="`${at}-${key}`"
      >{{ says }}</RouterLink
    >
  </nav>
</template>

<style scoped>
a {
  display: flex;
  flex: 1 1 auto;
  align-items: center;
  justify-content: center;
  min-height: 44px;
  padding: 0 16px;
  border-left: 1.5px solid var(--line);
  background: var(--panel);
  color: var(--ink);
  text-decoration: none;
}
a:first-child {
  border-left: 0;
}
a.on {
  background: var(--rim);
  color: var(--on-rim);
  font-weight: 600;
}
</style>
