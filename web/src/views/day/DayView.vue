<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import {
  api,
  ask,
  inWords as problemInWords,
  type ListedCard,
  type DayOrder,
  type DayPin,
} from '@/api/client'
import WorkProgress from '@/ui/WorkProgress.vue'
import MoreMenu from '@/ui/MoreMenu.vue'
import UndoRedo from '@/ui/UndoRedo.vue'
import { bindKeys } from '@/ui/useKeys'
import { useDessert } from '@/stores/useDessert'
import { useKitchen } from '@/stores/useKitchen'
import { useWatch } from '@/stores/useWatch'
import { units } from '@/format/amounts'
import { clockOf, dateOf, dayAfter, inWords } from '@/format/minutes'
import { useFetched } from '@/ui/useFetched'
import DayClashes from './DayClashes.vue'
import ClosingCount from './ClosingCount.vue'
import DayLanes from './DayLanes.vue'
import DayOrders from './DayOrders.vue'
import DaySheets from './DaySheets.vue'
import WorkNow from './WorkNow.vue'
import TaskDetails from './TaskDetails.vue'
import { useDay } from './useDay'

/** One day: what must be ready when, and how it is planned into the ovens, hands and places that there are. */
const kitchen = useKitchen()
const dessert = useDessert()
const route = useRoute()
const router = useRouter()
const watching = useWatch()
/** By the server's time, as everything that runs. */
const clock = computed(() => new Date(watching.now))
const today = computed(() => dateOf(clock.value))
const date = computed({
  get: () => (typeof route.params.date === 'string' && route.params.date) || today.value,
  set: (to) => void router.push(`/day/${to}`),
})
const now = computed(() =>
  date.value === today.value ? 60 * clock.value.getHours() + clock.value.getMinutes() : undefined,
)
const title = computed(() => inWords(date.value))
const d = useDay(date)
const { schedule, request, problem, history, work } = d
const view = ref<'timeline' | 'lists' | 'work'>('timeline')
const list = computed(() => view.value === 'lists')
const orders = ref<InstanceType<typeof DayOrders>>()

/** Other days of which something is kept. */
const stored = shallowRef<{ date: string; orders: number }[]>([])
watch(
  [() => kitchen.kitchen?.id, date],
  async ([id]) => {
    if (!id) return
    const got = await ask(api.GET('/api/v1/kitchens/{kitchen}/days', { params: { path: { kitchen: id } } }))
    if (got.data) stored.value = got.data.days.filter((x) => x.orders)
  },
  { immediate: true },
)
const others = computed(() => stored.value.filter((x) => x.date !== date.value))

const forgotten = ref(false)
watch(schedule, () => (forgotten.value = false))

const chosen = ref<string>()
const bar = computed(() => {
  const mine = schedule.value?.bars.filter((b) => b.task === chosen.value) ?? []
  return mine.find((b) => schedule.value!.lanes[b.lane]!.kind === 'oven') ?? mine[0]
})
const stands = computed(() => !!bar.value && schedule.value!.lanes[bar.value.lane]!.kind === 'place')
const move = (o: DayOrder, due: number) =>
  void d.change(`${o.id} at ${clockOf(due)}`, (a) => {
    const x = a.orders.find((y) => y.id === o.id)
    if (x) x.due_min = Math.max(0, due)
  })
const pin = (label: string, where: Partial<DayPin>) => bar.value && void d.pin(label, bar.value, where)
async function toBench() {
  const o = request.value.orders.find((x) => x.id === bar.value?.order)
  if (!o || !kitchen.kitchen) return
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/cards/{card}', {
      params: { path: { kitchen: kitchen.kitchen.id, card: o.card } },
    }),
  )
  const v = got.data?.versions[0]
  if (!v) return
  dessert.openCard(o.card, got.data!.name, v)
  void router.push('/')
}
const closed = (id: string) => !!request.value.closed?.includes(id)
const closeOven = (id: string, name: string) =>
  void d.change(closed(id) ? `${name}, in use` : `${name}, not in use`, (a) => {
    a.closed = closed(id) ? a.closed!.filter((x) => x !== id) : [...(a.closed ?? []), id]
  })
const ovens = computed(() => kitchen.ovens.filter((o) => o.oven.kind !== 'camp'))
const addHands = () =>
  void d.take({
    code: 'another_person',
    text: 'one more person',
    left_out: 0,
    late_min: 0,
    window_min: 0,
  })
const ahead = (task: string, batch: string, label: string, isDone: boolean) =>
  void d.change(isDone ? `not yet: ${label}` : `the day before: ${label}`, (a) => {
    a.remedies = isDone
      ? a.remedies!.filter((w) => !(w.code === 'ahead' && w.task === task))
      : [...(a.remedies ?? []), { code: 'ahead', task, batch }]
  })
