<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { api, ask, inWords, type Bake, type Explanation } from '@/api/client'
import { useKitchen } from '@/parts/useKitchen'
import { inUnits } from '@/parts/words'

/** What the model expected of a bake as it was weighed and baked, and which one thing, had it been otherwise, explains what came. */
const props = defineProps<{ bake: Bake }>()
const kitchen = useKitchen()
const why = ref<Explanation>()
const trouble = ref('')
onMounted(async () => {
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/bakes/{bake}/why', {
      params: { path: { kitchen: kitchen.kitchen!.id, bake: props.bake.id } },
    }),
  )
  why.value = got.data
  trouble.value = got.problem ? inWords(got.problem) : ''
})
const list = (all: string[]) =>
  all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`
</script>

<template>
  <section class="why" data-testid="why">
    <h3>{{ why && !why.wrong.length ? 'As it should be' : 'What may have gone wrong' }}</h3>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}.</p>
    <p v-else-if="!why" class="quiet" role="status">Baking it again on paper…</p>
    <template v-else>
      <p v-if="why.wrong.length">
        Told: <strong>{{ list(why.wrong) }}</strong>.
      </p>
      <p v-else>Nothing was told that a baker would not want.</p>
      <p class="quiet">
        By the model, as it was weighed and baked:
        {{
          list(
            [
              why.expected.juice ?? '',
              why.expected.fruit ? `fruit ${why.expected.fruit}` : '',
              why.expected.top ? `top ${why.expected.top}` : '',
              why.expected.base ? `base ${why.expected.base}` : '',
            ].filter(Boolean),
          )
        }}.
      </p>
      <p v-if="why.on_paper.length" data-testid="on-paper">
        On paper already: <strong>{{ inUnits(list(why.on_paper)) }}</strong>.
      </p>
      <ol v-if="why.causes.length">
        <li v-for="c in why.causes" :key="c.code" :data-testid="`cause-${c.code}`">
          <p>
            <strong>{{ inUnits(c.says) }}.</strong> That explains {{ list(c.explains) }}.
          </p>
          <p class="quiet">{{ inUnits(c.evidence) }}</p>
          <p>Next time: {{ inUnits(c.next) }}</p>
        </li>
      </ol>
      <p v-else-if="why.wrong.length && !why.on_paper.length" class="quiet">
        No single thing explains it better than chance. More of the questions answered, or a probe, would tell
        more.
      </p>
      <p v-if="why.causes.length" class="small quiet">
        One thing at a time is changed in the model, as far as a kitchen may be off (working figures); the
        likeliest stands first.
      </p>
    </template>
  </section>
</template>

<style scoped>
.why {
  display: grid;
  align-content: start;
  gap: 6px;
}
ol {
  display: grid;
  gap: 10px;
  margin: 0;
  padding-left: 22px;
}
</style>
