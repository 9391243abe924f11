<script setup lang="ts">
import { computed } from 'vue'
import { useStorage } from '@vueuse/core'
import type { DayOrders, DayRow, DaySchedule } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import { heat } from '@/format/amounts'
import { clockOf } from '@/format/minutes'

/** What one person does now and next, in large type, to be ticked; in addition what is in the ovens. */
const props = defineProps<{ schedule: DaySchedule; request: DayOrders; now?: number; busy: boolean }>()
const emit = defineEmits<{
  change: [label: string, how: (a: DayOrders) => void]
  later: [task: string, label: string, minute: number]
}>()
const kitchen = useKitchen()
const everyone = ''
const chosen = useStorage('mabbin.work.person', everyone)
const people = computed(() => props.schedule.sheets.filter((s) => s.kind === 'hands'))
const person = computed(() => (people.value.some((s) => s.of === chosen.value) ? chosen.value : everyone))

type Row = DayRow & { by: string }
const rows = computed<Row[]>(() =>
  people.value
    .filter((s) => !person.value || s.of === person.value)
    .flatMap((s) => s.rows.map((r) => ({ ...r, by: s.of })))
    .sort((a, b) => a.at_min - b.at_min),
)
const open = computed(() => rows.value.filter((r) => !r.done))
const current = computed(() => open.value[0])
const next = computed(() => open.value.slice(1, 6))
const done = computed(() => rows.value.filter((r) => r.done).reverse())
const colour = (fruit?: string) => kitchen.fruit.get(fruit ?? '')?.juice_colour
/** How far off a minute is, in words; another day has no clock. */
const away = (at: number) => {
  if (props.now === undefined) return ''
  const n = at - props.now
  return n > 0 ? `in ${n} min` : n < 0 ? `${-n} min late` : 'now'
}
const isLate = (at: number) => props.now !== undefined && at < props.now
const tick = (r: Row) =>
  emit('change', `done: ${r.text}`, (a) => {
    a.done = [...(a.done ?? []), { row: r.task, at_min: props.now ?? r.at_min + r.minutes, person: r.by }]
  })
const untick = (r: Row) =>
  emit('change', `not done: ${r.text}`, (a) => (a.done = a.done?.filter((x) => x.row !== r.task)))
const delayMin = 5
const later = (r: Row) =>
  r.moves &&
  emit(
    'later',
    r.moves,
    `${r.text}, ${delayMin} min later`,
    Math.max(props.now ?? r.at_min, r.at_min) + delayMin,
  )

const ovens = computed(() =>
  props.schedule.sheets
    .filter((s) => s.kind === 'oven')
    .map((s) => {
      const at = props.now ?? props.schedule.from_min
      const bakes = props.schedule.bars.filter((b) => {
        const lane = props.schedule.lanes[b.lane]!
        return lane.kind === 'oven' && lane.of === s.of && b.to_min > at
      })
      const set = props.schedule.heats.find((h) => h.oven === s.of && h.from_min <= at && at < h.to_min)
      return {
        name: s.of,
        heat: set,
        inside: bakes.filter((b) => b.from_min <= at),
        coming: bakes.filter((b) => b.from_min > at).sort((x, y) => x.from_min - y.from_min)[0],
      }
    }),
)
</script>

