<script setup lang="ts">
import { inWords, type KitchenDish } from '@/api/client'
import AmountField from '@/ui/AmountField.vue'
import DishForm from '@/ui/DishForm.vue'
import { type DishBody, useKitchen } from '@/stores/useKitchen'
import { litres, lower, short } from '@/format/amounts'
import DishSection from './DishSection.vue'
import ListAndForm from './ListAndForm.vue'
import { useKitchenDraft } from './useKitchenDraft'

/** The kitchen's dishes. Measuring one with water is the first way to its volume; the sizes are the second. */
const kitchen = useKitchen()
const { chosen, draft, problem, stored, current, edit, changed, add, keep, takeAway, fault } =
  useKitchenDraft(
    'dish',
    () => kitchen.dishes,
    (d: KitchenDish) => ({ name: d.name, count: d.count, dish: d.dish }),
  )
const fresh = (): DishBody => ({
  name: '',
  count: 1,
  dish: { shape: 'rectangle', length_cm: 24, width_cm: 18, depth_cm: 5, material: 'stoneware' },
})
</script>

<template>
  <ListAndForm list="Dishes" edit="Dish" :chosen="!!draft">
    <template #list>
      <p v-if="!kitchen.dishes.length" class="quiet">
        No dishes yet. Add the one you use most, and measure it with water.
      </p>
      <ul class="planks">
        <li v-for="d in kitchen.dishes" :key="d.id">
          <button
            :aria-pressed="chosen === d.id"
            :data-testid="`dish-${d.name}`"
            @click="((chosen = d.id), edit(d))"
          >
            <DishSection class="pic" :dish="d.dish" :share="1" />
            <span class="told">
              <strong>{{ d.name }}{{ d.count > 1 ? ` × ${d.count}` : '' }}</strong>
              <span class="volume"
                ><strong>{{ litres(d.volume_ml) }}</strong>
                <span class="small">{{ d.dish.measured_ml ? 'measured' : 'from sizes' }}</span></span
              >
              <span class="small"
                >{{ d.sizes }}, {{ lower(short(kitchen.material.get(d.dish.material)?.name ?? '')) }}</span
              >
            </span>
          </button>
        </li>
      </ul>
      <button class="push" data-testid="add-dish" @click="add(fresh())">Add dish</button>
    </template>
    <template v-if="draft">
      <figure class="hero">
        <DishSection :dish="draft.body.dish" :share="1" />
        <figcaption v-if="current && !changed">
          <strong>{{ litres(current.volume_ml) }}</strong>
          <span class="small">to the brim ({{ current.dish.measured_ml ? 'measured' : 'from sizes' }})</span>
        </figcaption>
      </figure>
      <div class="names">
        <div class="field">
          <label for="dish-name">Name</label>
          <el-input id="dish-name" v-model="draft.body.name" maxlength="80" data-testid="dish-name" />
          <p v-if="fault('/name')" class="wrong" role="alert">
            {{ `Name ${fault('/name')}` }}
          </p>
        </div>
        <AmountField
          label="Number"
          kind="percent"
          unit=""
          :digits="0"
          :step="1"
          :model-value="draft.body.count"
          :problem="fault('/count')"
          testid="dish-count"
          @update:model-value="(v) => draft && (draft.body.count = Math.round(v ?? 1))"
        />
      </div>
      <div class="water">
        <h2>Measure the volume with water</h2>
        <ol>
          <li>Put the empty dish on the scale on a level table, and zero the scale.</li>
          <li>Fill it with cold water to the brim.</li>
          <li>Read the weight: 1 g is 1 ml.</li>
        </ol>
        <div class="row">
          <AmountField
            label="Volume"
            kind="volume"
            unit="ml"
            optional
            :digits="0"
            :step="10"
            :instead="current && !draft.fresh ? current.computed_ml : 'from sizes'"
            instead-is="from sizes"
            :model-value="draft.body.dish.measured_ml || undefined"
            :problem="fault('/dish/measured_ml')"
            testid="water-ml"
            @update:model-value="
              (v) => draft && (draft.body.dish = { ...draft.body.dish, measured_ml: v ?? 0 })
            "
          />
          <p v-if="current?.measured" class="small" data-testid="water-says">{{ current.measured }}</p>
          <p v-else class="small quiet">This is the most exact figure: it includes corners and curves.</p>
        </div>
      </div>
      <DishForm
        :dish="draft.body.dish"
        :fault-at="fault"
        plain
        @change="(d) => draft && (draft.body.dish = d)"
      />
      <p v-if="problem" class="wrong" role="alert" data-testid="kitchen-problem">
        {{ inWords(problem) }}
      </p>
    </template>
    <template v-if="draft" #acts>
      <button
        class="push main"
        :disabled="!draft.body.name.trim() || !changed"
        data-testid="keep"
        @click="keep"
      >
        Save
      </button>
      <button
        v-if="!draft.fresh"
        class="plain"
        data-testid="take-off"
        @click="takeAway((name) => `${name} deleted; cards that use it keep it`)"
      >
        Delete dish
      </button>
      <span v-if="stored && !changed" class="settled" role="status">{{ stored }}</span>
    </template>
  </ListAndForm>
</template>

<style scoped>
/* Dishes stand on planks, all of them to one scale. */
.planks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11.5rem, 1fr));
  gap: 10px 0;
}
.planks li {
  display: grid;
}
.planks li button {
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 0;
  padding: 4px 0 6px;
  border-bottom: 0;
}
.planks li button[aria-pressed='true'] {
  box-shadow: inset 0 -5px 0 var(--rim);
}
.pic {
  border-bottom: 9px solid var(--crust);
  box-shadow: 0 2px 0 var(--crust-deep);
}
.told {
  display: grid;
  gap: 1px;
  padding: 8px 10px 2px;
}
.told .volume {
  display: flex;
  align-items: baseline;
  gap: 7px;
}
.volume strong {
  font-size: 1.375rem;
}
.hero {
  display: grid;
  grid-template-columns: minmax(0, 380px) auto;
  align-items: end;
  gap: 16px;
  margin: 0;
}
.hero strong {
  display: block;
  font-size: 2rem;
  line-height: 1;
}
.names {
  display: grid;
  grid-template-columns: 1fr 130px;
  gap: 10px;
}
.water {
  padding: 10px 12px;
  border-left: 5px solid var(--rim);
  background: var(--sunk);
}
.water ol {
  margin: 4px 0 8px;
  padding-left: 20px;
}
.row {
  display: grid;
  grid-template-columns: 220px 1fr;
  gap: 12px;
  align-items: end;
}
</style>
