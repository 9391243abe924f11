import { useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  ask,
  type Dish,
  type FileFormat,
  type ImportedDocument,
  type LineRequest,
  type Original,
  type Problem,
  type RecipeReading,
  type RecipeRow,
  type RecipeStep,
  type Verdict,
} from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { hand } from '@/ui/exportFormats'
import { useEquipment } from '@/stores/useEquipment'

interface Import {
  name: string
  style: string
  savoury?: boolean
  dishes: number
  split?: Record<string, number>
  dishId: string
  /** A dish that stands on no shelf. */
  dish?: Dish
  lines: LineRequest[]
  steps: RecipeStep[]
  reading?: RecipeReading
  original?: Original
  /** Whose cup it measures with; left out: the kitchen's. */
  cup?: 'us' | 'metric' | 'imperial'
  cupWhy?: string
  spoon?: ImportedDocument['spoon']
  /** The dish that the recipe names. */
  recipeDish?: Dish
  /** The dish that is taken, in words, and how it was found. */
  dishSays?: string
  dishNote?: string
}

/** A recipe on its way in: its lines and steps, what the baker has answered, and the verdict. It outlives a reload. */
export function useImport() {
  const kitchen = useKitchen()
  const equipment = useEquipment()
  const all = useLocalStorage<Import | null>('mabbin.recipe', null, {
    serializer: { read: JSON.parse, write: JSON.stringify },
  })
  const verdict = shallowRef<Verdict>()
  const problem = ref<Problem>()
  const busy = ref(false)

  /** Reads a file or pasted text. A card of Mabbin's own is given back as it is: there is nothing to ask. */
  async function read(content: string, filename: string): Promise<ImportedDocument | undefined> {
    busy.value = true
    const got = await ask(
      api.POST('/api/v1/import', { body: { content, filename, kitchen: kitchen.kitchen?.id } }),
    )
    busy.value = false
    problem.value = got.problem
    if (!got.data || got.data.card) return got.data
    const d = got.data
    const method = d.reading?.method.map((s) => s.text) ?? []
    verdict.value = undefined
    all.value = {
      name: d.name || 'A card without a name',
      style: d.style ?? '',
      savoury: d.savoury,
      dishes: d.dishes,
      split: d.split,
      dishId: '',
      dish: d.dish,
      recipeDish: d.dish,
      dishSays: d.dish_sizes,
      dishNote: d.dish_note,
      cup: d.cup,
      cupWhy: d.cup_why,
      spoon: d.spoon,
      lines: d.lines,
      steps: d.steps,
      reading: d.reading,
      original: d.yield || method.length ? { serves: d.yield, method } : undefined,
    }
    return d
  }

  const question = computed(
    () =>
      all.value && {
        ...kitchen.measures,
        ...(all.value.cup && { cup: all.value.cup }),
        ...(all.value.spoon && { spoon: all.value.spoon }),
        style: all.value.style as 'crumble',
        savoury: all.value.savoury,
        dishes: all.value.dishes,
        split: all.value.split,
        dish: all.value.dish ?? kitchen.dishes.find((d) => d.id === all.value!.dishId)?.dish,
        lines: all.value.lines,
        steps: all.value.steps,
      },
  )
  const newest = newestOnly()
  watch(
    () => JSON.stringify(question.value),
    async () => {
      const isNewest = newest()
      if (!question.value) return
      const got = await ask(api.POST('/api/v1/recipe', { body: question.value }))
      if (!isNewest()) return
      problem.value = got.problem
      if (got.data) verdict.value = got.data
      else if (verdict.value) verdict.value = { rows: verdict.value.rows, open: verdict.value.open }
    },
    { immediate: true },
  )

  /** Changes one entry of a list of the recipe; undefined takes it out. */
  function change<K extends 'lines' | 'steps'>(of: K, i: number, to?: Import[K][number]) {
    if (!all.value) return
    const list = [...all.value[of]] as Import[K][number][]
    list.splice(i, 1, ...(to ? [to] : []))
    all.value = { ...all.value, [of]: list }
  }
  /** Answers a question about a line, or changes the line. */
  const answer = (i: number, how: Partial<LineRequest>) =>
    change('lines', i, { ...all.value!.lines[i]!, ...how })
  const rewrite = (i: number, text: string) => {
    const { bowl, at } = all.value!.lines[i]!
    change('lines', i, { text, bowl, at })
  }
  const step = (i: number, to?: RecipeStep) => change('steps', i, to)
  async function remember(container: string, g: number) {
    const s = kitchen.kitchen?.settings
    if (!s) return
    problem.value = await equipment.change(`A ${container} contains ${g} g`, 'settings', '', {
      ...s,
      containers: { ...s.containers, [container]: g },
    })
  }
  /** A sort by its name becomes a fruit of the kitchen's own, of the kind that was said: it is not asked about again. */
  async function sort(name: string, kind: string) {
    const key = name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '_')
    problem.value = await equipment.change(`${name} is known`, 'fruit', key, { copy_of: kind, name })
  }
  const rows = computed<RecipeRow[]>(() =>
    verdict.value?.rows.length === all.value?.lines.length ? (verdict.value?.rows ?? []) : [],
  )
  /** Gives the recipe away, mended, in its writer's own order and units. */
  async function save(format: FileFormat, how: 'copy' | 'file') {
    const { name, original, reading } = all.value!
    const got = await ask(
      api.POST('/api/v1/recipe/file', {
        body: { format, name, yield: original?.serves, reading, recipe: question.value! },
      }),
    )
    problem.value = got.problem
    if (!got.data) return
    if (how === 'copy') await navigator.clipboard.writeText(got.data.content)
    else hand(new Blob([got.data.content], { type: got.data.media_type }), got.data.filename)
  }
  const clear = () => {
    all.value = null
    verdict.value = undefined
    problem.value = undefined
  }

  return { all, verdict, rows, problem, busy, read, answer, rewrite, step, remember, sort, save, clear }
}
