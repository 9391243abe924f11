<script setup lang="ts">
import { computed } from 'vue'
import { pad } from './numberPad'

/** Numbers by thumb: digits, the fractions that bakers use, and the units that fit the field. */
const digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0']
const fractions = ['½', '¼', '¾', '⅓', '⅔', '⅛']
const unitsOf: Record<string, string[]> = {
  mass: ['g', 'oz', 'lb', 'cups', 'tbsp', 'tsp'],
  length: ['cm', 'mm', 'in'],
  volume: ['ml', 'l', 'cups'],
  temperature: ['C', 'F', 'gas'],
  minutes: ['min', 'h'],
}
const units = computed(() => unitsOf[pad.value?.kind ?? ''] ?? [])
function add(s: string) {
  const p = pad.value
  if (!p) return
  const now = p.get()
  p.put(s.length > 1 || /[a-zA-Z]/.test(s) ? (s === 'gas' ? `gas ${now}` : `${now} ${s}`) : now + s)
}
const back = () => pad.value?.put(pad.value.get().replace(/\s?([a-zA-Z]+|.)$/, ''))
function done() {
  pad.value?.take()
  pad.value = undefined
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
}
</script>

<template>
  <!-- a touch here leaves the focus in the field -->
  <div
    v-if="pad"
    class="pad no-print"
    role="group"
    :aria-label="`Numbers for ${pad.label}`"
    data-testid="pad"
    @pointerdown.prevent
    @mousedown.prevent
  >
    <p class="small">
      {{ pad.label }}: <strong data-testid="pad-shows">{{ pad.get() || '–' }}</strong>
    </p>
    <div class="keys">
      <div class="digits">
        <button v-for="d in digits" :key="d" :data-testid="`pad-${d}`" @click="add(d)">{{ d }}</button>
        <button aria-label="Delete the last" data-testid="pad-back" @click="back">⌫</button>
      </div>
      <div class="more">
        <button v-for="f in fractions" :key="f" :data-testid="`pad-${f}`" @click="add(f)">{{ f }}</button>
        <button v-for="u in units" :key="u" :data-testid="`pad-${u}`" @click="add(u)">{{ u }}</button>
        <button class="done" data-testid="pad-done" @click="done">Close</button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.pad {
  position: fixed;
  inset: auto 0 0;
  z-index: 4000;
  padding: 6px 10px 10px;
  background: var(--sunk);
  border-top: 3px solid var(--rim);
}
.keys {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  max-width: 620px;
  margin: 4px auto 0;
}
.digits,
.more {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 5px;
}
button {
  min-height: 46px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
  font-size: 1.25rem;
  font-weight: 600;
  touch-action: manipulation;
}
.done {
  grid-column: 1 / -1;
  background: var(--rim);
  border-color: var(--rim);
  color: var(--on-rim);
}
</style>
