import type { RealFunction } from '../evaluate/compile'

export interface Secant {
  slope: number
  /** Its height over 0. */
  intercept: number
}

/**
 * The line through (a, f(a)) and (b, f(b)). All is NaN where f has no value at an end or where the
 * ends are one place: two points make a line, one does not.
 */
export function secantLine(f: Pick<RealFunction, 'value'>, a: number, b: number): Secant {
  const [fa, fb] = [f.value(a), f.value(b)]
  const slope = a === b ? NaN : (fb - fa) / (b - a)
  return { slope, intercept: fa - slope * a }
}

export type QuotientRule = 'forward' | 'backward' | 'central'

/** A difference quotient with what is known of its error. */
export interface DifferenceQuotient {
  /** (f(x + h) - f(x))/h, (f(x) - f(x - h))/h or (f(x + h) - f(x - h))/2h. */
  value: number
  /**
   * How far rounding alone may have moved it: the values carry about one unit in their last place
   * each, and so do the ends x ± h, and the division by h makes that larger as h gets smaller.
   */
  rounding: number
  /** How far the quotient is from the derivative because h is not 0; NaN where there is none. */
  truncation: number
  /** Rounding weighs more than h: a smaller h makes the quotient worse. */
  tooSmall: boolean
}

/**
 * A difference quotient of f at x with step h, and how its two errors stand. The rounding bound
 * takes each value of f as good to 1 unit in the last place of |f| + |x f′|, which is what
 * docs/accuracy.md measures for f; the truncation is the difference from the derivative by Taylor
 * arithmetic. Source: N. J. Higham, Accuracy and Stability of Numerical Algorithms, SIAM 2002,
 * section 1.11 on the choice of h (from memory). A step of 0 gives NaN, and
 * so does a central one around a place where f has no value.
 */
export function differenceQuotient(
  f: Pick<RealFunction, 'value' | 'derivatives'>,
  x: number,
  h: number,
  rule: QuotientRule = 'forward',
): DifferenceQuotient {
  // The ends as they are in floating point; their distance is exact, h itself may not be.
  const right = rule === 'backward' ? x : x + h
  const left = rule === 'forward' ? x : x - h
  const width = right - left
  const [upper, lower] = [f.value(right), f.value(left)]
  // Around a pole or a gap the two sides have a quotient, and there is no slope that it comes near.
  const between = rule === 'central' && !Number.isFinite(f.value(x))
  const value = width === 0 || between ? NaN : (upper - lower) / width
  const [, slope = NaN] = f.derivatives(x, 1)
  const steep = Number.isFinite(slope) ? slope : value
  const size = Math.abs(upper) + Math.abs(lower) + 2 * Math.abs(x * steep)
  // The ends are off from x ± h by half a unit in the last place of x, which tilts the answer.
  const rounding = (Number.EPSILON * size) / Math.abs(width)
  const truncation = Math.abs(value - slope)
  return { value, rounding, truncation, tooSmall: rounding > Math.max(truncation - rounding, 0) }
}
