<script setup lang="ts">
import { refDebounced, useElementSize, useLocalStorage } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef, watch, watchEffect } from 'vue'
import type { Remark } from '@/api/client'
import CutawayPicture from '@/ui/CutawayPicture.vue'
import { keepFocus, toContent } from '@/ui/focus'
import { later, onceTrue } from '@/ui/later'
import RemarkList from '@/ui/RemarkList.vue'
import { sorted } from '@/ui/remarks'
import ExportMenu from '@/ui/ExportMenu.vue'
import { bindKeys } from '@/ui/useKeys'
import { useSticky } from '@/ui/useSticky'
import { useKitchen } from '@/stores/useKitchen'
import { useWatch } from '@/stores/useWatch'
import { integer } from '@/format/amounts'
import BenchBar, { type BenchMoment } from './BenchBar.vue'
import BakeStrip from '@/views/bench/bake/BakeStrip.vue'
import CuttingPlan from '@/views/bench/topping/CuttingPlan.vue'
import WelcomePanel from '@/views/bench/start/WelcomePanel.vue'
import KeyFigures from './KeyFigures.vue'
import QuickStart from '@/views/bench/start/QuickStart.vue'
import StationTab from './StationTab.vue'
import TicketPanel from '@/views/bench/ticket/TicketPanel.vue'
import { useDessert, type Draft } from '@/stores/useDessert'
import { useStartBake } from './useStartBake'
import { useSaving } from './useSaving'
import { usePlan } from '@/stores/usePlan'
import { useWeighing } from '@/views/bench/ticket/useWeighing'
import WeighingPanel from '@/views/bench/ticket/WeighingPanel.vue'
import RecipeVerdict from './RecipeVerdict.vue'

const kitchen = useKitchen()
const watching = useWatch()
const dessert = useDessert()
const plan = usePlan()
const stations = ['Dish', 'Fruit', 'Juice', 'Topping', 'Bake', 'Finish'] as const
const panels = {
  Dish: later(async () => (await import('./stations')).DishStation),
  Fruit: later(async () => (await import('./stations')).FruitStation),
  Juice: later(async () => (await import('./stations')).JuiceStation),
  Topping: later(async () => (await import('./stations')).ToppingStation),
  Bake: later(async () => (await import('./stations')).BakeStation),
  Finish: later(async () => (await import('./stations')).FinishStation),
}
const StartBakeDialog = later(() => import('./StartBakeDialog.vue'))
const BakeOutcome = later(() => import('@/ui/BakeOutcome.vue'))
const DietChoice = later(() => import('./DietChoice.vue'))
const open = useLocalStorage<(typeof stations)[number]>('mabbin.station', 'Juice')
const weigher = useWeighing()
const weighing = computed(() => weigher.on)
const baked = ref(false)
const diet = ref(false)
const { refused, save } = useSaving()
const { title, ofCard, inOven, asking, shared, toOven, intoOven } = useStartBake(refused)
const bakedAsked = onceTrue(() => baked.value)
const dietAsked = onceTrue(() => diet.value)
const ovenAsked = onceTrue(() => asking.value)
const draft = computed(() => dessert.draft)
const answer = computed(() => dessert.answer)

/** Each closed station says its result in a line. */
const lineOf = (s: (typeof stations)[number]) =>
  (answer.value && plan.answer?.stations[s.toLowerCase() as Lowercase<typeof s>]) || ''
const stationOf = (s: string) => (answer.value?.remarks ?? []).filter((r) => r.station === s.toLowerCase())
const wrongAt: Record<string, RegExp> = {
  Dish: /^#\/request\/dish/,
  Fruit: /^#\/request\/(fruits|weighed|liquids|extras|precook)/,
  Juice: /^#\/request\/(thickener|sugar|set|sweet)/,
  Topping: /^#\/request\/(topping|base|late|custard)/,
  Finish: /^#\/request\/(finishes|greasing)/,
  Bake: /^#\/setting/,
}
const isWrong = (s: string) => dessert.faults.some((f) => wrongAt[s]!.test(f.pointer))
const said = computed<Remark[]>(() =>
  sorted((answer.value?.remarks ?? []).filter((r) => r.station !== 'bake')),
)

