import { curveText, type CurveRef } from '../../../statements/shared/slots'
import { joining } from '../../joining'
import type { PartName, Parts } from '../parts'

/** What the reader knows while it puts a request into the words of the lines. */
export interface Asked {
  parts: Parts
  /** The words that were left, joined, in lower case. */
  words: string
  letter: string
  /** A letter that no curve has yet, the first of those given that is free. */
  free(...letters: string[]): string
  /** Whether a point lies on a curve; null where that cannot be told. */
  liesOn(ref: CurveRef, point: { x: string; y: string }): boolean | null
  /**
   * The slope of a line that is a curve or is written as a formula of the variable, or of the line
   * across it; null where it has none.
   */
  slopeOf(line: string, across: boolean): string | null
}

/** Something that can be asked for, in the words that people have for it. */
interface Wording {
  /** Phrases, of which all words of one must be there; words that only join others are left out. */
  said: string
  /** It may be asked for by its parts alone. */
  bare?: true
  /** Words that may stand with it and change nothing. */
  also?: string
  /** Parts it answers to; any other part that was said is not understood. */
  uses: readonly PartName[]
  /** Why nothing is built, where the nearest thing is offered instead. */
  why?: (ref: CurveRef, asked: Asked) => string
}

/** What is asked about one curve. */
export interface AskOfOne extends Wording {
  /** What lines call it, likeliest first; null where it does not apply. */
  own(ref: CurveRef, asked: Asked): readonly string[] | null
}
/** What is asked about two curves together. */
export interface AskOfTwo extends Wording {
  both(a: CurveRef, b: CurveRef, asked: Asked): readonly string[] | null
}
export type Ask = AskOfOne | AskOfTwo

/** The span, or that of two places, as lines call it. */
export const over = ({ span, pair }: Parts) => {
  const found = span ?? (pair ? { from: pair[0], to: pair[1] } : undefined)
  if (!found) return ''
  if (found.from !== undefined && found.to !== undefined)
    return ` from ${found.from} to ${found.to}`
  return found.from === undefined ? ` for x ≤ ${found.to!}` : ` for x ≥ ${found.from}`
}
/** The place, as lines call it. */
export const at = ({ place }: Parts) => (place === undefined ? '' : ` at ${place}`)
/** The derivative of an order of a curve. */
export const raised = ({ curve, order }: CurveRef, by: number): CurveRef => ({
  curve,
  order: order + by,
})

/** A kind about a curve, with the place and the span that were said. */
export const simple =
  (words: string, preposition = 'of') =>
  (ref: CurveRef, { parts }: Asked) => [
    `${words} ${preposition} ${curveText(ref)}${at(parts)}${over(parts)}`,
  ]

/** At a place that was said as a number or as a point of the curve. */
export function placed(kind: string, preposition: string) {
  return (ref: CurveRef, asked: Asked): string[] | null => {
    const { parts, liesOn } = asked
    const { point } = parts
    const isOn = point ? liesOn(ref, point) : null
    // A point beside the curve has no tangent of its own; what cannot be told is taken at its word.
    if (point && isOn !== true && (!point.on || isOn === false)) return null
    const place = point ? point.x : parts.place
    return [`${kind} ${preposition} ${curveText(ref)}${place === undefined ? '' : ` at ${place}`}`]
  }
}

/** Whether any of the words that were left asks for something. */
export const asksBy = (words: string) =>
  words.split(' ').some((word) => word !== '' && !joining.has(word))

/** What moves, in the words of exercises. */
export const movers = 'particle, object, body, it, car, ball, moving, move, time, times'
/** What is looked for, in the words of exercises. */
export const valueWords =
  'value, values, point, points, coordinates, location, intervals, interval, all'
