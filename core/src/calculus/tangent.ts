import type { RealFunction } from '../evaluate/compile'

export interface Tangent {
  /** Where the tangent touches. */
  at: number
  value: number
  slope: number
  /** Its height over 0: value - slope · at. */
  intercept: number
}

/**
 * The tangent of f at x. Slope and value come from Taylor arithmetic, so they are as exact as f
 * itself; all is NaN where f has no slope (a kink, a jump, outside the domain).
 */
export function tangentLine(f: Pick<RealFunction, 'derivatives'>, x: number): Tangent {
  const [value = NaN, slope = NaN] = f.derivatives(x, 1)
  return { at: x, value, slope, intercept: value - slope * x }
}
