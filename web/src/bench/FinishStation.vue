<script setup lang="ts">
import { computed } from 'vue'
import { useKitchen } from '@/parts/useKitchen'
import { grams, asRead, lower, number } from '@/parts/words'
import { useDessert } from './useDessert'
import { t, text } from '@/texts'

/** What goes on top before and after the oven, how the dish is readied, how it rests, keeps, and is used up. */
const kitchen = useKitchen()
const dessert = useDessert()
const request = computed(() => dessert.draft!.request)
const on = (key: string) => request.value.finishes?.includes(key) ?? false
function toggle(key: string) {
  dessert.change(t('the finish'), (d) => {
    const now = d.request.finishes ?? []
    const next = now.includes(key) ? now.filter((k) => k !== key) : [...now, key]
    d.request.finishes = next.length ? next : undefined
  })
}
const when = [
  ['before', text('On top, before the oven')],
  ['after', text('On top, after the oven')],
] as const
const greasing = [
  ['', text('as usual')],
  ['butter', 'butter'],
  ['oil', 'oil'],
  ['sling', text('paper sling')],
  ['none', 'nothing'],
] as const
const rest = computed(() => dessert.answer?.method.filter((m) => m.code === 'rest').map((m) => m.text) ?? [])
</script>

<template>
  <div class="finish">
    <div v-for="[key, title] in when" :key="key" class="field">
      <span class="label">{{ $t(title) }}</span>
      <div class="chips">
        <button
          v-for="f in kitchen.larder?.finishes.filter((x) => x.when === key)"
          :key="f.key"
          class="push"
          :class="{ main: on(f.key) }"
          :aria-pressed="on(f.key)"
          :title="f.looks"
          :data-testid="`finish-${f.key}`"
          @click="toggle(f.key)"
        >
          {{ f.name.split(',')[0] }}
        </button>
      </div>
    </div>
    <p v-if="dessert.answer && dessert.answer.colour_factor > 1.01" class="small" data-testid="colour">
      {{ $t('The top colours') }} <strong>{{ number(dessert.answer.colour_factor) }} ×</strong>
      {{ $t('as fast: cover earlier, or set it lower.') }}
    </p>
    <div class="field">
      <span class="label">{{ $t('The dish is readied with') }}</span>
      <div class="choice" role="group" :aria-label="$t('The dish is readied with')">
        <button
          v-for="[key, says] in greasing"
          :key="key"
          :aria-pressed="(request.greasing ?? '') === key"
          :data-testid="`greasing-${key || 'usual'}`"
          @click="dessert.change($t('the dish'), (d) => (d.request.greasing = key || undefined))"
        >
          {{ $t(says) }}
        </button>
      </div>
    </div>
    <div class="field">
      <span class="label">{{
        $t('Portions{n}', {
          n: dessert.answer
            ? $t(': {count} of {weight}', {
                count: dessert.answer.portions.count,
                weight: grams(dessert.answer.portions.each_g),
              })
            : '',
        })
      }}</span>
      <div class="choice" role="group" :aria-label="$t('Size of a portion')">
        <button
          v-for="p in ['tasting', 'standard', 'hearty'] as const"
          :key="p"
          :aria-pressed="(request.portion || 'standard') === p"
          :data-testid="`portion-${p}`"
          @click="dessert.change($t('the portion'), (d) => (d.request.portion = p))"
        >
          {{ p === 'standard' ? $t('usual') : $t(p) }}
        </button>
      </div>
    </div>
    <template v-if="dessert.answer">
      <p class="small" data-testid="beside">
        {{
          $t('With it, for all: {list}.', {
            list: dessert.answer.beside.map((b) => `${grams(b.all_g)} ${asRead(b.name)}`).join($t(', or ')),
          })
        }}
      </p>
      <p v-for="(r, i) in rest" :key="i">{{ asRead(r) }}</p>
      <h3>{{ $t('Ahead') }}</h3>
      <ul data-testid="ahead">
        <li v-for="(k, i) in dessert.answer.ahead" :key="i">
          <strong>{{ asRead(k.what) }}</strong>: {{ asRead(k.how) }}.
        </li>
      </ul>
      <h3>{{ $t('Left over') }}</h3>
      <ul data-testid="leftovers">
        <li v-for="(k, i) in dessert.answer.leftovers" :key="i">
          <strong>{{ asRead(k.what) }}</strong>: {{ lower(asRead(k.how)) }}.
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.finish {
  display: grid;
  gap: 8px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.chips .push {
  padding: 0 10px;
  font-weight: 400;
}
ul {
  margin: 0;
  padding-left: 18px;
  font-size: 15px;
}
</style>
