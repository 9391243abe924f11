<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { inWords, type Card, type FileFormat, type Remark } from '@/api/client'
import BakedIt from '@/parts/BakedIt.vue'
import CutawayPicture from '@/parts/CutawayPicture.vue'
import { keepFocus, toContent } from '@/parts/focus'
import RemarkList from '@/parts/RemarkList.vue'
import { sorted } from '@/parts/remarks'
import { forms, takeAway, ticketPDF } from '@/parts/takeAway'
import { bindKeys } from '@/parts/useKeys'
import { useKitchen } from '@/parts/useKitchen'
import { useOutbox } from '@/parts/useOutbox'
import { useWatch } from '@/watch/useWatch'
import { bandWords, grams, heat, inUnits, integer, litres, lower, mm, short, sizes } from '@/parts/words'
import BakeStation from './BakeStation.vue'
import BakeStrip from './BakeStrip.vue'
import CuttingPlan from './CuttingPlan.vue'
import DietChoice from './DietChoice.vue'
import DishStation from './DishStation.vue'
import FirstDay from './FirstDay.vue'
import FinishStation from './FinishStation.vue'
import FruitStation from './FruitStation.vue'
import JuiceStation from './JuiceStation.vue'
import KeyFigures from './KeyFigures.vue'
import RoughStart from './RoughStart.vue'
import StationCard from './StationCard.vue'
import TicketPanel from './TicketPanel.vue'
import ToppingStation from './ToppingStation.vue'
import { useDessert } from './useDessert'
import { usePlan } from './usePlan'
import { useWeighing } from './useWeighing'
import WeighNext from './WeighNext.vue'
import WrittenPanel from './WrittenPanel.vue'

const kitchen = useKitchen()
const router = useRouter()
const watching = useWatch()
const dessert = useDessert()
const outbox = useOutbox()
const plan = usePlan()
const stations = ['Dish', 'Fruit', 'Juice', 'Topping', 'Bake', 'Finish'] as const
const panels = {
  Dish: DishStation,
  Fruit: FruitStation,
  Juice: JuiceStation,
  Topping: ToppingStation,
  Bake: BakeStation,
  Finish: FinishStation,
}
const open = useLocalStorage<(typeof stations)[number]>('mabbin.station', 'Juice')
const weigher = useWeighing()
const weighing = computed(() => weigher.on)
const baked = ref(false)
const diet = ref(false)
const refused = ref('')
const draft = computed(() => dessert.draft)
const answer = computed(() => dessert.answer)

/** Each closed station says its result in a line. */
const lines = computed(() => {
  const d = draft.value
  const a = answer.value
  if (!d) return { Dish: '', Fruit: '', Juice: '', Topping: '', Bake: '', Finish: '' }
  const oven = kitchen.ovens.find((o) => o.id === d.setting.oven_id)
  const material = kitchen.material.get(d.request.dish.material)?.name ?? ''
  return {
    Dish: `${sizes(d.request.dish)}, ${lower(short(material))}${a ? `, ${litres(a.fit.volume_ml)}` : ''}`,
    Fruit: `${a ? `${grams(a.fruit_g)} ` : ''}${d.request.fruits.map((f) => lower(short(kitchen.fruit.get(f.key)?.name ?? f.key))).join(', ')}`,
    Juice: a
      ? d.request.custard
        ? `${bandWords[a.set.band]}, by the custard's egg and flour`
        : `${bandWords[a.set.band]}, ${grams(a.thickener_g)} ${lower(short(kitchen.thickener.get(d.request.thickener?.key ?? 'cornflour')?.name ?? ''))}`
      : '',
    Topping: a
      ? `${grams(a.topping_g)}, ${mm(a.topping.thickness_mm)}, ${lower(kitchen.topping.get(d.request.topping.key)?.name ?? '')}${a.base_g ? `; base ${grams(a.base_g)}` : ''}`
      : '',
    Bake:
      [
        d.setting.oven_c && heat(d.setting.oven_c),
        d.setting.minutes && `${integer(d.setting.minutes)} min`,
        oven?.name,
      ]
        .filter(Boolean)
        .join(', ') ||
      (plan.answer
        ? `proposed: ${heat(plan.answer.plan.oven_c)}, ${integer(plan.answer.plan.minutes)} min`
        : 'open: oven, temperature, minutes'),
    Finish:
      d.request.finishes?.map((k) => lower(short(kitchen.finish.get(k)?.name ?? k))).join(', ') ||
      'wash, rest, cut, keep',
  }
})
const stationOf = (s: string) => (answer.value?.remarks ?? []).filter((r) => r.station === s.toLowerCase())
const wrongAt: Record<string, RegExp> = {
  Dish: /^#\/dish/,
  Fruit: /^#\/(fruits|weighed|liquids|extras|precook)/,
  Juice: /^#\/(thickener|sugar|set|sweet)/,
  Topping: /^#\/(topping|base|late|custard)/,
  Finish: /^#\/(finishes|greasing)/,
  Bake: /^#\/setting/,
}
const isWrong = (s: string) => dessert.faults.some((f) => wrongAt[s]!.test(f.pointer))
const said = computed<Remark[]>(() =>
  sorted((answer.value?.remarks ?? []).filter((r) => r.station !== 'bake')),
)

