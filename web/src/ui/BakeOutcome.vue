<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import {
  api,
  ask,
  type Bake,
  type Band,
  type Bowl,
  type NewBake,
  type Outcome,
  upon,
  reasonOf,
} from '@/api/client'
import AmountField from './AmountField.vue'
import PictureField from './PictureField.vue'
import WordButtons from './WordButtons.vue'
import { grams, lower, short } from '@/format/amounts'
import { useClash } from '@/stores/useClash'
import { useKitchen } from '@/stores/useKitchen'
import { useOutbox } from '@/stores/useOutbox'

/** What came out, in a few touches; all of it may be left out. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{
  /** What was baked. */
  bake?: Omit<NewBake, 'id' | 'outcome'>
  /** A bake of the log of which something else is details now. */
  correcting?: Bake
  /** How it was predicted to stand. */
  band?: Band
  ticket?: Bowl[]
}>()
const emit = defineEmits<{ logged: []; corrected: [bake: Bake] }>()
const kitchen = useKitchen()
const clash = useClash()
const outbox = useOutbox()
/** What was touched so far is kept over a reload, for what it is about. */
const begun = useSessionStorage<Record<string, { out: Outcome; details: NonNullable<Outcome['details']> }>>(
  'mabbin.baked',
  {},
)
const about = computed(
  () => props.bake?.watch_id ?? props.correcting?.id ?? `${props.bake?.card_id}/${props.bake?.title}`,
)
const out = reactive<Outcome>({})
const refused = ref('')
const questions = [
  { key: 'juice', title: 'Juice when cold', of: 'juice_told' },
  { key: 'fruit', title: 'Fruit', of: 'fruit_told' },
  { key: 'top', title: 'Top', of: 'top_told' },
] as const
const moreQuestions = [
  { key: 'juice_hot', title: 'Juice when hot', of: 'juice_told' },
  { key: 'base', title: 'Base', of: 'base_told' },
  { key: 'sweetness', title: 'Sweetness', of: 'sweetness_told' },
] as const
const numbers = [
  { key: 'rim_min', title: 'Rim bubbled after', kind: 'minutes', unit: 'min' },
  { key: 'middle_min', title: 'Middle bubbled after', kind: 'minutes', unit: 'min' },
  { key: 'before_g', title: 'Weight before baking', kind: 'mass', unit: 'g' },
  { key: 'after_g', title: 'Weight after baking', kind: 'mass', unit: 'g' },
] as const
const details = reactive<NonNullable<Outcome['details']>>({})
const yesNo = [
  ['no', false],
  ['yes', true],
] as const
/** What it was made of, by the ticket, or else its fruit: each may have a lot. */
const made = computed(() => {
  const lines = (props.ticket ?? []).flatMap((b) => b.lines.map((l) => l.key))
  const fruits = (props.bake ?? props.correcting)?.request.fruits.map((f) => f.key) ?? []
  return [...new Set([...fruits, ...lines, ...Object.keys(details.lots ?? {})])].filter((k) => k !== 'water')
})
const nameOf = (key: string) => short(kitchen.nameOf(key))
function setLot(key: string, lot: string) {
  const others = Object.fromEntries(Object.entries(details.lots ?? {}).filter(([k]) => k !== key))
  details.lots = lot ? { ...others, [key]: lot } : others
}
/** Liquids that are poured to feel: how much of each went in. */
const toFeel = computed(() => (props.ticket ?? []).flatMap((b) => b.lines.filter((l) => l.to_feel)))
const wentIn = reactive<Record<string, number | undefined>>({})
watch(
  open,
  (now) => {
    if (!now) return
    for (const k of Object.keys(wentIn)) delete wentIn[k]
    for (const k of Object.keys(details)) delete details[k as keyof typeof details]
    for (const k of Object.keys(out)) delete out[k as keyof Outcome]
    refused.value = ''
    if (props.correcting) {
      const { details: t, ...was } = props.correcting.outcome
      Object.assign(out, was)
      Object.assign(details, t)
    }
    const before = begun.value[about.value]
    if (before) {
      Object.assign(out, before.out)
      Object.assign(details, before.details)
    }
  },
  { immediate: true },
)
watch(
  [out, details],
  () => {
    if (open.value) begun.value = { [about.value]: { out: { ...out }, details: { ...details } } }
  },
  { deep: true },
)

/** The note, and before it what went in of the liquids. */
function noted() {
  const poured = toFeel.value
    .filter((l) => wentIn[l.key] !== undefined)
    .map((l) => `${grams(wentIn[l.key]!)} of ${grams(l.g)} ${lower(short(l.name))} went in.`)
  return [...poured, out.note?.trim()].filter(Boolean).join(' ') || undefined
}

