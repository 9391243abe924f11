<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Bake } from '@/api/client'
import CutawayPicture from '@/parts/CutawayPicture.vue'
import { useKitchen } from '@/parts/useKitchen'
import { bandWords, date, grams, integer, mm } from '@/parts/words'
import HowItWent from './HowItWent.vue'
import ToldBefore from './ToldBefore.vue'
import WhyIt from './WhyIt.vue'
import { t } from '@/texts'

/** One bake of the log: what was predicted, what came out; opened, all that is known of it. */
const props = defineProps<{ bake: Bake; chosen: boolean }>()
defineEmits<{ bench: []; choose: []; correct: [] }>()
const kitchen = useKitchen()
const open = ref(false)
const boiled = computed(() =>
  props.bake.outcome.boiled_over === undefined
    ? ''
    : props.bake.outcome.boiled_over
      ? t('boiled over')
      : t('did not boil over'),
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
        :alt="$t('{title} as it came out', { title: bake.title })"
        loading="lazy"
      />
      <CutawayPicture v-else class="pic" :cut="bake.predicted.cutaway" small />
      <div>
        <strong>{{ bake.title }}</strong>
        <p class="quiet small">
          {{ date(bake.baked_at)
          }}<template v-if="bake.version">{{ $t(', version {version}', { version: bake.version }) }}</template
          ><template v-if="bake.corrections.length">{{ $t(', put right') }}</template>
        </p>
      </div>
    </div>
    <dl>
      <dt>{{ $t('Predicted') }}</dt>
      <dd>
        <strong>{{ bandWords[bake.predicted.band] }}</strong>{{
          $t(', free rim {depth}', { depth: mm(bake.predicted.hot_headspace_mm) })
        }}
        <span class="quiet">{{
          $t('· {weight} fruit, {weight2} thickener', {
            weight: grams(bake.predicted.fruit_g),
            weight2: grams(bake.predicted.thickener_g),
          })
        }}</span>
      </dd>
      <dt>{{ $t('Came out') }}</dt>
      <dd>
        <strong v-if="bake.outcome.juice"
          >{{ agrees ? '✓' : '≠' }} {{ bandWords[bake.outcome.juice] }}</strong
        >
        <span v-else class="quiet">{{ $t('juice not told') }}</span><template v-if="bake.outcome.fruit">{{
          $t(', fruit {fruit}', { fruit: bake.outcome.fruit })
        }}</template
        ><template v-if="bake.outcome.top">{{ $t(', top {top}', { top: bake.outcome.top }) }}</template
        ><template v-if="boiled">, {{ boiled }}</template>
      </dd>
      <dd v-if="bake.outcome.note" class="note">“{{ bake.outcome.note }}”</dd>
    </dl>
    <div class="acts">
      <button class="push" :aria-expanded="open" data-testid="open-bake" @click="open = !open">
        {{ open ? $t('Less') : $t('How it went') }}
      </button>
      <button class="push" @click="$emit('bench')">{{ $t('On the Bench') }}</button>
      <label class="tick"
        ><input
          type="checkbox"
          :checked="chosen"
          :data-testid="`choose-${bake.title}`"
          @change="$emit('choose')"
        />
        {{ $t('side by side') }}</label
      >
    </div>
    <div v-if="open" class="open">
      <p v-if="bake.happened" class="wide">
        {{
          $t('{n} min in the oven, {n2} planned.', {
            n: integer(bake.happened.minutes),
            n2: integer(bake.happened.planned_min),
          })
        }}
      </p>
      <HowItWent :bake="bake" />
      <WhyIt :key="bake.corrections.length" :bake="bake" />
      <a v-if="picture" :href="picture" target="_blank" rel="noopener" class="whole"
        ><img :src="picture" :alt="$t('{title} as it came out', { title: bake.title })"
      /></a>
      <ToldBefore :bake="bake" />
      <button class="push correct" data-testid="correct" @click="$emit('correct')">
        {{ $t('Put right what was told') }}
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
