<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import type { OwnRow, Problem } from '@/api/client'
import { inWords } from '@/api/client'
import { useOwnIngredient } from '@/stores/useOwnIngredient'
import { useKitchen } from '@/stores/useKitchen'
import { useEquipment } from '@/stores/useEquipment'
import AmountField from './AmountField.vue'

/** Something that the larder does not know, taken in where it was met: what it is like, and what its packet says. */
const own = useOwnIngredient()
const open = computed({ get: () => !!own.asked, set: (to) => to || (own.asked = undefined) })
const kitchen = useKitchen()
const equipment = useEquipment()
const called = ref('')
const like = ref('')
const values = reactive<Record<string, number | undefined>>({})
const allergens = ref<string[]>()
const problem = ref<Problem>()
watch(
  () => own.asked,
  (now) => {
    if (!now) return
    called.value = now.name
    like.value = ''
    for (const k of Object.keys(values)) delete values[k]
    allergens.value = undefined
    problem.value = undefined
  },
  { immediate: true },
)
const things = computed(() => own.asked?.among ?? [...kitchen.fruits, ...kitchen.ingredients])
const kind = computed(() => (kitchen.fruit.has(like.value) ? ('fruit' as const) : ('ingredient' as const)))
const row = computed(() => kitchen.fruit.get(like.value) ?? kitchen.ingredient.get(like.value))
/** What a packet says of it. */
const told = ['water_pct', 'fat_pct', 'sugar_pct']
const figures = computed(() =>
  (kitchen.larder?.figures ?? []).filter((f) => f.kind === kind.value && told.includes(f.column)),
)
async function keep() {
  const name = called.value.trim()
  const key = name
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '_')
    .slice(0, 60)
  const stored: OwnRow = {
    copy_of: like.value,
    name,
    values: Object.fromEntries(
      Object.entries(values).filter((e): e is [string, number] => e[1] !== undefined),
    ),
    ...(allergens.value && { allergens: allergens.value }),
  }
  problem.value = await equipment.change(`${name} is known`, kind.value, key, stored)
  if (problem.value) return
  own.asked?.then(key)
  open.value = false
}
</script>

<template>
  <el-dialog
    v-model="open"
    title="Add to your ingredients"
    width="min(560px, 96vw)"
    data-testid="own-thing"
    append-to-body
  >
    <form class="ask" @submit.prevent="keep">
      <label class="field"
        ><span class="label">Name</span
        ><el-input v-model="called" maxlength="80" data-testid="own-thing-name"
      /></label>
      <label class="field"
        ><span class="label">Most similar to</span>
        <el-select
          v-model="like"
          filterable
          placeholder="Search"
          aria-label="Most similar to"
          data-testid="own-like"
        >
          <el-option
            v-for="t in things"
            :key="t.key"
            :value="t.key"
            :label="t.name"
            :data-testid="`own-like-${t.key}`"
          />
        </el-select>
      </label>
      <template v-if="row">
        <p class="quiet">
          Everything not entered here is copied from {{ row.name.toLowerCase() }}. You can change it under
          Kitchen.
        </p>
        <div class="three">
          <AmountField
            v-for="f in figures"
            :key="f.column"
            v-model="values[f.column]"
            :label="f.name"
            kind="percent"
            :unit="f.unit"
            optional
            :instead="row.figures[f.column]"
            :testid="`own-thing-${f.column}`"
          />
        </div>
        <label v-if="kind === 'ingredient'" class="field"
          ><span class="label">Allergens (from the label)</span>
          <el-select
            v-model="allergens"
            multiple
            placeholder="Same as the similar one"
            aria-label="Allergens (from the label)"
          >
            <el-option v-for="a in kitchen.larder?.allergens" :key="a.key" :value="a.key" :label="a.name" />
          </el-select>
        </label>
      </template>
      <p v-if="problem" class="wrong" role="alert">{{ inWords(problem) }}.</p>
      <div class="dialog-acts">
        <button type="button" class="push" @click="open = false">Cancel</button>
        <button class="push main" :disabled="!called.trim() || !like" data-testid="own-thing-keep">
          Add
        </button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 12px;
}
.ask p {
  margin: 0;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 10px;
}
</style>
