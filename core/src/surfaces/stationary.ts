import {
  commonPlaneFactor,
  isConstantPlane,
  type PlanePolynomial,
  planeQuotient,
  planeValue,
} from '../algebra/planePolynomials'
import { type PlaneFraction, planeFraction } from '../algebra/planeNumerator'
import * as I from '../arithmetic/intervals'
import { type Interval } from '../arithmetic/intervals'
import { divideRational, type Rational, rational, toNumber } from '../arithmetic/rational'
import type { Steps } from '../features/budget'
import {
  atPlace,
  type CommonZero,
  type CommonZeros,
  commonZeros,
  isRough,
  type Pair,
  type Place,
  pairOf,
  tidyMiddle,
  treeAt,
} from './commonZeros'
import { numberInterval } from '../evaluate/enclosures'
import { exactRational } from '../evaluate/exactRational'
import { type LowestTerms, lowestTerms } from './lowestTerms'
import { type RealSurface, type Rectangle } from './surface'
import { planeSurface, type ZeroCurve, zeroCurve } from './zeroCurve'

/** Where both partial derivatives are 0. */
export interface StationaryPoint {
  x: number
  y: number
  /** Surely holds the point. */
  at: Rectangle
  /** Its coordinates, where they are known to be these decimals. */
  exact: Place | null
  /** Exactly one lies in `at`, by interval Newton or, for polynomials, by resultants; else exact arithmetic says that one does. */
  proven: boolean
  kind: 'maximum' | 'minimum' | 'saddle' | 'open'
  /** Surely hold fxx·fyy − fxy², and fxx, there. */
  determinant: Interval
  bend: Interval
  /**
   * What decides the kind where the determinant is 0: the lowest terms of f − f(x, y) around the point,
   * but for a positive factor, which is null where it is no fraction.
   */
  lowest: (LowestTerms & { factor: Rational | null }) | null
}

export interface StationaryPoints {
  /** Those around which there is no other. */
  points: StationaryPoint[]
  /** A curve that they fill; 'everywhere' where f is constant. */
  curve: ZeroCurve | 'everywhere' | null
  /** Rectangles that could not be settled: they may hold further points or none. */
  unresolved: Rectangle[]
  complete: boolean
  /** Set where f may have folds, jumps or edges of its domain on the rectangle: what lies there is not listed. */
  rough: boolean
}

/**
 * The critical points on a closed rectangle at which both partial derivatives are 0: single ones by
 * interval Newton and exact arithmetic (`commonZeros`), and curves of them where the partial
 * derivatives share a factor, which is taken out first. Bounded work for any formula.
 */
export function* stationaryPoints(f: RealSurface, within: Rectangle): Steps<StationaryPoints> {
  const gradient = [f.partial(1, 0), f.partial(0, 1)] as const
  const fractions = gradient.map(({ tree }) => planeFraction(tree, f.letters))
  const above = fractions.every((one) => one !== null)
    ? (fractions.map((one) => one.above) as [PlanePolynomial, PlanePolynomial])
    : null
  const common = above ? commonPlaneFactor(...above) : null
  if (common?.length === 0) return everywhere(f, within)
  if (above && common && !isConstantPlane(common)) return yield* withCurve(f, above, common, within)
  const cross = f.partial(1, 1)
  const slopes = [f.partial(2, 0), cross, cross, f.partial(0, 2)] as const
  const pair: Pair = { domain: f, of: gradient, slopes, polynomials: above }
  const zeros = yield* commonZeros(pair, within)
  return {
    ...{ points: pointsOf(f, zeros.found), curve: null, rough: zeros.rough },
    ...{ unresolved: zeros.unresolved, complete: zeros.unresolved.length === 0 },
  }
}

function everywhere(f: RealSurface, within: Rectangle): StationaryPoints {
  const rough = isRough(f, within)
  return { points: [], curve: 'everywhere', unresolved: [], complete: !rough, rough }
}