const cards = shallowRef<ListedCard[]>([])
const { trouble } = useFetched(async (id) => {
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/cards', { params: { path: { kitchen: id }, query: { limit: 200 } } }),
  )
  if (got.data) cards.value = got.data.cards
  return got.problem
})
/** The orders of another day, for this one. */
async function copyFrom(from: string) {
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/days/{date}', {
      params: { path: { kitchen: kitchen.kitchen!.id, date: from } },
    }),
  )
  if (got.data) void d.change(`as on ${inWords(from)}`, (a) => (a.orders = got.data.request.orders))
}
const file = (kind: string) =>
  `/api/v1/kitchens/${kitchen.kitchen?.id}/days/${date.value}/day.${kind}?${new URLSearchParams(Object.entries(units).map(([k, v]) => [k, `${v}`]))}`
const address = computed(() => `${location.origin}/api/v1/kitchens/${kitchen.kitchen?.id}/calendar.ics`)
const print = () => {
  view.value = 'lists'
  setTimeout(() => window.print(), 100)
}
onBeforeUnmount(
  bindKeys('On this page', [
    { key: 'u', label: 'undo', does: () => void history.undo() },
    { key: 'r', label: 'redo', does: () => void history.redo() },
    { key: 'a', label: 'another order', does: () => orders.value?.begin() },
    {
      key: 'v',
      label: 'timeline or lists',
      does: () => (view.value = view.value === 'lists' ? 'timeline' : 'lists'),
    },
  ]),
)
</script>