async function log() {
  if (!kitchen.kitchen) return
  const outcome = { ...out, note: noted(), details: { ...details } }
  if (props.correcting) return putRight(props.correcting, outcome)
  if (!props.bake) return
  const body: NewBake = { ...props.bake, id: crypto.randomUUID(), outcome }
  const sent = await outbox.send({
    what: `result of ${body.title}`,
    path: `/api/v1/kitchens/${kitchen.kitchen.id}/bakes`,
    body,
  })
  if (sent.stored === 'refused') refused.value = reasonOf(sent.problem)
  else {
    begun.value = {}
    open.value = false
    emit('logged')
  }
}

async function putRight(bake: Bake, outcome: Outcome) {
  const path = { kitchen: kitchen.kitchen!.id, bake: bake.id }
  const got = await clash.settle(bake.title, bake.revision, (ifMatch) =>
    ask(
      api.PUT('/api/v1/kitchens/{kitchen}/bakes/{bake}/outcome', {
        params: { path, header: upon(ifMatch) },
        body: { correction_id: crypto.randomUUID(), outcome },
      }),
    ),
  )
  if (got.problem) {
    refused.value = reasonOf(got.problem)
    return
  }
  begun.value = {}
  open.value = false
  emit('corrected', got.data)
}
</script>

<template>
  <el-dialog
    v-model="open"
    :title="correcting ? `${correcting.title}: correct the result` : 'Log the result'"
    width="min(600px, 96vw)"
    data-testid="baked-it"
  >
    <div class="ask">
      <WordButtons
        v-for="q in questions"
        :key="q.key"
        v-model="out[q.key]"
        :title="q.title"
        :options="kitchen.options(q.of)"
        :testid="q.key"
        ><template v-if="q.key === 'juice' && band">{{
          `, predicted ${kitchen.word('band', band)}`
        }}</template></WordButtons
      >
      <WordButtons
        v-if="out.juice"
        v-model="details.cooled"
        title="Judged when cold?"
        :options="yesNo"
        testid="cooled"
      />
      <WordButtons v-model="out.boiled_over" title="Boiled over" :options="yesNo" testid="over" />
      <PictureField v-model="out.picture_id" />
      <details :open="!!correcting">
        <summary data-testid="more-questions">More details</summary>
        <div class="ask">
          <WordButtons
            v-for="q in moreQuestions"
            :key="q.key"
            v-model="details[q.key]"
            :title="q.title"
            :options="kitchen.options(q.of)"
            :testid="q.key"
          />
          <WordButtons
            v-model="details.again"
            title="Make it the same way again?"
            :options="yesNo"
            testid="again"
          />
          <div class="pair">
            <AmountField
              v-for="n in numbers"
              :key="n.key"
              v-model="details[n.key]"
              :label="n.title"
              :kind="n.kind"
              :unit="n.unit"
              optional
              :digits="0"
              :testid="n.key"
            />
          </div>
        </div>
      </details>
      <details :open="!!(details.made_by || Object.keys(details.lots ?? {}).length)">
        <summary data-testid="trace">Baker and lots</summary>
        <div class="pair">
          <label class="field"
            ><span class="label">Made by</span
            ><el-input v-model="details.made_by" maxlength="80" data-testid="made-by"
          /></label>
          <label v-for="key in made" :key="key" class="field"
            ><span class="label">{{ `${nameOf(key)}, lot` }}</span
            ><el-input
              :model-value="details.lots?.[key] ?? ''"
              maxlength="80"
              placeholder="packet number, or season and supplier"
              :data-testid="`lot-${key}`"
              @update:model-value="(v: string) => setLot(key, v)"
          /></label>
        </div>
      </details>
      <AmountField
        v-for="l in toFeel"
        :key="l.key"
        v-model="wentIn[l.key]"
        :label="`${short(l.name)}: amount used`"
        kind="mass"
        unit="g"
        optional
        :ingredient="l.key"
        :instead="l.g"
        :testid="`went-in-${l.key}`"
      />
      <div class="field">
        <label for="note">Note</label>
        <el-input
          id="note"
          v-model="out.note"
          type="textarea"
          :rows="2"
          maxlength="2000"
          data-testid="note"
        />
      </div>
      <p class="small quiet">
        {{
          correcting
            ? 'The earlier values are stored with the bake.'
            : 'All fields are optional. The current prediction is saved with the bake.'
        }}
      </p>
      <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
    </div>
    <template #footer>
      <button class="push" @click="open = false">Cancel</button>
      <button class="push main" data-testid="log-it" @click="log">
        {{ correcting ? 'Save correction' : 'Save to log' }}
      </button>
    </template>
  </el-dialog>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 12px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
summary {
  min-height: 44px;
  padding-top: 10px;
  cursor: pointer;
}
.push + .push {
  margin-left: 8px;
}
</style>
