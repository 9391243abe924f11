<script setup lang="ts">
import { computed } from 'vue'
import type { Answer, Dish } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import { useDessert } from '@/stores/useDessert'

/** How a topping, a shell or bars are cut, drawn on the dish from above, with the sizes that can be changed. */
const props = defineProps<{ plan: Answer['cutting'][number]; dish: Dish }>()
const dessert = useDessert()
const cuts = computed(() => dessert.draft!.request.cuts ?? {})
const rim = computed(() => {
  const l = props.dish.length_cm
  const round = props.dish.shape === 'round' || props.dish.shape === 'oval'
  return {
    round,
    l,
    w: props.dish.shape === 'round' || props.dish.shape === 'square' ? l : (props.dish.width_cm ?? l),
  }
})
const box = computed(() => {
  const far =
    Math.max(rim.value.l / 2, rim.value.w / 2, ...props.plan.shapes.map((s) => Math.abs(s.x) + s.w / 2)) + 1
  const high = Math.max(rim.value.w / 2, ...props.plan.shapes.map((s) => Math.abs(s.y) + s.h / 2)) + 1
  return `${-far} ${-high} ${2 * far} ${2 * high}`
})
type Cut =
  'cutter_cm' | 'spoon_g' | 'square_cm' | 'strip_cm' | 'gap_cm' | 'long' | 'wide' | 'trim_cm' | 'cut_outs'
const fields: Record<string, [Cut, string, 'length' | 'mass' | 'percent', string, number | string][]> = {
  biscuits: [['cutter_cm', 'Cutter', 'length', 'cm', 6]],
  drops: [['spoon_g', 'Spoonful', 'mass', 'g', 45]],
  squares: [['square_cm', 'Side length', 'length', 'cm', 5]],
  lattice: [
    ['strip_cm', 'Strips', 'length', 'cm', 1.5],
    ['gap_cm', 'Gaps', 'length', 'cm', 1.5],
  ],
  shell: [['cut_outs', 'Cut-outs', 'percent', '', 'none']],
  bars: [
    ['long', 'Pieces along', 'percent', '', 'usual'],
    ['wide', 'Pieces across', 'percent', '', 'usual'],
    ['trim_cm', 'Trim', 'length', 'cm', 0],
  ],
}
function set(key: Cut, v: number | undefined) {
  dessert.change('how it is cut', (d) => (d.request.cuts = { ...d.request.cuts, [key]: v }))
}
</script>

<template>
  <div class="plan" :data-testid="`plan-${plan.code}`">
    <h3>{{ plan.title }}</h3>
    <svg :viewBox="box" role="img" :aria-label="plan.lines.join(' ')">
      <ellipse v-if="rim.round" class="rim" cx="0" cy="0" :rx="rim.l / 2" :ry="rim.w / 2" />
      <rect v-else class="rim" :x="-rim.l / 2" :y="-rim.w / 2" :width="rim.l" :height="rim.w" rx="0.8" />
      <g :class="{ outline: plan.code === 'shell' }">
        <template v-for="(s, i) in plan.shapes" :key="i">
          <ellipse v-if="s.round" class="cut" :cx="s.x" :cy="s.y" :rx="s.w / 2" :ry="s.h / 2" />
          <rect
            v-else
            class="cut"
            :x="s.x - s.w / 2"
            :y="s.y - s.h / 2"
            :width="s.w"
            :height="s.h"
            rx="0.15"
          />
        </template>
      </g>
    </svg>
    <p v-for="(l, i) in plan.lines" :key="i" class="small">{{ l }}</p>
    <div class="fields">
      <AmountField
        v-for="[key, label, kind, unit, usual] in fields[plan.code] ?? []"
        :key="key"
        :label="label"
        :kind="kind"
        :unit="unit"
        optional
        :step="kind === 'length' ? 0.5 : 1"
        :instead="typeof usual === 'string' ? usual : usual"
        :model-value="cuts[key] || undefined"
        :problem="dessert.faultAt(`/cuts/${key}`)"
        :testid="`cut-${key}`"
        @update:model-value="(v) => set(key, v)"
      />
      <label v-if="plan.code === 'shell'" class="tick rim-tick"
        ><input
          type="checkbox"
          :checked="cuts.crimped"
          data-testid="crimped"
          @change="
            dessert.change(
              'the rim',
              (d) => (d.request.cuts = { ...d.request.cuts, crimped: !d.request.cuts?.crimped || undefined }),
            )
          "
        />
        Rim folded under and crimped</label
      >
      <label v-if="plan.code === 'lid' || plan.code === 'lattice'" class="tick"
        ><input
          type="checkbox"
          :checked="cuts.lattice"
          data-testid="lattice"
          @change="
            dessert.change(
              'lid or lattice',
              (d) => (d.request.cuts = { ...d.request.cuts, lattice: !d.request.cuts?.lattice }),
            )
          "
        />
        Lattice</label
      >
    </div>
  </div>
</template>

<style scoped>
.plan {
  display: grid;
  gap: 4px;
}
svg {
  display: block;
  width: 100%;
  max-height: 190px;
}
.rim {
  fill: var(--sunk);
  stroke: var(--rim);
  stroke-width: 0.5;
}
.cut {
  fill: var(--crust);
  stroke: var(--crust-deep);
  stroke-width: 0.2;
}
.outline .cut {
  fill: none;
  stroke-dasharray: 0.6 0.5;
}
.rim-tick {
  grid-column: span 2;
}
.fields {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  align-items: end;
}
</style>
