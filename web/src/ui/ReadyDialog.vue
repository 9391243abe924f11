<script setup lang="ts">
import { useRouter } from 'vue-router'
import { inWords } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import type { WayBack } from '@/stores/useReadyBy'
import { useWatch } from '@/stores/useWatch'
import { timeOf } from '@/format/clock'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'

/** When a dessert is wanted, and the whole way there; one touch has each thing called out. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ name?: string }>()
const ready = defineModel<WayBack>('ready', { required: true })
const kitchen = useKitchen()
const watching = useWatch()
const router = useRouter()
/** Each thing is called out from the first on, on every tablet. */
async function callOut() {
  const request = ready.value.request()
  if (!request) return
  ready.value.problem = await watching.startCountdown(props.name?.trim() || 'A dessert', request)
  if (ready.value.problem) return
  open.value = false
  void router.push('/watch')
}
</script>

<template>
  <el-dialog
    v-model="open"
    title="When should it be ready?"
    width="min(620px, 96vw)"
    top="4vh"
    data-testid="ready-dialog"
    append-to-body
  >
    <div class="ask">
      <div class="when">
        <label class="field"
          ><span class="label">Ready at</span
          ><input v-model="ready.hour" type="time" data-testid="ready-hour"
        /></label>
        <ChoiceButtons
          of="serve"
          :model-value="ready.serve"
          label="Serving"
          testid="serve"
          @update:model-value="(key) => (ready.serve = key)"
        />
        <button v-if="ready.hour" class="plain" data-testid="ready-whenever" @click="ready.hour = ''">
          No fixed time
        </button>
      </div>
      <p v-if="ready.problem" class="wrong" role="alert">{{ inWords(ready.problem) }}.</p>
      <template v-else-if="ready.way">
        <p v-if="ready.way.in_time" class="text" role="status" data-testid="ready-says">
          <strong>{{ `Into the oven at ${timeOf(ready.way.in_at)}.` }}</strong>
          {{
            `Start at ${timeOf(ready.way.start_at)}. Ready at ${timeOf(ready.way.ready_at)}, including ${ready.way.spare_min} min reserve, as the bake may take longer.`
          }}
        </p>
        <p v-else class="text wrong" role="status" data-testid="ready-says">
          <strong>{{ `Not before ${timeOf(ready.way.not_before)}.` }}</strong>
          {{ `That is the earliest, if you start now. ${ready.way.remedy ?? ''}.` }}
        </p>
        <ol data-testid="ready-steps">
          <li v-for="(s, i) in ready.way.steps" :key="i" :class="{ big: ['bake', 'ready'].includes(s.kind) }">
            <strong class="at">{{ timeOf(s.at) }}</strong>
            <span>{{ s.text }}</span>
            <span class="quiet small">{{
              s.minutes > 1 && s.kind !== 'bake' ? `${s.minutes} min` : ''
            }}</span>
          </li>
        </ol>
        <div v-if="kitchen.kitchen" class="dialog-acts">
          <button class="push main" data-testid="ready-watch" @click="callOut">Remind me on the Watch</button>
        </div>
        <p class="quiet small">
          Preparation times are working figures: 12 min for 1 kg of apples, 8 min for a crumble and 20 min to
          chill it. The bake follows its plan.
        </p>
      </template>
      <p v-else class="quiet">
        Enter the time at which it should be served; every step is planned back from it.
      </p>
    </div>
  </el-dialog>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 12px;
}
.when {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
}
input {
  height: 47px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
  font-size: 1.375rem;
}
.text {
  font-size: 1.125rem;
}
.text strong {
  font-size: 1.5rem;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1fr) auto;
  align-items: baseline;
  gap: 10px;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.at {
  font-size: 1.125rem;
}
.big {
  font-size: 1.125rem;
  font-weight: 600;
}
</style>
