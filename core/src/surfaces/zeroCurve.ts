import {
  alongSecond,
  contentOf,
  isConstantPlane,
  type PlanePolynomial,
  planeQuotient,
  planeTree,
  planeValue,
  squareFreePlane,
  turnedPlane,
  withLeadAbove,
} from '../algebra/planePolynomials'
import { type Polynomial, rootsBetween, squareFreeParts } from '../algebra/polynomials'
import { valueAt } from '../algebra/rationalPolynomials'
import * as I from '../arithmetic/intervals'
import {
  decimalOfNumber,
  greatestCommonDivisor,
  type Rational,
  rational,
  toNumber,
} from '../arithmetic/rational'
import type { Steps } from '../features/budget'
import { type CommonZero, commonZeros, pairOf, type Place } from './commonZeros'
import { lowestTerms } from './lowestTerms'
import { compileSurface, type RealSurface, type Rectangle } from './surface'

/** Where a polynomial of two variables is 0 on a rectangle: plain data, which a worker can send. */
export interface ZeroCurve {
  /** Each of its factors once, which is 0 at the same places. */
  polynomial: PlanePolynomial
  /** Whether zeros fill a curve; null where that is not settled. */
  isThere: boolean | null
  /** Points of the curve: of every piece that does not reach the border of the rectangle at least one. */
  points: Pick<CommonZero, 'at' | 'exact'>[]
  /** Zeros around which there is no other. */
  alone: Place[]
}

/**
 * The zeros of a polynomial on a rectangle, which is no constant: whether they fill a curve or are
 * single points. A piece of the curve that does not reach the border has a place farthest along the
 * first variable, at which the polynomial and its derivative by the second are 0; such places are
 * isolated like critical points.
 */
export function* zeroCurve(
  factor: PlanePolynomial,
  domain: RealSurface,
  within: Rectangle,
): Steps<ZeroCurve> {
  const polynomial = withLeadAbove(squareFreePlane(factor))
  const { letters } = domain
  const upright = contentOf(polynomial)
  const rest = upright.length > 1 ? planeQuotient(polynomial, [upright]) : polynomial
  const out: ZeroCurve = { polynomial, isThere: false, points: [], alone: [] }
  if (rootsWithin(upright, within.x).length > 0) out.isThere = true
  const slope = alongSecond(rest)
  if (!isConstantPlane(rest) && !isConstantPlane(slope)) {
    const [value, bySecond] = [planeSurface(rest, letters), planeSurface(slope, letters)]
    const pair = pairOf(value, [value, bySecond], [rest, slope])
    const { found, unresolved } = yield* commonZeros(pair, within)
    if (unresolved.length > 0) out.isThere = null
    for (const { at, exact } of found) {
      // Where the two have slopes that differ, the curve is smooth and goes on.
      const nearby =
        exact && lowestTerms({ above: rest, below: [[1n]], isRational: true }, ...exact)
      if (nearby && nearby.sign !== 'both' && nearby.sign !== 'open') {
        // Alone among the zeros of what is left; a line that is held runs through it all the same.
        const isOnLine = planeValue([upright], ...exact).n === 0n
        if (!isOnLine) out.alone.push(exact)
        continue
      }
      if (nearby?.sign === 'open') out.isThere = null
      else if (out.isThere === false) out.isThere = true
      out.points.push({ at, exact })
    }
  }
  if (out.isThere === false && meetsBorder(rest, within, out.alone)) out.isThere = true
  return out
}

/** A polynomial of two variables, ready to be evaluated. */
export const planeSurface = (p: PlanePolynomial, letters: readonly [string, string]): RealSurface =>
  compileSurface(planeTree(p, letters), letters)

/** Whether a polynomial is 0 on the border of a rectangle, apart from some places. */
function meetsBorder(p: PlanePolynomial, { x, y }: Rectangle, apart: ZeroCurve['alone']): boolean {
  if (isConstantPlane(p)) return false
  const turned = turnedPlane(p)
  const meets = (rows: PlanePolynomial, held: number, along: I.Interval, at: 0 | 1) => {
    const edge = cutAt(rows, decimalOfNumber(held))
    if (edge.length === 0) return true
    return rootsWithin(edge, along).some(
      ({ lo, hi }) =>
        !apart.some((place) => {
          const [other, one] = [toNumber(place[at === 0 ? 1 : 0]), toNumber(place[at])]
          return other === held && lo <= one && one <= hi
        }),
    )
  }
  return (
    [y.lo, y.hi].some((held) => meets(turned, held, x, 0)) ||
    [x.lo, x.hi].some((held) => meets(p, held, y, 1))
  )
}

/** Rows that are polynomials, each at a value: the polynomial of the other variable, by a positive factor. */
function cutAt(rows: PlanePolynomial, held: Rational): Polynomial {
  const values = rows.map((row) =>
    valueAt(
      row.map((c) => rational(c)),
      held,
    ),
  )
  const common = values.reduce((l, { d }) => (l * d) / greatestCommonDivisor(l, d), 1n)
  const out = values.map(({ n, d }) => n * (common / d))
  while (out.length > 0 && out.at(-1) === 0n) out.pop()
  return out
}

const rootsWithin = (p: Polynomial, { lo, hi }: I.Interval): I.Interval[] =>
  p.length <= 1 ? [] : squareFreeParts(p).flatMap(({ factor }) => rootsBetween(factor, lo, hi))
