import { computed, ref, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { inWords, type TwoSettings, type WatchStart } from '@/api/client'
import { useDessert } from '@/stores/useDessert'
import { useKitchen } from '@/stores/useKitchen'
import { usePlan } from '@/stores/usePlan'
import { useWatch } from '@/stores/useWatch'
import { useWeighing } from '@/views/bench/ticket/useWeighing'

/** The way of the dessert on the Bench into the oven: what is asked before, and the clock that starts. */
export function useStartBake(refused: Ref<string>) {
  const router = useRouter()
  const kitchen = useKitchen()
  const watching = useWatch()
  const dessert = useDessert()
  const plan = usePlan()
  const weigher = useWeighing()

  /** The card that this is of, as it was saved. */
  const ofCard = computed(() => {
    const d = dessert.draft
    return d?.cardId && d.version && !dessert.unsaved ? { card_id: d.cardId, version: d.version } : {}
  })
  const title = computed(() => dessert.draft?.name.trim() || 'Unnamed')

  /** This dessert where it is on the watch already. */
  const inOven = computed(() =>
    watching.desserts.find(
      (w) =>
        w.title === title.value && w.card_id === ofCard.value.card_id && w.version === ofCard.value.version,
    ),
  )

  /** What will not come out right is asked about, once; and no single key starts a clock. */
  const asking = ref(false)
  /** What is in the oven already and wants another setting. */
  const shared = ref<TwoSettings[]>([])
  let askedOf = ''
  async function toOven(byKey = false) {
    const verdict = plan.answer?.verdict
    const of = JSON.stringify([dessert.draft?.request, plan.answer?.plan.stages])
    const next = goingIn()
    shared.value = next ? await watching.twoSettings(next) : []
    const right = !verdict || verdict.right || (verdict.nearly && !verdict.mend)
    const fine = right && !shared.value.length
    if (!byKey && (fine || askedOf === of)) return void intoOven()
    askedOf = of
    asking.value = true
  }

  /** What goes into the oven: by the stages that are on the strip now. */
  function goingIn(): WatchStart | undefined {
    const d = dessert.draft
    const stages = plan.answer?.plan.stages
    if (!d || !stages) return undefined
    return {
      id: crypto.randomUUID(),
      title: title.value,
      ...ofCard.value,
      request: kitchen.ours(d.request),
      setting: { ...d.setting, stages },
      weather: plan.weather,
      weighed: weigher.weighed,
    }
  }

  /** The clock starts. */
  async function intoOven() {
    const next = goingIn()
    if (!next) return
    const problem = await watching.start(next)
    refused.value = problem ? inWords(problem) : ''
    if (problem) return
    weigher.afresh()
    weigher.on = false
    void router.push('/watch')
  }

  return { title, ofCard, inOven, asking, shared, toOven, intoOven }
}