/** The fruit by its prepared weight, whatever it was given by before. */
function weighFruit(d: Draft, g: number) {
  delete d.request.bought_fruit_g
  d.request.weighed_fruit_g = g
}

function move(by: number) {
  const i = stations.indexOf(open.value)
  show(stations[(i + by + stations.length) % stations.length]!)
}
/** Goes to a station by a key: the focus goes with it. */
function show(s: (typeof stations)[number]) {
  open.value = s
  weigher.on = false
  void nextTick(() =>
    document.querySelector<HTMLElement>(`[data-testid="station-${s.toLowerCase()}"]`)?.focus(),
  )
}

const firstDay = computed(() => kitchen.ready && !kitchen.kitchen)
const { height: firstHeight } = useElementSize(useTemplateRef('first-day'), undefined, { box: 'border-box' })
const { height: above } = useElementSize(useTemplateRef('above'), undefined, { box: 'border-box' })
/** What is gone to by keys, or brought into view, is scrolled to under what stays above. */
watchEffect(() => document.documentElement.style.setProperty('--stays-above', `${above.value}px`))
onBeforeUnmount(() => document.documentElement.style.removeProperty('--stays-above'))
const middle = useSticky(useTemplateRef<HTMLElement>('middle'), above)
const right = useSticky(useTemplateRef<HTMLElement>('right'), above)
async function weigh(on: boolean) {
  weigher.on = on
  await nextTick()
  // the keys belong to the ticket now, not to the button that was touched
  toContent()
}

const unbind = bindKeys('On the Bench', [
  ...stations.map((s, i) => ({ key: String(i + 1), label: s.toLowerCase(), does: () => show(s) })),
  { key: 'j', label: 'next station', does: () => move(1) },
  { key: 'k', label: 'previous station', does: () => move(-1) },
  { key: 'u', label: 'undo', does: () => dessert.undo() },
  { key: 'r', label: 'redo', does: () => dessert.redo() },
  { key: 't', label: 'full-screen ticket for weighing', does: () => void weigh(!weighing.value) },
  {
    key: ' ',
    label: 'tick the next line as weighed',
    does: () => weighing.value && weigher.tick(weigher.next?.id),
  },
  { key: 'Backspace', label: 'untick the last line', does: () => weighing.value && weigher.untick() },
  { key: 's', label: 'save the card', does: () => void save(false) },
  { key: 'n', label: 'a new dessert', does: () => dessert.clear() },
  { key: 'i', label: 'start baking', does: () => plan.answer && void toOven(true) },
  { key: 'w', label: 'log the result', does: () => (baked.value = !!dessert.draft) },
  { key: 'Escape', label: 'close weighing', does: () => void weigh(false) },
])
onBeforeUnmount(unbind)
// what had the focus goes away with the start, and with the Bench
watch(
  () => !!dessert.draft,
  () => void nextTick(keepFocus),
)

/** What changed, for those who listen: once nothing moves any more. */
const announced = refDebounced(
  computed(() => plan.answer?.stations.weighed ?? ''),
  1000,
)
/** What goes into the log. */
const logged = computed(() => ({
  title: title.value,
  baked_at: new Date().toISOString(),
  ...ofCard.value,
  request: dessert.asked ?? dessert.draft!.request,
  // by what was shown, also where it was proposed and not kept
  setting: { ...dessert.draft?.setting, stages: plan.answer?.plan.stages ?? dessert.draft?.setting.stages },
  ...(inOven.value && { watch_id: inOven.value.id }),
}))

const moment = computed<BenchMoment>(() => {
  if (inOven.value && !weighing.value) return 'baked'
  return weigher.lines.length > 0 && !weigher.next ? 'oven' : 'weigh'
})

const whole = computed(() => ({
  name: dessert.draft?.name.trim() || 'A card without a name',
  request: dessert.written ?? dessert.draft!.request,
  oven_c: dessert.draft?.setting.oven_c,
  minutes: dessert.draft?.setting.minutes,
  original: dessert.draft?.original,
}))
</script>

