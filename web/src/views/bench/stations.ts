/** The stations of the Bench, in one file that is fetched once a dessert is there. */
export { default as BakeStation } from './bake/BakeStation.vue'
export { default as DishStation } from './dish/DishStation.vue'
export { default as FinishStation } from './finish/FinishStation.vue'
export { default as FruitStation } from './fruit/FruitStation.vue'
export { default as JuiceStation } from './juice/JuiceStation.vue'
export { default as ToppingStation } from './topping/ToppingStation.vue'
