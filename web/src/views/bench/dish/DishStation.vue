<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Dish, type KitchenDish, reasonOf } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { useOutbox } from '@/stores/useOutbox'
import { useEquipment } from '@/stores/useEquipment'
import DishForm from '@/ui/DishForm.vue'
import OtherDish from './OtherDish.vue'
import { useDessert } from '@/stores/useDessert'

const kitchen = useKitchen()
const dessert = useDessert()
const outbox = useOutbox()
const equipment = useEquipment()
const dish = computed(() => dessert.draft!.request.dish)
const same = (a: Dish, b: Dish) =>
  (
    [
      'shape',
      'length_cm',
      'width_cm',
      'depth_cm',
      'floor_length_cm',
      'floor_width_cm',
      'measured_ml',
      'material',
    ] as const
  ).every((k) => (a[k] || 0) === (b[k] || 0))
const onShelf = computed(() => kitchen.dishes.find((d) => same(d.dish, dish.value)))
const name = ref('')
const other = ref(false)
const refused = ref('')

function take(id: string) {
  const d = kitchen.dishes.find((x) => x.id === id)
  if (d) dessert.change('the dish', (x) => (x.request.dish = { ...d.dish }))
}

/** Another style brings its own topping and base, unless the topping is usual on it, too. */
function restyle(key: string) {
  const s = kitchen.style.get(key)
  if (!s) return
  dessert.change('the style', (d) => {
    const r = d.request
    r.style = key as typeof r.style
    const family = kitchen.topping.get(r.topping.key)?.family ?? ''
    if (!s.families.includes(family)) r.topping = { key: s.topping }
    r.base = s.base ? (r.base ?? { key: s.base }) : undefined
    if (key !== 'bar' && key !== 'pie') delete r.custard
  })
}

async function keep() {
  if (!kitchen.kitchen) return
  refused.value = ''
  const body = { id: crypto.randomUUID(), name: name.value.trim(), dish: dish.value }
  const sent = await outbox.send({
    what: body.name,
    path: `/api/v1/kitchens/${kitchen.kitchen.id}/dishes`,
    body,
  })
  if (sent.stored === 'refused') refused.value = reasonOf(sent.problem)
  if (sent.stored === 'saved') {
    const d = sent.data as KitchenDish
    kitchen.dishes.push(d)
    equipment.did({
      label: `${d.name} saved in the kitchen`,
      thing: 'dish',
      id: d.id,
      is: { name: d.name, count: d.count, dish: d.dish },
    })
    name.value = ''
  }
}
</script>

<template>
  <div class="dish">
    <div class="field">
      <span class="label">Style</span>
      <div class="choice" role="group" aria-label="Style">
        <button
          v-for="s in kitchen.larder?.styles"
          :key="s.key"
          :aria-pressed="dessert.draft!.request.style === s.key"
          :data-testid="`to-${s.key}`"
          @click="restyle(s.key)"
        >
          {{ s.key }}
        </button>
      </div>
    </div>
    <div class="field">
      <label for="shelf">Saved dishes</label>
      <el-select
        id="shelf"
        :model-value="onShelf?.id"
        placeholder="Not saved: sizes entered"
        data-testid="shelf"
        @update:model-value="take"
      >
        <el-option
          v-for="d in kitchen.dishes"
          :key="d.id"
          :value="d.id"
          :label="d.name"
          :data-testid="`shelf-${d.name}`"
        />
      </el-select>
    </div>
    <button class="push" data-testid="other" @click="other = true">Use another dish…</button>
    <OtherDish v-model="other" />
    <DishForm
      :dish="dish"
      :volume="dessert.answer?.fit.volume_ml"
      :fault-at="dessert.faultAt"
      @change="(d, label) => dessert.change(label, (x) => (x.request.dish = d))"
    />
    <p v-if="dessert.answer?.fit.unsure" class="small" data-testid="unsure">
      {{ dessert.answer.fit.unsure }}
    </p>
    <form v-if="!onShelf && kitchen.kitchen" class="keep" @submit.prevent="keep">
      <el-input
        v-model="name"
        maxlength="80"
        placeholder="Name (to save it in the kitchen)"
        aria-label="Name of the dish"
        data-testid="dish-name"
      />
      <button
        class="push"
        type="submit"
        :disabled="!name.trim() || dessert.faults.length > 0"
        data-testid="keep-dish"
      >
        Save
      </button>
      <p v-if="refused" class="wrong" role="alert">
        {{ `${refused}. Enter another name.` }}
      </p>
    </form>
  </div>
</template>

<style scoped>
.dish {
  display: grid;
  gap: 10px;
}
.keep {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.keep > .el-input {
  flex: 1;
}
.keep > .wrong {
  flex-basis: 100%;
}
</style>