<template>
  <template v-if="!draft">
    <WelcomePanel v-if="firstDay" ref="first-day" class="first" />
    <QuickStart :style="{ '--first-day': firstDay ? `${firstHeight + 8}px` : undefined }" />
  </template>
  <div v-else :class="['bench', { weighing }]">
    <h1 class="visually-hidden">{{ title }}</h1>
    <p class="visually-hidden" aria-live="polite" data-testid="announced">{{ announced }}</p>
    <div ref="above" class="above no-print">
      <BenchBar
        :weighing="weighing"
        :ready="!!plan.answer"
        :moment="moment"
        :verdict="weighing ? undefined : plan.answer?.verdict"
        @save="save"
        @weigh="weigh(!weighing)"
        @baked="baked = true"
        @oven="void toOven()"
        @mend="plan.apply"
      />
      <p v-if="refused" class="wrong" role="alert">{{ `Not done. ${refused}.` }}</p>
      <nav v-if="!weighing" class="tabs" aria-label="Stations">
        <StationTab
          v-for="(s, i) in stations"
          :key="s"
          :number="i + 1"
          :title="s"
          :line="lineOf(s)"
          :open="open === s"
          :remarks="stationOf(s)"
          :wrong="isWrong(s)"
          @open="open = s"
        />
      </nav>
    </div>
    <section v-if="!weighing" class="place panel no-print" :aria-label="open">
      <component :is="panels[open]" />
    </section>
    <section v-if="answer" ref="middle" class="middle panel" :style="middle" aria-label="Cutaway">
      <CutawayPicture
        :cut="answer.cutaway"
        :headspace="answer.fit.hot_headspace_mm"
        :room="answer.fit.room"
        :handle="!weighing"
        :levels="answer.fit.fruit_levels"
        :moment="open === 'Bake' && !weighing ? plan.moment : undefined"
        @fruit="(g) => dessert.change('the fruit level', (d) => weighFruit(d, g), true)"
        @thickness="(t) => dessert.change('the thickness', (d) => (d.request.topping.thickness_mm = t), true)"
      />
      <p v-if="open === 'Bake' && plan.moment && !weighing" class="key small" data-testid="cut-at">
        <strong>{{ `After ${integer(plan.moment.minute)} min` }}</strong>
        {{
          plan.moment.middle_bubbles
            ? 'middle bubbling'
            : plan.moment.rim_bubbles
              ? 'rim bubbling'
              : 'warming up (red = hot)'
        }}
        <button class="plain" data-testid="at-table" @click="plan.minute = undefined">At serving</button>
      </p>
      <p v-else class="key small quiet no-print">
        <span class="k raw" /> raw heap <span class="k hot" /> boiling level <span class="k top" /> topping
        <span class="k top level" /> fruit: drag to change. Heights × 2
      </p>
      <p v-if="dessert.problem && dessert.problem.status" class="wrong" role="alert" data-testid="problem">
        {{
          `${dessert.problem.title}: ${dessert.faults.map((f) => f.text).join('; ')}. The figures below are from the last valid entry.`
        }}
      </p>
      <p v-else-if="dessert.problem" class="wrong" role="alert">{{ dessert.problem.title }}</p>
      <BakeStrip v-if="!weighing" class="no-print" :low="open !== 'Bake'" />
      <KeyFigures :answer="answer" />
      <RecipeVerdict />
      <div v-if="open === 'Topping' && !weighing && answer.cutting.length" class="plans no-print">
        <CuttingPlan v-for="c in answer.cutting" :key="c.code" :plan="c" :dish="draft.request.dish" />
      </div>
      <RemarkList class="said" :remarks="said" />
      <WeighingPanel v-if="weighing" :ready="!!plan.answer" @oven="void toOven()" />
    </section>
    <section v-else class="middle panel" aria-label="Cutaway">
      <p v-if="dessert.problem" class="wrong" role="alert">
        {{ dessert.problem.title }}:
        {{ dessert.faults.map((f) => f.text).join('; ') }}
      </p>
      <p v-else class="quiet">Calculating…</p>
    </section>
    <div v-if="answer" ref="right" class="right" :style="right">
      <TicketPanel
        :answer="answer"
        :name="draft.name"
        :weighing="weighing"
        :original="draft.original"
        @diet="diet = true"
      />
      <ExportMenu
        v-if="!weighing"
        page
        :card="whole"
        :cut="answer.cutting.length > 0"
        :baked="{
          steamed_off_g: dessert.steam,
          stages: plan.answer?.plan.stages,
          verdict: plan.answer?.verdict.summary,
        }"
      />
    </div>
    <BakeOutcome
      v-if="bakedAsked"
      v-model="baked"
      :bake="logged"
      :band="answer?.set.band"
      :ticket="answer?.ticket"
      @logged="inOven && watching.end(inOven.id, true)"
    />
    <DietChoice v-if="dietAsked" v-model="diet" />
    <StartBakeDialog
      v-if="ovenAsked"
      v-model="asking"
      :verdict="plan.answer?.verdict"
      :shared="shared"
      @mend="plan.apply"
      @oven="intoOven"
    />
  </div>
