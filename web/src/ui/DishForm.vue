<script setup lang="ts">
import { computed } from 'vue'
import type { Dish } from '@/api/client'
import AmountField from './AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { litres } from '@/format/amounts'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'

/** The sizes of a dish. It changes nothing itself: it says what was changed. A plain one leaves out the measured volume. */
const props = defineProps<{
  dish: Dish
  volume?: number
  plain?: boolean
  faultAt?: (pointer: string) => string
}>()
const emit = defineEmits<{ change: [dish: Dish, label: string] }>()

const kitchen = useKitchen()
const two = computed(() => props.dish.shape === 'rectangle' || props.dish.shape === 'oval')
const fault = (field: string) => props.faultAt?.(`/dish/${field}`)

function set<K extends keyof Dish>(key: K, value: Dish[K], label: string) {
  const next: Dish = { ...props.dish, [key]: value }
  if (value === undefined) delete next[key]
  if (key === 'shape') {
    delete next.floor_length_cm
    delete next.floor_width_cm
    if (value === 'round' || value === 'square') delete next.width_cm
    else next.width_cm ??= next.length_cm
  }
  if (!props.plain && key !== 'measured_ml' && key !== 'material') delete next.measured_ml
  emit('change', next, label)
}
</script>

<template>
  <div class="form">
    <ChoiceButtons
      of="shape"
      :model-value="dish.shape"
      label="Shape"
      testid="shape"
      @update:model-value="(s) => set('shape', s, 'the shape')"
    />
    <AmountField
      :label="dish.shape === 'round' ? 'Diameter at rim' : 'Length at rim'"
      kind="length"
      unit="cm"
      :step="0.5"
      :model-value="dish.length_cm"
      :problem="fault('length_cm')"
      testid="dish-length"
      @update:model-value="(v) => set('length_cm', v ?? 0, 'the length')"
    />
    <AmountField
      v-if="two"
      label="Width at rim"
      kind="length"
      unit="cm"
      :step="0.5"
      :model-value="dish.width_cm"
      :problem="fault('width_cm')"
      testid="dish-width"
      @update:model-value="(v) => set('width_cm', v ?? 0, 'the width')"
    />
    <AmountField
      label="Depth inside"
      kind="length"
      unit="cm"
      :step="0.5"
      :model-value="dish.depth_cm"
      :problem="fault('depth_cm')"
      testid="dish-depth"
      @update:model-value="(v) => set('depth_cm', v ?? 0, 'the depth')"
    />
    <AmountField
      :label="dish.shape === 'round' ? 'Diameter of floor' : 'Length of the floor'"
      kind="length"
      unit="cm"
      :step="0.5"
      optional
      instead="same as rim"
      :model-value="dish.floor_length_cm || undefined"
      :problem="fault('floor_length_cm')"
      testid="dish-floor"
      @update:model-value="(v) => set('floor_length_cm', v, 'the floor')"
    />
    <AmountField
      v-if="two && dish.floor_length_cm"
      label="Width of the floor"
      kind="length"
      unit="cm"
      :step="0.5"
      optional
      instead="in proportion"
      :model-value="dish.floor_width_cm || undefined"
      :problem="fault('floor_width_cm')"
      @update:model-value="(v) => set('floor_width_cm', v, 'the floor')"
    />
    <div class="field wide">
      <label for="material">Material</label>
      <el-select
        id="material"
        :model-value="dish.material"
        data-testid="material"
        @update:model-value="(v: string) => set('material', v, 'the material')"
      >
        <el-option
          v-for="m in kitchen.larder?.materials"
          :key="m.key"
          :value="m.key"
          :label="m.name"
          :data-testid="`material-${m.key}`"
        />
      </el-select>
    </div>
    <div v-if="!plain" class="wide">
      <AmountField
        label="Volume, measured with water to the brim (most exact)"
        kind="volume"
        unit="ml"
        :step="10"
        :digits="0"
        optional
        :instead="volume ? `computed ${litres(volume)}` : 'computed from sizes'"
        :model-value="dish.measured_ml || undefined"
        :problem="fault('measured_ml')"
        testid="measured"
        @update:model-value="(v) => set('measured_ml', v, 'the measured volume')"
      />
    </div>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 10px;
}
.wide {
  grid-column: 1 / -1;
}
.choice button::first-letter {
  text-transform: uppercase;
}
</style>
