<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Bake } from '@/api/client'
import CutawayPicture from '@/ui/CutawayPicture.vue'
import MoreMenu from '@/ui/MoreMenu.vue'
import { useKitchen } from '@/stores/useKitchen'
import { date, money } from '@/format/amounts'
import BakeReport from './BakeReport.vue'
import CorrectionList from './CorrectionList.vue'
import BakeDiagnosis from './BakeDiagnosis.vue'

/** One bake of the log: how it came out, and what to do another time; opened, all that is known of it. */
const props = defineProps<{ bake: Bake; chosen: boolean; left?: boolean }>()
defineEmits<{ bench: []; choose: []; correct: []; seek: [words: string]; leave: [out: boolean] }>()
const kitchen = useKitchen()
const open = ref(false)
/** What it cost in all; nothing where something in it had no price. */
const priced = computed(() => {
  const c = props.bake.cost?.of
  if (c?.total_minor == null || c.portion_minor == null) return undefined
  return { total: c.total_minor, portion: c.portion_minor }
})
/** What a listener tells it apart by. */
const called = computed(() => `${props.bake.title}, ${date(props.bake.baked_at)}`)
const picture = computed(
  () =>
    props.bake.outcome.picture_id &&
    `/api/v1/kitchens/${kitchen.kitchen?.id}/pictures/${props.bake.outcome.picture_id}`,
)
const signs = { right: '✓', wrong: '!', untold: '?' }
const sentence = (s: string) => `${s.charAt(0).toUpperCase()}${s.slice(1)}.`
</script>

<template>
  <li :class="['panel', { chosen }]" :data-testid="`bake-${bake.title}`">
    <div class="what">
      <img
        v-if="picture"
        class="thumb"
        :src="`${picture}?small=true`"
        :alt="`${bake.title}, picture of the result`"
        loading="lazy"
      />
      <CutawayPicture v-else class="pic" :cut="bake.predicted.cutaway" small />
      <div>
        <h2>{{ bake.title }}</h2>
        <p class="quiet small">
          {{ date(bake.baked_at) }}<template v-if="bake.version">{{ `, version ${bake.version}` }}</template
          ><template v-if="bake.corrections.length">, corrected</template>
        </p>
      </div>
    </div>
    <div class="came">
      <p :class="['verdict', bake.verdict.state]">
        <span class="sign" aria-hidden="true">{{ signs[bake.verdict.state] }}</span>
        {{ sentence(bake.verdict.summary) }}
      </p>
      <p v-if="bake.verdict.next"><strong>Next time:</strong> {{ bake.verdict.next }}</p>
      <p v-if="bake.outcome.note" class="quiet note">{{ `“${bake.outcome.note}”` }}</p>
    </div>
    <div class="acts">
      <button
        class="push"
        :aria-expanded="open"
        :aria-label="`${open ? 'Less about' : 'Details of'} ${called}`"
        data-testid="open-bake"
        @click="open = !open"
      >
        {{ open ? 'Less' : 'Details' }}
      </button>
      <MoreMenu label="More" :about="called" :testid="`more-${bake.title}`">
        <button class="push" @click="$emit('bench')">Open on the Bench</button>
        <button class="push" data-testid="correct" @click="$emit('correct')">Edit result</button>
        <button class="push" :data-testid="`choose-${bake.title}`" @click="$emit('choose')">
          {{ chosen ? 'Remove from comparison' : 'Compare' }}
        </button>
        <button class="push" data-testid="leave-out" @click="$emit('leave', !left)">
          {{ left ? 'Include in predictions' : 'Exclude from predictions' }}
        </button>
      </MoreMenu>
    </div>
    <div v-if="open" class="open">
      <p class="wide">
        <template v-if="bake.verdict.reported">{{ `Result: ${bake.verdict.reported}. ` }}</template>{{
          bake.report.predicted
        }}
      </p>
      <p v-if="bake.cost" class="wide" data-testid="bake-cost">
        <template v-if="priced"
          ><strong>{{ money(priced.total, bake.cost.currency) }}</strong
          >{{
            `, ${money(priced.portion, bake.cost.currency)} per portion, at the prices of that day.`
          }}</template
        ><template v-else>{{
          `${money(bake.cost.of.ingredients_minor, bake.cost.currency)} at the prices of that day, without ${bake.cost.of.unpriced.map(kitchen.calledOf).join(', ')}: ${bake.cost.of.unpriced.length > 1 ? 'they have' : 'it has'} no price.`
        }}</template>
      </p>
      <BakeReport :bake="bake" @seek="(words) => $emit('seek', words)" />
      <BakeDiagnosis :key="bake.corrections.length" :bake="bake" />
      <a v-if="picture" :href="picture" target="_blank" rel="noopener" class="whole"
        ><img :src="picture" :alt="`${bake.title}, picture of the result`"
      /></a>
      <CorrectionList :bake="bake" />
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
h2 {
  font-size: 1.125rem;
}
.thumb {
  width: 140px;
  height: 72px;
  object-fit: cover;
  border: 2px solid var(--rim);
  border-radius: 4px;
}
.verdict {
  display: flex;
  align-items: baseline;
  gap: 10px;
  font-size: 1.1875rem;
  font-weight: 650;
}
.sign {
  flex: none;
  width: 26px;
  border: 2px solid currentcolor;
  border-radius: 13px;
  line-height: 22px;
  text-align: center;
}
.right .sign {
  color: var(--settled);
}
.wrong.verdict {
  color: inherit;
  font-size: 1.1875rem;
}
.wrong .sign {
  color: var(--danger);
}
.came p + p {
  margin-left: 36px;
}
.acts {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
.chosen {
  outline: 3px solid var(--rim);
  outline-offset: -3px;
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
@media (max-width: 56.25em) {
  li {
    grid-template-columns: 1fr;
    gap: 8px;
  }
  .acts {
    justify-content: flex-start;
  }
}
</style>