</template>

<style scoped>
.first {
  margin-bottom: 8px;
}
.bench {
  display: grid;
  grid-template: auto auto / 23.75rem minmax(0, 1fr) 18.75rem;
  align-items: start;
  gap: 8px;
}
.above {
  position: sticky;
  z-index: 5;
  top: 0;
  grid-column: 1 / -1;
  display: grid;
  gap: 4px;
  margin: -8px -8px 0;
  padding: 4px 8px 0;
  background: var(--ground);
}
.tabs {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 4px;
}
.place {
  min-height: calc(100vh - var(--above) - 150px);
  padding: 10px 14px 14px;
}
.middle {
  position: sticky;
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 14px;
}
.middle > * {
  flex: none;
}
.right {
  position: sticky;
  display: flex;
  flex-direction: column;
}
.right > :first-child {
  flex: 1;
}
.key {
  display: flex;
  align-items: center;
  gap: 6px;
  flex-wrap: wrap;
}
.k {
  width: 22px;
  border-top: 2px dotted var(--ink-2);
  margin-left: 6px;
}
.k:first-child {
  margin-left: 0;
}
.k.hot {
  border-top: 2px dashed var(--heat);
}
.k.top {
  height: 8px;
  border: 0;
  border-radius: 4px;
  background: var(--rim);
}
.k.level {
  border: 2px solid var(--rim);
  background: var(--panel);
}
.plans {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 8px 20px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.said {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.bench.weighing {
  grid-template-columns: 400px minmax(0, 1fr);
  height: calc(100vh - var(--above) - 16px);
  grid-template-rows: auto minmax(0, 1fr);
  align-items: stretch;
}
.weighing .middle,
.weighing .right {
  position: static;
  min-height: 0;
}
.weighing .middle {
  overflow: auto;
}
.weighing .middle > .next {
  border: 0;
  padding: 0;
}
.weighing .middle :deep(.ruler),
.weighing .middle :deep(.words),
.weighing .key,
.weighing .said,
.weighing .written,
.weighing .middle :deep(.figures) {
  display: none;
}
/* on a large screen the sides take their share, and the figures are read from further away */
@media (min-width: 100em) {
  .bench {
    grid-template-columns: 470px minmax(0, 1fr) 430px;
  }
  .bench.weighing {
    grid-template-columns: 560px minmax(0, 1fr);
  }
}
@media (max-width: 68.75em) {
  .bench {
    grid-template: auto auto auto / minmax(0, 1fr) minmax(0, 1fr);
  }
  .above,
  .middle,
  .right {
    position: static;
  }
  .tabs {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .middle {
    grid-row: 2;
    grid-column: 1 / -1;
  }
  .place {
    min-height: 0;
  }
  .bench.weighing {
    display: flex;
    flex-direction: column;
    align-items: stretch;
    height: auto;
  }
}
@media (max-width: 43.75em) {
  .bench {
    display: flex;
    flex-direction: column;
    align-items: stretch;
  }
  .above {
    display: contents;
  }
  .bench > .right {
    order: 1;
  }
  .bench > .middle {
    order: 2;
  }
  .tabs {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    order: 3;
  }
  .bench > .place {
    order: 4;
  }
}
@media print {
  .bench {
    display: block;
    height: auto;
  }
  .middle {
    overflow: visible;
  }
}
</style>
