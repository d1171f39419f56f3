import type { CurveRef } from '../../../statements/shared/slots'
import type { Relation } from '../grammar'

/** A bound or both of a span; what is not said is left out. */
export interface SpanPart {
  from?: string
  to?: string
}

/** What a request says besides the words that ask for a kind of line: each with the words it took. */
export interface Parts {
  refs: CurveRef[]
  place?: string
  /** Two places that words join: "through 1 and 3". */
  pair?: readonly [string, string]
  /** A point of the plane, and whether it was said to lie on the curve. */
  point?: { x: string; y: string; on: boolean }
  span?: SpanPart
  /** "from 0", and "from 0 to x". */
  openFrom?: string
  count?: string
  rule?: string
  side?: 'left' | 'right'
  step?: string
  degree?: string
  slope?: string
  /** What a curve is compared with: a number, or a curve. */
  compared?: { relation: Relation; target: string; below?: string }
  /** The constant of an antiderivative, as the value at a place. */
  start?: { at: string; value: string }
  /** What an antiderivative begins with. */
  plus?: string
  axis?: 'x' | 'y'
  /** What a motion is read as. */
  readAs?: string
  /** How far the second place of a quotient is from the first. */
  h?: string
  /** What a graph is taken as, and what its conclusions are about. */
  taken?: string
  about?: string
}
export type PartName = keyof Parts

/** The words that are left, and for each part that was found the words it was found in. */
export interface Taken {
  parts: Parts
  left: string
  words: Partial<Record<PartName, string>>
}

export interface Around {
  /** The letter of the variable. */
  letter: string
  isCurve(name: string): boolean
}

export type Found = Partial<Parts> | null
/** A part as people say it, and what is made of it; null where it is something else. */
export interface Rule {
  pattern: RegExp
  read(groups: readonly string[], taken: Taken, around: Around): Found
}

/** Stands where words were taken out, so that what stood apart does not come together. */
export const gap = ' \uE000 '

/** Whether an end or a place is the name of a curve, which is then meant. */
export const isCurveName = (text: string, { isCurve }: Around) =>
  isCurve(text.replace(/['’′″\s]/g, ''))