async function save(asNew: boolean) {
  const d = dessert.draft
  const k = kitchen.kitchen
  if (!d || !k) return
  refused.value = ''
  const saves = { request: kitchen.ours(d.request), setting: d.setting }
  const fresh = asNew || !d.cardId
  const cardId = fresh ? crypto.randomUUID() : d.cardId!
  const path = `/api/v1/kitchens/${k.id}/cards`
  const parcel = fresh
    ? {
        what: d.name,
        path,
        body: { id: cardId, version_id: crypto.randomUUID(), name: d.name.trim(), ...saves },
      }
    : {
        what: `${d.name}, a new version`,
        path: `${path}/${cardId}/versions`,
        body: { id: crypto.randomUUID(), ...saves },
      }
  const sent = await outbox.send(parcel)
  if (sent.kept === 'refused') {
    const f = sent.problem.errors?.[0]
    refused.value = f
      ? `${f.pointer.replace(/^#\/(request\/)?/, '').replaceAll('/', ' ')}: ${f.detail}`
      : sent.problem.title
    return
  }
  dessert.keptAs(cardId, sent.kept === 'saved' ? (sent.data as Card).versions[0]?.number : undefined)
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
async function weigh(on: boolean) {
  weigher.on = on
  await nextTick()
  // the keys belong to the ticket now, not to the button that was touched
  toContent()
}

const unbind = bindKeys('On the Bench', [
  ...stations.map((s, i) => ({ key: String(i + 1), says: s.toLowerCase(), does: () => show(s) })),
  { key: 'j', says: 'next station', does: () => move(1) },
  { key: 'k', says: 'previous station', does: () => move(-1) },
  { key: 'u', says: 'undo', does: () => dessert.undo() },
  { key: 'r', says: 'redo', does: () => dessert.redo() },
  { key: 't', says: 'the ticket, full-screen for weighing', does: () => void weigh(!weighing.value) },
  {
    key: ' ',
    says: 'weighed: tick the next line',
    does: () => weighing.value && weigher.tick(weigher.next?.id),
  },
  { key: 'Backspace', says: 'untick the last line', does: () => weighing.value && weigher.untick() },
  { key: 's', says: 'save the card', does: () => void save(false) },
  { key: 'n', says: 'a new dessert', does: () => dessert.clear() },
  { key: 'i', says: 'in the oven', does: () => plan.answer && void intoOven() },
  { key: 'w', says: 'baked it: what came out', does: () => (baked.value = !!dessert.draft) },
  { key: 'Escape', says: 'back from weighing', does: () => void weigh(false) },
])
onBeforeUnmount(unbind)
// what had the focus goes away with the start, and with the Bench
watch(
  () => !!dessert.draft,
  () => void nextTick(keepFocus),
)
const print = () => window.print()

/** The card that this is of, as it was saved. */
const ofCard = computed(() => {
  const d = dessert.draft
  return d?.cardId && d.version && !dessert.unsaved ? { card_id: d.cardId, version: d.version } : {}
})
/** What goes into the log. */
const logged = computed(() => ({
  title: dessert.draft?.name.trim() || 'Unnamed',
  baked_at: new Date().toISOString(),
  ...ofCard.value,
  request: dessert.asked ?? dessert.draft!.request,
  setting: dessert.draft?.setting ?? {},
}))

/** The clock starts: by the stages that are on the strip now. */
async function intoOven() {
  const d = dessert.draft
  const stages = plan.answer?.plan.stages
  if (!d || !stages) return
  const problem = await watching.start({
    id: crypto.randomUUID(),
    title: d.name.trim() || 'Unnamed',
    ...ofCard.value,
    oven_id: d.setting.oven_id,
    request: kitchen.ours(d.request),
    setting: { ...plan.place, stages },
    weighed: weigher.weighed,
  })
  refused.value = problem ? inWords(problem) : ''
  if (problem) return
  weigher.afresh()
  weigher.on = false
  void router.push('/watch')
}

async function away(form: FileFormat | 'pdf') {
  const d = dessert.draft
  if (!d) return
  const card = {
    name: d.name.trim() || 'A card without a name',
    request: dessert.asked ?? d.request,
    oven_c: d.setting.oven_c,
    minutes: d.setting.minutes,
  }
  const problem = form === 'pdf' ? await ticketPDF(card) : await takeAway(form, card)
  refused.value = problem ? inWords(problem) : ''
}
</script>

<template>
  <template v-if="!draft">
    <FirstDay v-if="kitchen.ready && !kitchen.kitchen" class="first" />
    <RoughStart />
  </template>
  <div v-else :class="['bench', { weighing }]">
    <div class="bar no-print">
      <input
        class="name"
        :value="draft.name"
        maxlength="80"
        aria-label="Name of the dessert"
        data-testid="dessert-name"
        @change="(e) => dessert.change('the name', (d) => (d.name = (e.target as HTMLInputElement).value))"
      />
      <span class="quiet small state" data-testid="save-state"
        >{{
          draft.version ? `version ${draft.version}` : draft.cardId ? 'waits to be saved' : 'not a card yet'
        }}{{ draft.cardId && dessert.unsaved ? ', changed' : '' }}</span
      >
      <span class="acts">
        <button
          class="push"
          :disabled="!dessert.undos.length"
          data-testid="undo"
          :title="dessert.undos.at(-1)?.says"
          @click="dessert.undo()"
        >
          Undo<span v-if="dessert.undos.length" class="visually-hidden">
            {{ dessert.undos.at(-1)?.says }}</span
          >
        </button>
        <button class="push" :disabled="!dessert.redos.length" data-testid="redo" @click="dessert.redo()">
          Redo
        </button>
        <button v-if="!weighing" class="push" data-testid="new" @click="dessert.clear()">New</button>
        <button v-if="draft.cardId" class="push" data-testid="save-as" @click="save(true)">
          Save as another
        </button>
        <button
          class="push"
          :disabled="!!draft.cardId && !dessert.unsaved"
          data-testid="save"
          @click="save(false)"
        >
          {{ draft.cardId ? 'Save version' : 'Save card' }}
        </button>
        <button class="push" data-testid="weigh" @click="weigh(!weighing)">
          {{ weighing ? 'Back' : 'Weigh' }}
        </button>
        <button class="push" data-testid="baked" @click="baked = true">Baked it</button>
        <button class="push main" :disabled="!plan.answer" data-testid="into-oven" @click="intoOven">
          In the oven
        </button>
      </span>
    </div>
    <p v-if="refused" class="wrong no-print" role="alert">Not done. {{ refused }}.</p>
    <div v-if="!weighing" class="stations no-print">
      <StationCard
        v-for="(s, i) in stations"
        :key="s"
        :number="i + 1"
        :title="s"
        :line="lines[s]"
        :open="open === s"
        :remarks="stationOf(s)"
        :wrong="isWrong(s)"
        @open="open = s"
      >
        <component :is="panels[s]" />
      </StationCard>
    </div>
    <section v-if="answer" class="middle panel" aria-label="Cutaway">
      <CutawayPicture
        :cut="answer.cutaway"
        :headspace="answer.fit.hot_headspace_mm"
        :handle="!weighing"
        :moment="open === 'Bake' && !weighing ? plan.moment : undefined"
        @thickness="(t) => dessert.change('the thickness', (d) => (d.request.topping.thickness_mm = t), true)"
      />
      <p v-if="open === 'Bake' && plan.moment && !weighing" class="key small" data-testid="cut-at">
        <strong>After {{ integer(plan.minute ?? 0) }} min</strong>
        {{
          plan.moment.middle_bubbles
            ? 'it bubbles at the middle'
            : plan.moment.rim_bubbles
              ? 'it bubbles at the rim'
              : 'it warms up: red is hot'
        }}
        <button class="plain" data-testid="at-table" @click="plan.minute = undefined">At the table</button>
      </p>
      <p v-else class="key small quiet">
        <span class="k raw" /> raw heap, before it sinks <span class="k hot" /> boiling height
        <span class="k top" /> topping: drag the bar
      </p>
      <p v-if="dessert.problem && dessert.problem.status" class="wrong" role="alert" data-testid="problem">
        {{ dessert.problem.title }}: {{ inUnits(dessert.faults.map((f) => f.detail).join('; ')) }}. The
        figures below are the last that could be calculated.
      </p>
      <p v-else-if="dessert.problem" class="wrong" role="alert">{{ dessert.problem.title }}</p>
      <KeyFigures :answer="answer" />
      <WrittenPanel />
      <BakeStrip v-if="open === 'Bake' && !weighing" class="no-print" />
      <div v-if="open === 'Topping' && !weighing && answer.cutting.length" class="plans no-print">
        <CuttingPlan v-for="c in answer.cutting" :key="c.code" :plan="c" :dish="draft.request.dish" />
      </div>
      <RemarkList class="said" :remarks="said" />
      <WeighNext v-if="weighing" :ready="!!plan.answer" @oven="intoOven" />
    </section>
    <section v-else class="middle panel" aria-label="Cutaway">
      <p v-if="dessert.problem" class="wrong" role="alert">
        {{ dessert.problem.title }}: {{ dessert.faults.map((f) => f.detail).join('; ') }}
      </p>
      <p v-else class="quiet">Calculating…</p>
    </section>
    <div v-if="answer" class="right">
      <TicketPanel :answer="answer" :name="draft.name" :weighing="weighing" @diet="diet = true" />
      <div v-if="!weighing" class="away no-print" role="group" aria-label="Take the card away">
        <button class="plain" @click="print">Print</button>
        <button
          class="plain"
          title="the ticket, the method and the cutaway on one page"
          data-testid="away-pdf"
          @click="away('pdf')"
        >
          PDF
        </button>
        <button
          v-for="[form, says, about] in forms"
          :key="form"
          class="plain"
          :title="about"
          :data-testid="`away-${form}`"
          @click="away(form)"
        >
          {{ says }}
        </button>
      </div>
    </div>
    <BakedIt v-model="baked" :bake="logged" :band="answer?.set.band" :ticket="answer?.ticket" />
    <DietChoice v-model="diet" />
  </div>
</template>

<style scoped>
.first {
  margin-bottom: 8px;
}
.bench {
  display: grid;
  grid-template: auto auto minmax(0, 1fr) / 372px minmax(0, 1fr) 318px;
  gap: 8px;
  height: calc(100vh - 71px);
}
.bar {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.bench > .wrong {
  grid-column: 1 / -1;
}
.name {
  flex: 1 1 300px;
  min-width: 160px;
  height: 44px;
  padding: 0 8px;
  border: 0;
  border-bottom: 1.5px solid var(--line);
  background: none;
  font: 650 22px var(--title);
  text-overflow: ellipsis;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-left: auto;
}
.acts .push {
  padding: 0 9px;
}
.stations {
  grid-row: 3;
  display: flex;
  flex-direction: column;
  gap: 5px;
  min-height: 0;
}
.middle {
  grid-row: 3;
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  padding: 10px 14px;
  overflow: auto;
}
.middle > * {
  flex: none;
}
.right {
  grid-row: 3;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.right > :first-child {
  flex: 1;
}
.away {
  display: flex;
  justify-content: space-between;
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
  margin-left: 10px;
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
}
.weighing .middle > .next {
  border: 0;
  padding: 0;
}
.weighing .key,
.weighing .said,
.weighing .written,
.weighing .middle :deep(.figures) {
  display: none;
}
@media (max-width: 1100px) {
  .bench {
    grid-template: auto auto auto auto / minmax(0, 1fr) minmax(0, 1fr);
    height: auto;
  }
  .middle {
    grid-row: 3;
    grid-column: 1 / -1;
  }
  .stations,
  .right {
    grid-row: 4;
  }
  .bench.weighing {
    display: flex;
    flex-direction: column;
  }
}
@media (max-width: 700px) {
  .bench {
    display: flex;
    flex-direction: column;
  }
  .bench > .middle {
    order: 1;
  }
  .bench > .stations {
    order: 2;
  }
  .bench > .right {
    order: 3;
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
