<script setup lang="ts">
import { computed, ref } from 'vue'
import { faultAt, inWords, type Resources, type Problem, type KitchenDish } from '@/api/client'
import HoursBar from './HoursBar.vue'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import AmountField from '@/ui/AmountField.vue'
import { useFetched } from '@/ui/useFetched'
import { useKitchen } from '@/stores/useKitchen'
import { useEquipment } from '@/stores/useEquipment'
import { clockOf, minuteOf } from '@/format/minutes'

/** What a day is put by: who is there and when, what the ovens' tiers hold, and where dishes stand. */
const kitchen = useKitchen()
const equipment = useEquipment()
const problem = ref<Problem>()
const { trouble } = useFetched(() => kitchen.loadResources())
const resources = computed(() => kitchen.resources?.resources)
async function change(label: string, how: (h: Resources) => void) {
  if (!resources.value) return
  const next = JSON.parse(JSON.stringify(resources.value)) as Resources
  how(next)
  problem.value = await equipment.change(label, 'resources', '', next)
}
const fault = (pointer: string) => faultAt(problem.value, pointer)
const nameOf = (oven: string) => kitchen.ovens.find((o) => o.id === oven)?.name ?? 'An oven'
const value = (e: Event) => (e.target as HTMLInputElement).value
function newPerson(h: Resources) {
  let n = h.people.length + 1
  while (h.people.some((p) => p.id === `Person ${n}`)) n++
  h.people.push({ id: `Person ${n}`, hours: [{ from_min: 480, to_min: 960 }] })
}
const area = (place: string) => resources.value?.places.find((p) => p.id === place)?.area_cm2
const setArea = (place: string, cm2: number | undefined) =>
  change(`room in the ${place}`, (h) => {
    h.places = h.places.filter((p) => p.id !== place)
    if (cm2) h.places.push({ id: place, area_cm2: cm2 })
  })
/** What a dish takes where nobody has measured it. */
const usualOutside = (dish: string) => kitchen.resources?.outside.find((x) => x.dish === dish)
const outsideOf = (dish: string) => resources.value?.dishes?.find((x) => x.dish === dish)
const setOutside = (d: KitchenDish, side: 'length_cm' | 'width_cm', cm: number | undefined) =>
  change(`${d.name}, outside`, (h) => {
    const was = outsideOf(d.id) ?? usualOutside(d.id)
    const others = h.dishes?.filter((x) => x.dish !== d.id) ?? []
    h.dishes = cm && was ? [...others, { ...was, [side]: cm }] : others
  })
</script>

