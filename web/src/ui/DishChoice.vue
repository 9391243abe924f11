<script setup lang="ts">
import { computed, ref } from 'vue'
import { inWords, type Dish } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { litres } from '@/format/amounts'
import { later } from './later'
import DishOutline from './DishOutline.vue'

/** A dish to choose: of the shelf, of typical ones, or by its sizes. What is new is put on the shelf where there is one. */
export interface Chosen {
  id: string
  name: string
  count: number
  dish: Dish
  /** In words, where it was answered. */
  sizes?: string
}
const DishForm = later(() => import('./DishForm.vue'))
defineProps<{ chosen?: string }>()
const emit = defineEmits<{ choose: [Chosen] }>()
const kitchen = useKitchen()
const typical = ref(false)
const own = ref<Dish>()
const name = ref('')
const problem = ref('')

const onShelf = computed(() => new Set(kitchen.dishes.map((d) => d.name)))
const others = computed(() => kitchen.typical.filter((d) => !onShelf.value.has(d.name)))
const showTypical = computed(() => typical.value || (kitchen.ready && !kitchen.dishes.length))

function bySizes() {
  const like = kitchen.typical[1]
  if (like) own.value = { ...like.dish }
}
async function takeNew(d: Chosen) {
  const stored = await kitchen.setDish(d.id, { name: d.name, count: d.count, dish: d.dish })
  problem.value = stored ? inWords(stored) : ''
  if (stored) return
  own.value = undefined
  emit('choose', d)
}
const takeTypical = (d: Chosen) => takeNew({ ...d, id: crypto.randomUUID() })
const takeOwn = () =>
  own.value &&
  takeNew({
    id: crypto.randomUUID(),
    name: name.value.trim() || `Dish ${kitchen.dishes.length + 1}`,
    count: 1,
    dish: own.value,
  })
</script>

<template>
  <div class="dishes">
    <p v-if="problem" class="wrong" role="alert">{{ problem }}.</p>
    <div v-if="own" class="own">
      <DishForm :dish="own" @change="(d) => (own = d)" />
      <el-input
        v-model="name"
        maxlength="80"
        placeholder="Name (optional)"
        aria-label="Name of the dish"
        data-testid="own-name"
      />
      <div class="go">
        <button class="push" data-testid="own-back" @click="own = undefined">Back</button>
        <button class="push main" data-testid="own-go" @click="takeOwn">Use this dish</button>
      </div>
    </div>
    <ul v-else class="rows">
      <li v-for="d in kitchen.dishes" :key="d.id">
        <button :aria-pressed="chosen === d.id" :data-testid="`dish-${d.name}`" @click="emit('choose', d)">
          <DishOutline :dish="d.dish" />
          <span
            ><strong>{{ d.name }}</strong
            ><br /><span class="quiet small">{{ `${d.sizes} · ${litres(d.volume_ml)}` }}</span></span
          >
        </button>
      </li>
      <li>
        <button data-testid="dish-own" @click="bySizes">
          <span class="plus" aria-hidden="true">+</span>
          <strong>Enter sizes</strong>
        </button>
      </li>
      <li v-if="kitchen.dishes.length && others.length">
        <button :aria-expanded="typical" data-testid="dish-typical" @click="typical = !typical">
          <span class="plus" aria-hidden="true">{{ typical ? '−' : '+' }}</span>
          <strong>Typical sizes</strong>
        </button>
      </li>
      <template v-if="showTypical">
        <li v-for="d in others" :key="d.id">
          <button :data-testid="`typical-${d.id}`" @click="takeTypical(d)">
            <DishOutline :dish="d.dish" />
            <span
              ><strong>{{ d.count > 1 ? `${d.count} × ${d.name}` : d.name }}</strong
              ><br /><span class="quiet small">{{ `${d.sizes} · ${litres(d.volume_ml)}` }}</span></span
            >
          </button>
        </li>
      </template>
    </ul>
  </div>
</template>

<style scoped>
.dishes {
  display: flex;
  flex: 1 1 auto;
  flex-direction: column;
  min-height: 0;
}
.own {
  display: grid;
  flex: 0 1 auto;
  gap: 10px;
  overflow: auto;
}
.go {
  position: sticky;
  bottom: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding-top: 6px;
  background: var(--panel);
}
.plus {
  flex: none;
  width: 54px;
  text-align: center;
  font-size: 1.625rem;
}
</style>
