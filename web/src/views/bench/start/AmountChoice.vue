<script setup lang="ts">
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import AmountField from '@/ui/AmountField.vue'

/** What the dessert is begun from in addition to its fruit: what the dish takes, the fruit that there is, or who is to be fed. */
export interface Amount {
  of: 'dish' | 'fruit' | 'portions'
  g?: number
  bought: boolean
  count: number
  portion: 'tasting' | 'standard' | 'hearty'
}
const amount = defineModel<Amount>({ required: true })
defineProps<{ fruit?: string }>()
const starts = [
  ['dish', 'to fill the dish'],
  ['fruit', 'fruit I have'],
  ['portions', 'portions'],
] as const
</script>

<template>
  <div class="how-much">
    <strong>How much?</strong>
    <div class="choice" role="group" aria-label="How much">
      <button
        v-for="[key, label] in starts"
        :key="key"
        :aria-pressed="amount.of === key"
        :data-testid="`from-${key}`"
        @click="amount.of = key"
      >
        {{ label }}
      </button>
    </div>
    <template v-if="amount.of === 'fruit'">
      <AmountField
        v-model="amount.g"
        class="field"
        :label="amount.bought ? 'Fruit as bought' : 'Prepared fruit'"
        hide-label
        kind="mass"
        unit="g"
        :step="50"
        :digits="0"
        optional
        :ingredient="fruit"
        testid="start-fruit"
      />
      <div class="choice" role="group" aria-label="As bought or prepared">
        <button :aria-pressed="!amount.bought" data-testid="start-prepared" @click="amount.bought = false">
          prepared
        </button>
        <button :aria-pressed="amount.bought" data-testid="start-bought" @click="amount.bought = true">
          as bought
        </button>
      </div>
    </template>
    <template v-else-if="amount.of === 'portions'">
      <AmountField
        :model-value="amount.count"
        class="field"
        label="Portions"
        hide-label
        kind="percent"
        unit=""
        :step="1"
        :digits="0"
        testid="start-portions"
        @update:model-value="(n) => (amount.count = n ?? 8)"
      />
      <ChoiceButtons
        of="portion"
        :model-value="amount.portion"
        label="Size of a portion"
        testid="start"
        @update:model-value="(p) => (amount.portion = p)"
      />
    </template>
  </div>
</template>

<style scoped>
.how-much {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 0 8px;
}
.field {
  width: 150px;
}
</style>
