import type { Interval } from '../arithmetic/intervals'

/** A zero with what is known of it. */
export interface Zero {
  enclosure: Interval
  /** How often it counts, where that is proven; null for a zero that is not settled. */
  multiplicity: number | null
  proven: boolean
}

export interface ZeroSearch {
  zeros: Zero[]
  /** Stretches that could not be settled. */
  unresolved: Interval[]
  /** The function is 0 throughout. */
  vanishes: boolean
}
