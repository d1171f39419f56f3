import { type PlanePolynomial, turnedPlane } from '../algebra/planePolynomials'
import { degree, type Polynomial, rootsBetween, squareFreeParts } from '../algebra/polynomials'
import type { Interval } from '../arithmetic/intervals'
import {
  addRational,
  divideRational,
  greatestCommonDivisor,
  multiplyRational,
  negateRational,
  one,
  type Rational,
  rational,
  zero,
} from '../arithmetic/rational'
import { valueAt } from '../algebra/rationalPolynomials'
import type { Rectangle } from './surface'

/** Of a higher degree in one variable they are left to interval methods. */
const highest = 8

/**
 * The resultants of two polynomials in two variables, by each of them: a common zero lies over a root
 * of the first and beside a root of the second. null where the degree is too high; the zero polynomial
 * [] where they share a factor.
 * Source: any text on elimination (Sylvester's determinant); from memory.
 */
export function resultantsOf(
  p: PlanePolynomial,
  q: PlanePolynomial,
): [Polynomial, Polynomial] | null {
  if ([p, q].some((one) => one.length - 1 > highest || degreeOf(one) > highest)) return null
  return [resultant(p, q), resultant(turnedPlane(p), turnedPlane(q))]
}

/** How many different places along each side of a rectangle a common zero can have at the most. */
export const rootsOver = (
  [alongX, alongY]: readonly [Polynomial, Polynomial],
  { x, y }: Rectangle,
): [number, number] => [rootCount(alongX, x), rootCount(alongY, y)]

const rootCount = (p: Polynomial, { lo, hi }: Interval) =>
  squareFreeParts(p).reduce((sum, part) => sum + rootsBetween(part.factor, lo, hi).length, 0)

const degreeOf = (p: PlanePolynomial) => Math.max(0, ...p.map(degree))

/** Res(p, q) by the second variable, as a polynomial of the first: worked out at places, and put together. */
function resultant(p: PlanePolynomial, q: PlanePolynomial): Polynomial {
  const [m, n] = [Math.max(0, p.length - 1), Math.max(0, q.length - 1)]
  const most = degreeOf(p) * n + degreeOf(q) * m
  const places = Array.from({ length: most + 1 }, (_, i) =>
    rational(BigInt(i % 2 === 0 ? i / 2 : -(i + 1) / 2)),
  )
  const values = places.map((x) => determinant(sylvester(at(p, x), at(q, x))))
  return whole(interpolated(places, values))
}

/** The coefficients of a polynomial of the second variable at a place of the first, the highest first. */
const at = (p: PlanePolynomial, x: Rational): Rational[] =>
  (p.length === 0 ? [[]] : p)
    .map((row) =>
      valueAt(
        row.map((c) => rational(c)),
        x,
      ),
    )
    .reverse()

function sylvester(p: readonly Rational[], q: readonly Rational[]): Rational[][] {
  const [m, n] = [p.length - 1, q.length - 1]
  const rows = (of: readonly Rational[], count: number) =>
    Array.from({ length: count }, (_, i) =>
      Array.from({ length: m + n }, (_, k) => of[k - i] ?? zero),
    )
  return [...rows(p, n), ...rows(q, m)]
}

function determinant(rows: Rational[][]): Rational {
  const matrix = rows.map((row) => [...row])
  let result = one
  for (let k = 0; k < matrix.length; k++) {
    const pivot = matrix.findIndex((row, i) => i >= k && row[k]!.n !== 0n)
    if (pivot < 0) return zero
    if (pivot !== k) {
      ;[matrix[k], matrix[pivot]] = [matrix[pivot]!, matrix[k]!]
      result = negateRational(result)
    }
    const head = matrix[k]!
    result = multiplyRational(result, head[k]!)
    for (const row of matrix.slice(k + 1)) {
      if (row[k]!.n === 0n) continue
      const factor = negateRational(divideRational(row[k]!, head[k]!))
      for (let c = k; c < row.length; c++) {
        row[c] = addRational(row[c]!, multiplyRational(factor, head[c]!))
      }
    }
  }
  return result
}

/** The polynomial through points, by divided differences. */
function interpolated(xs: readonly Rational[], ys: readonly Rational[]): Rational[] {
  const differences = [...ys]
  const minus = (a: Rational, b: Rational) => addRational(a, negateRational(b))
  for (let k = 1; k < xs.length; k++) {
    for (let i = xs.length - 1; i >= k; i--) {
      const rise = minus(differences[i]!, differences[i - 1]!)
      differences[i] = divideRational(rise, minus(xs[i]!, xs[i - k]!))
    }
  }
  let out: Rational[] = []
  for (let i = xs.length - 1; i >= 0; i--) {
    const moved = [zero, ...out]
    out = moved.map((c, k) => minus(c, multiplyRational(xs[i]!, out[k] ?? zero)))
    out[0] = addRational(out[0] ?? zero, differences[i]!)
  }
  return out
}

/** With whole coefficients, by a positive factor. */
function whole(p: readonly Rational[]): Polynomial {
  const common = p.reduce((l, { d }) => (l * d) / greatestCommonDivisor(l, d), 1n)
  const out = p.map(({ n, d }) => n * (common / d))
  while (out.length > 0 && out.at(-1) === 0n) out.pop()
  return out
}
