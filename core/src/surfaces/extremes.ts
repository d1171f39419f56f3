import { decimalOfNumber, type Rational } from '../arithmetic/rational'
import { holdsZero, type Interval, point } from '../arithmetic/intervals'
import { exactRational } from '../evaluate/exactRational'
import type { Steps } from '../features/budget'
import { examineInSteps } from '../features/examine'
import { exactly, type Tree } from '../formula/tree'
import { type Candidate, candidateOf } from './candidate'
import { exactPlace } from './commonZeros'
import { extremeByValues } from './extremesByValues'
import type { StationaryPoints } from './stationary'
import type { RealSurface, Rectangle } from './surface'
import { planeSurface } from './zeroCurve'

export interface SurfaceExtremes {
  /** Critical points, those of the four edges, and the corners, each once. */
  candidates: Candidate[]
  /** The candidates with the greatest and with the least height; those whose heights no digits tell apart all. */
  highest: Candidate[]
  lowest: Candidate[]
  /** Nothing outside the candidates can be higher or lower. */
  complete: boolean
  /** Set where the extremes are taken at more places than are listed. */
  many: { highest: boolean; lowest: boolean }
}

/** The ends of the sides, as they were typed where that is known. */
export interface Ends {
  x: readonly [Tree, Tree]
  y: readonly [Tree, Tree]
}

export const endsOf = ({ x, y }: Rectangle): Ends => {
  const tree = (value: number) => exactly(decimalOfNumber(value))
  return { x: [tree(x.lo), tree(x.hi)], y: [tree(y.lo), tree(y.hi)] }
}

/**
 * The absolute extremes of a surface on a closed rectangle: its critical points inside, those along
 * each edge (the surface there is a function of one variable, which is examined as such) and the
 * corners are compared. Source of the procedure: any calculus text (closed interval method in two
 * variables); common practice. Where the surface has folds, but no jumps and a value everywhere, its
 * values alone are searched.
 */
export function* surfaceExtremes(
  f: RealSurface,
  within: Rectangle,
  ends: Ends,
  inside: StationaryPoints,
): Steps<SurfaceExtremes> {
  const candidates: Candidate[] = []
  const { curve } = inside
  const along = curve && curve !== 'everywhere' ? planeSurface(curve.polynomial, f.letters) : null
  const isOnCurve = (at: Rectangle) => along !== null && holdsZero(along.enclose(at))
  let complete = inside.complete && !inside.rough
  const add = (
    at: Rectangle,
    exact: Candidate['exact'],
    where: Candidate['where'],
    onCurve = isOnCurve(at),
  ) => {
    const one = candidateOf(f, at, exact)
    const isKnown = candidates.some(
      ({ x, y }) => near(x, one.x, within.x) && near(y, one.y, within.y),
    )
    if (!isKnown && Number.isFinite(one.z)) candidates.push({ ...one, where, onCurve })
  }
  const sides = [
    { held: 1, at: ends.y[0], value: within.y.lo },
    { held: 0, at: ends.x[1], value: within.x.hi },
    { held: 1, at: ends.y[1], value: within.y.hi },
    { held: 0, at: ends.x[0], value: within.x.lo },
  ] as const
  for (const { held, at: end, value } of sides) {
    const free = held === 1 ? 0 : 1
    const [along, freeEnds] = held === 1 ? [within.x, ends.x] : [within.y, ends.y]
    const edge = f.section(held, end, f.letters[free])
    const slope = f.partial(1 - free, free)
    const facts = yield* examineInSteps(edge, along.lo, along.hi)
    if (!facts.complete || facts.breaks.length > 0) complete = false
    const placeAt = <T>(t: T, other: T): [T, T] => (held === 1 ? [t, other] : [other, t])
    for (const { x: t, enclosure } of facts.candidates) {
      const [x, y] = placeAt({ lo: enclosure[0], hi: enclosure[1] }, point(value))
      const cornerEnd = t === along.lo ? freeEnds[0] : t === along.hi ? freeEnds[1] : null
      const exact = cornerEnd
        ? fractionsOf(placeAt(cornerEnd, end))
        : exactOn(f, slope, { x, y }, end, held)
      add({ x, y }, exact, cornerEnd ? 'corner' : 'edge')
    }
    for (const t of [along.lo, along.hi]) if (Number.isNaN(edge.value(t))) complete = false
  }
  for (const { at, exact } of inside.points) add(at, exact, 'inside', false)
  for (const { at, exact } of curve && curve !== 'everywhere' ? curve.points : []) {
    add(at, exact, 'inside', true)
  }
  if (!complete && inside.rough) {
    const lowest = yield* extremeByValues(f, within, 1)
    const highest = lowest && (yield* extremeByValues(f, within, -1))
    if (lowest && highest) {
      const many = { highest: highest.areMany, lowest: lowest.areMany }
      return {
        candidates,
        highest: highest.places,
        lowest: lowest.places,
        complete: true,
        many,
      }
    }
  }
  const top = Math.max(...candidates.map(({ height }) => height.lo))
  const bottom = Math.min(...candidates.map(({ height }) => height.hi))
  return {
    candidates,
    highest: candidates.filter(({ height }) => height.hi >= top),
    lowest: candidates.filter(({ height }) => height.lo <= bottom),
    complete,
    many: { highest: false, lowest: false },
  }
}

/** The round place on an edge at which exact arithmetic gives a slope of 0 along it. */
function exactOn(
  f: RealSurface,
  slope: RealSurface,
  at: Rectangle,
  end: Tree,
  held: 0 | 1,
): Candidate['exact'] {
  const place = exactPlace(f, [slope], at)
  const side = place && exactRational(end)
  return side && equalRationals(place[held], side) ? place : null
}

const equalRationals = (a: Rational, b: Rational) => a.n * b.d === b.n * a.d

const fractionsOf = (place: readonly [Tree, Tree]): Candidate['exact'] => {
  const [x, y] = place.map(exactRational)
  return x && y ? [x, y] : null
}

const near = (a: number, b: number, side: Interval) => Math.abs(a - b) <= 1e-9 * (side.hi - side.lo)
