import {
  type PlanePolynomial,
  planeValue,
  addPlane,
  scalePlane,
  shiftedPlane,
} from '../algebra/planePolynomials'
import { type PlaneFraction } from '../algebra/planeNumerator'
import { type Polynomial, rootsBetween, squareFreeParts } from '../algebra/polynomials'
import type { Rational } from '../arithmetic/rational'

/** What a function does close to a place, the place itself left out. */
export interface LowestTerms {
  /** The sign it has everywhere there; both where it has either as close as one likes; open where that is not settled. */
  sign: 'positive' | 'negative' | 'both' | 'open'
  /** The terms that decide it, of u = x − x₀ and v = y − y₀. */
  terms: PlanePolynomial
}

/**
 * How f − f(x₀, y₀) keeps or changes its sign close to (x₀, y₀), by its lowest terms: those on the
 * edges of the Newton polygon. On curves u = a tᵖ, v = b t^q with the weights of an edge the terms of
 * that edge outweigh all others, so that each sign of theirs is one of the function; where on every
 * edge they are of one sign only, and pure powers of u and of v are among them, so is the function.
 * null where f is no quotient of polynomials (times a power of e, where f(x₀, y₀) = 0).
 * Source: V. A. Vasil'ev 1977, on Newton's diagram and minimum points (from memory).
 */
export function lowestTerms(f: PlaneFraction, x0: Rational, y0: Rational): LowestTerms | null {
  const [above, below] = [planeValue(f.above, x0, y0), planeValue(f.below, x0, y0)]
  if (below.n === 0n || (!f.isRational && above.n !== 0n)) return null
  // (N/D − N₀/D₀) has the sign of (N·D₀ − N₀·D), since D and D₀ have one sign close by.
  const [a, b] = [below.n * above.d, -above.n * below.d]
  const difference = addPlane(scalePlane(f.above, [a]), scalePlane(f.below, b === 0n ? [] : [b]))
  const terms = lowestOf(shiftedPlane(difference, x0, y0))
  return { sign: signOf(terms), terms: terms.flatMap(({ points }) => points).reduce(withPoint, []) }
}

interface Point {
  i: number
  j: number
  c: bigint
}
/** An edge of the polygon with the terms on it, by falling powers of v. */
interface Edge {
  points: Point[]
}

const withPoint = (p: PlanePolynomial, { i, j, c }: Point): PlanePolynomial => {
  const out = p.map((row) => [...row])
  while (out.length <= j) out.push([])
  const row = out[j]!
  while (row.length <= i) row.push(0n)
  row[i] = c
  return out
}

/** The edges of the Newton polygon that look to the origin; a single corner is an edge of one point. */
function lowestOf(p: PlanePolynomial): Edge[] {
  const all = p
    .flatMap((row, j) => row.map((c, i): Point => ({ i, j, c })))
    .filter(({ c }) => c !== 0n)
  if (all.length === 0) return []
  const start = all.reduce((a, b) => (b.i < a.i || (b.i === a.i && b.j < a.j) ? b : a))
  const edges: Edge[] = []
  for (let from = start; ;) {
    const below = all.filter(({ i, j }) => i > from.i && j < from.j)
    if (below.length === 0) return edges.length > 0 ? edges : [{ points: [from] }]
    // Steepest first: (j' − j)/(i' − i) compared without division.
    const slope = (one: Point, other: Point) =>
      (one.j - from.j) * (other.i - from.i) - (other.j - from.j) * (one.i - from.i)
    const next = below.reduce((a, b) =>
      slope(b, a) < 0 || (slope(b, a) === 0 && b.i > a.i) ? b : a,
    )
    edges.push({ points: [from, ...below.filter((one) => slope(one, next) === 0)] })
    from = next
  }
}

function signOf(edges: readonly Edge[]): LowestTerms['sign'] {
  const [first, last] = [edges[0]?.points[0], edges.at(-1)?.points]
  if (!first || !last) return 'open'
  const signs = edges.flatMap(({ points }) => signsOn(points))
  if (signs.includes('both') || (signs.includes('positive') && signs.includes('negative'))) {
    return 'both'
  }
  const meetsAxes = first.i === 0 && last.some(({ j }) => j === 0)
  return signs.includes('open') || !meetsAxes ? 'open' : signs[0]!
}

/** The signs that the terms of an edge take where neither u nor v is 0. */
function signsOn(points: readonly Point[]): LowestTerms['sign'][] {
  const out: LowestTerms['sign'][] = []
  const ends = [points[0]!, points.reduce((a, b) => (b.i > a.i ? b : a))]
  for (const { i, j, c } of ends) {
    out.push(i % 2 !== 0 || j % 2 !== 0 ? 'both' : c > 0n ? 'positive' : 'negative')
  }
  // Up to a positive factor all of the terms is seen at u = 1 and u = −1.
  for (const side of [1n, -1n]) {
    const least = Math.min(...points.map(({ j }) => j))
    const alongV: bigint[] = []
    for (const { i, j, c } of points) {
      while (alongV.length <= j - least) alongV.push(0n)
      alongV[j - least] = i % 2 === 0 ? c : c * side
    }
    const crossings = squareFreeParts(alongV).filter(({ factor }) => hasRoot(factor))
    if (crossings.some(({ multiplicity }) => multiplicity % 2 === 1)) out.push('both')
    else if (crossings.length > 0) out.push('open')
  }
  return out
}

/** Whether a square-free polynomial has a real root: all lie within Cauchy's bound. */
function hasRoot(p: Polynomial): boolean {
  const lead = Math.abs(Number(p.at(-1)!))
  const bound = 2 + Math.max(...p.map((c) => Math.abs(Number(c)) / lead))
  return rootsBetween(p, -bound, bound).length > 0
}
