<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useDessert } from '@/stores/useDessert'
import { useKitchen } from '@/stores/useKitchen'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import DishDialog from '@/ui/DishDialog.vue'
import OriginalRecipe from '@/ui/OriginalRecipe.vue'
import ImportLine from './ImportLine.vue'
import ImportVerdict from './ImportVerdict.vue'
import { useImport } from './useImport'

const example =
  '900 g gooseberries\n3/4 cup sugar\n2 tbsp tapioca starch\n\nFor the topping:\n1 1/2 cups flour, spooned\n1 stick cold butter\n…'

/** A card from elsewhere: each line as it was understood, what has to be asked, and then what the recipe comes to. */
const kitchen = useKitchen()
const dessert = useDessert()
const router = useRouter()
const { all, verdict, rows, problem, busy, read, answer, rewrite, remember, sort, clear } = useImport()
const pasted = ref('')
const over = ref(false)
const choosing = ref(false)
const inCups = computed(() => all.value?.lines.some((l) => /\bcups?\b/i.test(l.text)))
const file = ref<HTMLInputElement>()
const open = computed(() => verdict.value?.open ?? 0)
const faults = computed(() =>
  problem.value?.errors?.length
    ? problem.value.errors.map((e) => e.text)
    : problem.value
      ? [problem.value.title]
      : [],
)
async function take(content: string, name: string) {
  const d = await read(content, name)
  if (!d?.card) return
  const { name: called, request, oven_c, minutes, original } = d.card
  dessert.open({ name: called, request, setting: { oven_c, minutes }, original }, false)
  void router.push('/')
}
async function takeFile(f: File | undefined | null) {
  over.value = false
  if (!f) return
  if (f.size > 2 << 20) {
    problem.value = {
      type: 'about:blank',
      status: 400,
      title: `${f.name} has ${(f.size / (1 << 20)).toFixed(1)} MB: at most 2 MB`,
    }
    return
  }
  await take(await f.text(), f.name)
  if (file.value) file.value.value = ''
}

function openOn(which: 'as_written' | 'mended' | 'own') {
  const v = verdict.value
  const request = v?.[which]?.request
  if (!v || !request || !all.value) return
  dessert.open(
    {
      name: all.value.name,
      request,
      setting: { oven_c: all.value.ovenC, minutes: all.value.minutes },
      original: all.value.original,
      written:
        which === 'as_written' && v.mended && v.own
          ? {
              changes: v.changes ?? [],
              mended: v.mended.request,
              own: v.own.request,
              wrong: v.wrong?.length ?? 0,
              weighed: v.own.weighed,
            }
          : undefined,
    },
    false,
  )
  clear()
  void router.push('/')
}
</script>

