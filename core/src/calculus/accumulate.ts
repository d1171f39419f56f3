import { compileTree, type RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { stretchesOf } from '../features/splits'
import { budgetFor, finish } from '../features/zeros'
import { compensatedSum } from './quadrature'
import { integrate } from './integrate'

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
  /** How far any value may be off. */
  errorBound: number
  /** Where the area runs away: A has no values beyond it. Null where it does not. */
  divergesAt: number | null
}

/** A stretch on which f is a polynomial to the last digits, and the area up to its beginning. */
interface Piece {
  from: number
  to: number
  /** Chebyshev coefficients of the area from `from`. */
  area: Float64Array
  before: number
}

/** Places on each piece; f is settled there when the last coefficients have died away. */
const nodes = 24
/** Of the greatest value of f on a piece. */
const settled = 4e-15
const deepest = 48
const mostPieces = 3000
const mostBoxes = 400
const splitBudget = 4000

const angles = Float64Array.from({ length: nodes }, (_, j) => (Math.PI * (j + 0.5)) / nodes)
const places = angles.map(Math.cos)
const cosines = Array.from({ length: nodes }, (_, k) => angles.map((a) => Math.cos(k * a)))

/** Chebyshev coefficients of values at the places (L. N. Trefethen, ATAP, SIAM 2013, from memory). */
function coefficientsOf(ys: Float64Array): Float64Array {
  return Float64Array.from({ length: nodes }, (_, k) => {
    let total = 0
    const row = cosines[k]!
    for (let j = 0; j < nodes; j++) total += ys[j]! * row[j]!
    return (total * (k === 0 ? 1 : 2)) / nodes
  })
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
 * `integrate` tells beside singular ends. A′ = f wherever f is continuous. Where an area runs away
 * A ends. A lower end outside [from, to] is reached by `integrate`.
 */
export function accumulate(f: RealFunction, lower: number, from: number, to: number): Accumulation {
  const { pieces, gaps, error } = expand(f, from, to)
  if (pieces.length === 0) return nowhere
  const starts = pieces.map((p) => p.from)
  const pieceAt = (x: number): Piece | null => {
    let [lo, hi] = [0, starts.length]
    while (lo < hi) {
      const m = (lo + hi) >> 1
      if (starts[m]! <= x) lo = m + 1
      else hi = m
    }
    const piece = pieces[lo - 1]
    return piece && x <= piece.to ? piece : null
  }
  /** From the beginning of the first piece. */
  const raw = (x: number): number => {
    const piece = pieceAt(x)
    if (!piece) return NaN
    const t = (2 * (x - piece.from)) / (piece.to - piece.from) - 1
    return piece.before + chebyshevValue(piece.area, Math.max(-1, Math.min(1, t)))
  }
  const inside = lower >= from && lower <= to
  const reached = inside ? null : integrate(f, lower, lower < from ? from : to)
  const origin = inside ? raw(lower) : raw(lower < from ? from : to) - reached!.value
  const errorBound = error + (reached ? reached.errorBound : 0)
  const cutOff = (x: number) =>
    gaps.some((g) => (g >= lower && g < x) || (g <= lower && g > x)) ||
    (x === lower && gaps.includes(x))
  const value = (x: number) => {
    if (gaps.length > 0 && cutOff(x)) return NaN
    const found = raw(x)
    return x === lower && !Number.isNaN(found) ? 0 : found - origin
  }
  const slopes = (x: number, order: number, fs: number[]) => [value(x), ...fs.slice(0, order)]
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
      const half = Math.max(b - middle, middle - a)
      const reach = half === 0 ? 0 : half * Math.max(Math.abs(least), Math.abs(greatest))
      const slack = errorBound + 4 * Number.EPSILON * (Math.abs(at) + reach)
      return [at - reach - slack, at + reach + slack]
    },
    errorBound,
    divergesAt: gaps[0] ?? (reached?.diverges ? reached.divergesAt : null),
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
}

function expand(f: RealFunction, from: number, to: number) {
  const tree = withValues(f.tree, f.parameters)
  const { stretches } = finish(
    stretchesOf(tree, f.variable, from, to, budgetFor(tree, splitBudget)),
  )
  const pieces: Piece[] = []
  const gaps: number[] = []
  const errors: number[] = []
  let [total, carried] = [0, 0]
  const push = (piece: Omit<Piece, 'before'>, whole: number, error: number) => {
    pieces.push({ ...piece, before: total + carried })
    errors.push(error)
    // Neumaier's sum, kept open from piece to piece.
    const next = total + whole
    carried += Math.abs(total) >= Math.abs(whole) ? total - next + whole : whole - next + total
    total = next
  }
  /** What no polynomial follows, at a singular end: its area, as a straight line. */
  const straight = (a: number, b: number) => {
    const found = integrate(f, a, b)
    if (found.diverges) gaps.push(found.divergesAt!)
    const whole = Number.isFinite(found.value) ? found.value : 0
    push(
      { from: a, to: b, area: Float64Array.of(whole / 2, whole / 2) },
      whole,
      Number.isFinite(found.errorBound) ? found.errorBound + Math.abs(whole) : 0,
    )
  }
  const xs = new Float64Array(nodes)
  /** The size of the areas seen so far. */
  let scale = 0
  let boxes = 0
  /** Whether f may rise far beyond its values at the nodes. */
  const hidesSpike = (code: RealFunction, a: number, b: number, size: number) => {
    boxes += 1
    const [lo, hi] = code.enclose(a, b)
    return Math.max(Math.abs(lo), Math.abs(hi)) > 10 * size + 1e-12
  }
  let ends = { from, to }
  const visit = (code: RealFunction, a: number, b: number, depth: number): void => {
    const half = (b - a) / 2
    const middle = a + half
    for (let j = 0; j < nodes; j++) xs[j] = middle + half * places[j]!
    const ys = code.values(xs)
    const c = coefficientsOf(ys)
    const size = ys.reduce((m, y) => Math.max(m, Math.abs(y)), 0)
    const largest = (k: number, end: number) => Math.max(...c.subarray(k, end).map(Math.abs))
    const tail = largest(nodes - 3, nodes)
    scale = Math.max(scale, size * half)
    // Coefficients that no longer fall are rounding: halving would not make them smaller.
    const isRounding = tail < 1e-9 * size && tail > 0.05 * largest(nodes - 9, nodes - 3)
    const even = tail <= settled * size || isRounding || tail * half <= 1e-15 * scale
    const done = even && !(boxes < mostBoxes && hidesSpike(code, a, b, size))
    if (!done && depth < deepest && pieces.length < mostPieces && middle > a && middle < b) {
      visit(code, a, middle, depth + 1)
      visit(code, middle, b, depth + 1)
      return
    }
    // Only at an end of its stretch may f run away; elsewhere the error says what is left.
    const atEnd = a === ends.from || b === ends.to
    if (!done && (atEnd || !Number.isFinite(tail))) return straight(a, b)
    const area = antiderivative(c).map((v) => v * half)
    push({ from: a, to: b, area }, chebyshevValue(area, 1), (nodes * tail + 8e-16 * size) * half)
  }
  for (const stretch of stretches) {
    if (!stretch.tree) continue
    ends = stretch
    visit(compileTree(stretch.tree, { variable: f.variable }), stretch.from, stretch.to, 0)
  }
  return { pieces, gaps, error: compensatedSum(errors) }
}
