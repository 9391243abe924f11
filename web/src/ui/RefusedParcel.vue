<script setup lang="ts">
import { computed, ref } from 'vue'
import { useOutbox, type Refused } from '@/stores/useOutbox'
import { hand } from './exportFormats'

/** Something that could not be saved: why, its wrong fields to be put right, and the remedies. */
const props = defineProps<{ parcel: Refused }>()
const outbox = useOutbox()
const sure = ref(false)
const busy = ref(false)

interface Field {
  pointer: string
  name: string
  value: string
  number: boolean
}
const steps = (pointer: string) =>
  pointer
    .replace(/^#?\//, '')
    .split('/')
    .map((s) => s.replaceAll('~1', '/').replaceAll('~0', '~'))
/** What lies at a pointer of the body, with the object that it is in. */
function at(pointer: string) {
  const path = steps(pointer)
  let inside: unknown = props.parcel.body
  for (const s of path.slice(0, -1)) inside = (inside as Record<string, unknown> | undefined)?.[s]
  const key = path.at(-1)!
  return {
    inside: inside as Record<string, unknown> | undefined,
    key,
    value: (inside as Record<string, unknown>)?.[key],
  }
}
/** The wrong fields that can be typed, and its name in any case. */
const fields = computed<Field[]>(() => {
  const pointers = (props.parcel.problem.errors ?? []).map((e) => e.pointer)
  return [...new Set([...pointers, '/name', '/title'])].flatMap((pointer) => {
    const { value } = at(pointer)
    return typeof value === 'string' || typeof value === 'number'
      ? [
          {
            pointer,
            name: steps(pointer).join(', ').replaceAll('_', ' '),
            value: `${value}`,
            number: typeof value === 'number',
          },
        ]
      : []
  })
})
function put(f: Field, text: string) {
  const { inside, key } = at(f.pointer)
  if (inside) inside[key] = f.number ? Number(text.replace(',', '.')) : text
}
async function again() {
  busy.value = true
  await outbox.again(props.parcel)
  busy.value = false
}
const file = () =>
  hand(
    new Blob([JSON.stringify(props.parcel.body, null, 2)], { type: 'application/json' }),
    `${props.parcel.what}.json`,
  )
</script>

<template>
  <li data-testid="refused">
    <p>
      <strong>{{ `Not saved: ${parcel.what}.` }}</strong> {{ parcel.problem.detail ?? parcel.problem.title }}
    </p>
    <span class="acts">
      <label v-for="f in fields" :key="f.pointer">
        {{ f.name }}
        <input
          :value="f.value"
          :aria-label="f.name"
          :data-testid="`refused-${f.name}`"
          @change="put(f, ($event.target as HTMLInputElement).value)"
        />
      </label>
      <button class="push main" :disabled="busy" data-testid="refused-again" @click="again">Retry</button>
      <button class="push" data-testid="refused-file" @click="file">Export as file</button>
      <button class="plain" data-testid="refused-drop" @click="sure ? outbox.drop(parcel) : (sure = true)">
        {{ sure ? 'Delete for good' : 'Delete' }}
      </button>
    </span>
  </li>
</template>

<style scoped>
li {
  display: grid;
  gap: 6px;
}
p {
  margin: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 12px;
}
label {
  display: grid;
  font-size: 0.875rem;
}
input {
  min-height: 44px;
  padding: 0 10px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
  color: var(--ink);
  font: inherit;
  font-size: 1.0625rem;
}
</style>
