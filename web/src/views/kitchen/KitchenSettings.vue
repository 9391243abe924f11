<script setup lang="ts">
import { computed, ref } from 'vue'
import { inWords, type Problem, type Settings } from '@/api/client'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import BoldText from '@/ui/BoldText.vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { useEquipment } from '@/stores/useEquipment'
import { cm, grams, heat, litres, lower, mm, short, warmth } from '@/format/amounts'

/** How the kitchen measures and what it reads: one switch each, and everything that is shown follows. */
const kitchen = useKitchen()
const equipment = useEquipment()
const problem = ref<Problem>()
const settings = computed(() => kitchen.kitchen!.settings)
const starch = computed(() => lower(short(kitchen.thickener.get('cornflour')?.name ?? '')))

async function put(label: string, change: Partial<Settings>) {
  problem.value = await equipment.change(label, 'settings', '', { ...settings.value, ...change })
}
const containers = computed(() => Object.entries(settings.value.containers).sort())
function contain(name: string, g: number | undefined) {
  const next = { ...settings.value.containers }
  if (g) next[name] = g
  else delete next[name]
  void put(nameOf(name), { containers: next })
}
const nameOf = (c: string) => {
  const [unit, ...key] = c.split(' ')
  const thing = key.join(' ')
  return thing ? `A ${unit} of ${kitchen.nameOf(thing).toLowerCase()}` : `A ${unit}`
}
</script>

<template>
  <section class="panel settings" aria-label="Units">
    <div v-for="s in kitchen.larder?.switches" :key="s.key" class="one">
      <h2>{{ s.title }}</h2>
      <ChoiceButtons
        :of="s.key"
        :model-value="settings[s.key]"
        :label="s.title"
        :testid="s.key"
        @update:model-value="(value) => put(`${s.title}: ${kitchen.word(s.key, value)}`, { [s.key]: value })"
      />
      <p class="small quiet">{{ s.about }}</p>
    </div>
    <div class="one">
      <h2>Altitude</h2>
      <AmountField
        class="currency"
        label="Altitude"
        hide-label
        kind="percent"
        unit="m"
        :digits="0"
        :step="50"
        :model-value="settings.altitude_m ?? 0"
        testid="altitude"
        @update:model-value="(v) => put('Altitude', { altitude_m: v ?? 0 })"
      />
      <p class="small quiet">{{ kitchen.larder?.abouts.altitude }}</p>
    </div>
    <div class="one">
      <h2>Prices in</h2>
      <el-input
        class="currency"
        :model-value="settings.currency"
        maxlength="8"
        aria-label="Currency"
        data-testid="currency"
        @change="(v: string) => put('Currency', { currency: v })"
      />
      <p class="small quiet">Enter prices per kilogram under Fruit and Ingredients.</p>
    </div>
    <div class="one wide">
      <h2>Containers</h2>
      <p v-if="!containers.length" class="quiet">
        None yet. When an imported recipe label “1 punnet” or “a pot”, you are asked once for its weight, and
        it is saved here.
      </p>
      <ul v-else>
        <li v-for="[name, g] in containers" :key="name">
          <span>{{ nameOf(name) }}</span>
          <AmountField
            :label="nameOf(name)"
            hide-label
            kind="mass"
            unit="g"
            :digits="0"
            :step="10"
            :model-value="g"
            :testid="`container-${name}`"
            @update:model-value="(v) => contain(name, v)"
          />
          <button class="plain" @click="contain(name, undefined)">Delete</button>
        </li>
      </ul>
    </div>
    <p v-if="problem" class="wrong wide" role="alert">
      {{ `${inWords(problem)}. Nothing was changed.` }}
    </p>
    <p class="sample wide" data-testid="sample">
      <BoldText
        :text="`Example: **${grams(376)}** of topping, **${mm(15)}** thick, ${starch} **${grams(7.5)}**, a dish of **${litres(2100)}**, **${cm(24)}** long, an oven at **${heat(180)}**, a room at **${warmth(21)}**.`"
      />
    </p>
  </section>
</template>

<style scoped>
.settings {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 32px;
  padding: 14px 18px 18px;
}
.one {
  display: grid;
  align-content: start;
  gap: 5px;
}
.wide {
  grid-column: 1 / -1;
}
.currency {
  width: 110px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 300px) 140px auto;
  align-items: center;
  gap: 12px;
}
.sample {
  padding: 10px 12px;
  background: var(--sunk);
  font-size: 1.125rem;
}
@media (max-width: 56.25em) {
  .settings {
    grid-template-columns: 1fr;
  }
}
</style>
