<script setup lang="ts">
/** What stands on the shelf at the left, and the one that was touched, to be changed, at the right. */
defineProps<{ list: string; edit: string; chosen: boolean }>()
</script>

<template>
  <div class="two">
    <section class="panel list" :aria-label="list"><slot name="list" /></section>
    <section v-if="chosen" class="panel edit" :aria-label="edit">
      <slot />
      <div class="acts"><slot name="acts" /></div>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px;
  flex: 1;
  min-height: 0;
}
.list,
.edit {
  overflow: auto;
  padding: 8px 14px 14px;
}
.list :deep(ul) {
  margin: 0 0 10px;
  padding: 0;
  list-style: none;
}
.list :deep(li button) {
  display: grid;
  grid-template-columns: var(--list-columns, 1fr auto);
  align-items: center;
  gap: 14px;
  width: 100%;
  min-height: 64px;
  padding: 4px 8px;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  text-align: left;
  cursor: pointer;
}
.list :deep(li button[aria-pressed='true']) {
  background: var(--sunk);
  box-shadow: inset 5px 0 0 var(--rim);
}
.list :deep(li span > *) {
  display: block;
}
.edit {
  display: grid;
  grid-auto-rows: max-content;
  scroll-padding-bottom: 72px;
  gap: 10px;
}
.acts {
  position: sticky;
  bottom: -14px;
  padding: 8px 0 12px;
  background: var(--panel);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.acts :deep(.settled) {
  color: var(--settled);
  font-weight: 600;
}
@media (max-width: 62.5em) {
  .two {
    display: flex;
    flex-direction: column;
    height: auto;
  }
}
</style>
