import { exactRational } from '../evaluate/exactRational'
import { substitute } from '../algebra/curves'
import * as I from '../arithmetic/intervals'
import { type Interval } from '../arithmetic/intervals'
import { rationalFromDecimal } from '../arithmetic/rational'
import { boxCost, type Steps } from '../features/budget'
import { exactly } from '../formula/tree'
import { resultantsOf, rootsOver } from './commonZeros'
import { plainRange, type RealSurface, type Rectangle } from './surface'

/** Where both partial derivatives are 0. */
export interface StationaryPoint {
  x: number
  y: number
  /** Surely holds the point. */
  at: Rectangle
  /** Exactly one lies in `at`, by interval Newton or, for polynomials, by resultants; else exact arithmetic says that one does. */
  proven: boolean
  kind: 'maximum' | 'minimum' | 'saddle' | 'open'
  /** Surely hold fxx·fyy − fxy², and fxx, there. */
  determinant: Interval
  bend: Interval
}

export interface StationaryPoints {
  points: StationaryPoint[]
  /** Rectangles that could not be settled: they may hold further points or none. */
  unresolved: Rectangle[]
  complete: boolean
  /** Set where f may have folds, jumps or edges of its domain on the rectangle: what lies there is not listed. */
  rough: boolean
  /** Set where the partial derivatives share a factor, so that points may fill a line. */
  shared: boolean
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
/** So many of the rectangles that are left are told. */
const mostClustered = 1600

/**
 * The critical points on a closed rectangle at which both partial derivatives are 0, each proven to be
 * the only one in a rectangle around it: branch and bound, with the Krawczyk operator on the gradient.
 * What can neither be settled nor excluded stands in `unresolved`. Bounded work for any formula.
 * Source: R. E. Moore, R. B. Kearfott, M. J. Cloud, Introduction to Interval Analysis, SIAM 2009, ch. 8
 * (from memory).
 */
export function* stationaryPoints(f: RealSurface, within: Rectangle): Steps<StationaryPoints> {
  const system = systemOf(f)
  const cost = system.cost
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
    const next = lookAt(system, box)
    if (next === 'none' || isSmall(box)) rough ||= isRough(f, met(grown(box), within))
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
  const inside = found.filter((box) => meets(box, within))
  const points = inside.map((box) => pointOf(system, box, true))
  const open = clusters([...small, ...waiting])
  const { left, found: settled, shared } = settledExactly(system, open)
  points.push(...settled)
  points.sort((a, b) => a.x - b.x || a.y - b.y)
  return { points, unresolved: left, complete: left.length === 0, rough, shared }
}

/**
 * What interval Newton leaves open, such as points at which the second derivative test says nothing: a
 * polynomial has exact arithmetic, and its resultants tell how many places can be there.
 */
function settledExactly(system: System, open: readonly Rectangle[]) {
  const { f, gradient } = system
  const resultants = open.length > 0 ? resultantsOf(...gradient) : null
  const shared = resultants?.some((p) => p.length === 0) ?? false
  const [left, found]: [Rectangle[], StationaryPoint[]] = [[], []]
  for (const box of open) {
    const counts = resultants && !shared ? rootsOver(resultants, box) : null
    if (counts?.includes(0)) continue
    const place = exactPlace(f, box)
    const isAlone = counts?.every((count) => count === 1) ?? false
    if (place) found.push(pointOf(system, place, isAlone))
    if (!place || !isAlone) left.push(box)
  }
  return { left, found, shared }
}

function isRough(f: RealSurface, box: Rectangle): boolean {
  const notes = I.noNotes()
  plainRange(f, box, notes)
  return notes.kinks || notes.jumps || notes.partial
}

interface System {
  f: RealSurface
  gradient: readonly [RealSurface, RealSurface]
  /** fxx, fxy, fyy */
  bends: readonly [RealSurface, RealSurface, RealSurface]
  cost: number
}

const systemOf = (f: RealSurface): System => {
  const gradient = [f.partial(1, 0), f.partial(0, 1)] as const
  const bends = [f.partial(2, 0), f.partial(1, 1), f.partial(0, 2)] as const
  const cost = Math.max(1, [...gradient, ...bends].reduce((sum, s) => sum + boxCost(s.tree), 0) / 5)
  return { f, gradient, bends, cost }
}

/** The point, and a rectangle in which it is the only one; or where in the rectangle points can still be. */
type Found = { point: Rectangle; home: Rectangle } | { rest: Rectangle }

/** Whether a rectangle surely holds no point, surely one, or neither is known. */
function lookAt(system: System, box: Rectangle): 'none' | Found {
  const { f, gradient } = system
  const notes = I.noNotes()
  plainRange(f, box, notes)
  if (notes.empty) return 'none'
  for (const partial of gradient) {
    const own = I.noNotes()
    const range = partial.enclose(box, own)
    // Without a value there is none that is 0.
    if (own.empty || !I.holdsZero(range)) return 'none'
  }
  const home = grown(box)
  const first = krawczyk(system, home)
  if (first === null) return { rest: box }
  // Every point in the larger rectangle lies in the first one too.
  if (!meets(first, box)) return 'none'
  if (!isInside(first, home)) {
    return { rest: { x: I.meet(box.x, first.x), y: I.meet(box.y, first.y) } }
  }
  let point = first
  for (let i = 0; i < narrowings; i++) {
    const next = krawczyk(system, point)
    if (next === null) break
    const narrower = { x: I.meet(point.x, next.x), y: I.meet(point.y, next.y) }
    const gain = I.width(narrower.x) + I.width(narrower.y)
    const had = I.width(point.x) + I.width(point.y)
    point = narrower
    if (gain === 0 || gain > had * 0.9) break
  }
  return meets(point, box) ? { point, home } : 'none'
}

/** K(X) = m − Y·F(m) + (1 − Y·J(X))·(X − m); null where the gradient has no slopes on all of X. */
function krawczyk({ gradient, bends }: System, box: Rectangle): Rectangle | null {
  const notes = I.noNotes()
  const [a, b, d] = bends.map((bend) => bend.enclose(box, notes)) as [Interval, Interval, Interval]
  if (notes.partial || notes.empty || notes.jumps || notes.kinks) return null
  if (![a, b, d].every(({ lo, hi }) => Number.isFinite(lo) && Number.isFinite(hi))) return null
  const [p, q, r] = [a, b, d].map(I.middle) as [number, number, number]
  const det = p * r - q * q
  if (det === 0 || !Number.isFinite(1 / det)) return null
  const [y11, y12, y22] = [r / det, -q / det, p / det]
  const [mx, my] = [I.middle(box.x), I.middle(box.y)]
  const middle: Rectangle = { x: I.point(mx), y: I.point(my) }
  const own = I.noNotes()
  const [u, v] = gradient.map((partial) => plainRange(partial, middle, own)) as [Interval, Interval]
  if (own.partial || own.empty) return null
  const [rx, ry] = [I.subtract(box.x, middle.x), I.subtract(box.y, middle.y)]
  const row = (c: number, e: number, alongX: 0 | 1, m: Interval): Interval => {
    const shift = I.add(I.scale(u, c), I.scale(v, e))
    const onX = I.subtract(I.point(alongX), I.add(I.scale(a, c), I.scale(b, e)))
    const onY = I.subtract(I.point(1 - alongX), I.add(I.scale(b, c), I.scale(d, e)))
    return I.add(I.subtract(m, shift), I.add(I.multiply(onX, rx), I.multiply(onY, ry)))
  }
  return { x: row(y11, y12, 1, middle.x), y: row(y12, y22, 0, middle.y) }
}

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
function halves({ x, y }: Rectangle, within: Rectangle): Rectangle[] {
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

/** Rectangles that touch, as one around them all. */
function clusters(boxes: readonly Rectangle[]): Rectangle[] {
  let all: Rectangle[] = boxes.slice(0, mostClustered)
  for (;;) {
    const next: Rectangle[] = []
    for (const box of all) {
      const at = next.findIndex((one) => meets(one, around(box)))
      if (at < 0) next.push(box)
      else next[at] = { x: I.hull(next[at]!.x, box.x), y: I.hull(next[at]!.y, box.y) }
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

/** The round place in a small rectangle at which exact arithmetic gives 0 for both partial derivatives. */
function exactPlace(f: RealSurface, box: Rectangle): Rectangle | null {
  if (![box.x, box.y].every((side) => I.width(side) < 64 * smallest * scaleOf(side))) return null
  const [x, y] = [round(box.x), round(box.y)]
  if (x === null || y === null) return null
  const isZero = [f.partial(1, 0), f.partial(0, 1)].every((partial) => {
    const at = [x, y].reduce(
      (tree, value, i) =>
        substitute(tree, f.letters[i]!, exactly(rationalFromDecimal(String(value)))),
      partial.tree,
    )
    return exactRational(at)?.n === 0n
  })
  return isZero && !Number.isNaN(f.value(x, y)) ? { x: I.point(x), y: I.point(y) } : null
}

const round = (side: Interval): number | null => {
  const m = I.middle(side)
  for (let digits = 0; digits <= 6; digits++) {
    const value = Number(m.toFixed(digits)) + 0
    if (side.lo <= value && value <= side.hi) return value
  }
  return null
}

/** The second derivative test on the rectangle that holds the point. */
function pointOf({ bends }: System, at: Rectangle, proven: boolean): StationaryPoint {
  const [a, b, d] = bends.map((bend) => bend.enclose(at)) as [Interval, Interval, Interval]
  const determinant = I.subtract(I.multiply(a, d), I.square(b))
  const sign = I.signOf(determinant)
  const up = I.signOf(a)
  const kind =
    sign < 0 ? 'saddle' : sign === 0 || up === 0 ? 'open' : up > 0 ? 'minimum' : 'maximum'
  return { x: tidy(at.x), y: tidy(at.y), at, proven, kind, determinant, bend: a }
}

/** The middle, or 0 where it may be 0 and is so small that it is rounding. */
const tidy = (side: Interval) =>
  I.holdsZero(side) && I.width(side) < 1e-9 ? 0 : I.middle(side) + 0
