import type { RealFunction } from '../evaluate/compile'

/**
 * The Taylor polynomial of f at a place, by Taylor arithmetic: `coefficients` in powers of
 * (x - at), constant first, one more than the order. Where f has no derivative of some order at
 * the place (a kink, a jump, outside the domain), that coefficient and those after it are NaN.
 * Throws RangeError for an order that is no whole number from 0 to 100. Each coefficient has the
 * relative accuracy of f.derivatives.
 */
export function taylorPolynomial(
  f: Pick<RealFunction, 'derivatives'>,
  { at, order }: { at: number; order: number },
): { coefficients: number[] } {
  if (!Number.isInteger(order) || order < 0 || order > 100) {
    throw new RangeError(
      `the order of a Taylor polynomial is a whole number from 0 to 100: ${order}`,
    )
  }
  let factorial = 1
  const coefficients = f.derivatives(at, order).map((derivative, k) => {
    if (k > 1) factorial *= k
    return derivative / factorial
  })
  const missing = coefficients.findIndex(Number.isNaN)
  return { coefficients: missing < 0 ? coefficients : coefficients.fill(NaN, missing) }
}
