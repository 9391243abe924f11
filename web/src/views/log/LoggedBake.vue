<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Bake } from '@/api/client'
import CutawayPicture from '@/ui/CutawayPicture.vue'
import { useKitchen } from '@/stores/useKitchen'
import { bandWords, date, grams, integer, mm } from '@/format/amounts'
import HowItWent from './HowItWent.vue'
import OutcomeCorrections from './OutcomeCorrections.vue'
import BakeDiagnosis from './BakeDiagnosis.vue'

/** One bake of the log: what was predicted, what came out; opened, all that is known of it. */
const props = defineProps<{ bake: Bake; chosen: boolean }>()
defineEmits<{ bench: []; choose: []; correct: [] }>()
const kitchen = useKitchen()
const open = ref(false)
const boiled = computed(() =>
  props.bake.outcome.boiled_over === undefined
    ? ''
    : props.bake.outcome.boiled_over
      ? 'boiled over'
      : 'did not boil over',
)
const agrees = computed(() => props.bake.outcome.juice === props.bake.predicted.band)
const picture = computed(
  () =>
    props.bake.outcome.picture_id &&
    `/api/v1/kitchens/${kitchen.kitchen?.id}/pictures/${props.bake.outcome.picture_id}`,
)
</script>

<template>
  <li class="panel" :data-testid="`bake-${bake.title}`">
    <div class="what">
      <img
        v-if="picture"
        class="thumb"
        :src="`${picture}?small=true`"
        :alt="`${bake.title} as it came out`"
        loading="lazy"
      />
      <CutawayPicture v-else class="pic" :cut="bake.predicted.cutaway" small />
      <div>
        <strong>{{ bake.title }}</strong>
        <p class="quiet small">
          {{ date(bake.baked_at) }}<template v-if="bake.version">{{ `, version ${bake.version}` }}</template
          ><template v-if="bake.corrections.length">, put right</template>
        </p>
      </div>
    </div>
    <dl>
      <dt>Predicted</dt>
      <dd>
        <strong>{{ bandWords[bake.predicted.band] }}</strong>{{
          `, free rim ${mm(bake.predicted.hot_headspace_mm)}`
        }}
        <span class="quiet">{{
          `· ${grams(bake.predicted.fruit_g)} fruit, ${grams(bake.predicted.thickener_g)} thickener`
        }}</span>
      </dd>
      <dt>Came out</dt>
      <dd>
        <strong v-if="bake.outcome.juice"
          >{{ agrees ? '✓' : '≠' }} {{ bandWords[bake.outcome.juice] }}</strong
        >
        <span v-else class="quiet">juice not told</span
        ><template v-if="bake.outcome.fruit">{{ `, fruit ${bake.outcome.fruit}` }}</template
        ><template v-if="bake.outcome.top">{{ `, top ${bake.outcome.top}` }}</template
        ><template v-if="boiled">, {{ boiled }}</template>
      </dd>
      <dd v-if="bake.outcome.note" class="note">“{{ bake.outcome.note }}”</dd>
    </dl>
    <div class="acts">
      <button class="push" :aria-expanded="open" data-testid="open-bake" @click="open = !open">
        {{ open ? 'Less' : 'How it went' }}
      </button>
      <button class="push" @click="$emit('bench')">On the Bench</button>
      <label class="tick"
        ><input
          type="checkbox"
          :checked="chosen"
          :data-testid="`choose-${bake.title}`"
          @change="$emit('choose')"
        />
        side by side</label
      >
    </div>
    <div v-if="open" class="open">
      <p v-if="bake.happened" class="wide">
        {{
          `${integer(bake.happened.minutes)} min in the oven, ${integer(bake.happened.planned_min)} planned.`
        }}
      </p>
      <HowItWent :bake="bake" />
      <BakeDiagnosis :key="bake.corrections.length" :bake="bake" />
      <a v-if="picture" :href="picture" target="_blank" rel="noopener" class="whole"
        ><img :src="picture" :alt="`${bake.title} as it came out`"
      /></a>
      <OutcomeCorrections :bake="bake" />
      <button class="push correct" data-testid="correct" @click="$emit('correct')">
        Put right what was told
      </button>
    </div>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 370px 1fr auto;
  gap: 10px 18px;
  align-items: center;
  padding: 8px 14px 4px;
}
.what {
  display: grid;
  grid-template-columns: 140px 1fr;
  gap: 14px;
  align-items: center;
}
.what strong {
  font: 650 18px/1.2 var(--title);
}
.thumb {
  width: 140px;
  height: 72px;
  object-fit: cover;
  border: 2px solid var(--rim);
  border-radius: 4px;
}
dl {
  display: grid;
  grid-template-columns: 82px 1fr;
  gap: 2px 10px;
  margin: 0;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
}
.note {
  grid-column: 2;
  color: var(--ink-2);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 0 8px;
  max-width: 270px;
}
.acts .push {
  padding: 0 12px;
}
.open {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 440px), 1fr));
  gap: 16px 28px;
  padding: 12px 0 14px;
  border-top: 1px solid var(--line);
}
.wide {
  grid-column: 1 / -1;
}
.whole img {
  width: 100%;
  max-height: 300px;
  object-fit: contain;
  object-position: left;
}
.correct {
  justify-self: start;
  align-self: end;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: 1fr;
    gap: 8px;
  }
  .acts {
    justify-content: flex-start;
    max-width: none;
  }
}
</style>
