<script setup lang="ts">
import { computed } from 'vue'

/** A pot from above with its coals in a ring: so many, evenly round. */
const props = defineProps<{ title: string; count: number }>()
const coals = computed(() =>
  Array.from({ length: props.count }, (_, i) => {
    const turn = (2 * Math.PI * i) / props.count
    return { x: 38 * Math.sin(turn), y: -38 * Math.cos(turn) }
  }),
)
</script>

<template>
  <figure>
    <svg viewBox="-50 -50 100 100" role="img" :aria-label="`${title}: ${count} coals in a ring`">
      <circle class="pot" r="45" />
      <circle v-for="(c, i) in coals" :key="i" class="coal" :cx="c.x" :cy="c.y" r="4.2" />
      <text y="9">{{ count }}</text>
    </svg>
    <figcaption>{{ title }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  justify-items: center;
  margin: 0;
}
svg {
  width: 100%;
  max-width: 104px;
}
.pot {
  fill: var(--sunk);
  stroke: var(--rim);
  stroke-width: 2;
}
.coal {
  fill: var(--heat);
}
text {
  fill: var(--ink);
  font: 700 1.6875rem var(--title);
  text-anchor: middle;
}
figcaption {
  font-size: 0.875rem;
}
</style>
