import { numberInterval } from '../evaluate/enclosures'
import { exactRational } from '../evaluate/exactRational'
import { substitute } from '../algebra/curves'
import { planeFraction } from '../algebra/planeNumerator'
import { type PlanePolynomial, planeValue } from '../algebra/planePolynomials'
import * as I from '../arithmetic/intervals'
import { type Interval } from '../arithmetic/intervals'
import { type Rational, rationalFromDecimal, toNumber } from '../arithmetic/rational'
import { boxCost, type Steps } from '../features/budget'
import { exactly, type Tree } from '../formula/tree'
import { resultantsOf, rootsOver } from './resultants'
import { plainRange, type RealSurface, type Rectangle } from './surface'

/** Two functions of two variables whose common zeros are looked for, where a third one has a value. */
export interface Pair {
  domain: RealSurface
  of: readonly [RealSurface, RealSurface]
  /** The partial derivatives of the first by both variables, then of the second. */
  slopes: readonly [RealSurface, RealSurface, RealSurface, RealSurface]
  /** Polynomials with the same zeros, where there are such. */
  polynomials: readonly [PlanePolynomial, PlanePolynomial] | null
}

/** A pair without its slopes known beforehand. */
export const pairOf = (
  domain: RealSurface,
  of: Pair['of'],
  polynomials: Pair['polynomials'],
): Pair => ({
  domain,
  of,
  slopes: [of[0].partial(1, 0), of[0].partial(0, 1), of[1].partial(1, 0), of[1].partial(0, 1)],
  polynomials,
})

/** A place whose coordinates are fractions. */
export type Place = readonly [Rational, Rational]

export interface CommonZero {
  /** Surely holds the zero. */
  at: Rectangle
  /** Its coordinates, where they are known to be these decimals. */
  exact: Place | null
  /** It is the only one in `at`, by interval Newton or, for polynomials, by resultants. */
  proven: boolean
}

export interface CommonZeros {
  found: CommonZero[]
  /** Rectangles that could not be settled: they may hold further zeros or none. */
  unresolved: Rectangle[]
  /** Set where the domain may have folds, jumps or edges on the rectangle. */
  rough: boolean
}

/** What the work may cost, in boxes of a short formula. */
const mostBoxes = 24_000
/** A rectangle this small beside its coordinates is not cut any more. */
const smallest = 2e-6
/** Rectangles are cut beside the middle, so that no cut runs through a point that is a round number. */
const cutAt = 0.4871
/** The test looks at a rectangle so much larger, so that a point on an edge lies inside. */
const swollen = 1.2
/** How often a point that is found is narrowed, at the most. */
const narrowings = 60
/** So many of the rectangles that are left are told apart. */
const mostClustered = 1600

/**
 * The common zeros of two functions on a closed rectangle, each proven to be the only one in a
 * rectangle around it: branch and bound, with the Krawczyk operator. What can neither be settled nor
 * excluded stands in `unresolved`. Bounded work for any formula.
 * Source: R. E. Moore, R. B. Kearfott, M. J. Cloud, Introduction to Interval Analysis, SIAM 2009, ch. 8
 * (from memory).
 */
export function* commonZeros(pair: Pair, within: Rectangle): Steps<CommonZeros> {
  const cost = costOf(pair)
  const waiting: Rectangle[] = [within]
  const found: Rectangle[] = []
  const homes: Rectangle[] = []
  const small: Rectangle[] = []
  let spent = 0
  let rough = false
  while (waiting.length > 0 && spent < mostBoxes) {
    spent += cost
    yield Math.min(1, spent / mostBoxes)
    const box = waiting.pop()!
    if (homes.some((home) => holds(home, box))) continue
    const next = lookAt(pair, box)
    if (next === 'none' || isSmall(box)) rough ||= isRough(pair.domain, met(grown(box), within))
    if (next === 'none') continue
    if ('home' in next) {
      homes.push(next.home)
      if (!found.some((one) => meets(one, next.point))) found.push(next.point)
      continue
    }
    const { rest } = next
    if (isSmall(rest)) small.push(rest)
    else if (isNarrower(rest, box)) waiting.push(rest)
    else waiting.push(...halves(rest, within))
  }
  const zeros = found
    .filter((box) => meets(box, within))
    .map((box): CommonZero => {
      // The one zero that lies in the rectangle is the round place at which both are 0.
      const exact = exactZero(pair, box)
      return { at: exact ? atPlace(exact) : box, exact, proven: true }
    })
  const { left, settled } = settledExactly(pair, clusters([...small, ...waiting]))
  return { found: [...zeros, ...settled], unresolved: left, rough }
}

