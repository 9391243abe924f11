<script setup lang="ts">
import type { School } from '@/api/client'
import { asRead, bandWords, grams } from '@/parts/words'
import { t } from '@/texts'

/** Where bakers disagree: each way as a switch, with what it changes in numbers. */
defineProps<{ schools: School[]; label: string }>()
defineEmits<{ choose: [school: School] }>()

const says = (s: School) =>
  [
    s.question === 'peel' ? t('buy {weight}', { weight: grams(s.buy_g) }) : '',
    s.driven_off_g >= 0.5 ? t('{weight} boiled off', { weight: grams(s.driven_off_g) }) : '',
    s.sugar_lost_g >= 0.5 ? t('{weight} of sugar lost', { weight: grams(s.sugar_lost_g) }) : '',
    s.thickener_lost_g >= 0.05 ? t('{weight} of thickener lost', { weight: grams(s.thickener_lost_g) }) : '',
  ]
    .filter(Boolean)
    .join(', ')
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
        <th scope="col" class="n">{{ $t('juice') }}</th>
        <th scope="col" class="n">{{ $t('thickener') }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="s in schools" :key="s.key" :class="{ chosen: s.chosen }">
        <th scope="row">
          <button
            :aria-pressed="s.chosen"
            :data-testid="`school-${s.question}-${s.key}`"
            @click="$emit('choose', s)"
          >
            <span class="mark" aria-hidden="true" />
            <span
              >{{ asRead(s.name) }}<span v-if="says(s)" class="lost">{{ says(s) }}</span></span
            >
          </button>
        </th>
        <td class="n">{{ grams(s.juice_g) }}</td>
        <td class="n">
          {{ grams(s.thickener_g) }}<span class="visually-hidden">, {{ bandWords[s.band] }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
}
th {
  text-align: left;
  font-weight: 400;
}
thead th {
  font-size: 14px;
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
  font-size: 13px;
  font-weight: 400;
  color: var(--heat);
}
</style>
