<script setup lang="ts">
import { inWords, type Oven, type KitchenOven } from '@/api/client'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import AmountField from '@/ui/AmountField.vue'
import { type OvenBody, useKitchen } from '@/stores/useKitchen'
import OvenScale from './OvenScale.vue'
import OvenTrial from './OvenTrial.vue'
import ListAndForm from './ListAndForm.vue'
import { useKitchenDraft } from './useKitchenDraft'

/** The kitchen's ovens: what heats them, how far off they are, and a camp oven's size. */
const kitchen = useKitchen()
const { chosen, draft, problem, stored, edit, changed, add, keep, takeAway, fault } = useKitchenDraft(
  'oven',
  () => kitchen.ovens,
  (o: KitchenOven) => ({ name: o.name, oven: o.oven }),
)
const fresh = (kind: Oven['kind']): OvenBody => ({
  name: '',
  oven: {
    kind,
    heating: 'conventional',
    offset_c: 0,
    give_or_take_c: 0,
    ...(kind === 'camp' ? { diameter_cm: 30 } : {}),
  },
})
function set(how: Partial<Oven>) {
  if (draft.value) Object.assign(draft.value.body.oven, how)
}
</script>

<template>
  <ListAndForm list="Ovens" edit="Oven" :chosen="!!draft">
    <template #list>
      <p v-if="!kitchen.ovens.length" class="quiet">No ovens yet. Add the one you use, and calibrate it.</p>
      <p v-if="kitchen.ovens.length" class="small quiet">
        Thick line: the temperature on the dial (10 degrees per mark). Band: how far off the oven may be.
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
              <span class="small">{{ o.about }}</span>
            </span>
            <OvenScale v-if="o.oven.kind === 'oven'" :offset="o.oven.offset_c" :give-or-take="o.off_by_c" />
            <span v-else class="no-scale" />
            <span class="off"
              ><strong>{{ o.off }}</strong
              ><span class="small">{{ o.give_or_take }}</span></span
            >
          </button>
        </li>
      </ul>
      <span class="acts">
        <button class="push" data-testid="add-oven" @click="add(fresh('oven'))">Add oven</button>
        <button class="push" data-testid="add-camp" @click="add(fresh('camp'))">Add camp oven</button>
      </span>
    </template>
    <template v-if="draft">
      <div class="field">
        <label for="oven-name">Name</label>
        <el-input id="oven-name" v-model="draft.body.name" maxlength="80" data-testid="oven-name" />
        <p v-if="fault('/name')" class="wrong" role="alert">
          {{ `Name ${fault('/name')}` }}
        </p>
      </div>
      <template v-if="draft.body.oven.kind === 'oven'">
        <OvenTrial :key="draft.id" @measured="(m) => set(m)" />
        <div class="pair">
          <AmountField
            label="Hotter than its dial by (°C)"
            kind="percent"
            unit="°C"
            :digits="0"
            :step="1"
            :model-value="draft.body.oven.offset_c"
            :problem="fault('/oven/offset_c')"
            testid="oven-offset"
            @update:model-value="(v) => set({ offset_c: v ?? 0 })"
          />
          <AmountField
            label="Uncertainty ± (°C)"
            kind="percent"
            unit="°C"
            :digits="0"
            :step="1"
            :model-value="draft.body.oven.give_or_take_c"
            :problem="fault('/oven/give_or_take_c')"
            testid="oven-sure"
            @update:model-value="(v) => set({ give_or_take_c: v ?? 0 })"
          />
        </div>
        <p class="small quiet">{{ kitchen.larder?.abouts.oven_offset }}</p>
        <ChoiceButtons
          of="heating"
          :model-value="draft.body.oven.heating"
          label="Heating"
          testid="heating"
          @update:model-value="(h) => set({ heating: h })"
        />
        <div class="choice" role="group" aria-label="Bottom heat">
          <button
            :aria-pressed="!!draft.body.oven.bottom_heat"
            data-testid="bottom-heat"
            @click="set({ bottom_heat: !draft.body.oven.bottom_heat })"
          >
            has a bottom-heat setting
          </button>
        </div>
        <div class="field">
          <span class="label">Dial</span>
          <ChoiceButtons
            of="dial"
            :model-value="draft.body.oven.dial"
            label="Dial"
            testid="dial"
            @update:model-value="(key) => set({ dial: key })"
          />
        </div>
        <AmountField
          class="narrow"
          label="Number of shelf positions"
          kind="percent"
          unit=""
          :digits="0"
          :step="1"
          :model-value="draft.body.oven.runners ?? 0"
          :problem="fault('/oven/runners')"
          testid="runners"
          @update:model-value="(v) => set({ runners: Math.round(v ?? 0) })"
        />
      </template>
      <template v-else>
        <AmountField
          class="narrow"
          label="Diameter"
          kind="length"
          unit="cm"
          :digits="1"
          :step="1"
          :model-value="draft.body.oven.diameter_cm"
          :problem="fault('/oven/diameter_cm')"
          testid="camp-diameter"
          @update:model-value="(v) => set({ diameter_cm: v ?? 0 })"
        />
        <p>{{ kitchen.larder?.abouts.coals }}</p>
        <p class="danger">
          Outdoors only, never in a tent, a van or a resources: coals give off carbon monoxide. Follow local
          fire rules.
        </p>
      </template>
      <p v-if="problem" class="wrong" role="alert" data-testid="oven-problem">
        {{ inWords(problem) }}
      </p>
    </template>
    <template v-if="draft" #acts>
      <button
        class="push main"
        :disabled="!draft.body.name.trim() || !changed"
        data-testid="keep-oven"
        @click="keep"
      >
        Save
      </button>
      <button
        v-if="!draft.fresh"
        class="plain"
        data-testid="take-oven"
        @click="takeAway((name) => `${name} deleted; cards and the log keep it`)"
      >
        Delete oven
      </button>
      <span v-if="stored && !changed" class="settled" role="status">{{ stored }}</span>
    </template>
  </ListAndForm>
</template>

<style scoped>
li {
  --list-columns: minmax(0, 1fr) minmax(90px, 210px) minmax(0, auto);
}
@media (max-width: 40em) {
  li {
    --list-columns: minmax(0, 1fr) auto;
  }
  li button .no-scale {
    display: none;
  }
  li button svg {
    grid-area: 2 / 1 / 3 / 3;
  }
}
.off {
  text-align: right;
}
.off strong {
  font-size: 1.25rem;
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
  font-size: 0.875rem;
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
