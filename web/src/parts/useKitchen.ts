import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, ask, type Kitchen, type Larder, type Oven, type Problem, type ShelfDish } from '@/api/client'

/** The kitchen that is worked in, what stands on its shelf, and the larder's tables. */
export const useKitchen = defineStore('kitchen', () => {
  const larder = shallowRef<Larder>()
  const kitchen = ref<Kitchen>()
  const dishes = ref<ShelfDish[]>([])
  const ovens = ref<Oven[]>([])
  const trouble = ref<Problem>()
  const ready = ref(false)

  /** Fetches what is missing. Called again after trouble, it goes on where it stopped. */
  async function load() {
    if (!larder.value) {
      const got = await ask(api.GET('/api/v1/larder'))
      if (got.problem) return fail(got.problem)
      larder.value = got.data
    }
    const kitchens = await ask(api.GET('/api/v1/kitchens'))
    if (kitchens.problem) return fail(kitchens.problem)
    kitchen.value = kitchens.data[0]
    if (kitchen.value) {
      const path = { params: { path: { kitchen: kitchen.value.id } } }
      const [d, o] = await Promise.all([
        ask(api.GET('/api/v1/kitchens/{kitchen}/dishes', path)),
        ask(api.GET('/api/v1/kitchens/{kitchen}/ovens', path)),
      ])
      if (d.problem) return fail(d.problem)
      if (o.problem) return fail(o.problem)
      dishes.value = d.data
      ovens.value = o.data
    }
    trouble.value = undefined
    ready.value = true
  }

  function fail(p: Problem) {
    trouble.value = p
    setTimeout(() => void load(), 4000)
  }

  const byKey = <T extends { key: string }>(pick: (l: Larder) => T[]) =>
    computed(() => new Map(larder.value ? pick(larder.value).map((x) => [x.key, x]) : []))

  return {
    larder,
    kitchen,
    dishes,
    ovens,
    trouble,
    ready,
    load,
    fruit: byKey((l) => l.fruits),
    thickener: byKey((l) => l.thickeners),
    topping: byKey((l) => l.toppings),
    ingredient: byKey((l) => l.ingredients),
    material: byKey((l) => l.materials),
    style: byKey((l) => l.styles),
  }
})
