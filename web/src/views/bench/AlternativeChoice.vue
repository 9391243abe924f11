<script setup lang="ts">
import type { Alternative } from '@/api/client'
import { grams } from '@/format/amounts'
import { useKitchen } from '@/stores/useKitchen'

/** Where bakers disagree: each way as a switch, with what it changes in numbers. */
const kitchen = useKitchen()
defineProps<{ alternatives: Alternative[]; label: string }>()
defineEmits<{ choose: [alternative: Alternative] }>()
</script>

<template>
  <table>
    <caption class="visually-hidden">
      {{
        label
      }}
    </caption>
    <thead>
      <tr>
        <th scope="col">{{ label }}</th>
        <th scope="col" class="n">juice</th>
        <th scope="col" class="n">thickener</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="s in alternatives" :key="s.key" :class="{ chosen: s.chosen }">
        <th scope="row">
          <button
            :aria-pressed="s.chosen"
            :data-testid="`school-${s.question}-${s.key}`"
            @click="$emit('choose', s)"
          >
            <span class="mark" aria-hidden="true" />
            <span
              >{{ s.name }}<span v-if="s.effect" class="lost">{{ s.effect }}</span></span
            >
          </button>
        </th>
        <td class="n">{{ grams(s.juice_g) }}</td>
        <td class="n">
          {{ grams(s.thickener_g) }}<span class="visually-hidden">, {{ kitchen.word('band', s.band) }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.9375rem;
}
th {
  text-align: left;
  font-weight: 400;
}
thead th {
  font-size: 0.875rem;
  color: var(--ink-2);
}
.n {
  text-align: right;
  white-space: nowrap;
  padding-left: 8px;
}
tbody tr {
  border-top: 1px solid var(--line);
}
button {
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 44px;
  padding: 2px 0;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.mark {
  flex: none;
  width: 16px;
  height: 16px;
  border: 2px solid var(--ink-2);
  border-radius: 50%;
}
.chosen .mark {
  border: 5px solid var(--rim-ink);
}
.chosen td,
.chosen button {
  font-weight: 600;
}
.lost {
  display: block;
  font-size: 0.8125rem;
  font-weight: 400;
  color: var(--heat);
}
</style>
