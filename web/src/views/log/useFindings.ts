import { computed, ref, shallowRef } from 'vue'
import {
  api,
  ask,
  inWords,
  upon,
  type KitchenFindings,
  type LearningPreferences,
  type Finding,
  type Problem,
} from '@/api/client'
import { newestOnly } from '@/api/newest'
import { useClash } from '@/stores/useClash'
import { useKitchen } from '@/stores/useKitchen'
import { useWork } from '@/stores/useWork'

const url = '/api/v1/kitchens/{kitchen}/findings'

/** What your log shows, and what the kitchen says of it. */
export function useFindings() {
  const kitchen = useKitchen()
  const clash = useClash()
  const work = useWork()
  const learnt = shallowRef<KitchenFindings>()
  const trouble = ref('')
  const path = computed(() => ({ kitchen: kitchen.kitchen!.id }))

  const newest = newestOnly()
  /** What is known at once, and what the log teaches by now once the server has learnt from it. */
  async function learn() {
    const isNewest = newest()
    for (let again = true; again;) {
      const got = await ask(api.GET(url, { params: { path: path.value } }))
      if (!isNewest()) return
      again = await show(got)
      if (!isNewest()) return
    }
  }
  /** Shows an answer; true: what was updated meanwhile is to be asked for. */
  async function show(got: { data?: KitchenFindings; problem?: Problem }) {
    if (got.data) learnt.value = got.data
    trouble.value = got.problem ? inWords(got.problem) : ''
    return !!got.data?.work && (await work.follow(got.data.work))
  }
  async function say(how: (label: LearningPreferences) => void) {
    if (!learnt.value) await learn()
    if (!learnt.value) return
    const isNewest = newest()
    const body = JSON.parse(JSON.stringify(learnt.value.preferences)) as LearningPreferences
    how(body)
    const got = await clash.settle('What your log shows', learnt.value.revision, (ifMatch) =>
      ask(api.PUT(url, { params: { path: path.value, header: upon(ifMatch) }, body })),
    )
    const problem = got.theirs ? clash.keptTheirs : got.problem
    if ((await show({ ...got, problem })) && isNewest()) await learn()
  }
  const same = (a: { what: string; key: string }, b: { what: string; key: string }) =>
    a.what === b.what && a.key === b.key
  const turn = (l: Finding, on: boolean) =>
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
  const left = (bake: string) => !!learnt.value?.preferences.left_out.includes(bake)
  return { learnt, trouble, work, learn, turn, leaveOut, changed, left }
}
