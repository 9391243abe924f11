<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { RecipeBowl } from '@/api/client'
import { useDessert } from '@/stores/useDessert'
import { useKitchen } from '@/stores/useKitchen'
import ChoiceButtons from '@/ui/ChoiceButtons.vue'
import DishDialog from '@/ui/DishDialog.vue'
import ImportLine from './ImportLine.vue'
import ImportQuestion from './ImportQuestion.vue'
import ImportSteps from './ImportSteps.vue'
import ImportText from './ImportText.vue'
import ImportVerdict from './ImportVerdict.vue'
import { bowls, groupOf, unused } from './bowls'
import { useImport } from './useImport'

const example =
  '900 g gooseberries\n3/4 cup sugar\n2 tbsp tapioca starch\n\nFor the topping:\n1 1/2 cups flour, spooned\n1 stick cold butter\n\nBake at 375°F for 40 minutes…'

/** A recipe from elsewhere: each line and step as it was understood, what has to be asked, and then what it comes to. */
const kitchen = useKitchen()
const dessert = useDessert()
const router = useRouter()
const { all, verdict, rows, problem, busy, read, answer, rewrite, step, remember, sort, save, clear } =
  useImport()
const pasted = ref('')
const over = ref(false)
const choosing = ref(false)
/** The line of the text that is looked at, here or there. */
const looked = ref<number>()
const inCups = computed(() => all.value?.lines.some((l) => /\bcups?\b/i.test(l.text)))
const file = ref<HTMLInputElement>()
const open = computed(() => verdict.value?.open ?? 0)
/** The first question that is not answered yet. */
const asked = computed(() => {
  const i = rows.value.findIndex((r) => r.questions.length)
  return i < 0 ? undefined : { i, row: rows.value[i]!, question: rows.value[i]!.questions[0]! }
})
/** The lines by their bowls, each with its place in the recipe. A heading has done its work. */
const groups = computed(() =>
  [...bowls, unused]
    .map((b) => ({
      ...b,
      lines: rows.value
        .map((row, i) => ({ row, i }))
        .filter(({ row }) => !row.heading && groupOf(row) === (b.key === unused.key ? unused : b)),
    }))
    .filter((g) => g.lines.length || g.key === 'filling' || g.key === 'topping'),
)
function drop(e: DragEvent, bowl: RecipeBowl) {
  const i = Number(e.dataTransfer?.getData('text/x-line') || NaN)
  if (Number.isInteger(i))
    answer(i, bowl === unused.key ? { out: true } : { bowl, out: false, kind: undefined })
}
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
      setting: { stages: v.baked?.stages },
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
        Paste the whole recipe as it is: title, ingredients and method, in cups or grams, or a page of a blog.
        A photo can’t be read.
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
    <div v-else class="three">
      <section v-if="all.reading" class="panel pane" aria-label="Text">
        <ImportText
          :reading="all.reading"
          :lines="all.lines"
          :rows="rows"
          :step-texts="verdict?.steps ?? []"
          :at="looked"
          @look="(i) => (looked = i)"
        />
      </section>
      <section class="panel pane lines" aria-label="Lines">
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
            @choose="
              (d) =>
                all && (all = { ...all, dishId: d.id, dish: d.dish, dishSays: d.name, dishNote: undefined })
            "
          />
        </div>
        <p v-if="all.dish" class="said" data-testid="recipe-dish">
          {{ `In ${all.dishSays}${all.dish === all.recipeDish ? ', as in the recipe' : ''}.`
          }}<span v-if="all.dishNote && all.dish === all.recipeDish" class="quiet">{{
            ` This is ${all.dishNote}.`
          }}</span>
        </p>
        <p v-if="all.savoury" class="said" data-testid="import-savoury">Savoury filling.</p>
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
        <section
          v-for="g in groups"
          :key="g.key"
          class="bowl"
          :style="{ '--bowl': g.colour }"
          :aria-label="g.label"
          @dragover.prevent
          @drop.prevent="(e) => drop(e, g.key)"
        >
          <h3>{{ g.label }}</h3>
          <ul>
            <ImportLine
              v-for="l in g.lines"
              :key="l.i"
              :row="l.row"
              :line="all.lines[l.i]!"
              :index="l.i"
              :here="looked !== undefined && all.lines[l.i]!.at === looked"
              @answer="(how) => answer(l.i, how)"
              @rewrite="(text) => rewrite(l.i, text)"
              @look="(i) => (looked = i)"
            />
          </ul>
          <p v-if="!g.lines.length" class="quiet none">Drag a line here.</p>
        </section>
        <p v-if="!rows.length && !problem" class="quiet">Reading…</p>
        <ImportSteps :steps="all.steps" :texts="verdict?.steps ?? []" @change="step" />
      </section>
      <section class="panel pane side" aria-label="Verdict">
        <p v-for="f in faults" :key="f" class="wrong" role="alert">{{ f }}</p>
        <p v-if="verdict?.cannot" class="wrong" role="alert" data-testid="cannot">
          {{ `No verdict yet: ${verdict.cannot}.` }}
        </p>
        <template v-if="verdict && (open || verdict.waits?.length)">
          <p class="open" data-testid="open-questions">
            <template v-if="open">
              <strong>{{ open }}</strong>
              {{ `${open === 1 ? 'question' : 'questions'} to answer` }}
            </template>
            <template v-else>Not complete yet</template>
          </p>
          <ImportQuestion
            v-if="asked"
            :key="`${asked.i}-${asked.question.code}`"
            :row="asked.row"
            :question="asked.question"
            :index="asked.i"
            @answer="(how) => answer(asked!.i, how)"
            @remember="remember"
            @sort="sort"
          />
          <ul class="waits">
            <li v-for="w in verdict.waits ?? []" :key="w" class="wrong" data-testid="waits">{{ w }}</li>
          </ul>
          <p class="quiet">
            Then you see how the recipe comes out as written, and what would fix it. Nothing is saved until
            you choose to.
          </p>
        </template>
        <ImportVerdict
          v-else-if="verdict?.as_written"
          :verdict="verdict"
          @open="openOn"
          @save="(format, how) => void save(format, how)"
        />
        <p v-else-if="!faults.length && !verdict?.cannot" class="quiet">Simulating the bake…</p>
        <p v-for="u in verdict?.asks" :key="u" class="wrong">{{ u }}</p>
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
.three {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr) 370px;
  gap: 8px;
  height: calc(100vh - var(--above) - 77px);
}
.pane {
  overflow: auto;
  padding: 10px 14px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.name {
  flex: 1 1 100%;
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
  margin: 0;
  padding: 0;
  list-style: none;
}
.bowl {
  margin-top: 10px;
  border-left: 6px solid var(--bowl);
  padding-left: 8px;
}
.bowl h3 {
  color: var(--bowl);
}
.none {
  padding: 4px 6px;
}
.waits .wrong {
  font-size: inherit;
}
.waits {
  margin: 8px 0;
  font-size: 1.125rem;
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
  .three {
    display: flex;
    flex-direction: column;
    height: auto;
  }
}
</style>
