<script setup lang="ts">
/** The parts of a view as a strip of tabs, each with an address of its own and, in a line, what stands in it. */
defineProps<{
  label: string
  at: string
  part: string
  parts: readonly (readonly [key: string, label: string, line?: string])[]
}>()
</script>

<template>
  <nav class="parts" :aria-label="label">
    <RouterLink
      v-for="[key, title, line] in parts"
      :key="key"
      :to="`/${at}/${key}`"
      :class="{ on: part === key }"
      :aria-current="part === key ? 'page' : undefined"
      :data-testid="`${at}-${key}`"
    >
      <span class="title">{{ title }}</span>
      <span v-if="line" class="line">{{ line }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.parts {
  display: grid;
  grid-auto-columns: minmax(0, 1fr);
  grid-auto-flow: column;
  gap: 4px;
}
a {
  display: grid;
  align-content: center;
  min-width: 0;
  min-height: 44px;
  padding: 5px 10px;
  border-top: 3px solid var(--line);
  border-radius: 4px 4px 0 0;
  background: var(--sunk);
  color: var(--ink);
  text-decoration: none;
}
a.on {
  border-top-color: var(--rim);
  background: var(--panel);
}
a:focus-visible {
  outline-offset: -3px;
}
.title {
  font: 700 1.0625rem/1.3 var(--title);
}
.line {
  overflow: hidden;
  font-size: 0.875rem;
  font-weight: 400;
  white-space: nowrap;
  text-overflow: ellipsis;
  color: var(--ink-2);
}
@media (max-width: 56.25em) {
  .parts:has(.line) {
    grid-auto-flow: row;
    grid-template-columns: repeat(auto-fill, minmax(8.5rem, 1fr));
  }
}
</style>
