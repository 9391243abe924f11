<script setup lang="ts">
import { computed, ref } from 'vue'
import {
  api,
  ask,
  inWords,
  type ListedCard,
  type DayOrders,
  type DaySchedule,
  type DayOrder,
  type Problem,
} from '@/api/client'
import SavedDays from './SavedDays.vue'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import FruitMark from '@/ui/FruitMark.vue'
import VerdictText from '@/ui/VerdictText.vue'
import { useKitchen } from '@/stores/useKitchen'
import { integer } from '@/format/amounts'
import { clockOf, minuteOf } from '@/format/minutes'

/** What is wanted of the day: each order with what becomes of it, and how another one comes in. */
const props = defineProps<{ request: DayOrders; schedule?: DaySchedule; date: string; cards: ListedCard[] }>()
const emit = defineEmits<{ change: [label: string, how: (a: DayOrders) => void] }>()
const kitchen = useKitchen()
const done = (id: string) => props.schedule?.orders.find((d) => d.order === id)
const sorted = computed(() => [...props.request.orders].sort((a, b) => a.due_min - b.due_min))

const blank = {
  card: '',
  dishes: 1,
  hour: '12:00',
  serve: 'warm' as DayOrder['serve'],
  place: '',
  weekly: false,
}
const form = ref({ ...blank })
/** The order that is changed; empty: a new one. */
const open = ref<string>()
const lines = ref('')
const jotting = ref(false)
const unread = ref<{ text: string; reason: string }[]>([])
const problem = ref<Problem>()
function begin(o?: DayOrder) {
  open.value = o?.id ?? ''
  form.value = o
    ? {
        card: o.card,
        dishes: o.dishes,
        hour: clockOf(o.due_min),
        serve: o.serve,
        place: o.place ?? '',
        weekly: !!o.weekly,
      }
    : { ...blank }
}
/** How far the order goes, by what the card says. */
const portions = computed(() => {
  const each = props.cards.find((c) => c.id === form.value.card)?.brief?.portions
  return (
    each && `${integer(each * Number(form.value.dishes || 0))} portions, ${integer(each)} from each dish.`
  )
})
/** A name that no other order of the day has. */
function free(name: string, taken = new Set(props.request.orders.map((o) => o.id))) {
  let id = name
  for (let n = 2; taken.has(id); n++) id = `${name} ${n}`
  return id
}
function keep() {
  const f = form.value
  const name = props.cards.find((c) => c.id === f.card)?.name
  if (!name) return
  const was = props.request.orders.find((o) => o.id === open.value)
  const order: DayOrder = {
    id: was?.card === f.card ? was.id : free(name),
    card: f.card,
    dishes: Number(f.dishes),
    due_min: minuteOf(f.hour),
    serve: f.serve,
    ...(f.place.trim() && { place: f.place.trim() }),
    ...(f.weekly && { weekly: true }),
  }
  emit('change', was ? `${was.id}, changed` : `${order.id} at ${f.hour}`, (a) => {
    a.orders = was ? a.orders.map((o) => (o.id === was.id ? order : o)) : [...a.orders, order]
  })
  open.value = undefined
}
function drop() {
  const id = open.value!
  emit('change', `${id}, removed`, (a) => (a.orders = a.orders.filter((o) => o.id !== id)))
  open.value = undefined
}
async function read() {
  const got = await ask(
    api.POST('/api/v1/kitchens/{kitchen}/days/{date}/lines', {
      params: { path: { kitchen: kitchen.kitchen!.id, date: props.date } },
      body: { text: lines.value, among: props.request },
    }),
  )
  problem.value = got.problem
  if (!got.data) return
  const { orders } = got.data
  unread.value = got.data.unread
  lines.value = unread.value.map((u) => u.text).join('\n')
  jotting.value = unread.value.length > 0
  if (orders.length) emit('change', `${orders.length} orders`, (a) => (a.orders = [...a.orders, ...orders]))
}
const usual = ref(false)
function takeUsual(name: string, orders: DayOrder[]) {
  const named = new Set(props.request.orders.map((o) => o.id))
  const fresh = orders.map((o) => {
    const id = free(o.id, named)
    named.add(id)
    return { ...o, id }
  })
  emit('change', `as on ${name}`, (a) => (a.orders = [...a.orders, ...fresh]))
  usual.value = false
}
/** What its card comes out as: the same as in the gallery and on the Bench. */
const verdictOf = (o: DayOrder) => props.cards.find((c) => c.id === o.card)?.brief?.verdict
defineExpose({ begin })
</script>