/**
 * What interval Newton leaves open, such as places at which the slopes are 0 as well: polynomials have
 * exact arithmetic, and their resultants tell how many zeros can be there.
 */
function settledExactly(pair: Pair, open: readonly Rectangle[]) {
  const { domain, polynomials } = pair
  const resultants = open.length > 0 && polynomials ? resultantsOf(...polynomials) : null
  const known = resultants?.every((p) => p.length > 0) ? resultants : null
  const [left, settled]: [Rectangle[], CommonZero[]] = [[], []]
  for (const box of open) {
    const counts = known && rootsOver(known, box)
    if (counts?.includes(0)) continue
    const isAlone = counts?.every((count) => count === 1) ?? false
    if (isAlone && isWithoutValue(domain, polynomials!, box)) continue
    const exact = exactZero(pair, box)
    if (exact) settled.push({ at: atPlace(exact), exact, proven: isAlone })
    if (!exact || !isAlone) left.push(box)
  }
  return { left, settled }
}

/** Whether a surface may have folds, jumps or edges of its domain on a rectangle. */
export function isRough(f: RealSurface, box: Rectangle): boolean {
  const notes = I.noNotes()
  plainRange(f, box, notes)
  return notes.kinks || notes.jumps || notes.partial
}

const costOf = ({ of, slopes }: Pair) =>
  Math.max(1, [...of, ...new Set(slopes)].reduce((sum, s) => sum + boxCost(s.tree), 0) / 5)

/** The point, and a rectangle in which it is the only one; or where in the rectangle points can still be. */
type Found = { point: Rectangle; home: Rectangle } | { rest: Rectangle }

/** Whether a rectangle surely holds no point, surely one, or neither is known. */
function lookAt(pair: Pair, box: Rectangle): 'none' | Found {
  const notes = I.noNotes()
  plainRange(pair.domain, box, notes)
  if (notes.empty) return 'none'
  for (const one of pair.of) {
    const own = I.noNotes()
    const range = one.enclose(box, own)
    // Without a value there is none that is 0.
    if (own.empty || !I.holdsZero(range)) return 'none'
  }
  const home = grown(box)
  const first = krawczyk(pair, home)
  if (first === null) return { rest: box }
  // Every point in the larger rectangle lies in the first one too.
  if (!meets(first, box)) return 'none'
  if (!isInside(first, home)) {
    return { rest: { x: I.meet(box.x, first.x), y: I.meet(box.y, first.y) } }
  }
  let point = first
  for (let i = 0; i < narrowings; i++) {
    const next = krawczyk(pair, point)
    if (next === null) break
    const narrower = { x: I.meet(point.x, next.x), y: I.meet(point.y, next.y) }
    const gain = I.width(narrower.x) + I.width(narrower.y)
    const had = I.width(point.x) + I.width(point.y)
    point = narrower
    if (gain === 0 || gain > had * 0.9) break
  }
  return meets(point, box) ? { point, home } : 'none'
}

