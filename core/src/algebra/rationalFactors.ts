import {
  divideRational,
  greatestCommonDivisor,
  multiplyRational,
  negateRational,
  type Rational,
  rational,
  toNumber,
  zero,
} from '../arithmetic/rational'
import type { Polynomial } from './polynomials'
import { type Coefficients, divided, valueAt } from './rationalPolynomials'

/** Candidates for roots and factors beyond so many are not tried. */
const mostCandidates = 4000
const largestSplit = 1_000_000_000n

/**
 * A square-free polynomial with whole coefficients as factors with rational ones: its rational roots
 * taken out one by one, and what is left of degree 4 split into two of degree 2 where that can be done.
 * Its factors are proven by division; one of a degree above 2 may still be one that splits. Null where
 * its coefficients are too large to try.
 */
export function factorsOver(polynomial: Polynomial): Rational[][] | null {
  let rest: Rational[] = polynomial.map((c) => rational(c))
  const factors: Rational[][] = []
  if (rest.length > 1 && rest[0]!.n === 0n) {
    factors.push([zero, rational(1n)])
    rest = rest.slice(1)
  }
  for (;;) {
    if (rest.length <= 2) break
    const root = rationalRoot(rest)
    if (root === 'unknown') return null
    if (!root) break
    const factor = [negateRational(root), rational(1n)]
    factors.push(factor)
    rest = divided(rest, factor).whole
  }
  if (rest.length === 5) {
    const pair = quadraticsOf(rest)
    if (pair) return [...factors, ...pair]
  }
  return rest.length > 1 ? [...factors, rest] : factors
}

/** Without denominators and common factors do not matter: candidates are divided in any case. */
function wholeCoefficients(p: Coefficients): bigint[] {
  const common = p.reduce((m, c) => (m / greatestCommonDivisor(m, c.d)) * c.d, 1n)
  const all = p.map((c) => (c.n * common) / c.d)
  const shared = all.reduce((g, c) => greatestCommonDivisor(g, c < 0n ? -c : c), 0n)
  return shared > 1n ? all.map((c) => c / shared) : all
}

/** The divisors of a number above 0, or null where it is too large to look for them. */
function divisorsOf(n: bigint): bigint[] | null {
  const size = n < 0n ? -n : n
  if (size === 0n || size > largestSplit) return null
  const found: bigint[] = []
  for (let k = 1n; k * k <= size; k++) {
    if (size % k === 0n) found.push(k, ...(k * k === size ? [] : [size / k]))
  }
  return found
}

/** A root n/d: n divides the constant, d the leading coefficient (the rational root theorem). */
function rationalRoot(p: Coefficients): Rational | null | 'unknown' {
  const all = wholeCoefficients(p)
  const [tops, bottoms] = [divisorsOf(all[0]!), divisorsOf(all.at(-1)!)]
  if (!tops || !bottoms || tops.length * bottoms.length > mostCandidates) return 'unknown'
  const numbers = p.map(toNumber)
  const size = numbers.reduce((m, c) => Math.max(m, Math.abs(c)), 0)
  for (const n of tops) {
    for (const d of bottoms) {
      for (const root of [rational(n, d), rational(-n, d)]) {
        // The doubles tell most candidates at once.
        const x = toNumber(root)
        const near = numbers.reduceRight((t, c) => t * x + c, 0)
        const scale = size * Math.max(1, Math.abs(x)) ** (p.length - 1)
        if (Math.abs(near) > 1e-9 * scale) continue
        if (valueAt(p, root).n === 0n) return root
      }
    }
  }
  return null
}

/**
 * Two factors (x² + a x + b)(x² + c x + d) of a polynomial of degree 4 without rational roots, made
 * monic in whole numbers by x = y/lead: b d is the constant, and a c is what the middle leaves.
 */
function quadraticsOf(p: Coefficients): Rational[][] | null {
  const all = wholeCoefficients(p)
  const lead = all[4]!
  // y⁴ + e y³ + f y² + g y + h with y = lead · x.
  const [h, g, f, e] = [all[0]! * lead ** 3n, all[1]! * lead ** 2n, all[2]! * lead, all[3]!]
  const divisors = divisorsOf(h)
  if (!divisors || divisors.length > mostCandidates) return null
  for (const b of divisors.flatMap((k) => [k, -k])) {
    const d = h / b
    // a + c = e, a c = f − b − d: the roots of s² − e s + (f − b − d).
    const gap = e * e - 4n * (f - b - d)
    const root = squareRoot(gap)
    if (root === null || (e + root) % 2n !== 0n) continue
    for (const a of [(e + root) / 2n, (e - root) / 2n]) {
      const c = e - a
      if (a * d + b * c !== g) continue
      const back = (linear: bigint, constant: bigint) => [
        divideRational(rational(constant), multiplyRational(rational(lead), rational(lead))),
        rational(linear, lead),
        rational(1n),
      ]
      return [back(a, b), back(c, d)]
    }
  }
  return null
}

/** The whole root of a square number, or null. */
export function squareRoot(n: bigint): bigint | null {
  if (n < 0n) return null
  let root = BigInt(Math.floor(Math.sqrt(Number(n))))
  while (root * root > n) root -= 1n
  while ((root + 1n) * (root + 1n) <= n) root += 1n
  return root * root === n ? root : null
}
