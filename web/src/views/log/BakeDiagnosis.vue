<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { api, ask, inWords, type Bake, type Explanation } from '@/api/client'
import WorkProgress from '@/ui/WorkProgress.vue'
import { useKitchen } from '@/stores/useKitchen'
import { useWork } from '@/stores/useWork'

/** What the model expected of a bake as it was weighed and baked, and which one thing, had it been otherwise, explains what came. */
const props = defineProps<{ bake: Bake }>()
const kitchen = useKitchen()
const why = ref<Explanation>()
const trouble = ref('')
const work = useWork()
const stopped = ref(false)
async function ponder() {
  stopped.value = false
  const got = await work.run(({ signal, id }) =>
    ask(
      api.GET('/api/v1/kitchens/{kitchen}/bakes/{bake}/causes', {
        params: { path: { kitchen: kitchen.kitchen!.id, bake: props.bake.id }, header: { 'X-Work': id } },
        signal,
      }),
    ),
  )
  stopped.value = !got
  why.value = got?.data
  trouble.value = got?.problem ? inWords(got.problem) : ''
}
onMounted(() => void ponder())
const list = (all: string[]) =>
  all.length > 1 ? `${all.slice(0, -1).join(', ')} and ${all.at(-1)}` : all.join('')
</script>

<template>
  <section class="why" data-testid="why">
    <h3>{{ why && !why.wrong.length ? 'No problems' : 'Possible causes' }}</h3>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}.</p>
    <WorkProgress
      v-else-if="work.on.value"
      label="Simulating possible causes, one at a time"
      :share="work.share.value"
      @stop="work.stop"
    />
    <p v-else-if="stopped" class="quiet">
      Stopped.
      <button class="push" data-testid="ponder" @click="ponder">Search again</button>
    </p>
    <template v-else-if="why">
      <p v-if="why.wrong.length">
        Reported: <strong>{{ list(why.wrong) }}</strong>.
      </p>
      <p v-else>No problems reported.</p>
      <p class="quiet">
        {{
          `Expected from the model, as weighed and baked: ${list(
            [
              why.expected.juice ?? '',
              why.expected.fruit ? `fruit ${why.expected.fruit}` : '',
              why.expected.top ? `top ${why.expected.top}` : '',
              why.expected.base ? `base ${why.expected.base}` : '',
            ].filter(Boolean),
          )}.`
        }}
      </p>
      <p v-if="why.predicted.length" data-testid="on-paper">
        Already predicted: <strong>{{ list(why.predicted) }}</strong>.
      </p>
      <ol v-if="why.causes.length">
        <li v-for="c in why.causes" :key="c.code" :data-testid="`cause-${c.code}`">
          <p>
            <strong>{{ c.text }}.</strong>
            {{ ` Chance: ${c.chance}0 %.` }}
            {{ `That explains ${list(c.explains)}.` }}
          </p>
          <p class="quiet">{{ c.evidence }}</p>
          <p>{{ `Next time: ${c.next}` }}</p>
        </li>
      </ol>
      <p v-else-if="why.wrong.length && !why.predicted.length" class="quiet">
        No single cause explains it better than chance. Answer more questions, or use a probe next time.
      </p>
      <p v-if="why.settles" data-testid="settles">{{ why.settles }}</p>
      <p v-if="why.causes.length" class="small quiet">
        Each cause is tested alone in the model, with a change far larger than the usual variation between
        bakes (working figures). Reported problems are explained first.
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
