import type { RealFunction } from '../evaluate/compile'
import type { Interval } from '../arithmetic/intervals'
import type { Tree } from '../formula/tree'
import type { OneSided } from './limits/oneSided'
import type { Sign } from './sign'
import type { Split } from './split'

export interface Feature {
  x: number
  value: number
  /** Surely holds the place. */
  enclosure: [lo: number, hi: number]
  /** False where the digits say so and no proof does. */
  proven: boolean
}

export interface TurningPoint extends Feature {
  kind: 'maximum' | 'minimum'
  /** f′ is 0 there; false where it is missing, as at a kink. */
  vanishes: boolean
}

export interface Inflection extends Feature {
  /** False at a kink at which the concavity changes. */
  hasTangent: boolean
  /** f″ is 0 there; false where it is missing or jumps over 0. */
  vanishes: boolean
}

/** A value that no value nearby exceeds, or falls short of, at a place that is no turning point. */
export interface Outstanding extends Feature {
  kind: 'maximum' | 'minimum'
  /** Why it is none: f is not continuous there, or ends. */
  where: BreakKind | 'end'
}

export type BreakKind =
  | 'jump'
  | 'kink'
  | 'cusp'
  | 'vertical'
  | 'hole'
  | 'displaced'
  | 'pole'
  | 'domain-end'
  | 'oscillation'

export interface Break {
  x: number
  kind: BreakKind
  enclosure: [lo: number, hi: number]
  /** Set for an end of the domain that is a place of its own, with no values beside it. */
  isolated?: true
}

export interface Extreme {
  x: number
  value: number
  at: Feature[]
}

export interface Examination {
  zeros: Feature[]
  criticalPoints: Feature[]
  turningPoints: TurningPoint[]
  inflections: Inflection[]
  /** The highest and lowest values nearby at jumps, displaced points and ends. */
  outstanding: Outstanding[]
  breaks: Break[]
  rising: [number, number][]
  falling: [number, number][]
  concaveUp: [number, number][]
  concaveDown: [number, number][]
  /** Absolute extremes on the closed span, ends included; null where none is attained. */
  highest: Extreme | null
  lowest: Extreme | null
  /** Whether that none is attained is certain, and not only that none could be told. */
  extremesDecided: { highest: boolean; lowest: boolean }
  /** The places that decide the extremes: the ends and the critical points. */
  candidates: Feature[]
  /** Stretches on which the function is constant. */
  level: [number, number][]
  /** Stretches on which it is straight without being level. */
  straight: [number, number][]
  /** Every list above is proven to be whole. */
  complete: boolean
  /** Stretches that could not be settled. */
  unresolved: [number, number][]
  /** Those of them on which its sign could not be settled. */
  openSigns: [number, number][]
  /** Those on which it could not be settled where, or how, it breaks. */
  openBreaks: [number, number][]
  /** Boxes looked at, as a measure of the work. */
  boxes: number
}

/** A place between two cells, in order along the span. */
export interface Mark {
  enclosure: Interval
  /** Where the formula may break; null at a zero of a derivative inside a stretch. */
  split: Split | null
  proven: boolean
}

/**
 * The signs of a derivative between two marks: none where it is 0 throughout, and one for each piece
 * between stretches on which its zeros could not be settled; 0 where that is not settled.
 */
export interface Course {
  pieces: readonly { from: number; to: number; sign: Sign }[]
  /** Its signs at the ends of the cell; 0 where they are not known. */
  start: Sign
  end: Sign
}

/** A stretch without marks inside: f′ and f″ keep their signs on it. */
export interface Cell {
  from: number
  to: number
  tree: Tree | null
  /** f′ as a formula. */
  slope: Tree | null
  rise: Course
  bend: Course
  /** f′ is 0 throughout. */
  level: boolean
  /** f″ is. */
  straight: boolean
  settled: boolean
}

export interface Study {
  tree: Tree
  variable: string
  f: RealFunction
  from: number
  to: number
  cells: readonly Cell[]
  marks: readonly Mark[]
}

/** What f does at a mark. */
export interface Joint {
  mark: Mark
  continuous: boolean
  /** The sign of right slope − left slope; 0 where f has a slope. */
  slopeStep: number
  /** 1 at a jump over which f rises: its value lies between the limits on both sides; -1 where it falls. */
  valueStep: Sign
  critical: Feature | null
  turning: TurningPoint | null
  inflection: Inflection | null
  outstanding: Outstanding | null
  break: Break | null
  /** The place where the domain ends, if it belongs to it. */
  end: Feature | null
  /** Limits of f on both sides, for the extremes. */
  limits: OneSided[]
  settled: boolean
}