/** K(X) = m − Y·F(m) + (1 − Y·J(X))·(X − m); null where a function has no slopes on all of X. */
function krawczyk({ of, slopes }: Pair, box: Rectangle): Rectangle | null {
  const notes = I.noNotes()
  const ranges = new Map([...new Set(slopes)].map((slope) => [slope, slope.enclose(box, notes)]))
  const [a, b, c, d] = slopes.map((slope) => ranges.get(slope)) as Corners<Interval>
  if (notes.partial || notes.empty || notes.jumps || notes.kinks) return null
  if (![a, b, c, d].every(({ lo, hi }) => Number.isFinite(lo) && Number.isFinite(hi))) return null
  const [p, q, r, s] = [a, b, c, d].map(I.middle) as Corners<number>
  const det = p * s - q * r
  if (det === 0 || !Number.isFinite(1 / det)) return null
  const [mx, my] = [I.middle(box.x), I.middle(box.y)]
  const middle: Rectangle = { x: I.point(mx), y: I.point(my) }
  const own = I.noNotes()
  const [u, v] = of.map((one) => plainRange(one, middle, own)) as [Interval, Interval]
  if (own.partial || own.empty) return null
  const [rx, ry] = [I.subtract(box.x, middle.x), I.subtract(box.y, middle.y)]
  const row = (e: number, f: number, alongX: 0 | 1, m: Interval): Interval => {
    const shift = I.add(I.scale(u, e), I.scale(v, f))
    const onX = I.subtract(I.point(alongX), I.add(I.scale(a, e), I.scale(c, f)))
    const onY = I.subtract(I.point(1 - alongX), I.add(I.scale(b, e), I.scale(d, f)))
    return I.add(I.subtract(m, shift), I.add(I.multiply(onX, rx), I.multiply(onY, ry)))
  }
  return { x: row(s / det, -q / det, 1, middle.x), y: row(-r / det, p / det, 0, middle.y) }
}

type Corners<T> = [T, T, T, T]

const meets = (a: Rectangle, b: Rectangle) =>
  a.x.lo <= b.x.hi && b.x.lo <= a.x.hi && a.y.lo <= b.y.hi && b.y.lo <= a.y.hi
const holds = (outer: Rectangle, inner: Rectangle) =>
  outer.x.lo <= inner.x.lo &&
  inner.x.hi <= outer.x.hi &&
  outer.y.lo <= inner.y.lo &&
  inner.y.hi <= outer.y.hi
const isInside = (inner: Rectangle, outer: Rectangle) =>
  outer.x.lo < inner.x.lo &&
  inner.x.hi < outer.x.hi &&
  outer.y.lo < inner.y.lo &&
  inner.y.hi < outer.y.hi

const met = (a: Rectangle, b: Rectangle): Rectangle => ({
  x: I.meet(a.x, b.x),
  y: I.meet(a.y, b.y),
})

const grownSide = (side: Interval): Interval => {
  const m = I.middle(side)
  const half = Math.max((I.width(side) / 2) * swollen, Math.abs(m) * 1e-15, Number.MIN_VALUE * 8)
  return { lo: m - half, hi: m + half }
}
const grown = ({ x, y }: Rectangle): Rectangle => ({ x: grownSide(x), y: grownSide(y) })

const scaleOf = ({ lo, hi }: Interval) => Math.max(1, Math.abs(lo), Math.abs(hi))
const isSmall = ({ x, y }: Rectangle) =>
  I.width(x) < smallest * scaleOf(x) && I.width(y) < smallest * scaleOf(y)

/** Narrowed so much that looking again is worth more than cutting. */
const isNarrower = (a: Rectangle, b: Rectangle) =>
  I.width(a.x) * I.width(a.y) < 0.6 * I.width(b.x) * I.width(b.y)

/** Two parts, cut across the side that is longer beside the whole; at 0, where many a domain ends, first. */
export function halves({ x, y }: Rectangle, within: Rectangle): Rectangle[] {
  const across = I.width(x) * I.width(within.y) >= I.width(y) * I.width(within.x)
  const side = across ? x : y
  const cut = side.lo < 0 && side.hi > 0 ? 0 : side.lo + (side.hi - side.lo) * cutAt
  const [low, high] = [
    { lo: side.lo, hi: cut },
    { lo: cut, hi: side.hi },
  ]
  return across
    ? [
        { x: low, y },
        { x: high, y },
      ]
    : [
        { x, y: low },
        { x, y: high },
      ]
}

