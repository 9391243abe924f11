<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, ask, type Oven, type Problem, type ShelfOven } from '@/api/client'
import AmountField from '@/parts/AmountField.vue'
import { useKitchen } from '@/parts/useKitchen'
import { inUnits, integer } from '@/parts/words'
import OvenTrial from './OvenTrial.vue'
import ShelfPair from './ShelfPair.vue'

/** The kitchen's ovens: what heats them, how far off they are, and a camp oven's size. */
const kitchen = useKitchen()
const chosen = ref(kitchen.ovens[0]?.id ?? '')
const draft = ref<{ id: string; name: string; oven: Oven; fresh: boolean }>()
const problem = ref<Problem>()
const kept = ref('')
const gone = ref<ShelfOven>()
const current = computed(() => kitchen.ovens.find((o) => o.id === chosen.value))

function edit(o: ShelfOven | undefined) {
  problem.value = undefined
  kept.value = ''
  if (o) draft.value = { id: o.id, name: o.name, oven: { ...o.oven }, fresh: false }
}
watch(current, edit, { immediate: true })
const changed = computed(() => {
  const d = draft.value
  const c = current.value
  return !!d && (d.fresh || !c || JSON.stringify([d.name, d.oven]) !== JSON.stringify([c.name, c.oven]))
})
function add(kind: Oven['kind']) {
  chosen.value = ''
  problem.value = undefined
  kept.value = ''
  draft.value = {
    id: crypto.randomUUID(),
    name: '',
    oven: {
      kind,
      heating: 'conventional',
      offset_c: 0,
      give_or_take_c: 0,
      ...(kind === 'camp' ? { diameter_cm: 30 } : {}),
    },
    fresh: true,
  }
}
function set(how: Partial<Oven>) {
  if (draft.value) draft.value = { ...draft.value, oven: { ...draft.value.oven, ...how } }
}
const at = (id: string) => ({ params: { path: { kitchen: kitchen.kitchen!.id, oven: id } } })

async function keep() {
  const d = draft.value
  if (!d) return
  const got = await ask(
    api.PUT('/api/v1/kitchens/{kitchen}/ovens/{oven}', {
      ...at(d.id),
      body: { name: d.name.trim(), oven: d.oven },
    }),
  )
  problem.value = got.problem
  if (!got.data) return
  const oven = got.data
  kitchen.ovens = [...kitchen.ovens.filter((x) => x.id !== oven.id), oven].sort((a, b) =>
    a.name.localeCompare(b.name),
  )
  chosen.value = oven.id
  edit(oven)
  kept.value = `${oven.name} is kept.`
}
async function takeAway() {
  const o = current.value
  if (!o) return
  const got = await ask(
    api
      .DELETE('/api/v1/kitchens/{kitchen}/ovens/{oven}', at(o.id))
      .then((r) => ({ ...r, data: r.response.ok ? {} : undefined })),
  )
  problem.value = got.problem
  if (got.problem) return
  gone.value = o
  kitchen.ovens = kitchen.ovens.filter((x) => x.id !== o.id)
  chosen.value = kitchen.ovens[0]?.id ?? ''
  if (!chosen.value) draft.value = undefined
}
async function putBack() {
  const o = gone.value
  if (!o) return
  draft.value = { ...o, fresh: true }
  await keep()
  if (!problem.value) gone.value = undefined
}
const fault = (pointer: string) =>
  problem.value?.errors?.find((e) => e.pointer === `#${pointer}`)?.detail ?? ''
function offset(o: ShelfOven) {
  if (o.oven.kind === 'camp') return `${o.oven.diameter_cm} cm across`
  const c = o.oven.offset_c
  if (!c) return o.oven.give_or_take_c ? 'as it says' : 'not measured'
  return `${integer(Math.abs(c))} C ${c > 0 ? 'hotter' : 'cooler'}`
}
const dials = [
  ['', 'as the kitchen reads'],
  ['c', '°C'],
  ['f', '°F'],
  ['gas', 'gas marks'],
] as const
</script>

