import { computed, ref, watch, type Ref } from 'vue'
import { faultAt, type Problem } from '@/api/client'
import { type Kept, useEquipment } from '@/stores/useEquipment'

const copy = <T>(x: T): T => JSON.parse(JSON.stringify(x)) as T

/** One of the things in a list on the shelf, changed as a copy until it is kept. */
export function useKitchenDraft<T extends 'dish' | 'oven', L extends { id: string; name: string }>(
  thing: T,
  all: () => L[],
  bodyOf: (x: L) => Kept[T],
) {
  const equipment = useEquipment()
  const chosen = ref(all()[0]?.id ?? '')
  const draft: Ref<{ id: string; fresh: boolean; body: Kept[T] } | undefined> = ref()
  const problem = ref<Problem>()
  const stored = ref('')
  const current = computed(() => all().find((x) => x.id === chosen.value))

  function begin(id: string, fresh: boolean, body: Kept[T]) {
    problem.value = undefined
    stored.value = ''
    draft.value = { id, fresh, body: copy(body) }
  }
  const edit = (x: L) => begin(x.id, false, bodyOf(x))
  watch(
    current,
    (x) => {
      if (x) edit(x)
      else if (!draft.value?.fresh) draft.value = undefined
    },
    { immediate: true },
  )
  watch(
    () => equipment.touched,
    (t) => {
      if (t?.thing === thing) chosen.value = all().some((x) => x.id === t.id) ? t.id : (all()[0]?.id ?? '')
    },
  )
  const changed = computed(() => {
    const d = draft.value
    const c = current.value
    return !!d && (d.fresh || !c || JSON.stringify(d.body) !== JSON.stringify(bodyOf(c)))
  })

  function add(fresh: Kept[T]) {
    chosen.value = ''
    begin(crypto.randomUUID(), true, fresh)
  }
  async function keep() {
    const d = draft.value
    if (!d) return
    const name = d.body.name.trim()
    problem.value = await equipment.change(`${name}, ${d.fresh ? 'new' : 'changed'}`, thing, d.id, {
      ...d.body,
      name,
    })
    if (problem.value) return
    chosen.value = d.id
    if (current.value) edit(current.value)
    stored.value = `${name} saved.`
  }
  /** Takes it away; says is what undo will name. */
  async function takeAway(label: (name: string) => string) {
    const c = current.value
    if (!c) return
    problem.value = await equipment.change(label(c.name), thing, c.id, undefined)
    if (!problem.value) chosen.value = all()[0]?.id ?? ''
  }
  const fault = (pointer: string) => faultAt(problem.value, pointer)
  return { chosen, draft, problem, stored, current, edit, changed, add, keep, takeAway, fault }
}