const hullOf = (a: Rectangle, b: Rectangle): Rectangle => ({
  x: I.hull(a.x, b.x),
  y: I.hull(a.y, b.y),
})

/** Rectangles that touch, as one around them all. */
export function clusters(boxes: readonly Rectangle[]): Rectangle[] {
  let all: Rectangle[] = boxes.slice(0, mostClustered)
  const rest = boxes.slice(mostClustered)
  // What is too much to be told one by one is told as a whole.
  if (rest.length > 0) all.push(rest.reduce(hullOf))
  for (;;) {
    const next: Rectangle[] = []
    for (const box of all) {
      const at = next.findIndex((one) => meets(one, around(box)))
      if (at < 0) next.push(box)
      else next[at] = hullOf(next[at]!, box)
    }
    if (next.length === all.length) return next
    all = next
  }
}

/** Rectangles between which a few of the smallest would fit belong together. */
const around = ({ x, y }: Rectangle): Rectangle => ({ x: widened(x), y: widened(y) })
const widened = (side: Interval): Interval => {
  const room = 4 * smallest * scaleOf(side)
  return { lo: side.lo - room, hi: side.hi + room }
}

/** Whether the one place in a rectangle at which both polynomials are 0 is one without a value. */
function isWithoutValue(
  domain: RealSurface,
  polynomials: readonly PlanePolynomial[],
  box: Rectangle,
): boolean {
  const place = roundPlace(box)
  const below = place && planeFraction(domain.tree, domain.letters)?.below
  if (!place || !below) return false
  return [...polynomials, below].every((p) => planeValue(p, ...place).n === 0n)
}

/** A place whose coordinates are fractions, in as narrow a rectangle as doubles allow. */
export const atPlace = ([x, y]: Place): Rectangle => ({
  x: numberInterval(x),
  y: numberInterval(y),
})

/** The round place in a small rectangle at which both functions are 0: by the polynomials where there are such. */
function exactZero({ domain, of, polynomials }: Pair, box: Rectangle): Place | null {
  if (!polynomials) return exactPlace(domain, of, box)
  const place = roundPlace(box)
  const isZero = place && polynomials.every((p) => planeValue(p, ...place).n === 0n)
  return isZero && !Number.isNaN(domain.value(...numbersOf(place))) ? place : null
}

/** The round place in a small rectangle at which exact arithmetic gives 0 for each of some functions. */
export function exactPlace(
  domain: RealSurface,
  of: readonly RealSurface[],
  box: Rectangle,
): Place | null {
  const place = roundPlace(box)
  if (!place) return null
  const isZero = of.every((one) => exactRational(treeAt(one, place))?.n === 0n)
  return isZero && !Number.isNaN(domain.value(...numbersOf(place))) ? place : null
}

const numbersOf = ([x, y]: Place) => [toNumber(x), toNumber(y)] as const

/** The place of few digits in a small rectangle. */
export function roundPlace(box: Rectangle): Place | null {
  if (![box.x, box.y].every((side) => I.width(side) < 64 * smallest * scaleOf(side))) return null
  const [x, y] = [round(box.x), round(box.y)]
  return x === null || y === null ? null : [rationalFromDecimal(x), rationalFromDecimal(y)]
}

/** A number of three decimals at the most within, else the middle. */
export const roundMiddle = (side: Interval): number => Number(round(side, 3) ?? I.middle(side))

/** The formula of a surface with the coordinates of a place put in. */
export const treeAt = ({ tree, letters }: RealSurface, [x, y]: Place): Tree =>
  substitute(substitute(tree, letters[0], exactly(x)), letters[1], exactly(y))

function round(side: Interval, most = 6): string | null {
  const m = I.middle(side)
  for (let digits = 0; digits <= most; digits++) {
    const value = Number(m.toFixed(digits)) + 0
    if (side.lo <= value && value <= side.hi) return String(value)
  }
  return null
}

/** The middle, or 0 where it may be 0 and is so small that it is rounding. */
export const tidyMiddle = (side: Interval) =>
  I.holdsZero(side) && I.width(side) < 1e-9 ? 0 : I.middle(side) + 0
