<script setup lang="ts">
import { computed } from 'vue'
import { api, ask } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { grams, lower } from '@/format/amounts'
import CostPanel from './CostPanel.vue'
import { useBakeQuery } from '../useBakeQuery'
import NutritionPanel from './NutritionPanel.vue'
import BakeAlternatives from '@/views/bench/bake/BakeAlternatives.vue'
import { useDessert } from '@/stores/useDessert'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'

/** What goes on top before and after the oven, how the dish is readied, how it rests, keeps, and is used up. */
const kitchen = useKitchen()
const dessert = useDessert()
const request = computed(() => dessert.draft!.request)
const on = (key: string) => request.value.finishes?.includes(key) ?? false
function toggle(key: string) {
  dessert.change('the finish', (d) => {
    const now = d.request.finishes ?? []
    const next = now.includes(key) ? now.filter((k) => k !== key) : [...now, key]
    d.request.finishes = next.length ? next : undefined
  })
}
const { data: keeping } = useBakeQuery((body, signal) =>
  ask(api.POST('/api/v1/bench/keeping', { body, signal })),
)
const rest = computed(() => dessert.answer?.method.filter((m) => m.code === 'rest').map((m) => m.text) ?? [])
</script>

<template>
  <div class="finish">
    <div v-for="w in kitchen.choices('finish_time')" :key="w.value" class="field">
      <span class="label">{{ w.label }}</span>
      <div class="chips">
        <button
          v-for="f in kitchen.larder?.finishes.filter((x) => x.when === w.value)"
          :key="f.key"
          class="push"
          :class="{ main: on(f.key) }"
          :aria-pressed="on(f.key)"
          :title="f.looks"
          :data-testid="`finish-${f.key}`"
          @click="toggle(f.key)"
        >
          {{ f.name.split(',')[0] }}
        </button>
      </div>
    </div>
    <p v-if="dessert.answer?.browning" class="small" data-testid="colour">{{ dessert.answer.browning }}</p>
    <div class="field">
      <span class="label">Dish preparation</span>
      <ChoiceButtons
        of="greasing"
        :model-value="request.greasing"
        label="Dish preparation"
        testid="greasing"
        @update:model-value="
          (key) => dessert.change('the dish', (d) => (d.request.greasing = key || undefined))
        "
      />
    </div>
    <div class="field">
      <span class="label">{{
        `Portions${
          dessert.answer
            ? `: ${dessert.answer.portions.count} of ${grams(dessert.answer.portions.each_g)}`
            : ''
        }`
      }}</span>
      <ChoiceButtons
        of="portion"
        :model-value="request.portion"
        label="Size of a portion"
        testid="portion"
        @update:model-value="(p) => dessert.change('the portion', (d) => (d.request.portion = p))"
      />
    </div>
    <div class="field">
      <span class="label">Cost</span>
      <CostPanel />
    </div>
    <div class="field">
      <span class="label">Nutrition</span>
      <NutritionPanel />
    </div>
    <template v-if="dessert.answer">
      <p class="small" data-testid="beside">
        {{
          `With it, for all: ${dessert.answer.served_with.map((b) => `${grams(b.all_g)} ${b.name}`).join(', or ')}.`
        }}
      </p>
      <p v-for="(r, i) in rest" :key="i">{{ r }}</p>
      <BakeAlternatives :questions="['lighter']" title="Lighter versions" />
      <h3>Make ahead</h3>
      <ul data-testid="ahead">
        <li v-for="(k, i) in dessert.answer.ahead" :key="i">
          <strong>{{ k.name }}</strong>: {{ k.text }}.
        </li>
      </ul>
      <h3>Transport</h3>
      <ul data-testid="carrying">
        <li v-for="(c, i) in dessert.answer.carrying" :key="i">{{ c }}</li>
      </ul>
      <template v-if="keeping">
        <h3>Serving and storage</h3>
        <ul data-testid="keeping">
          <li>{{ keeping.serve }}</li>
          <li>{{ keeping.hold }}</li>
          <li>{{ keeping.keep }}</li>
          <li>{{ keeping.rewarm }}</li>
          <li>{{ keeping.freeze }}</li>
        </ul>
      </template>
      <h3>Leftovers</h3>
      <ul data-testid="leftovers">
        <li v-for="(k, i) in dessert.answer.leftovers" :key="i">
          <strong>{{ k.name }}</strong>: {{ lower(k.text) }}.
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.finish {
  display: grid;
  gap: 8px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.chips .push {
  padding: 0 10px;
  font-weight: 400;
}
ul {
  margin: 0;
  padding-left: 18px;
  font-size: 0.9375rem;
}
</style>