<template>
  <div class="import">
    <div class="bar">
      <h1>Import a card</h1>
      <RouterLink class="plain link" to="/cards">Back to the cards</RouterLink>
      <button v-if="all" class="push again" data-testid="import-clear" @click="clear">Import another</button>
    </div>
    <section
      v-if="!all"
      :class="['panel', 'paste', { over }]"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="(e) => takeFile(e.dataTransfer?.files[0])"
    >
      <label for="pasted">
        Paste the recipe: ingredients one per line, in cups or grams. Headings like “For the topping:” help;
        title and method can be included.
      </label>
      <textarea
        id="pasted"
        v-model="pasted"
        rows="14"
        spellcheck="false"
        :placeholder="example"
        data-testid="pasted"
      />
      <div class="acts">
        <button
          class="push main"
          :disabled="!pasted.trim() || busy"
          data-testid="read"
          @click="take(pasted, '')"
        >
          {{ busy ? 'Reading…' : 'Read recipe' }}
        </button>
        <label class="push file"
          >Choose file<input
            ref="file"
            class="visually-hidden"
            type="file"
            accept=".txt,.csv,.json,.jsonld,.html,.htm,text/plain,text/csv,text/html,application/json,application/ld+json"
            data-testid="file"
            @change="(e) => takeFile((e.target as HTMLInputElement).files?.[0])"
        /></label>
        <span class="quiet small"
          >or drop one here: text, CSV, a web page saved with its recipe data, or recipe data (schema.org) as
          JSON. At most 2 MB and 500 lines.</span
        >
      </div>
      <p v-for="f in faults" :key="f" class="wrong" role="alert" data-testid="import-problem">{{ f }}</p>
    </section>
    <div v-else class="two">
      <section class="panel lines" aria-label="Lines">
        <div class="head">
          <input v-model="all.name" class="name" maxlength="80" aria-label="Name" data-testid="import-name" />
          <el-select v-model="all.style" class="style" aria-label="Style" data-testid="import-style">
            <el-option
              v-for="s in kitchen.larder?.styles"
              :key="s.key"
              :value="s.key"
              :label="s.key"
              :data-testid="`import-style-${s.key}`"
            />
          </el-select>
          <el-select
            v-if="kitchen.dishes.length"
            v-model="all.dishId"
            class="dish"
            aria-label="Dish"
            :placeholder="all.dish ? 'as in the recipe' : 'Which dish?'"
            data-testid="import-dish"
            @change="delete all.dish"
          >
            <el-option
              v-for="d in kitchen.dishes"
              :key="d.id"
              :value="d.id"
              :label="d.name"
              :data-testid="`import-dish-${d.name}`"
            />
          </el-select>
          <button class="push" data-testid="import-other-dish" @click="choosing = true">
            {{ kitchen.dishes.length ? 'Another dish' : (all.dish && all.dishSays) || 'Which dish?' }}
          </button>
          <DishDialog
            v-model="choosing"
            @choose="(d) => all && (all = { ...all, dishId: d.id, dish: d.dish, dishSays: d.name })"
          />
        </div>
        <p v-if="all.dish" class="said" data-testid="recipe-dish">
          {{ `In ${all.dishSays}${all.dish === all.recipeDish ? ', as in the recipe' : ''}.` }}
        </p>
        <p v-else-if="!all.dishId" class="said wrong">Choose a dish to see the verdict.</p>
        <div v-if="inCups" class="said cups">
          <span>{{ all.cupWhy ? `${all.cupWhy}.` : 'Cups are' }}</span>
          <ChoiceButtons
            of="cup"
            :model-value="all.cup ?? kitchen.kitchen?.settings.cup"
            label="Cup size"
            testid="cups"
            @update:model-value="(key) => all && (all = { ...all, cup: key, cupWhy: undefined })"
          />
        </div>
        <ul>
          <ImportLine
            v-for="(r, i) in rows"
            :key="i"
            :row="r"
            :line="all.lines[i]!"
            :index="i"
            @answer="(how) => answer(i, how)"
            @rewrite="(text) => rewrite(i, text)"
            @remember="remember"
            @sort="sort"
          />
        </ul>
        <p v-if="!rows.length && !problem" class="quiet">Reading…</p>
        <OriginalRecipe v-if="all.original" :original="all.original" />
      </section>
      <section class="panel side" aria-label="Verdict">
        <p v-for="u in verdict?.asks" :key="u" class="wrong">{{ u }}</p>
        <p v-for="f in faults" :key="f" class="wrong" role="alert">{{ f }}</p>
        <p v-if="verdict?.cannot" class="wrong" role="alert" data-testid="cannot">
          {{ `No verdict yet: ${verdict.cannot}.` }}
        </p>
        <template v-if="verdict && open">
          <p class="open" data-testid="open-questions">
            <strong>{{ open }}</strong>
            {{ `${open === 1 ? 'question' : 'questions'} to answer` }}
          </p>
          <p class="quiet">
            Then you see how the recipe comes out as written, and what would fix it. Nothing is saved until
            you choose to.
          </p>
        </template>
        <ImportVerdict v-else-if="verdict?.as_written" :verdict="verdict" @open="openOn" />
        <p v-else-if="!all.dish && !all.dishId" class="quiet" data-testid="no-dish">
          Choose a dish to see the result here.
        </p>
        <p v-else-if="!faults.length && !verdict?.cannot && !verdict?.asks?.length" class="quiet">
          Simulating the bake…
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 4px 8px 8px;
}
.link {
  display: inline-flex;
  align-items: center;
}
.again {
  margin-left: auto;
}
.paste {
  display: grid;
  gap: 10px;
  max-width: 900px;
  padding: 16px;
}
.paste.over {
  outline: 3px dashed var(--rim-ink);
  outline-offset: -8px;
}
textarea {
  width: 100%;
  padding: 10px 12px;
  border: 1.5px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
  font-size: 1.0625rem;
  resize: vertical;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.acts .small {
  flex: 1 1 300px;
}
.file:focus-within {
  outline: 3px solid var(--heat);
  outline-offset: 2px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 410px;
  gap: 8px;
  height: calc(100vh - var(--above) - 77px);
}
.lines,
.side {
  overflow: auto;
  padding: 10px 14px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.name {
  flex: 1 1 220px;
  min-width: 0;
  height: 44px;
  border: 0;
  border-bottom: 1.5px solid var(--line);
  background: none;
  font: 700 1.25rem var(--title);
}
.style {
  width: 120px;
}
.dish {
  width: 190px;
}
ul {
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
}
.said {
  margin-top: 6px;
}
.cups {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.open {
  font-size: 1.25rem;
}
.open strong {
  font-size: 2.125rem;
}
@media (max-width: 68.75em) {
  .two {
    display: flex;
    flex-direction: column;
    height: auto;
  }
}
</style>