<template>
  <div class="day">
    <div class="bar no-print">
      <button
        class="push"
        aria-label="Previous day"
        data-testid="day-before"
        @click="date = dayAfter(date, -1)"
      >
        ‹
      </button>
      <h1 data-testid="day-title">{{ title }}</h1>
      <button class="push" aria-label="Next day" data-testid="day-after" @click="date = dayAfter(date, 1)">
        ›
      </button>
      <input
        class="date"
        type="date"
        :value="date"
        aria-label="Date"
        data-testid="day-date"
        @change="(e) => (e.target as HTMLInputElement).value && (date = (e.target as HTMLInputElement).value)"
      />
      <span class="acts">
        <UndoRedo
          :undos="history.undos.value"
          :redos="history.redos.value"
          @undo="history.undo()"
          @redo="history.redo()"
        />
        <div v-if="schedule" class="choice" role="group" aria-label="View">
          <button :aria-pressed="view === 'work'" data-testid="as-work" @click="view = 'work'">Work</button>
          <button :aria-pressed="view === 'timeline'" data-testid="as-picture" @click="view = 'timeline'">
            Timeline
          </button>
          <button :aria-pressed="view === 'lists'" data-testid="as-lists" @click="view = 'lists'">
            Lists
          </button>
        </div>
        <MoreMenu v-if="schedule" label="More">
          <button data-testid="print-day" @click="print">Print</button>
          <button data-testid="from-scratch" @click="d.lay(true)">
            Plan from scratch (what people expect may move)
          </button>
          <a :href="file('ics')" download="day.ics" data-testid="day-ics">Calendar file</a>
          <a :href="file('csv')" download="day.csv" data-testid="day-csv">Table (CSV)</a>
        </MoreMenu>
      </span>
    </div>
    <p v-if="problem" class="wrong" role="alert">{{ problemInWords(problem) }}.</p>
    <p v-if="history.problem.value" class="wrong" role="alert">
      {{ problemInWords(history.problem.value) }}.
    </p>
    <p v-if="kitchen.ready && !kitchen.kitchen" class="empty">
      There is no kitchen yet. Create one on the <RouterLink to="/">Bench</RouterLink>.
    </p>
    <div v-else-if="d.day.value" :class="{ two: view !== 'work' }">
      <div v-if="view !== 'work'" class="left no-print">
        <p v-if="trouble" class="wrong" role="alert">
          {{ `${trouble.title}. Trying again every few seconds.` }}
        </p>
        <DayOrders
          ref="orders"
          :request="request"
          :schedule="schedule"
          :date="date"
          :cards="cards"
          @change="(s, how) => void d.change(s, how)"
        />
        <section v-if="schedule?.ahead.length" class="panel side" aria-labelledby="ahead-title">
          <h2 id="ahead-title">Can be made the day before</h2>
          <label v-for="a in schedule.ahead" :key="a.task" class="tick"
            ><input
              type="checkbox"
              :checked="a.done"
              :data-testid="`ahead-${a.task}`"
              @change="ahead(a.task, a.batch, a.text, a.done)"
            />
            {{ a.text }}</label
          >
        </section>
        <section v-if="request.orders.length" class="panel side" aria-labelledby="today-title">
          <h2 id="today-title">Resources</h2>
          <label v-for="o in ovens" :key="o.id" class="tick"
            ><input
              type="checkbox"
              :checked="!closed(o.id)"
              :data-testid="`open-${o.name}`"
              @change="closeOven(o.id, o.name)"
            />
            {{ `${o.name} is in use` }}</label
          >
          <p v-for="(w, i) in schedule?.remedies ?? []" :key="i" class="way" data-testid="way-taken">
            {{ w }}
            <button class="plain" :aria-label="`Undo: ${w}`" @click="d.takeBack(i, w)">undo</button>
          </p>
          <button class="push" data-testid="add-hands" @click="addHands">Add a person</button>
          <RouterLink to="/kitchen/people" class="plain link">People and ovens…</RouterLink>
        </section>
        <section v-if="!request.orders.length && others.length" class="panel side">
          <h2>Other days</h2>
          <p v-for="o in others" :key="o.date">
            <RouterLink :to="`/day/${o.date}`">{{ inWords(o.date) }}</RouterLink>{{ `, ${o.orders} orders` }}
            <button class="plain" :data-testid="`copy-${o.date}`" @click="copyFrom(o.date)">
              copy orders
            </button>
          </p>
        </section>
      </div>
      <div class="right" data-testid="day-right">
        <div v-if="request.orders.length" class="status no-print">
          <p
            v-if="schedule && request.orders.length"
            :class="['text', { late: schedule.plan.clashes.length || schedule.unscheduled.length }]"
            role="status"
            data-testid="day-says"
          >
            {{ schedule.summary }}
          </p>
          <WorkProgress
            v-if="work.on.value"
            label="Planning the day"
            :share="work.share.value"
            @stop="d.stop"
          />
          <button v-else class="push" data-testid="lay" @click="d.lay()">
            {{ now === undefined ? 'Plan again' : 'Plan again from now' }}
          </button>
        </div>
        <template v-if="schedule">
          <div class="no-print">
            <WorkNow
              v-if="view === 'work'"
              :schedule="schedule"
              :request="request"
              :now="now"
              :busy="work.on.value"
              @change="(s, how) => void d.change(s, how)"
              @later="(task, label, minute) => void d.later(task, label, minute)"
            />
            <DayClashes :clashes="schedule.plan.clashes" :busy="work.on.value" @take="d.take" />
            <p
              v-if="schedule.moved.length && !forgotten"
              class="panel moved-list"
              role="status"
              data-testid="day-moved"
            >
              <span>{{ schedule.moved.join(' ') }}</span>
              <button class="plain" @click="forgotten = true">Close</button>
            </p>
            <section v-if="view === 'timeline'" class="panel picture" aria-label="Timeline of the day">
              <DayLanes
                :schedule="schedule"
                :request="request"
                :now="now"
                :chosen="chosen"
                :stale="work.on.value"
                @choose="(b) => (chosen = b.task)"
                @move="move"
              />
              <p class="quiet small legend">
                Dashed: shares an oven and bakes at another temperature than on its card. Bold: fixed time.
                Dotted line in a bake: next stage. Drag an order or move it with the arrow keys; touch a bar
                for details.
              </p>
            </section>
            <TaskDetails
              v-if="bar && !stands && view === 'timeline'"
              :bar="bar"
              :now="now"
              @pin="pin"
              @unpin="d.unpin(bar)"
              @bench="toBench"
            />
          </div>
          <DaySheets :class="{ 'print-only': !list }" :schedule="schedule" :title="title" :now="now" />
          <p class="quiet small no-print">
            {{
              `Preparation times are working figures; bakes are from the model. Calendar subscription: ${address}`
            }}
          </p>
        </template>
        <p v-else-if="!request.orders.length" class="panel empty">
          Add the orders of the day. Mabbin plans backwards from the due times: when each dish goes in, who
          does what, and which dishes share an oven.
        </p>
        <ClosingCount
          class="no-print"
          :request="request"
          :date="date"
          :cards="cards"
          @change="(s, how) => void d.change(s, how)"
        />
      </div>
    </div>
    <p v-else-if="!problem" class="empty quiet">Loading…</p>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 4px 8px 8px;
}
.bar h1 {
  min-width: 250px;
  padding: 0 8px;
  text-align: center;
}
.date {
  min-height: 44px;
  padding: 0 8px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-left: auto;
}
.two {
  display: grid;
  grid-template-columns: 18.75rem minmax(0, 1fr);
  align-items: start;
  gap: 8px;
}
.left,
.right {
  display: grid;
  gap: 8px;
  min-width: 0;
}
.right > .no-print {
  display: grid;
  gap: 8px;
}
.right > .status {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  min-height: 44px;
}
.text {
  color: var(--settled);
  font: 700 1.25rem var(--title);
}
.text.late {
  color: var(--danger);
}
.side {
  padding: 8px 12px 10px;
}
.side h2 {
  font-size: 1rem;
}
.way {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.way::first-letter {
  text-transform: uppercase;
}
.link {
  display: inline-flex;
  align-items: center;
  padding: 0;
}
.picture {
  overflow-x: auto;
}
.legend {
  padding: 0 14px 8px;
}
.moved-list {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  padding: 4px 14px;
  background: var(--moved);
  font-size: 0.9375rem;
}
.empty {
  padding: 40px 24px;
  text-align: center;
  font-size: 1.125rem;
}
@media (max-width: 32.5em) {
  .bar h1 {
    flex: 1;
    min-width: 0;
    font-size: 1.25rem;
  }
}
@media (max-width: 62em) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .two {
    display: block;
  }
}
</style>
