/** A dish at one minute of its bake. */
export interface Moment {
  /** Of the bake: that of the point of its curves that is shown. */
  minute: number
  /** The topping is not on yet, or the second one is not. */
  bare: boolean
  late: boolean
  rim_c: number
  middle_c: number
  /** How far the fruit has sunk: 0 as filled, 1 as at the table. */
  sunk: number
  /** Of the top and the base: 1 is golden, and baked. */
  colour: number
  base: number
  rim_bubbles: boolean
  middle_bubbles: boolean
}
