import type { RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import {
  addRational,
  divideRational,
  multiplyRational,
  negateRational,
  powerRational,
  rational,
  rationalFromNumber,
  zero,
} from '../language/rational'
import type { ExactForm } from '../study/exactForms'
import { polynomialCoefficients } from './expandPolynomials'

const longest = 12

/**
 * The area under a polynomial with rational coefficients between ends that are decimals, as a
 * fraction by exact arithmetic; null for anything else, and where the fraction is too long to read.
 */
export function exactPolynomialArea(f: RealFunction, from: number, to: number): ExactForm | null {
  const coefficients = polynomialCoefficients(withValues(f.tree, f.parameters), f.variable)
  if (!coefficients) return null
  const [a, b] = [rationalFromNumber(from), rationalFromNumber(to)]
  let total = zero
  coefficients.forEach((c, k) => {
    const power = addRational(powerRational(b, k + 1), negateRational(powerRational(a, k + 1)))
    total = addRational(total, divideRational(multiplyRational(c, power), rational(BigInt(k + 1))))
  })
  if (total.d === 1n) return null
  const text = `${total.n < 0n ? '−' : ''}${total.n < 0n ? -total.n : total.n}/${total.d}`
  return text.length > longest ? null : { text, proven: true }
}
