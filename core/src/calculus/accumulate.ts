import { compileTree, type RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { sideLimit } from '../features/limits/sideLimit'
import type { Stretch } from '../features/split'
import { stretchesOf } from '../features/splits'
import { budgetOf, finish } from '../features/budget'
import { ulpOf } from '../features/ends'
import type { Tree } from '../formula/tree'
import { type Integral, integrate } from './integrate'

/** The area under f from a fixed place to x, as a function of x. */
export interface Accumulation {
  /** A(x) = ∫ f from the lower end to x; NaN outside the stretch and where there is no area. */
  value(x: number): number
  /** A at each of xs, into `out` where it is given. */
  values(xs: ArrayLike<number>, out?: Float64Array): Float64Array
  /** [A, f, f′, …] at x. */
  derivatives(x: number, order: number): number[]
  beside(x: number, side: -1 | 1, order: number): number[]
  /** An interval that holds A on the box: from the nearest value by what f can add. */
  enclose(lo: number, hi: number): [lo: number, hi: number]
  /** How far any value may be off, but beside a singular end, where `enclose` knows more. */
  errorBound: number
  /** Where the area runs away: A has no values beyond it. Null where it does not. */
  divergesAt: number | null
  /** Where it could not be told whether there is an area; A has no values beyond it either. */
  unsettledAt: number | null
  /** The span on which A has values, as far as it was asked for; at `runsAway` it has none. */
  domain: { from: number; to: number; runsAway: readonly number[] }
}

/** A stretch on which f is a polynomial to the last digits, and its area from `from`. */
interface Piece {
  from: number
  to: number
  /** Chebyshev coefficients of the area from `from`, and the area up to `to`. */
  area: Float64Array
  whole: number
  error: number
  /** How far A may be off between the ends of a piece that no polynomial follows. */
  inside: number
}

/** Where A ends. */
interface Gap {
  from: number
  to: number
  why: 'diverges' | 'unsettled' | 'undefined'
}

/** Places on each piece; f is settled there when the last coefficients have died away. */
const nodes = 24
/** Of the greatest value of f on a piece. */
const settled = 4e-15
const deepest = 48
/** Where f breaks two pieces leave the enclosure of that place between them, in units of the last place. */
const splitWidth = 8
/** No piece is made narrower than this share of its place. */
const finest = 1e-9
const mostPieces = 5000
const mostBoxes = 400
const splitBudget = 4000

const angles = Float64Array.from({ length: nodes }, (_, j) => (Math.PI * (j + 0.5)) / nodes)
const places = angles.map(Math.cos)
/** cos(k·angle j), row by row. */
const cosines = Float64Array.from({ length: nodes * nodes }, (_, i) =>
  Math.cos(Math.floor(i / nodes) * angles[i % nodes]!),
)

/** Chebyshev coefficients of values at the places (L. N. Trefethen, ATAP, SIAM 2013, from memory). */
function coefficientsOf(ys: Float64Array): Float64Array {
  const out = new Float64Array(nodes)
  for (let k = 0; k < nodes; k++) {
    let total = 0
    for (let j = 0; j < nodes; j++) total += ys[j]! * cosines[k * nodes + j]!
    out[k] = (total * (k === 0 ? 1 : 2)) / nodes
  }
  return out
}

/** The antiderivative on [-1, 1] that is 0 at -1. */
function antiderivative(c: Float64Array): Float64Array {
  const out = new Float64Array(nodes + 1)
  for (let k = 1; k <= nodes; k++) {
    const below = (k === 1 ? 2 : 1) * c[k - 1]!
    out[k] = (below - (c[k + 1] ?? 0)) / (2 * k)
  }
  let atLeft = 0
  for (let k = 1; k <= nodes; k++) atLeft += k % 2 === 0 ? out[k]! : -out[k]!
  out[0] = -atLeft
  return out
}

/** Clenshaw's recurrence. */
function chebyshevValue(c: Float64Array, t: number): number {
  let [b1, b2] = [0, 0]
  for (let k = c.length - 1; k >= 1; k--) [b1, b2] = [2 * t * b1 - b2 + c[k]!, b1]
  return t * b1 - b2 + c[0]!
}

/**
 * A(x) = ∫ f from `lower` to x for x in [from, to], made once and then evaluated at the cost of a
 * short polynomial: on each piece f is expanded in Chebyshev polynomials, halved until their
 * coefficients have died away, and the expansion integrated exactly. Kinks, jumps and joins are cut
 * first. Absolute error at most `errorBound`, a few roundings of ∫|f| for smooth f and what
 * `integrate` tells beside singular ends. A′ = f wherever f is continuous. Where an area runs away,
 * or cannot be told, A ends. A lower end outside [from, to] is reached by `integrate`.
 */
export function accumulate(f: RealFunction, lower: number, from: number, to: number): Accumulation {
  const { pieces, gaps } = expand(f, from, to)
  const starts = pieces.map((p) => p.from)
  /** The place in the list of the piece that holds x; -1 where there is none. */
  const indexOf = (x: number): number => {
    let [lo, hi] = [0, starts.length]
    while (lo < hi) {
      const m = (lo + hi) >> 1
      if (starts[m]! <= x) lo = m + 1
      else hi = m
    }
    const first = pieces[0]
    if (lo === 0) return first && x >= first.from - splitWidth * ulpOf(first.from) ? 0 : -1
    const piece = pieces[lo - 1]!
    return x <= piece.to + splitWidth * ulpOf(piece.to) ? lo - 1 : -1
  }
  const anchor = Math.min(to, Math.max(from, lower))
  const outer = anchor === lower ? null : integrate(f, lower, anchor)
  const home = indexOf(anchor)
  if (home < 0) return nowhere
  const { before, errors } = outwards(pieces, home, anchor, outer)
  /** A stretch without values cuts where it is entered; a place, where it is passed or begun at. */
  const cutOff = (x: number) => {
    const [lo, hi] = [Math.min(lower, x), Math.max(lower, x)]
    return gaps.some((g) =>
      g.from < g.to
        ? Math.max(lo, g.from) < Math.min(hi, g.to)
        : g.from === lower || (g.from !== x && g.from > lo && g.from < hi),
    )
  }
  const value = (x: number) => {
    const i = x === lower && home >= 0 ? home : indexOf(x)
    if (i < 0 || (gaps.length > 0 && cutOff(x))) return NaN
    return x === lower ? 0 : before[i]! + areaWithin(pieces[i]!, x)
  }
  /** Between the ends of a piece that no polynomial follows. */
  const astray = (x: number) => {
    const piece = pieces[indexOf(x)]
    return !piece || x === piece.from || x === piece.to ? 0 : piece.inside
  }
  const errorAt = (x: number) => (errors[indexOf(x)] ?? 0) + astray(x) + astray(anchor)
  const slopes = (x: number, order: number, fs: number[]) => [value(x), ...fs.slice(0, order)]
  const ends = pieces.flatMap((p) => [p.from, p.to]).filter((x) => !cutOff(x))
  const domain = domainOf(gaps, lower, from, to)
  return {
    value,
    values(xs, out = new Float64Array(xs.length)) {
      for (let i = 0; i < xs.length; i++) out[i] = value(xs[i]!)
      return out
    },
    derivatives: (x, order) => slopes(x, order, order > 0 ? f.derivatives(x, order - 1) : []),
    beside: (x, side, order) => slopes(x, order, order > 0 ? f.beside(x, side, order - 1) : []),
    enclose(lo, hi) {
      const [a, b] = lo <= hi ? [lo, hi] : [hi, lo]
      const middle = a + (b - a) / 2
      const at = value(middle)
      const [least, greatest] = f.enclose(a, b)
      if (Number.isNaN(at)) return [NaN, NaN]
      // Where f keeps its sign the area only rises, or only falls, however steeply.
      if (a < b && (least >= 0 || greatest <= 0)) {
        const way = greatest <= 0 ? -1 : 1
        const p = domain.runsAway.includes(a) ? -way * Infinity : value(a)
        const q = domain.runsAway.includes(b) ? way * Infinity : value(b)
        const room = (x: number, y: number) =>
          Number.isFinite(y) ? errorAt(x) + 4 * Number.EPSILON * Math.abs(y) : 0
        const [low, high] = [Math.min(p, q), Math.max(p, q)]
        const most = Math.max(room(a, p), room(b, q))
        if (!Number.isNaN(p + q)) return [low - most, high + most]
      }
      const half = Math.max(b - middle, middle - a)
      const reach = half === 0 ? 0 : half * Math.max(Math.abs(least), Math.abs(greatest))
      const slack = errorAt(middle) + 4 * Number.EPSILON * (Math.abs(at) + reach)
      return [at - reach - slack, at + reach + slack]
    },
    errorBound: ends.reduce((most, x) => Math.max(most, errorAt(x)), 0),
    divergesAt: gaps.find((g) => g.why === 'diverges')?.from ?? outer?.divergesAt ?? null,
    unsettledAt: gaps.find((g) => g.why === 'unsettled')?.from ?? null,
    domain,
  }
}

/** Where A begins and ends: at the gaps nearest to where it is anchored. */
function domainOf(gaps: readonly Gap[], lower: number, from: number, to: number) {
  const before = gaps.filter((g) => g.to <= lower && g.from < lower)
  const after = gaps.filter((g) => g.from >= lower && g.to > lower)
  const first = before.reduce<Gap | null>((p, g) => (p && p.to > g.to ? p : g), null)
  const last = after.reduce<Gap | null>((p, g) => (p && p.from < g.from ? p : g), null)
  return {
    from: first ? Math.max(from, first.to) : from,
    to: last ? Math.min(to, last.from) : to,
    runsAway: [
      ...(first?.why === 'diverges' ? [first.to] : []),
      ...(last?.why === 'diverges' ? [last.from] : []),
    ],
  }
}

/** The area from the beginning of a piece to x. */
function areaWithin({ from, to, area }: Piece, x: number): number {
  const t = (2 * (x - from)) / (to - from) - 1
  return chebyshevValue(area, Math.max(-1, Math.min(1, t)))
}

/**
 * A at the beginning of each piece, and how far A may be off on it, added up from the anchor's piece
 * to both sides: what is far away, however large, takes no digits from what is near.
 */
function outwards(pieces: readonly Piece[], home: number, anchor: number, outer: Integral | null) {
  const before = new Float64Array(pieces.length)
  const errors = new Float64Array(pieces.length)
  before[home] = (outer?.value ?? 0) - areaWithin(pieces[home]!, anchor)
  errors[home] = (outer?.errorBound ?? 0) + pieces[home]!.error
  for (const step of [1, -1]) {
    const sum = runningSum(before[home])
    for (let i = home + step; i >= 0 && i < pieces.length; i += step) {
      before[i] = sum(step > 0 ? pieces[i - 1]!.whole : -pieces[i]!.whole)
      errors[i] = errors[i - step]! + pieces[i]!.error
    }
  }
  return { before, errors }
}

/** Neumaier's sum, kept open from term to term. */
function runningSum(start: number): (term: number) => number {
  let [total, carried] = [start, 0]
  return (term) => {
    const next = total + term
    carried += Math.abs(total) >= Math.abs(term) ? total - next + term : term - next + total
    total = next
    return total + carried
  }
}

/** The area under a function that has no values on the stretch. */
const nowhere: Accumulation = {
  value: () => NaN,
  values: (xs, out = new Float64Array(xs.length)) => out.fill(NaN, 0, xs.length),
  derivatives: (_x, order) => new Array<number>(order + 1).fill(NaN),
  beside: (_x, _side, order) => new Array<number>(order + 1).fill(NaN),
  enclose: () => [NaN, NaN],
  errorBound: Infinity,
  divergesAt: null,
  unsettledAt: null,
  domain: { from: NaN, to: NaN, runsAway: [] },
}

/** A part of a stretch with the expansion of f on it. */
interface Leaf {
  from: number
  to: number
  coefficients: Float64Array
  /** The greatest of |f| seen, and of the last coefficients. */
  size: number
  tail: number
  /** The expansion holds f to the last digits. */
  done: boolean
}

function expand(f: RealFunction, from: number, to: number) {
  const tree = withValues(f.tree, f.parameters)
  const { stretches, splits } = finish(
    stretchesOf(tree, f.variable, from, to, budgetOf(splitBudget)),
  )
  const pieces: Piece[] = []
  const gaps: Gap[] = []
  const cutAt = (at: number, why: Gap['why']) => gaps.push({ from: at, to: at, why })
  const push = (from: number, to: number, area: Float64Array, error: number, inside = 0) =>
    pieces.push({ from, to, area, whole: chebyshevValue(area, 1), error, inside })
  /** What no polynomial follows, at a singular end: its area, as a straight line. */
  const straight = (a: number, b: number) => {
    const found = integrate(f, a, b)
    if (found.diverges) cutAt(found.divergesAt!, 'diverges')
    else if (Number.isNaN(found.value)) cutAt(a, 'unsettled')
    const whole = Number.isFinite(found.value) ? found.value : 0
    const [least, greatest] = f.enclose(a, b)
    const most = Math.max(Math.abs(least), Math.abs(greatest)) * (b - a)
    push(
      a,
      b,
      Float64Array.of(whole / 2, whole / 2),
      Number.isFinite(found.errorBound) ? found.errorBound : 0,
      Number.isFinite(most) ? most : Math.abs(whole),
    )
  }
  /** Whether f grows beyond bounds at an end of a stretch, and its area with it. */
  const runsAway = (part: Tree, stretch: Stretch, at: number, side: 1 | -1) => {
    const split = splits.find((s) => s.enclosure.lo <= at && at <= s.enclosure.hi)
    if (!split || sideLimit(part, f.variable, split, side).kind !== 'infinite') return false
    return integrate(f, stretch.from + (stretch.to - stretch.from) / 2, at).diverges
  }
  for (const stretch of stretches) {
    const { tree: part, from: a, to: b } = stretch
    if (!part) {
      // An end that no double meets, such as √2, may lie beyond that of f by a rounding.
      const isRounding = (a === from || b === to) && b - a <= splitWidth * ulpOf(b)
      if (!isRounding) gaps.push({ from: a, to: b, why: 'undefined' })
      continue
    }
    const away = [runsAway(part, stretch, a, 1), runsAway(part, stretch, b, -1)] as const
    if (away[0]) cutAt(a, 'diverges')
    if (away[1]) cutAt(b, 'diverges')
    const leaves = leavesOf(compileTree(part, { variable: f.variable }), a, b)
    const first = leaves.findIndex((l) => l.done)
    const last = leaves.findLastIndex((l) => l.done)
    const isCut = (at: number) => splits.some((s) => s.enclosure.lo <= at && at <= s.enclosure.hi)
    // Beside a cut f may be singular: what is not settled there goes as a whole, or runs away.
    const low = isCut(a) || !Number.isFinite(leaves[0]!.tail) ? first : 0
    const high = isCut(b) || !Number.isFinite(leaves.at(-1)!.tail) ? last : leaves.length - 1
    if (first < 0 && (low < 0 || high < 0)) {
      if (!away[0] && !away[1]) straight(a, b)
      continue
    }
    if (low > 0 && !away[0]) straight(a, leaves[low]!.from)
    for (const leaf of leaves.slice(low, high + 1)) {
      const half = (leaf.to - leaf.from) / 2
      if (!Number.isFinite(leaf.tail)) straight(leaf.from, leaf.to)
      else {
        const area = antiderivative(leaf.coefficients).map((v) => v * half)
        push(leaf.from, leaf.to, area, (nodes * leaf.tail + 8e-16 * leaf.size) * half)
      }
    }
    if (high < leaves.length - 1 && !away[1]) straight(leaves[high]!.to, b)
  }
  return { pieces, gaps }
}

/**
 * A stretch cut in halves, all that need it at once, until the expansions hold f or there are
 * enough pieces: so what is left over has the same width wherever it lies.
 */
function leavesOf(code: RealFunction, from: number, to: number): Leaf[] {
  let boxes = 0
  /** Whether f may rise far beyond its values at the nodes. */
  const hidesSpike = (a: number, b: number, size: number) => {
    boxes += 1
    const [lo, hi] = code.enclose(a, b)
    return Math.max(Math.abs(lo), Math.abs(hi)) > 10 * size + 1e-12
  }
  const xs = new Float64Array(nodes)
  const leafOn = (a: number, b: number): Leaf => {
    const half = (b - a) / 2
    const middle = a + half
    for (let j = 0; j < nodes; j++) xs[j] = middle + half * places[j]!
    const ys = code.values(xs)
    const c = coefficientsOf(ys)
    const size = ys.reduce((m, y) => Math.max(m, Math.abs(y)), 0)
    const largest = (k: number, end: number) => {
      let most = 0
      for (let i = k; i < end; i++) most = Math.max(most, Math.abs(c[i]!))
      return most
    }
    const tail = largest(nodes - 3, nodes)
    // Coefficients that no longer fall are rounding: halving would not make them smaller.
    const isRounding = tail < 1e-9 * size && tail > 0.05 * largest(nodes - 9, nodes - 3)
    const even = tail <= settled * size || isRounding
    const done = Number.isFinite(tail) && even && !(boxes < mostBoxes && hidesSpike(a, b, size))
    return { from: a, to: b, coefficients: c, size, tail, done }
  }
  // Beside a singular place other than 0 the rounding of x soon hides what f does.
  const canHalve = ({ from: a, to: b, done }: Leaf) =>
    !done && b - a > finest * Math.max(Math.abs(a), Math.abs(b))
  let leaves = [leafOn(from, to)]
  for (let depth = 0; depth < deepest; depth++) {
    const open = leaves.filter(canHalve).length
    if (open === 0 || leaves.length + open > mostPieces) break
    leaves = leaves.flatMap((leaf) => {
      const middle = leaf.from + (leaf.to - leaf.from) / 2
      return canHalve(leaf) ? [leafOn(leaf.from, middle), leafOn(middle, leaf.to)] : [leaf]
    })
  }
  return leaves
}
