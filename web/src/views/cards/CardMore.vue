<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { api, ask, inWords, type Card, type Comparison, type Version } from '@/api/client'
import ComparisonTable from '@/ui/ComparisonTable.vue'
import ReadyDialog from '@/ui/ReadyDialog.vue'
import ExportMenu from '@/ui/ExportMenu.vue'
import { useKitchen } from '@/stores/useKitchen'
import { useWayBack } from '@/stores/useReadyBy'
import { date } from '@/format/amounts'
import { useCardHistory, type CardBody } from './useCardHistory'

/** A card with its versions: opened, compared, named, copied, put away. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ id: string; tags: string[] }>()
const emit = defineEmits<{
  bench: [card: Card, version: Version]
  named: [before: string, card: Card]
  tagged: [before: string[], card: Card]
  away: [card: Card]
  copied: [card: Card]
}>()
const kitchen = useKitchen()
const history = useCardHistory()
const card = ref<Card>()
const name = ref('')
const trouble = ref('')
const rows = ref<Comparison[]>()
const pair = ref<[number, number]>([1, 1])
const at = computed(() => ({ kitchen: kitchen.kitchen?.id ?? '', card: props.id }))

watch(
  open,
  async (is) => {
    if (!is) return
    card.value = rows.value = undefined
    const got = await ask(api.GET('/api/v1/kitchens/{kitchen}/cards/{card}', { params: { path: at.value } }))
    trouble.value = got.problem ? inWords(got.problem) : ''
    if (!got.data) return
    card.value = got.data
    name.value = got.data.name
    const newest = got.data.versions[0]?.number ?? 1
    pair.value = [Math.max(1, newest - 1), newest]
    if (newest > 1) void compare()
  },
  { immediate: true },
)

async function compare() {
  const got = await ask(
    api.GET('/api/v1/kitchens/{kitchen}/cards/{card}/versions/{version}/compared-with/{other}', {
      params: { path: { ...at.value, version: pair.value[0], other: pair.value[1] } },
    }),
  )
  trouble.value = got.problem ? inWords(got.problem) : ''
  rows.value = got.data
}
async function put(body: CardBody) {
  const got = await history.put(at.value.card, body, card.value)
  trouble.value = got.problem ? inWords(got.problem) : ''
  if (got.theirs) {
    card.value = got.data
    name.value = got.data?.name ?? ''
    return undefined
  }
  return got.data
}
async function rename() {
  const was = card.value?.name
  if (!was || !name.value.trim() || name.value.trim() === was) return
  const c = await put({ name: name.value.trim() })
  if (!c) return
  card.value = c
  emit('named', was, c)
}
/** When it is wanted: by the newest version, simulated as the Bench would. */
const wanted = ref(false)
const ready = reactive(
  useWayBack(() => {
    const v = card.value?.versions[0]
    return wanted.value && v
      ? { kitchen: kitchen.kitchen?.id, request: v.request, setting: v.setting }
      : undefined
  }),
)
/** The occasions that it is for: free words, those of other cards offered. */
const usualTags = ['picnic', 'Sunday', 'freezer', 'market', 'school']
const offered = computed(() => [...new Set([...props.tags, ...usualTags])])
async function tag(tags: string[]) {
  const was = card.value?.tags ?? []
  const c = await put({ tags })
  if (!c) return
  card.value = c
  emit('tagged', was, c)
}
async function putAway() {
  const c = await put({ archived: !card.value?.archived })
  if (!c) return
  open.value = false
  emit('away', c)
}
async function copy() {
  const v = card.value?.versions[0]
  if (!v || !card.value) return
  const got = await ask(
    api.POST('/api/v1/kitchens/{kitchen}/cards', {
      params: { path: { kitchen: at.value.kitchen } },
      body: {
        id: crypto.randomUUID(),
        version_id: crypto.randomUUID(),
        name: `${card.value.name.slice(0, 70)}, copy`,
        request: v.request,
        setting: v.setting,
        note: v.note,
        original: v.original,
      },
    }),
  )
  trouble.value = got.problem ? inWords(got.problem) : ''
  if (!got.data) return
  open.value = false
  emit('copied', got.data)
}
/** The newest version, to be taken away. */
const whole = computed(() => {
  const v = card.value?.versions[0]
  return (
    v && {
      name: card.value!.name,
      request: v.request,
      oven_c: v.setting.oven_c,
      minutes: v.setting.minutes,
      note: v.note,
      original: v.original,
    }
  )
})
const headOf = (n: number) => {
  const v = card.value?.versions.find((x) => x.number === n)
  return {
    title: `Version ${n}`,
    about: v ? `${date(v.saved_at)}${v.note ? `: ${v.note}` : ''}` : '',
  }
}
</script>

<template>
  <el-dialog v-model="open" :title="card?.name ?? 'Card'" width="min(860px, 96vw)" data-testid="card-more">
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}.</p>
    <p v-if="!card && !trouble" class="quiet">Loading…</p>
    <div v-if="card" class="more">
      <form class="row" @submit.prevent="rename">
        <el-input v-model="name" maxlength="80" aria-label="Name of the card" data-testid="card-name" />
        <button class="push" :disabled="!name.trim() || name.trim() === card.name" data-testid="rename">
          Rename
        </button>
        <button type="button" class="push" data-testid="card-ready-by" @click="wanted = true">
          Ready by…
        </button>
        <button type="button" class="push" data-testid="copy-card" @click="copy">Duplicate</button>
        <button type="button" class="push" data-testid="put-away" @click="putAway">
          {{ card.archived ? 'Restore from archive' : 'Archive' }}
        </button>
      </form>
      <div class="field">
        <label for="card-tags">Occasions</label>
        <el-select
          id="card-tags"
          :model-value="card.tags"
          multiple
          filterable
          allow-create
          default-first-option
          placeholder="picnic, market, …"
          data-testid="card-tags"
          @update:model-value="tag"
        >
          <el-option v-for="t in offered" :key="t" :value="t" :label="t" :data-testid="`tag-${t}`" />
        </el-select>
      </div>
      <ReadyDialog v-model="wanted" :ready="ready" :name="card.name" />
      <ExportMenu v-if="whole" :card="whole" cut />
      <ol class="versions">
        <li v-for="v in card.versions" :key="v.id">
          <button class="push" :data-testid="`version-${v.number}`" @click="emit('bench', card, v)">
            {{ `Open version ${v.number}` }}
          </button>
          <span
            >{{ date(v.saved_at) }}<template v-if="v.note">: {{ v.note }}</template></span
          >
        </li>
      </ol>
      <template v-if="card.versions.length > 1">
        <div class="row">
          <h3>Compare versions</h3>
          <el-select
            v-for="i in [0, 1] as const"
            :key="i"
            v-model="pair[i]"
            class="which"
            :aria-label="i ? 'Later version' : 'Earlier version'"
            @change="compare"
          >
            <el-option
              v-for="v in card.versions"
              :key="v.number"
              :value="v.number"
              :label="`Version ${v.number}`"
            />
          </el-select>
        </div>
        <ComparisonTable
          v-if="rows"
          :rows="rows"
          :heads="[headOf(pair[0]), headOf(pair[1])]"
          data-testid="versions-beside"
        />
      </template>
    </div>
  </el-dialog>
</template>

<style scoped>
.more {
  display: grid;
  gap: 12px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.row .el-input {
  flex: 1 1 240px;
}
.which {
  width: 150px;
}
.versions {
  list-style: none;
  margin: 0;
  padding: 0;
}
.versions li {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 52px;
  border-bottom: 1px solid var(--line);
}
.versions .push {
  flex: none;
}
</style>
