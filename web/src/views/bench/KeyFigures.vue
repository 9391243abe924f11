<script setup lang="ts">
import GlossaryTerm from '@/ui/GlossaryTerm.vue'
import type { Answer } from '@/api/client'
import FigureText from '@/ui/FigureText.vue'
import { grams, mm, scale } from '@/format/amounts'
import { useKitchen } from '@/stores/useKitchen'

/** The numbers that matter, to be read at arm's length. */
const kitchen = useKitchen()
defineProps<{ answer: Answer }>()
</script>

<template>
  <dl class="figures" data-testid="figures">
    <div class="big">
      <dt>Fruit</dt>
      <dd>
        <FigureText :text="scale(answer.fruit_g).figure" /><small
          >&nbsp;{{ scale(answer.fruit_g).unit }}</small
        >
      </dd>
      <dd class="more">
        <template v-if="answer.fruit_tolerance_g">{{ `± ${grams(answer.fruit_tolerance_g)}` }}</template>
        <template v-else>weigh exactly</template>,
        {{ kitchen.word('limit', answer.fit.limited_by) }}
      </dd>
    </div>
    <div class="big">
      <dt>Sugar</dt>
      <dd>
        <FigureText :text="scale(answer.sugar_g).figure" /><small
          >&nbsp;{{ scale(answer.sugar_g).unit }}</small
        >
      </dd>
    </div>
    <div class="big">
      <dt>Thickener</dt>
      <dd>
        <FigureText :text="scale(answer.thickener_g).figure" /><small
          >&nbsp;{{ scale(answer.thickener_g).unit }}</small
        >
      </dd>
    </div>
    <div class="big">
      <dt>Topping</dt>
      <dd>
        <FigureText :text="scale(answer.topping_g).figure" /><small
          >&nbsp;{{ scale(answer.topping_g).unit }}</small
        >
      </dd>
    </div>
    <div>
      <dt><GlossaryTerm term="thickness of the juice">Juice</GlossaryTerm></dt>
      <dd>{{ kitchen.word('band', answer.set.band) }}</dd>
      <dd class="more">{{ `cold; hot: ${kitchen.word('band', answer.set.hot_band)}` }}</dd>
    </div>
    <div :class="{ danger: answer.fit.room !== 'free' }">
      <dt><GlossaryTerm term="space below rim">Space below rim</GlossaryTerm></dt>
      <dd><FigureText :text="mm(answer.fit.hot_headspace_mm)" /></dd>
      <dd class="more">{{ `when boiling; keep ${mm(answer.fit.keep_headspace_mm)}` }}</dd>
    </div>
    <div>
      <dt>Portions</dt>
      <dd><FigureText :text="String(answer.portions.count)" /></dd>
      <dd class="more">{{ `about ${grams(answer.portions.each_g)}` }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(12, 1fr);
  gap: 6px 10px;
  margin: 0;
}
.figures > div {
  grid-column: span 4;
  border-top: 1px solid var(--line);
  padding-top: 4px;
}
.figures > .big {
  grid-column: span 3;
  border: 0;
}
dt {
  font-size: 0.875rem;
  color: var(--ink-2);
}
dd {
  margin: 0;
  font-size: 1.375rem;
  font-weight: 700;
  line-height: 1.15;
}
.big dd {
  font-size: 2.375rem;
  line-height: 1;
}
small {
  font-size: 1rem;
  font-weight: 400;
}
dd.more {
  font-size: 0.8125rem;
  line-height: 1.25;
  font-weight: 400;
  color: var(--ink-2);
}
.danger dd:not(.more) {
  color: var(--danger);
}
@media (min-width: 100em) {
  dd {
    font-size: 1.875rem;
  }
  .big dd {
    font-size: 3.5rem;
  }
  .figures .more {
    font-size: 0.9375rem;
  }
}
@media (max-width: 32.5em) {
  .figures > div {
    grid-column: span 6;
  }
  .figures > .big {
    grid-column: span 6;
  }
}
</style>
