<script setup lang="ts">
import { computed, onBeforeUnmount, ref, useId, watch } from 'vue'
import { type AmountKind, api, ask, faultAt } from '@/api/client'
import { byThumb, pad, type PadField } from './numberPad'
import { useKitchen } from '@/stores/useKitchen'
import { marked, typedIn } from '@/format/amounts'

/**
 * A field for one amount: takes what a baker types ("9 in", "1 1/2 cups"), steps by arrow keys, keeps what was typed
 * when it can't be used and says why. An empty field is "as Mabbin would", where that is allowed.
 */
const props = defineProps<{
  label: string
  kind: AmountKind
  unit: string
  modelValue?: number
  /** What stands in the empty field: the value that Mabbin takes, in the core's unit, or words for it. */
  instead?: string | number
  /** What is said after that value. */
  insteadIs?: string
  optional?: boolean
  step?: number
  digits?: number
  /** It is the dial of an oven, not a thermometer. */
  dial?: boolean
  ingredient?: string
  problem?: string
  hideLabel?: boolean
  testid?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number | undefined] }>()

const id = useId()
const kitchen = useKitchen()
const typed = ref<string>()
/** Where the kitchen reads other units than the core: what is typed and shown is in those. */
const as = computed(() => typedIn(props.kind, props.dial))
/** Lengths are read in cm; a field in mm has ten of its own in each. */
const inMm = computed(() => (props.kind === 'length' && props.unit === 'mm' ? 10 : 1))
const wrong = ref('')
const taken = ref('')
let given: number | undefined
const shown = computed(() => {
  if (typed.value !== undefined) return typed.value
  if (props.modelValue === undefined) return ''
  return figure(props.modelValue)
})
/** A value in the field's unit. */
function figure(v: number) {
  const p = 10 ** (as.value ? 2 : (props.digits ?? 1))
  return marked(String(Math.round((as.value ? as.value.show(v / inMm.value) : v) * p) / p))
}
const instead = computed(() =>
  typeof props.instead === 'number'
    ? `${figure(props.instead)} ${props.insteadIs ?? ''}`.trim()
    : props.instead,
)
watch(
  () => props.modelValue,
  (now) => {
    typed.value = undefined
    wrong.value = ''
    if (now !== given) taken.value = ''
  },
)

async function take() {
  const text = typed.value?.trim()
  if (text === undefined) return
  if (text === '') {
    if (props.optional) return give(undefined)
    typed.value = undefined
    wrong.value = ''
    return
  }
  const bare = /^\d+([.,]\d{1,2})?$/.test(text) || /^\d+\.\d+$/.test(text)
  if (bare && !as.value) {
    taken.value = ''
    return give(Number(text.replace(',', '.')))
  }
  const k = kitchen.kitchen?.settings
  const read = bare && as.value ? `${as.value.before} ${text} ${as.value.unit}`.trim() : text
  const got = await ask(
    api.POST('/api/v1/amount', {
      body: { text: read, kind: props.kind, ingredient: props.ingredient, cup: k?.cup, spoon: k?.spoon },
    }),
  )
  if (got.problem) {
    wrong.value = faultAt(got.problem, '/text') || got.problem.title
    return
  }
  taken.value = bare ? '' : got.data.taken
  give(got.data.value * inMm.value)
}

function give(v: number | undefined) {
  wrong.value = ''
  typed.value = undefined
  given = v
  if (v === undefined) taken.value = ''
  if (v !== props.modelValue) emit('update:modelValue', v)
}

function back() {
  typed.value = undefined
  wrong.value = ''
}

/** By thumb the pad stands in for the keyboard; what is typed on it replaces what is there. */
const mine: PadField = {
  label: props.label,
  kind: props.kind,
  get: () => typed.value ?? '',
  put: (text) => (typed.value = text),
  take: () => void take(),
}
function openPad() {
  if (byThumb.value) pad.value = mine
}
function closePad() {
  if (pad.value !== mine) return
  pad.value = undefined
  void take()
}
onBeforeUnmount(() => pad.value === mine && (pad.value = undefined))

function stepBy(e: Event, up: number) {
  const from = props.modelValue ?? props.instead
  if (typeof from !== 'number' || typed.value !== undefined) return
  e.preventDefault()
  const by = (props.step ?? 1) * ((e as KeyboardEvent).shiftKey ? 10 : 1) * up
  taken.value = ''
  give(Math.max(0, Math.round((from + by) * 100) / 100))
}
</script>

<template>
  <div class="field amount">
    <label :for="id" :class="{ 'visually-hidden': hideLabel }">{{ label }}</label>
    <el-input
      :id="id"
      :model-value="shown"
      :placeholder="instead"
      :data-testid="testid"
      :class="{ bad: wrong || problem }"
      autocomplete="off"
      :inputmode="byThumb ? 'none' : 'text'"
      @focus="openPad"
      @blur="closePad"
      @update:model-value="(v: string) => (typed = v)"
      @change="take"
      @keydown.esc.stop="back"
      @keydown.up="(e) => stepBy(e, 1)"
      @keydown.down="(e) => stepBy(e, -1)"
    >
      <template #suffix>{{ as ? `${as.before} ${as.unit}`.trim() : unit }}</template>
    </el-input>
    <p v-if="wrong || problem" class="wrong" role="alert">{{ label }} {{ wrong || problem }}.</p>
    <p v-else-if="taken" class="taken">{{ taken }}</p>
  </div>
</template>

<style scoped>
.amount {
  min-width: 0;
}
.taken {
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.bad :deep(.el-input__wrapper) {
  box-shadow: 0 0 0 2px var(--danger) inset;
}
:deep(.el-input__inner) {
  font-size: 1.125rem;
  font-weight: 600;
}
:deep(.el-input__inner::placeholder) {
  font-weight: 400;
}
:deep(.el-input__suffix) {
  color: var(--ink-2);
}
</style>