<template>
  <p v-if="trouble" class="wrong" role="alert">{{ `${trouble.title}. Trying again every few seconds.` }}</p>
  <p v-if="problem" class="wrong" role="alert" data-testid="resources-problem">{{ inWords(problem) }}.</p>
  <div v-if="resources" class="resources">
    <section class="panel" aria-labelledby="resources-people">
      <h2 id="resources-people">People</h2>
      <div v-for="(p, i) in resources.people" :key="i" class="person" :data-testid="`person-${p.id}`">
        <input
          class="name"
          maxlength="80"
          :value="p.id"
          :aria-label="`Name of person ${i + 1}`"
          @change="(e) => change(`${p.id}, renamed ${value(e)}`, (h) => (h.people[i]!.id = value(e).trim()))"
        />
        <label
          >from
          <input
            type="time"
            :value="clockOf(p.hours[0]!.from_min)"
            :data-testid="`from-${p.id}`"
            @change="
              (e) =>
                change(
                  `${p.id} from ${value(e)}`,
                  (h) => (h.people[i]!.hours[0]!.from_min = minuteOf(value(e))),
                )
            "
        /></label>
        <label
          >to
          <input
            type="time"
            :value="clockOf(p.hours[0]!.to_min)"
            :data-testid="`to-${p.id}`"
            @change="
              (e) =>
                change(`${p.id} to ${value(e)}`, (h) => (h.people[i]!.hours[0]!.to_min = minuteOf(value(e))))
            "
        /></label>
        <template v-if="p.breaks?.length">
          <label
            >break
            <input
              type="time"
              :value="clockOf(p.breaks[0]!.from_min)"
              @change="
                (e) =>
                  change(`${p.id}’s break`, (h) => (h.people[i]!.breaks![0]!.from_min = minuteOf(value(e))))
              "
          /></label>
          <label
            >to
            <input
              type="time"
              :value="clockOf(p.breaks[0]!.to_min)"
              @change="
                (e) =>
                  change(`${p.id}’s break`, (h) => (h.people[i]!.breaks![0]!.to_min = minuteOf(value(e))))
              "
          /></label>
          <button class="plain" @click="change(`${p.id} without a break`, (h) => delete h.people[i]!.breaks)">
            Remove break
          </button>
        </template>
        <button
          v-else
          class="plain"
          @click="
            change(`${p.id} with a break`, (h) => (h.people[i]!.breaks = [{ from_min: 720, to_min: 750 }]))
          "
        >
          Add break
        </button>
        <button
          v-if="resources.people.length > 1"
          class="plain"
          :aria-label="`Remove ${p.id}`"
          @click="change(`${p.id}, removed`, (h) => h.people.splice(i, 1))"
        >
          Remove
        </button>
        <HoursBar class="bar" :person="p" />
        <p v-if="fault(`/people/${i}/hours/0`)" class="wrong" role="alert">
          {{ `The hours: ${fault(`/people/${i}/hours/0`)}` }}
        </p>
      </div>
      <button class="push" data-testid="add-person" @click="change('one more person', newPerson)">
        Add person
      </button>
    </section>
    <section class="panel" aria-labelledby="resources-ovens">
      <h2 id="resources-ovens">Ovens</h2>
      <p v-if="!resources.ovens.length" class="quiet">No ovens yet: add one under Ovens.</p>
      <div class="ovens">
        <div v-for="(o, i) in resources.ovens" :key="o.oven" class="oven">
          <h3>{{ nameOf(o.oven) }}</h3>
          <div v-for="(t, k) in o.tiers" :key="k" class="tier">
            <ChoiceButtons
              of="shelf"
              :model-value="t.shelf"
              :label="`Tier ${k + 1}`"
              @update:model-value="
                (key) => change(`a tier of ${nameOf(o.oven)}`, (h) => (h.ovens[i]!.tiers[k]!.shelf = key))
              "
            />
            <AmountField
              label="Width (cm)"
              kind="length"
              unit="cm"
              :model-value="t.width_cm"
              :problem="fault(`/ovens/${i}/tiers/${k}/width_cm`)"
              :testid="`tier-width-${i}-${k}`"
              @update:model-value="
                (v) => v && change(`a tier of ${nameOf(o.oven)}`, (h) => (h.ovens[i]!.tiers[k]!.width_cm = v))
              "
            />
            <AmountField
              label="Depth (cm)"
              kind="length"
              unit="cm"
              :model-value="t.depth_cm"
              :problem="fault(`/ovens/${i}/tiers/${k}/depth_cm`)"
              :testid="`tier-depth-${i}-${k}`"
              @update:model-value="
                (v) => v && change(`a tier of ${nameOf(o.oven)}`, (h) => (h.ovens[i]!.tiers[k]!.depth_cm = v))
              "
            />
            <button
              v-if="o.tiers.length > 1"
              class="plain"
              :aria-label="`Remove tier ${k + 1} of ${nameOf(o.oven)}`"
              @click="change(`one tier less in ${nameOf(o.oven)}`, (h) => h.ovens[i]!.tiers.splice(k, 1))"
            >
              Remove
            </button>
          </div>
          <div class="tier">
            <AmountField
              label="Heats up, per minute"
              kind="percent"
              unit="°C"
              :model-value="o.warm_c_per_min"
              :problem="fault(`/ovens/${i}/warm_c_per_min`)"
              @update:model-value="
                (v) => v && change(`${nameOf(o.oven)} warms`, (h) => (h.ovens[i]!.warm_c_per_min = v))
              "
            />
            <AmountField
              label="Cools down, per minute"
              kind="percent"
              unit="°C"
              :model-value="o.cool_c_per_min"
              :problem="fault(`/ovens/${i}/cool_c_per_min`)"
              @update:model-value="
                (v) => v && change(`${nameOf(o.oven)} cools`, (h) => (h.ovens[i]!.cool_c_per_min = v))
              "
            />
            <AmountField
              label="Time lost per door opening"
              kind="minutes"
              unit="min"
              :model-value="o.door_min"
              :problem="fault(`/ovens/${i}/door_min`)"
              :testid="`door-min-${nameOf(o.oven)}`"
              @update:model-value="
                (v) => v && change(`the door of ${nameOf(o.oven)}`, (h) => (h.ovens[i]!.door_min = v))
              "
            />
            <button
              class="push"
              :data-testid="`add-tier-${nameOf(o.oven)}`"
              @click="
                change(`one more tier in ${nameOf(o.oven)}`, (h) =>
                  h.ovens[i]!.tiers.push({ ...h.ovens[i]!.tiers.at(-1)! }),
                )
              "
            >
              Add tier
            </button>
          </div>
        </div>
      </div>
    </section>
    <section class="panel" aria-labelledby="resources-room">
      <h2 id="resources-room">Space and equipment</h2>
      <div class="tier">
        <AmountField
          v-for="place in ['rack', 'fridge']"
          :key="place"
          :label="place === 'rack' ? 'Cooling rack' : 'Fridge shelf'"
          kind="percent"
          unit="cm²"
          optional
          instead="enough"
          :digits="0"
          :model-value="area(place)"
          :testid="`room-${place}`"
          @update:model-value="(v) => setArea(place, v)"
        />
        <AmountField
          label="Mixers"
          kind="percent"
          unit=""
          :digits="0"
          :model-value="resources.mixers"
          :problem="fault('/mixers')"
          testid="mixers"
          @update:model-value="(v) => change('mixers', (h) => (h.mixers = v ?? 0))"
        />
        <AmountField
          label="Largest mix of topping"
          kind="mass"
          unit="g"
          optional
          instead="any amount"
          :digits="0"
          :step="100"
          :model-value="resources.mix_g || undefined"
          :problem="fault('/mix_g')"
          testid="mix-g"
          @update:model-value="(v) => change('the largest mix', (h) => (v ? (h.mix_g = v) : delete h.mix_g))"
        />
        <AmountField
          label="Mixer bowl"
          kind="volume"
          unit="ml"
          optional
          instead="unknown"
          :digits="0"
          :step="500"
          :model-value="resources.bowl_ml || undefined"
          :problem="fault('/bowl_ml')"
          testid="bowl-ml"
          @update:model-value="(v) => change('the bowl', (h) => (v ? (h.bowl_ml = v) : delete h.bowl_ml))"
        />
        <AmountField
          label="Washing up, per dish"
          kind="minutes"
          unit="min"
          :digits="0"
          :model-value="resources.wash_min"
          :problem="fault('/wash_min')"
          testid="wash"
          @update:model-value="(v) => change('washing up', (h) => (h.wash_min = v ?? 0))"
        />
      </div>
      <p class="quiet small">
        A 60 × 40 cm fridge shelf is 2400 cm². Without a mixer, toppings are rubbed in by hand. Enter how many
        you have of each dish under Dishes.
      </p>
    </section>
    <section v-if="kitchen.dishes.length" class="panel" aria-labelledby="resources-dishes">
      <h2 id="resources-dishes">Outside size of dishes</h2>
      <p class="quiet small">Measured over rim and handles. Empty: calculated from the inside size.</p>
      <div class="ovens">
        <div v-for="d in kitchen.dishes" :key="d.id" class="tier">
          <strong class="called">{{ d.name }}</strong>
          <AmountField
            v-for="side in ['length_cm', 'width_cm'] as const"
            :key="side"
            :label="side === 'length_cm' ? 'Length' : 'Width'"
            kind="length"
            unit="cm"
            optional
            :instead="usualOutside(d.id)?.[side]"
            :model-value="outsideOf(d.id)?.[side]"
            :problem="fault(`/dishes/${resources.dishes?.findIndex((x) => x.dish === d.id)}/${side}`)"
            :testid="`outside-${side}-${d.name}`"
            @update:model-value="(v) => setOutside(d, side, v)"
          />
        </div>
      </div>
    </section>
  </div>
  <p v-else-if="!trouble" class="empty quiet">Loading…</p>
</template>

<style scoped>
.resources {
  display: grid;
  gap: 8px;
}
section {
  display: grid;
  justify-items: start;
  gap: 8px;
  padding: 10px 16px 14px;
}
.person,
.tier {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
}
.person {
  align-items: center;
}
.tier > :deep(.field) {
  width: 150px;
}
.bar {
  flex: 1 1 120px;
  max-width: 420px;
}
.ovens {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 33rem), 1fr));
  gap: 14px 20px;
  width: 100%;
}
/* An oven with its tiers, the top one above. */
.oven {
  display: grid;
  align-content: start;
  gap: 8px;
  padding: 8px 14px 12px;
  border: 3px solid var(--rim);
  border-radius: 8px;
}
.name,
input[type='time'] {
  min-height: 44px;
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
}
.called {
  flex: 1 1 8rem;
  align-self: center;
}
.name {
  width: 190px;
  font-weight: 600;
}
</style>