<template>
  <div class="work" data-testid="day-work">
    <div class="choice people" role="group" aria-label="Person">
      <button
        v-for="s in people"
        :key="s.of"
        :aria-pressed="person === s.of"
        :data-testid="`person-${s.of}`"
        @click="chosen = s.of"
      >
        {{ s.of }}
      </button>
      <button :aria-pressed="!person" data-testid="person-everyone" @click="chosen = everyone">
        Everyone
      </button>
    </div>
    <div class="columns">
      <div>
        <section
          v-if="current"
          class="panel now"
          :style="{ borderLeftColor: colour(current.fruit) }"
          aria-live="polite"
          aria-label="Now"
          data-testid="work-now"
        >
          <p class="quiet">{{ `${now === undefined ? 'First' : 'Now'}, ${current.by}` }}</p>
          <p class="at">
            <strong>{{ clockOf(current.at_min) }}</strong>
            <span :class="{ late: isLate(current.at_min) }">{{ away(current.at_min) }}</span>
          </p>
          <p class="what">{{ current.text }}</p>
          <p v-if="current.detail" class="detail" data-testid="work-detail">{{ current.detail }}</p>
          <p v-if="current.caution" class="caution">{{ current.caution }}</p>
          <p class="acts">
            <button class="push main" :disabled="busy" data-testid="work-done" @click="tick(current)">
              Done
            </button>
            <button
              v-if="current.moves"
              class="push"
              :disabled="busy"
              data-testid="work-later"
              @click="later(current)"
            >
              {{ `Not yet: ${delayMin} min later` }}
            </button>
          </p>
        </section>
        <p v-else class="panel all" data-testid="work-all-done">All done.</p>
        <ol v-if="next.length" class="next" aria-label="Next">
          <li v-for="r in next" :key="r.task" :style="{ borderLeftColor: colour(r.fruit) }">
            <strong>{{ clockOf(r.at_min) }}</strong>
            <span>
              {{ r.text }}
              <span class="quiet small">{{
                [person ? '' : r.by, r.detail].filter(Boolean).join(' · ')
              }}</span>
            </span>
            <span class="quiet">{{ r.minutes > 1 ? `${r.minutes} min` : '' }}</span>
          </li>
        </ol>
        <details v-if="done.length" data-testid="work-ticked">
          <summary>{{ `Done: ${done.length} of ${rows.length}` }}</summary>
          <p v-for="r in done" :key="r.task" class="ticked">
            <span>{{ `✓ ${r.text}` }}</span>
            <button class="plain" :disabled="busy" :aria-label="`Not done: ${r.text}`" @click="untick(r)">
              not done
            </button>
          </p>
        </details>
      </div>
      <div class="ovens">
        <section v-for="o in ovens" :key="o.name" :class="['panel oven', { hot: o.heat }]">
          <h2>
            {{ o.name }}
            <span class="quiet">{{
              o.heat ? `${o.heat.warming ? 'heating to' : ''} ${heat(o.heat.c)}` : 'off'
            }}</span>
          </h2>
          <p v-for="b in o.inside" :key="b.task">
            <strong>{{ b.order }}</strong>{{ `, tier ${b.tier}, out ${clockOf(b.to_min)}` }}
          </p>
          <p v-if="!o.inside.length" class="quiet">Empty.</p>
          <p v-if="o.coming" class="quiet">
            {{ `Next: ${o.coming.order}, in at ${clockOf(o.coming.from_min)}` }}
          </p>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.work {
  display: grid;
  gap: 8px;
}
.people {
  justify-self: start;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  align-items: start;
  gap: 12px;
}
.now {
  padding: 10px 18px 14px;
  border-left: 12px solid var(--rim);
}
.at {
  display: flex;
  align-items: baseline;
  gap: 14px;
}
.at strong {
  font: 700 3.25rem var(--title);
  font-variant-numeric: tabular-nums;
}
.late {
  color: var(--danger);
  font-weight: 600;
}
.what {
  font: 700 1.75rem/1.2 var(--title);
}
.detail {
  margin-top: 4px;
  font-size: 1.25rem;
}
.caution {
  color: var(--danger);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 12px;
}
.acts .push {
  min-height: 56px;
  padding: 0 26px;
  font-size: 1.125rem;
}
.all {
  padding: 24px;
  font-size: 1.25rem;
}
.next {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
.next li {
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1fr) auto;
  align-items: baseline;
  gap: 10px;
  padding: 9px 10px;
  border-bottom: 1px solid var(--line);
  border-left: 6px solid transparent;
}
.next strong {
  font: 700 1.375rem var(--title);
  font-variant-numeric: tabular-nums;
}
.next .small {
  display: block;
}
.ticked {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
}
summary {
  min-height: 44px;
  padding: 10px;
}
.ovens {
  display: grid;
  gap: 8px;
}
.oven {
  padding: 8px 14px 10px;
}
.oven.hot {
  border-top-color: var(--heat);
}
.oven h2 {
  font-size: 1.125rem;
}
.oven h2 .quiet {
  font-weight: 400;
}
@media (max-width: 48em) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
