<script setup lang="ts">
import { ref } from 'vue'
import { inWords, type DayOrders, type DayOrder, type Resources, type Problem } from '@/api/client'
import { useFetched } from '@/ui/useFetched'
import { useKitchen } from '@/stores/useKitchen'
import { useEquipment } from '@/stores/useEquipment'
import { clockOf } from '@/format/minutes'

/** Days as they often are: their orders kept under a name, and taken for another day. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ request: DayOrders }>()
const emit = defineEmits<{ take: [name: string, orders: DayOrder[]] }>()
const kitchen = useKitchen()
const equipment = useEquipment()
useFetched(() => kitchen.loadResources())
const name = ref('')
const problem = ref<Problem>()
async function change(
  label: string,
  how: (days: NonNullable<Resources['saved_days']>) => Resources['saved_days'],
) {
  const h = kitchen.resources?.resources
  if (h)
    problem.value = await equipment.change(label, 'resources', '', {
      ...h,
      saved_days: how(h.saved_days ?? []),
    })
}
async function keep() {
  const called = name.value.trim()
  const orders = JSON.parse(JSON.stringify(props.request.orders)) as DayOrder[]
  await change(`${called}, saved as a usual day`, (days) => [
    ...days.filter((d) => d.name !== called),
    { name: called, orders },
  ])
  if (!problem.value) name.value = ''
}
</script>

<template>
  <el-dialog v-model="open" title="Saved days" width="min(560px, 96vw)" append-to-body>
    <div class="ask">
      <p v-if="!kitchen.resources?.resources.saved_days?.length" class="quiet">
        None yet. Save the orders of a day under a name to use them on other days.
      </p>
      <ul v-else class="usual">
        <li
          v-for="u in kitchen.resources.resources.saved_days"
          :key="u.name"
          :data-testid="`usual-${u.name}`"
        >
          <span class="what">
            <strong>{{ u.name }}</strong>
            <span class="quiet small">{{
              [...u.orders]
                .sort((a, b) => a.due_min - b.due_min)
                .map((o) => `${clockOf(o.due_min)} ${o.id}`)
                .join(', ')
            }}</span>
          </span>
          <button class="push" :data-testid="`take-${u.name}`" @click="emit('take', u.name, u.orders)">
            Use these orders
          </button>
          <button
            class="plain"
            :aria-label="`Delete ${u.name}`"
            @click="change(`${u.name}, saved day deleted`, (days) => days.filter((d) => d.name !== u.name))"
          >
            Delete
          </button>
        </li>
      </ul>
      <form v-if="request.orders.length" class="keep" @submit.prevent="keep">
        <el-input
          v-model="name"
          maxlength="80"
          placeholder="Market day"
          aria-label="Save the orders of this day as"
          data-testid="usual-name"
        />
        <button class="push main" :disabled="!name.trim()" data-testid="usual-keep">Save day</button>
      </form>
      <p v-if="problem" class="wrong" role="alert">{{ inWords(problem) }}.</p>
    </div>
  </el-dialog>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 12px;
}
.usual {
  margin: 0;
  padding: 0;
  list-style: none;
}
.usual li {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.what {
  display: grid;
  flex: 1;
  min-width: 0;
}
.keep {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
}
</style>
