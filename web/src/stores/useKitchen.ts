import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  ask,
  withoutBody,
  upon,
  type BalanceRequest,
  type ChoiceName,
  type FruitInput,
  type Resources,
  type ResourceSettings,
  type Kitchen,
  type Larder,
  type Own,
  type OwnRow,
  type Problem,
  type Settings,
  type KitchenDish,
  type KitchenOven,
} from '@/api/client'
import { lower, readBy, short, units } from '@/format/amounts'
import { useClash } from './useClash'

export type Kind = 'fruit' | 'ingredient' | 'thickener' | 'topping'
/** What is kept of a dish and of an oven, in addition to its id. */
export type DishBody = Pick<KitchenDish, 'name' | 'count' | 'dish'>
export type OvenBody = Pick<KitchenOven, 'name' | 'oven'>
type Row =
  | Larder['fruits'][number]
  | Larder['ingredients'][number]
  | Larder['thickeners'][number]
  | Larder['toppings'][number]

/** The kitchen that is worked in, what stands on its shelf, and the larder's tables with the kitchen's own figures. */
export const useKitchen = defineStore('kitchen', () => {
  /** The tables, in the kitchen's words. */
  const larder = shallowRef<Larder>()
  const kitchen = ref<Kitchen>()
  const all = ref<Kitchen[]>([])
  const chosen = useLocalStorage('mabbin.kitchen', '')
  const dishes = ref<KitchenDish[]>([])
  const ovens = ref<KitchenOven[]>([])
  const own = shallowRef<Own>({})
  const trouble = ref<Problem>()
  const ready = ref(false)
  const clash = useClash()

  /** A kitchen's dishes and ovens, in its words. */
  function askShelf(id: string) {
    const path = { params: { path: { kitchen: id } } }
    return Promise.all([
      ask(api.GET('/api/v1/kitchens/{kitchen}/dishes', path)),
      ask(api.GET('/api/v1/kitchens/{kitchen}/ovens', path)),
    ])
  }

  /** Fetches what is missing. Called again after trouble, it goes on where it stopped. */
  async function load() {
    const kitchens = await ask(api.GET('/api/v1/kitchens'))
    if (kitchens.problem) return fail(kitchens.problem)
    all.value = kitchens.data
    kitchen.value = kitchens.data.find((k) => k.id === chosen.value) ?? kitchens.data[0]
    readAs(kitchen.value?.settings)
    const tables = await ask(api.GET('/api/v1/larder'))
    if (tables.problem) return fail(tables.problem)
    readTables(tables.data)
    if (kitchen.value) {
      const path = { params: { path: { kitchen: kitchen.value.id } } }
      const [[d, o], w] = await Promise.all([
        askShelf(kitchen.value.id),
        ask(api.GET('/api/v1/kitchens/{kitchen}/own', path)),
      ])
      if (d.problem) return fail(d.problem)
      if (o.problem) return fail(o.problem)
      if (w.problem) return fail(w.problem)
      dishes.value = d.data
      ovens.value = o.data
      own.value = w.data
    }
    trouble.value = undefined
    ready.value = true
  }

  /** Makes a new kitchen that measures by a region's habits. */
  const begin = (name: string, habit: string | undefined) =>
    ask(
      api.POST('/api/v1/kitchens', {
        body: {
          id: crypto.randomUUID(),
          name,
          settings: larder.value?.habits.find((h) => h.key === habit)?.settings,
        },
      }),
    )

  async function rename(name: string): Promise<Problem | undefined> {
    if (!kitchen.value) return undefined
    const path = { kitchen: kitchen.value.id }
    const got = await clash.settle("The kitchen's name", kitchen.value.revision, (ifMatch) =>
      ask(api.PUT('/api/v1/kitchens/{kitchen}', { params: { path, header: upon(ifMatch) }, body: { name } })),
    )
    if (got.data) {
      kitchen.value = got.data
      all.value = all.value.map((k) => (k.id === got.data.id ? got.data : k))
    }
    return got.theirs ? clash.keptTheirs : got.problem
  }

  /** Works in a kitchen that has just begun: what is on the Bench goes with it. */
  const enter = (id: string) => (chosen.value = id)

  /** Goes to another kitchen. What is on the Bench stays behind in this one. */
  function choose(id: string) {
    const bench = ['mabbin.bench', 'mabbin.bench.saved']
    const keep = bench.map((k) => localStorage.getItem(`${k}@${id}`))
    for (const k of bench) {
      const now = localStorage.getItem(k)
      if (now !== null && kitchen.value) localStorage.setItem(`${k}@${kitchen.value.id}`, now)
    }
    bench.forEach((k, i) => (keep[i] == null ? localStorage.removeItem(k) : localStorage.setItem(k, keep[i])))
    sessionStorage.clear() // what can be undone is of this kitchen
    localStorage.setItem('mabbin.kitchen', id)
    location.assign('/')
  }

  /** What is left to do once a kitchen has been taken away. */
  async function leave(id: string) {
    for (const k of ['mabbin.bench', 'mabbin.bench.saved']) localStorage.removeItem(`${k}@${id}`)
    if (kitchen.value?.id !== id) return load()
    const other = all.value.find((k) => k.id !== id)
    kitchen.value = undefined // what lies on the Bench was of that one
    choose(other?.id ?? '')
  }

  function fail(p: Problem) {
    trouble.value = p
    setTimeout(() => void load(), 4000)
  }

  function readTables(tables: Larder) {
    larder.value = tables
    readBy(tables.reading)
  }

  /** Reads as the kitchen does from now on. */
  function readAs(s: Settings | undefined) {
    if (!s) return
    const { weights, heat, lengths, cup, english = 'uk', decimal = 'point' } = s
    Object.assign(units, { weights, heat, lengths, cup, english, decimal })
  }
  // What was answered before is in other words: the tables are asked for again.
  watch(units, async () => {
    if (!larder.value) return
    const got = await ask(api.GET('/api/v1/larder'))
    if (got.data) readTables(got.data)
    if (!kitchen.value) return
    const [d, o] = await askShelf(kitchen.value.id)
    if (d.data) dishes.value = d.data
    if (o.data) ovens.value = o.data
  })

  /** The tables' rows with the kitchen's own in their place, and those that only it has after them. */
  function withOwn<T extends Row>(rows: T[], mine: Record<string, OwnRow> | undefined): T[] {
    if (!mine) return rows
    const changed = (row: T, key: string, o: OwnRow): T => ({
      ...row,
      key,
      name: o.name || row.name,
      figures: { ...row.figures, ...o.values },
      ...(o.allergens ? { allergens: o.allergens, check_label: false } : {}),
    })
    const out = rows.map((r) => (mine[r.key] ? changed(r, r.key, mine[r.key]!) : r))
    for (const [key, o] of Object.entries(mine)) {
      const from = o.copy_of && rows.find((r) => r.key === o.copy_of)
      if (from && !rows.some((r) => r.key === key)) out.push(changed(from, key, o))
    }
    return out
  }
  const fruits = computed(() => withOwn(larder.value?.fruits ?? [], own.value.fruits))
  const ingredients = computed(() => withOwn(larder.value?.ingredients ?? [], own.value.ingredients))
  const thickeners = computed(() => withOwn(larder.value?.thickeners ?? [], own.value.thickeners))
  const toppings = computed(() => withOwn(larder.value?.toppings ?? [], own.value.toppings))
  /** What may be chosen, and how one of it is reported. */
  const choices = (name: ChoiceName) => larder.value?.choices[name] ?? []
  const word = (name: ChoiceName, value: string | undefined) =>
    choices(name).find((c) => c.value === value)?.label ?? value ?? ''
  /** What is taken where nothing was chosen. */
  const usual = (name: ChoiceName) => choices(name).find((c) => c.usual)?.value ?? ''
  /** The same for a list to pick from, each value one that the field may have. */
  const options = <T extends string>(name: ChoiceName) =>
    choices(name).map((c) => [c.value as T, c.label] as const)
  const allergenNames = computed(() => new Map((larder.value?.allergens ?? []).map((a) => [a.key, a.name])))
  /** Allergens as they are called on a list. */
  const allergens = (keys: string[]) => keys.map((k) => allergenNames.value.get(k) ?? k).join(', ')
  /** Dishes as shops sell them, to begin with. */
  const typical = computed(() => (larder.value?.typical_dishes ?? []).map((d) => ({ ...d, id: d.key })))
  const keyed = <T extends { key: string }>(pick: () => T[] | undefined) =>
    computed(() => new Map((pick() ?? []).map((x) => [x.key, x])))
  const fruit = keyed(() => fruits.value)
  const ingredient = keyed(() => ingredients.value)
  /** A fruit's or an ingredient's name by its key. */
  const nameOf = (key: string) => fruit.value.get(key)?.name ?? ingredient.value.get(key)?.name ?? key

  /** The same within a sentence. */
  const calledOf = (key: string) => lower(short(nameOf(key)))

  /** A fruit as it is usually made ready. */
  function picked(key: string, share: number): FruitInput {
    return fruit.value.get(key)?.keeps_skin ? { key, share, peeled: false } : { key, share }
  }

  /** A request with the kitchen's own measures, and its own figures of what is in it. */
  function ours(r: BalanceRequest): BalanceRequest {
    const s = kitchen.value?.settings
    const out = { ...r, cup: s?.cup ?? r.cup, spoon: s?.spoon ?? r.spoon, eggs: s?.eggs ?? r.eggs }
    const used = JSON.stringify([r.fruits, r.liquids, r.extras, r.topping, r.thickener])
    const pick = (rows: Record<string, OwnRow> | undefined, all: boolean) =>
      Object.fromEntries(Object.entries(rows ?? {}).filter(([k]) => all || used.includes(`"${k}"`)))
    const mine = {
      fruits: { ...r.own?.fruits, ...pick(own.value.fruits, false) },
      ingredients: { ...r.own?.ingredients, ...pick(own.value.ingredients, true) },
      thickeners: { ...r.own?.thickeners, ...pick(own.value.thickeners, false) },
      toppings: { ...r.own?.toppings, ...pick(own.value.toppings, false) },
    }
    if (Object.values(mine).some((rows) => Object.keys(rows).length)) out.own = mine
    return out
  }

  /** What is read and judged by the kitchen's measures. */
  const measures = computed(() => {
    const s = kitchen.value?.settings
    return { cup: s?.cup, spoon: s?.spoon, eggs: s?.eggs, containers: s?.containers, own: own.value }
  })

  async function setSettings(s: Settings): Promise<Problem | undefined> {
    if (!kitchen.value) return undefined
    const path = { kitchen: kitchen.value.id }
    const got = await clash.settle('Units of the kitchen', kitchen.value.revision, (ifMatch) =>
      ask(
        api.PUT('/api/v1/kitchens/{kitchen}/settings', { params: { path, header: upon(ifMatch) }, body: s }),
      ),
    )
    if (got.data) {
      kitchen.value = got.data
      readAs(got.data.settings)
    }
    return got.theirs ? clash.keptTheirs : got.problem
  }

  /** A list with one of it as it is now, or without it, by name. */
  const withOne = <T extends { id: string; name: string }>(list: T[], id: string, one: T | undefined) =>
    [...list.filter((x) => x.id !== id), ...(one ? [one] : [])].sort((a, b) => a.name.localeCompare(b.name))

  /** Keeps a dish on the shelf, or takes it off. Cards have their own copy. */
  async function setDish(id: string, body: DishBody | undefined): Promise<Problem | undefined> {
    if (!kitchen.value) return undefined
    const path = { kitchen: kitchen.value.id, dish: id }
    const at = { params: { path } }
    const url = '/api/v1/kitchens/{kitchen}/dishes/{dish}'
    if (!body) {
      const gone = await ask(withoutBody(api.DELETE(url, at)))
      if (gone.data) dishes.value = withOne(dishes.value, id, undefined)
      return gone.problem
    }
    const known = dishes.value.find((d) => d.id === id)
    const got = await clash.settle(known?.name ?? body.name, known?.revision, (ifMatch) =>
      ask(
        known
          ? api.PUT(url, { params: { path, header: upon(ifMatch) }, body })
          : api.POST('/api/v1/kitchens/{kitchen}/dishes', { params: { path }, body: { id, ...body } }),
      ),
    )
    if (got.data) dishes.value = withOne(dishes.value, id, got.data)
    return got.theirs ? clash.keptTheirs : got.problem
  }

  /** Keeps an oven, or takes it away. Cards and the log have their own copy. */
  async function setOven(id: string, body: OvenBody | undefined): Promise<Problem | undefined> {
    if (!kitchen.value) return undefined
    const path = { kitchen: kitchen.value.id, oven: id }
    const at = { params: { path } }
    const url = '/api/v1/kitchens/{kitchen}/ovens/{oven}'
    if (!body) {
      const gone = await ask(withoutBody(api.DELETE(url, at)))
      if (gone.data) ovens.value = withOne(ovens.value, id, undefined)
      return gone.problem
    }
    const known = ovens.value.find((o) => o.id === id)
    const got = await clash.settle(known?.name ?? body.name, known?.revision, (ifMatch) =>
      ask(api.PUT(url, { params: { path, header: upon(ifMatch) }, body })),
    )
    if (got.data) ovens.value = withOne(ovens.value, id, got.data)
    return got.theirs ? clash.keptTheirs : got.problem
  }

  /** Kitchen for its days; fetched when it is asked for. */
  const resources = ref<ResourceSettings>()
  async function loadResources(): Promise<Problem | undefined> {
    if (!kitchen.value) return undefined
    const path = { kitchen: kitchen.value.id }
    const got = await ask(api.GET('/api/v1/kitchens/{kitchen}/resources', { params: { path } }))
    if (got.data) resources.value = got.data
    return got.problem
  }
  async function setResources(body: Resources): Promise<Problem | undefined> {
    if (!kitchen.value) return undefined
    const path = { kitchen: kitchen.value.id }
    const got = await clash.settle('Kitchen', resources.value?.revision, (ifMatch) =>
      ask(api.PUT('/api/v1/kitchens/{kitchen}/resources', { params: { path, header: upon(ifMatch) }, body })),
    )
    if (got.data) resources.value = got.data
    return got.theirs ? clash.keptTheirs : got.problem
  }

  /** Keeps a row of the kitchen's own, or goes back to the table's. */
  async function setOwn(kind: Kind, key: string, row: OwnRow | undefined): Promise<Problem | undefined> {
    if (!kitchen.value) return undefined
    const at = { params: { path: { kitchen: kitchen.value.id, kind, key } } }
    const url = '/api/v1/kitchens/{kitchen}/own/{kind}/{key}'
    const got = await ask(row ? api.PUT(url, { ...at, body: row }) : api.DELETE(url, at))
    if (got.data) own.value = got.data
    return got.problem
  }

  return {
    larder,
    kitchen,
    all,
    begin,
    enter,
    rename,
    choose,
    leave,
    dishes,
    ovens,
    own,
    trouble,
    ready,
    load,
    fruits,
    ingredients,
    typical,
    choices,
    usual,
    options,
    word,
    allergens,
    ours,
    picked,
    measures,
    setSettings,
    setDish,
    setOven,
    setOwn,
    resources,
    loadResources,
    setResources,
    fruit,
    ingredient,
    nameOf,
    calledOf,
    thickeners,
    toppings,
    thickener: keyed(() => larder.value?.thickeners),
    topping: keyed(() => larder.value?.toppings),
    material: keyed(() => larder.value?.materials),
    style: keyed(() => larder.value?.styles),
    base: keyed(() => larder.value?.bases),
    finish: keyed(() => larder.value?.finishes),
  }
})
