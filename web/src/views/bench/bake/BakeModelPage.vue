<script setup lang="ts">
import page from '@/../../docs/bake.md'

/** The page on the model: what is calculated, from which figures, and how good it is. */
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- our own page, made into HTML when the program is built -->
  <article class="panel doc" data-testid="how-it-bakes" v-html="page" />
</template>

<style scoped>
.doc {
  max-width: 1040px;
  margin: 0 auto;
  padding: 18px 28px 32px;
  line-height: 1.55;
}
.doc :deep(h1) {
  margin-bottom: 8px;
}
.doc :deep(h2) {
  margin: 24px 0 6px;
}
.doc :deep(table) {
  border-collapse: collapse;
  margin: 8px 0;
  font-variant-numeric: tabular-nums;
}
.doc :deep(th),
.doc :deep(td) {
  padding: 5px 18px 5px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
}
</style>
