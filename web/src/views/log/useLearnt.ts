import { computed, ref, shallowRef } from 'vue'
import { api, ask, inWords, upon, type KitchenLearnt, type LearningSays, type Lesson } from '@/api/client'
import { useClash } from '@/stores/useClash'
import { useKitchen } from '@/stores/useKitchen'
import { useWork } from '@/stores/useWork'

const url = '/api/v1/kitchens/{kitchen}/learnt'

/** What the log teaches, and what the kitchen says of it. */
export function useLearnt() {
  const kitchen = useKitchen()
  const clash = useClash()
  const work = useWork()
  const learnt = shallowRef<KitchenLearnt>()
  const trouble = ref('')
  const path = computed(() => ({ kitchen: kitchen.kitchen!.id }))

  async function learn() {
    const got = await work.run(({ signal, id }) =>
      ask(api.GET(url, { params: { path: path.value, header: { 'X-Work': id } }, signal })),
    )
    if (got?.data) learnt.value = got.data
    trouble.value = got?.problem ? inWords(got.problem) : ''
  }
  async function say(how: (says: LearningSays) => void) {
    if (!learnt.value) await learn()
    if (!learnt.value) return
    const body = JSON.parse(JSON.stringify(learnt.value.says)) as LearningSays
    how(body)
    const got = await clash.settle('What the log teaches', learnt.value.revision, (ifMatch) =>
      ask(api.PUT(url, { params: { path: path.value, header: upon(ifMatch) }, body })),
    )
    if (got.data) learnt.value = got.data
    const problem = got.theirs ? clash.keptTheirs : got.problem
    trouble.value = problem ? inWords(problem) : ''
  }
  const same = (a: { what: string; key: string }, b: { what: string; key: string }) =>
    a.what === b.what && a.key === b.key
  const turn = (l: Lesson, on: boolean) =>
    say((s) => {
      s.off = s.off.filter((x) => !same(x, l))
      if (!on) s.off.push({ what: l.what, key: l.key })
    })
  const leaveOut = (bake: string, out: boolean) =>
    say((s) => {
      s.left_out = s.left_out.filter((x) => x !== bake)
      if (out) s.left_out.push(bake)
    })
  const changed = (oven: string, since: string) => say((s) => s.changed.push({ oven, since }))
  const left = (bake: string) => !!learnt.value?.says.left_out.includes(bake)
  return { learnt, trouble, work, learn, turn, leaveOut, changed, left }
}
