<script setup lang="ts">
import { computed } from 'vue'
import { fine } from '@/format/amounts'

/** What a hundred grams are, as one bar: each part as long as its share, what is left over open. */
const props = defineProps<{ parts: { name: string; pct: number }[]; colour?: string }>()
const shown = computed(() => props.parts.filter((p) => p.pct))
const fills = ['water', 'second', 'third', 'fourth', 'fifth', 'sixth']
</script>

<template>
  <figure v-if="shown.length" class="composition" data-testid="composition">
    <div class="bar" aria-hidden="true">
      <span
        v-for="(p, i) in shown"
        :key="p.name"
        :class="fills[i]"
        :style="{ width: `${p.pct}%`, '--juice': colour ?? 'var(--line)' }"
      />
    </div>
    <figcaption class="small">
      <span class="of">In 100 g:</span>
      <span v-for="(p, i) in shown" :key="p.name" class="part">
        <i :class="fills[i]" :style="{ '--juice': colour ?? 'var(--line)' }" aria-hidden="true" />
        {{ p.name.toLowerCase() }} <strong>{{ fine(p.pct) }}</strong> g
      </span>
    </figcaption>
  </figure>
</template>

<style scoped>
.composition {
  margin: 0;
}
.bar {
  display: flex;
  overflow: hidden;
  height: 26px;
  border: 2px solid var(--rim);
  border-radius: 4px;
  background: var(--panel);
}
.bar span {
  flex: none;
  border-right: 1.5px solid var(--rim);
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  padding-top: 5px;
}
.part {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
i {
  width: 15px;
  height: 15px;
  border: 1.5px solid var(--rim);
  border-radius: 3px;
}
.water {
  background: var(--juice);
}
.second {
  background: repeating-linear-gradient(45deg, var(--ink) 0 1.5px, var(--panel) 1.5px 6px);
}
.third {
  background: radial-gradient(circle, var(--ink) 1.6px, var(--panel) 2px) 0 0 / 7px 7px;
}
.fourth {
  background: repeating-linear-gradient(0deg, var(--ink) 0 1.5px, var(--panel) 1.5px 6px);
}
.fifth {
  background: repeating-linear-gradient(90deg, var(--ink) 0 1.5px, var(--panel) 1.5px 6px);
}
.sixth {
  background: var(--ink-2);
}
</style>
