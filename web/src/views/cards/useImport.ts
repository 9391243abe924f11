import { useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  ask,
  type Dish,
  type ImportedDocument,
  type LineRequest,
  type Original,
  type Problem,
  type RecipeRow,
  type Verdict,
} from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useKitchen } from '@/stores/useKitchen'
import { useEquipment } from '@/stores/useEquipment'

interface Import {
  name: string
  style: string
  dishId: string
  /** A dish that stands on no shelf. */
  dish?: Dish
  lines: LineRequest[]
  ovenC?: number
  minutes?: number
  original?: Original
  /** Whose cup it measures with; left out: the kitchen's. */
  cup?: 'us' | 'metric' | 'imperial'
  cupWhy?: string
  /** The dish that the recipe names. */
  recipeDish?: Dish
  /** The dish that is taken, in words. */
  dishSays?: string
}

/** The bake as it was written, where it says how hot and how long. */
const baked = ({ ovenC, minutes }: Import) =>
  ovenC && minutes ? { stages: [{ oven_c: ovenC, minutes }] } : undefined

/** A recipe on its way in: its lines, what the baker has answered, and the verdict. It outlives a reload. */
export function useImport() {
  const kitchen = useKitchen()
  const equipment = useEquipment()
  const all = useLocalStorage<Import | null>('mabbin.import', null, {
    serializer: { read: JSON.parse, write: JSON.stringify },
  })
  const verdict = shallowRef<Verdict>()
  const problem = ref<Problem>()
  const busy = ref(false)

  /** Reads a file or pasted text. A card of Mabbin's own is given back as it is: there is nothing to ask. */
  async function read(content: string, filename: string): Promise<ImportedDocument | undefined> {
    busy.value = true
    const got = await ask(api.POST('/api/v1/import', { body: { content, filename } }))
    busy.value = false
    problem.value = got.problem
    if (!got.data || got.data.card) return got.data
    const d = got.data
    const known = kitchen.larder?.styles.find((s) => s.key === d.style)
    verdict.value = undefined
    all.value = {
      name: d.name || 'A card without a name',
      style: known?.key ?? kitchen.choices('style')[0]?.value ?? '',
      dishId: d.dish ? '' : (kitchen.dishes[0]?.id ?? ''),
      dish: d.dish,
      recipeDish: d.dish,
      dishSays: d.dish_sizes,
      cup: d.cup,
      cupWhy: d.cup_why,
      lines: d.lines.map((l) => ({ text: l.text, bowl: l.bowl })),
      ovenC: d.oven_c || undefined,
      minutes: d.minutes || undefined,
      original: d.yield || d.method.length ? { serves: d.yield, method: d.method } : undefined,
    }
    return d
  }

  const question = computed(
    () =>
      all.value && {
        ...kitchen.measures,
        ...(all.value.cup && { cup: all.value.cup }),
        style: all.value.style as 'crumble',
        dish: all.value.dish ?? kitchen.dishes.find((d) => d.id === all.value!.dishId)?.dish,
        lines: all.value.lines,
        setting: baked(all.value),
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

  /** Answers a question about a line, or changes the line. */
  function answer(i: number, how: Partial<LineRequest>) {
    if (!all.value) return
    const lines = [...all.value.lines]
    lines[i] = { ...lines[i]!, ...how }
    all.value = { ...all.value, lines }
  }
  const rewrite = (i: number, text: string) => {
    if (!all.value) return
    const lines = [...all.value.lines]
    lines[i] = { text, bowl: lines[i]!.bowl }
    all.value = { ...all.value, lines }
  }
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
  const clear = () => {
    all.value = null
    verdict.value = undefined
    problem.value = undefined
  }

  return { all, verdict, rows, problem, busy, read, answer, rewrite, remember, sort, clear }
}