/** Where the partial derivatives share a factor: its zeros, and the common zeros of what is left of them. */
function* withCurve(
  f: RealSurface,
  above: readonly [PlanePolynomial, PlanePolynomial],
  common: PlanePolynomial,
  within: Rectangle,
): Steps<StationaryPoints> {
  const curve = yield* zeroCurve(common, f, within)
  const rest = above.map((p) => planeQuotient(p, common)) as [PlanePolynomial, PlanePolynomial]
  // A constant that is left has no zeros, and what is left of 0 is 0 everywhere, beside a constant.
  const isBare = rest.some((p) => p.length > 0 && isConstantPlane(p))
  const zeros: CommonZeros = isBare
    ? { found: [], unresolved: [], rough: isRough(f, within) }
    : yield* commonZeros(pairOf(f, surfacesOf(rest, f), rest), within)
  const [single, open]: [CommonZero[], Rectangle[]] = [[], [...zeros.unresolved]]
  for (const zero of zeros.found) {
    const isOn = isOnCurve(curve, zero, f)
    if (isOn === false) single.push(zero)
    if (isOn === null) open.push(zero.at)
  }
  for (const exact of curve.alone) {
    // A formula may lack a value where the numerators of its derivatives are 0.
    const hasValue = !Number.isNaN(f.value(toNumber(exact[0]), toNumber(exact[1])))
    if (hasValue) single.push({ at: atPlace(exact), exact, proven: true })
  }
  return {
    points: pointsOf(f, single),
    curve: curve.isThere === false ? null : curve,
    unresolved: open,
    complete: open.length === 0 && curve.isThere !== null,
    rough: zeros.rough,
  }
}

const surfacesOf = (
  [p, q]: readonly [PlanePolynomial, PlanePolynomial],
  { letters }: RealSurface,
) => [planeSurface(p, letters), planeSurface(q, letters)] as const

/** Whether a point lies on the curve; null where its place is not known well enough. */
function isOnCurve(
  { polynomial }: ZeroCurve,
  { at, exact }: CommonZero,
  { letters }: RealSurface,
): boolean | null {
  if (exact) return planeValue(polynomial, ...exact).n === 0n
  return I.holdsZero(planeSurface(polynomial, letters).enclose(at)) ? null : false
}

const pointsOf = (f: RealSurface, zeros: readonly CommonZero[]): StationaryPoint[] => {
  const fraction = zeros.some(({ exact }) => exact) ? planeFraction(f.tree, f.letters) : null
  return zeros.map((zero) => pointOf(f, zero, fraction)).sort((a, b) => a.x - b.x || a.y - b.y)
}

/** The second derivative test on the rectangle that holds the point, and the lowest terms where it says nothing. */
function pointOf(
  f: RealSurface,
  { at, exact, proven }: CommonZero,
  fraction: PlaneFraction | null,
): StationaryPoint {
  const [a, b, d] = [f.partial(2, 0), f.partial(1, 1), f.partial(0, 2)].map((bend) => {
    const value = exact && exactRational(treeAt(bend, exact))
    return value ? numberInterval(value) : bend.enclose(at)
  }) as [Interval, Interval, Interval]
  const determinant = I.subtract(I.multiply(a, d), I.square(b))
  const sign = I.signOf(determinant)
  const up = I.signOf(a)
  const place = {
    x: exact ? toNumber(exact[0]) : tidyMiddle(at.x),
    y: exact ? toNumber(exact[1]) : tidyMiddle(at.y),
    at,
    exact,
    proven,
    determinant,
    bend: a,
  }
  const test =
    sign < 0 ? 'saddle' : sign === 0 || up === 0 ? 'open' : up > 0 ? 'minimum' : 'maximum'
  if (test !== 'open') return { ...place, kind: test, lowest: null }
  const lowest = exact && fraction ? lowestTerms(fraction, ...exact) : null
  return {
    ...place,
    kind: kindBy[lowest?.sign ?? 'open'],
    lowest: lowest && { ...lowest, factor: factorOf(f, lowest, exact!) },
  }
}

/** What the lowest terms of f are of those found: its Taylor coefficient by that of one term. */
function factorOf(f: RealSurface, { terms }: LowestTerms, place: Place): Rational | null {
  const j = terms.findIndex((row) => row.some((c) => c !== 0n))
  const i = terms[j]?.findIndex((c) => c !== 0n) ?? -1
  if (i < 0) return null
  const value = exactRational(treeAt(f.partial(i, j), place))
  const ours = rational(terms[j]![i]! * factorial(i) * factorial(j))
  return value && divideRational(value, ours)
}

const factorial = (n: number): bigint => (n < 2 ? 1n : BigInt(n) * factorial(n - 1))

const kindBy = {
  positive: 'minimum',
  negative: 'maximum',
  both: 'saddle',
  open: 'open',
} as const