<template>
  <section class="panel orders" aria-labelledby="orders-title">
    <h2 id="orders-title">Orders</h2>
    <p v-if="schedule" class="small quiet">In brackets: the 90 % range.</p>
    <p v-if="!sorted.length" class="quiet">No orders yet. Add order, or paste several.</p>
    <ul class="rows" data-testid="day-orders">
      <li v-for="o in sorted" :key="o.id">
        <button :data-testid="`order-${o.id}`" @click="begin(o)">
          <strong class="due">{{ clockOf(o.due_min) }}</strong>
          <FruitMark
            v-if="kitchen.fruit.get(done(o.id)?.fruit ?? '')"
            :fruit="kitchen.fruit.get(done(o.id)!.fruit)!"
          />
          <span class="what">
            <strong>{{ o.id }}{{ o.dishes > 1 ? ` × ${o.dishes}` : '' }}</strong>
            <span class="quiet small">{{
              [o.serve === 'cold' ? 'cold and set' : o.serve, o.place, o.weekly ? 'every week' : '']
                .filter(Boolean)
                .join(', ')
            }}</span>
            <VerdictText v-if="verdictOf(o)" class="small" :verdict="verdictOf(o)!" />
            <span v-if="done(o.id)" :class="['small', done(o.id)!.in_time ? 'ok' : 'late']">{{
              done(o.id)!.text
            }}</span>
          </span>
        </button>
      </li>
    </ul>
    <span class="acts">
      <button class="push main" data-testid="add-order" @click="begin()">Add order</button>
      <button class="push" data-testid="jot" @click="jotting = true">Paste orders…</button>
      <button class="push" data-testid="usual" @click="usual = true">Saved days…</button>
    </span>
    <SavedDays v-model="usual" :request="request" @take="takeUsual" />
    <el-dialog
      :model-value="open !== undefined"
      :title="open || 'New order'"
      width="min(520px, 96vw)"
      append-to-body
      data-testid="order-form"
      @close="open = undefined"
    >
      <form class="ask" @submit.prevent="keep">
        <label class="field"
          ><span class="label">Card</span>
          <el-select
            v-model="form.card"
            filterable
            placeholder="Which card?"
            aria-label="Card"
            data-testid="order-card"
          >
            <el-option
              v-for="c in cards"
              :key="c.id"
              :value="c.id"
              :label="c.name"
              :data-testid="`order-card-${c.name}`"
            />
          </el-select>
        </label>
        <div class="two">
          <label class="field"
            ><span class="label">Dishes</span
            ><input
              v-model="form.dishes"
              class="plainfield"
              type="number"
              min="1"
              max="40"
              data-testid="order-dishes"
          /></label>
          <label class="field"
            ><span class="label">Due at</span
            ><input v-model="form.hour" class="plainfield" type="time" step="300" data-testid="order-hour"
          /></label>
        </div>
        <p v-if="portions" class="quiet" data-testid="order-portions">{{ portions }}</p>
        <ChoiceButtons
          of="serve"
          :model-value="form.serve"
          label="Serving"
          testid="order"
          @update:model-value="(key) => (form.serve = key)"
        />
        <label class="field"
          ><span class="label">Destination</span
          ><el-input v-model="form.place" maxlength="80" placeholder="counter, table or name"
        /></label>
        <label class="tick"
          ><input v-model="form.weekly" type="checkbox" data-testid="order-weekly" /> repeat every week</label
        >
        <div class="dialog-acts">
          <button v-if="open" type="button" class="push" data-testid="order-drop" @click="drop">
            Delete order
          </button>
          <button class="push main" :disabled="!form.card || !form.hour" data-testid="order-keep">
            {{ open ? 'Save' : 'Add order' }}
          </button>
        </div>
      </form>
    </el-dialog>
    <el-dialog v-model="jotting" title="Paste orders" width="min(560px, 96vw)" append-to-body>
      <form class="ask" @submit.prevent="read">
        <label for="order-lines"
          >One order per line: dishes or portions, card, time, then hot, warm or cold, and the destination in
          brackets.</label
        >
        <textarea
          id="order-lines"
          v-model="lines"
          rows="8"
          spellcheck="false"
          placeholder="20 portions of plum betty at half past three, warm (table 4)"
          data-testid="order-lines"
        />
        <p v-for="u in unread" :key="u.text" class="wrong" role="alert">{{ `“${u.text}”: ${u.reason}` }}</p>
        <p v-if="problem" class="wrong" role="alert">{{ inWords(problem) }}.</p>
        <div class="dialog-acts">
          <button class="push main" :disabled="!lines.trim()" data-testid="order-read">Add orders</button>
        </div>
      </form>
    </el-dialog>
  </section>
</template>

<style scoped>
.orders {
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 8px 12px 12px;
}
.rows button {
  align-items: flex-start;
  gap: 8px;
  padding: 6px 2px;
}
.due {
  min-width: 2.9rem;
  font-variant-numeric: tabular-nums;
}
.what {
  display: grid;
  min-width: 0;
}
.ok {
  color: var(--settled);
}
.late {
  color: var(--danger);
  font-weight: 600;
}
.acts {
  display: flex;
  gap: 6px;
}
.ask {
  display: grid;
  gap: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.plainfield,
textarea {
  width: 100%;
  min-height: 44px;
  padding: 8px 12px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
  font-size: 1.0625rem;
}
</style>
