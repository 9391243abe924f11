<script setup lang="ts">
import type { Answer } from '@/api/client'
import FigureText from '@/parts/FigureText.vue'
import { bandWords, grams, mm, scale } from '@/parts/words'
import { text } from '@/texts'

/** The numbers that matter, to be read at arm's length. */
defineProps<{ answer: Answer }>()
const limits: Record<string, string> = {
  fill: text('heaped as usual'),
  headspace: text('the free rim decides'),
  weighed: text('as weighed'),
}
</script>

<template>
  <dl class="figures" data-testid="figures">
    <div class="big">
      <dt>{{ $t('Fruit') }}</dt>
      <dd>
        <FigureText :text="scale(answer.fruit_g).figure" /><small
          >&nbsp;{{ scale(answer.fruit_g).unit }}</small
        >
      </dd>
      <dd class="more">
        <template v-if="answer.fruit_tolerance_g">{{
          $t('give or take {weight}', { weight: grams(answer.fruit_tolerance_g) })
        }}</template>
        <template v-else>{{ $t('no room to be off') }}</template>,
        {{ $t(limits[answer.fit.limited_by] ?? '') }}
      </dd>
    </div>
    <div class="big">
      <dt>{{ $t('Sugar') }}</dt>
      <dd>
        <FigureText :text="scale(answer.sugar_g).figure" /><small
          >&nbsp;{{ scale(answer.sugar_g).unit }}</small
        >
      </dd>
    </div>
    <div class="big">
      <dt>{{ $t('Thickener') }}</dt>
      <dd>
        <FigureText :text="scale(answer.thickener_g).figure" /><small
          >&nbsp;{{ scale(answer.thickener_g).unit }}</small
        >
      </dd>
    </div>
    <div class="big">
      <dt>{{ $t('Topping') }}</dt>
      <dd>
        <FigureText :text="scale(answer.topping_g).figure" /><small
          >&nbsp;{{ scale(answer.topping_g).unit }}</small
        >
      </dd>
    </div>
    <div>
      <dt>{{ $t('Stands') }}</dt>
      <dd><FigureText :text="bandWords[answer.set.band]" /></dd>
      <dd class="more">{{ $t('cold; hot it is {n}', { n: bandWords[answer.set.hot_band] }) }}</dd>
    </div>
    <div :class="{ danger: answer.fit.hot_headspace_mm < 3 }">
      <dt>{{ $t('Free rim, boiling') }}</dt>
      <dd><FigureText :text="mm(answer.fit.hot_headspace_mm)" /></dd>
      <dd class="more">{{ $t('keep {depth}', { depth: mm(answer.fit.keep_headspace_mm) }) }}</dd>
    </div>
    <div>
      <dt>{{ $t('Portions') }}</dt>
      <dd><FigureText :text="String(answer.portions.count)" /></dd>
      <dd class="more">{{ $t('of about {weight}', { weight: grams(answer.portions.each_g) }) }}</dd>
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
  font-size: 14px;
  color: var(--ink-2);
}
dd {
  margin: 0;
  font-size: 22px;
  font-weight: 700;
  line-height: 1.15;
}
.big dd {
  font-size: 38px;
  line-height: 1;
}
small {
  font-size: 16px;
  font-weight: 400;
}
dd.more {
  font-size: 13px;
  line-height: 1.25;
  font-weight: 400;
  color: var(--ink-2);
}
.danger dd:not(.more) {
  color: var(--danger);
}
@media (min-width: 1600px) {
  dd {
    font-size: 30px;
  }
  .big dd {
    font-size: 56px;
  }
  .figures .more {
    font-size: 15px;
  }
}
@media (max-width: 520px) {
  .figures > div {
    grid-column: span 6;
  }
  .figures > .big {
    grid-column: span 6;
  }
}
</style>