<template>
  <ShelfPair list="Ovens" edit="The oven" :chosen="!!draft">
    <template #list>
      <p v-if="gone" class="notice" role="status">
        {{ gone.name }} is gone. Cards and the log keep it.
        <button class="plain" data-testid="put-oven-back" @click="putBack">Put it back</button>
      </p>
      <p v-if="!kitchen.ovens.length" class="quiet">
        No ovens yet. Add the one you use, and find out how far off it is.
      </p>
      <ul>
        <li v-for="o in kitchen.ovens" :key="o.id">
          <button
            :aria-pressed="chosen === o.id"
            :data-testid="`oven-row-${o.name}`"
            @click="((chosen = o.id), edit(o))"
          >
            <span>
              <strong>{{ o.name }}</strong>
              <span class="small">{{
                o.oven.kind === 'camp'
                  ? 'camp oven, over coals'
                  : `${o.oven.heating}${o.oven.bottom_heat ? ', bottom heat alone' : ''}${o.oven.runners ? `, ${o.oven.runners} runners` : ''}`
              }}</span>
            </span>
            <span class="off"
              ><strong>{{ inUnits(offset(o)) }}</strong
              ><span class="small">give or take {{ integer(o.off_by_c) }} °C</span></span
            >
          </button>
        </li>
      </ul>
      <span class="acts">
        <button class="push" data-testid="add-oven" @click="add('oven')">Add an oven</button>
        <button class="push" data-testid="add-camp" @click="add('camp')">Add a camp oven</button>
      </span>
    </template>
    <template v-if="draft">
      <div class="field">
        <label for="oven-name">Name</label>
        <el-input id="oven-name" v-model="draft.name" maxlength="80" data-testid="oven-name" />
        <p v-if="fault('/name')" class="wrong" role="alert">Name {{ fault('/name') }}</p>
      </div>
      <template v-if="draft.oven.kind === 'oven'">
        <OvenTrial :key="draft.id" @measured="(m) => set(m)" />
        <div class="pair">
          <AmountField
            label="Hotter than it says by"
            kind="percent"
            unit="°C"
            :digits="0"
            :step="1"
            :model-value="draft.oven.offset_c"
            :problem="fault('/oven/offset_c')"
            testid="oven-offset"
            @update:model-value="(v) => set({ offset_c: v ?? 0 })"
          />
          <AmountField
            label="Give or take"
            kind="percent"
            unit="°C"
            :digits="0"
            :step="1"
            :model-value="draft.oven.give_or_take_c"
            :problem="fault('/oven/give_or_take_c')"
            testid="oven-sure"
            @update:model-value="(v) => set({ give_or_take_c: v ?? 0 })"
          />
        </div>
        <p class="small quiet">
          −8 means 8 °C cooler than it says. Every plan allows for it; an oven that was never measured may be
          10 °C off either way.
        </p>
        <div class="choice" role="group" aria-label="Heating">
          <button
            v-for="h in ['conventional', 'fan'] as const"
            :key="h"
            :aria-pressed="draft.oven.heating === h"
            :data-testid="`heating-${h}`"
            @click="set({ heating: h })"
          >
            {{ h === 'fan' ? 'with a fan' : 'conventional' }}
          </button>
        </div>
        <div class="choice" role="group" aria-label="Bottom heat">
          <button
            :aria-pressed="!!draft.oven.bottom_heat"
            data-testid="bottom-heat"
            @click="set({ bottom_heat: !draft.oven.bottom_heat })"
          >
            can heat from below alone
          </button>
        </div>
        <div class="field">
          <span class="label">Its dial shows</span>
          <div class="choice" role="group" aria-label="Its dial shows">
            <button
              v-for="[key, says] in dials"
              :key="key"
              :aria-pressed="(draft.oven.dial ?? '') === key"
              :data-testid="`dial-${key || 'kitchen'}`"
              @click="set({ dial: key })"
            >
              {{ says }}
            </button>
          </div>
        </div>
        <AmountField
          class="narrow"
          label="Runners for shelves, counted from below"
          kind="percent"
          unit=""
          :digits="0"
          :step="1"
          :model-value="draft.oven.runners ?? 0"
          :problem="fault('/oven/runners')"
          testid="runners"
          @update:model-value="(v) => set({ runners: Math.round(v ?? 0) })"
        />
      </template>
      <template v-else>
        <AmountField
          class="narrow"
          label="Across"
          kind="length"
          unit="cm"
          :digits="1"
          :step="1"
          :model-value="draft.oven.diameter_cm"
          :problem="fault('/oven/diameter_cm')"
          testid="camp-diameter"
          @update:model-value="(v) => set({ diameter_cm: v ?? 0 })"
        />
        <p>
          Coals are counted for its size, the heat and the weather at the Bake station. With briquettes a plan
          is good to 20 °C at best; lumps of hardwood want a thermometer.
        </p>
        <p class="danger">
          Outdoors only, never in a tent, a van or a house: coals give off carbon monoxide. Local fire rules
          decide.
        </p>
      </template>
      <p v-if="problem" class="wrong" role="alert" data-testid="oven-problem">
        {{ problem.title }}{{ problem.errors?.map((e) => `; ${inUnits(e.detail)}`).join('') }}
      </p>
    </template>
    <template v-if="draft" #acts>
      <button
        class="push main"
        :disabled="!draft.name.trim() || !changed"
        data-testid="keep-oven"
        @click="keep"
      >
        Keep it
      </button>
      <button v-if="!draft.fresh" class="plain" data-testid="take-oven" @click="takeAway">
        Take it away
      </button>
      <span v-if="kept && !changed" class="settled" role="status">{{ kept }}</span>
    </template>
  </ShelfPair>
</template>

<style scoped>
.off {
  text-align: right;
}
.off strong {
  font-size: 20px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.narrow {
  max-width: 300px;
}
.label {
  font-size: 14px;
  color: var(--ink-2);
}
.danger {
  padding: 6px 10px;
  border-left: 5px solid var(--danger);
  background: var(--sunk);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
