import type { Jet, Look } from '../arithmetic/jets'

/** A tree compiled for jets: the values of its names stand in slots. */
export type JetCode = (x: Jet, p: Float64Array, look: Look) => Jet

/** Where the value of each name stands. */
export interface Slots {
  variable: string
  of: ReadonlyMap<string, number>
}
