<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Answer } from '@/api/client'
import FigureText from '@/ui/FigureText.vue'
import { grams } from '@/format/amounts'
import { useKitchen } from '@/stores/useKitchen'

/** The juice as a running balance: each line's bar begins where the one before ended. */
const kitchen = useKitchen()
const props = defineProps<{ answer: Answer }>()
const told = ref<string>()
const most = computed(() =>
  Math.max(1, ...props.answer.ledger_lines.map((l) => Math.max(l.running_g, l.running_g - l.g))),
)
const bar = (from: number, to: number) => ({
  left: `${(100 * Math.min(from, to)) / most.value}%`,
  width: `max(2px, ${(100 * Math.abs(to - from)) / most.value}%)`,
  '--juice': props.answer.cutaway.juice_colour,
})
const line = computed(() => props.answer.ledger_lines.find((l) => l.code === told.value))
</script>

<template>
  <div class="ledger" data-testid="ledger">
    <button
      v-for="l in answer.ledger_lines"
      :key="l.code"
      class="row"
      :aria-expanded="told === l.code"
      title="Show sources"
      :data-testid="`ledger-${l.code}`"
      @click="told = told === l.code ? undefined : l.code"
    >
      <span>{{ l.name }}</span>
      <span class="track"
        ><span :class="['bar', l.g < 0 ? 'left' : 'came']" :style="bar(l.running_g - l.g, l.running_g)"
      /></span>
      <FigureText class="g" :text="(l.g < 0 ? '− ' : '+ ') + grams(Math.abs(l.g))" />
    </button>
    <div class="row hold">
      <strong>Juice to thicken</strong>
      <span class="track"><span class="bar all" :style="bar(0, answer.juice_g)" /></span>
      <FigureText class="g" :text="grams(answer.juice_g)" />
    </div>
    <p v-if="line" class="small quiet">
      {{ `${line.source} From: ${kitchen.word('basis', line.basis)}.` }}
    </p>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 150px 1fr 74px;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 27px;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
  font-size: 0.9375rem;
  cursor: pointer;
}
.hold {
  border-top: 2px solid var(--ink);
  cursor: default;
  min-height: 32px;
}
.track {
  position: relative;
  height: 16px;
}
.bar {
  position: absolute;
  inset: 0 auto 0 0;
  border: 1.5px solid var(--ink);
  background: var(--juice);
}
.bar.left {
  background: repeating-linear-gradient(-45deg, transparent 0 3px, var(--ink-2) 3px 4.5px);
}
.g {
  text-align: right;
  font-weight: 600;
}
.hold .g {
  font-size: 1.3125rem;
  font-weight: 700;
}
button.row > :first-child {
  text-decoration: underline dotted var(--ink-2) 1.5px;
  text-underline-offset: 3px;
}
</style>
