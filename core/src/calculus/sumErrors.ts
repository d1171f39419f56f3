import { differentiate } from '../algebra/differentiate'
import { stretchesOf } from '../features/splits'
import { budgetOf, finish } from '../features/budget'
import { countParts } from '../formula/tree'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { checkStrips, riemannTotal, type SumRule } from './riemann'

/** Rules whose error has a known order; the others read no fixed place. */
type OrderedRule = 'left' | 'right' | 'midpoint' | 'trapezoid' | 'simpson'

/**
 * The order with which the error of a rule falls for smooth f as strips get narrower, or null where
 * there is none that holds for all: left and right 1, trapezoid and midpoint 2, Simpson 4; any other
 * fixed position 1. Source: any text on numerical analysis, such as Atkinson, An Introduction to
 * Numerical Analysis, Wiley 1989, chapter 5 (from memory).
 */
export function usualOrder(rule: SumRule): number | null {
  if (typeof rule === 'object') return rule.position === 0.5 ? 2 : 1
  const orders: Record<string, number> = {
    left: 1,
    right: 1,
    midpoint: 2,
    trapezoid: 2,
    simpson: 4,
    lower: 1,
    upper: 1,
  }
  return orders[rule] ?? null
}

/** |error| ≤ factor · width^power · max |f⁽ᵏ⁾| / count^order. */
const bounds: Record<OrderedRule, { derivative: number; factor: number }> = {
  left: { derivative: 1, factor: 1 / 2 },
  right: { derivative: 1, factor: 1 / 2 },
  midpoint: { derivative: 2, factor: 1 / 24 },
  trapezoid: { derivative: 2, factor: 1 / 12 },
  simpson: { derivative: 4, factor: 1 / 180 },
}

/** How many boxes the span is cut into for the bound of a derivative. */
const boxes = 256

/**
 * The greatest |f⁽ᵏ⁾| on a span, from above: the enclosures of 256 boxes. Infinity where it is not
 * bounded, and where f or a derivative below it is missing somewhere (a kink, a jump): the error
 * formulas hold only for f that is smooth up to that order.
 */
export function derivativeBound(f: RealFunction, order: number, from: number, to: number): number {
  const { variable } = f
  let tree = withValues(f.tree, f.parameters)
  const [low, high] = from < to ? [from, to] : [to, from]
  for (let k = 0; k < order; k++) tree = differentiate(tree, variable)
  const derivative = compileTree(tree, { variable })
  if (!isSmooth(f, order, low, high)) return Infinity
  let most = 0
  for (let i = 0; i < boxes; i++) {
    const [a, b] = derivative.enclose(
      low + ((high - low) * i) / boxes,
      low + ((high - low) * (i + 1)) / boxes,
    )
    if (Number.isNaN(a) || Number.isNaN(b)) return Infinity
    most = Math.max(most, Math.abs(a), Math.abs(b))
  }
  return most
}

/** Whether no derivative up to an order jumps or is missing: at kinks the sides of f differ. */
function isSmooth(f: RealFunction, order: number, from: number, to: number): boolean {
  const places = new Set<number>()
  for (const { x } of breaksOf(f, from, to)) places.add(x)
  for (const x of places) {
    if (x <= from || x >= to) continue
    const [left, right] = [f.beside(x, -1, order), f.beside(x, 1, order)]
    const alike = left.every((v, k) => {
      const slack = 1e-9 * Math.max(1, Math.abs(v))
      return Number.isFinite(v) && Math.abs(v - right[k]!) <= slack
    })
    if (!alike || !Number.isFinite(f.value(x))) return false
  }
  return f
    .beside(from, 1, order)
    .concat(f.beside(to, -1, order))
    .every(Number.isFinite)
}

/** Where the formula is cut: bars, steps, pieces, roots, denominators. */
function breaksOf(f: RealFunction, from: number, to: number): { x: number }[] {
  const tree = withValues(f.tree, f.parameters)
  const { splits } = finish(stretchesOf(tree, f.variable, from, to, budgetOf(2000)))
  return splits.map(({ enclosure: { lo, hi } }) => ({ x: lo + (hi - lo) / 2 }))
}

/**
 * A bound of |sum − area| for a count of strips, or null where the rule has none or the derivative
 * in it is not bounded on the span.
 */
export function sumErrorBound(
  f: RealFunction,
  { from, to, count, rule }: { from: number; to: number; count: number; rule: SumRule },
): number | null {
  const make = errorBoundOf(f, from, to, rule)
  return make && make(count)
}

/** The same for many counts: the derivative is bounded once. */
export function errorBoundOf(
  f: RealFunction,
  from: number,
  to: number,
  rule: SumRule,
): ((count: number) => number) | null {
  const name = typeof rule === 'object' ? namedPosition(rule.position) : rule
  if (name === null || !(name in bounds)) return null
  const { derivative, factor } = bounds[name as OrderedRule]
  const most = derivativeBound(f, derivative, from, to)
  if (!Number.isFinite(most)) return null
  const order = usualOrder(name)!
  const width = Math.abs(to - from)
  return (count) => (factor * width ** (order + 1) * most) / count ** order
}

const namedPosition = (position: number): OrderedRule | null =>
  position === 0 ? 'left' : position === 1 ? 'right' : position === 0.5 ? 'midpoint' : null

/**
 * The order of the error as its tail shows it: the slope of ln|error| against ln n over the last
 * three counts, or null where errors are 0, have drowned in rounding, or do not fall evenly.
 */
export function fittedOrder(
  counts: readonly number[],
  errors: readonly number[],
  rounding = 0,
): number | null {
  const tail = counts
    .map((n, i) => ({ n, error: Math.abs(errors[i]!) }))
    .filter(({ error }) => error > 20 * rounding && error > 0)
    .slice(-3)
  if (tail.length < 3) return null
  const slopes = tail
    .slice(1)
    .map((p, i) => -Math.log(p.error / tail[i]!.error) / Math.log(p.n / tail[i]!.n))
  const [a, b] = slopes as [number, number]
  if (!(Math.abs(a - b) <= 0.35 * Math.max(1, Math.abs(b)))) return null
  return b
}

/** Strip counts that are tried one by one before counts are doubled. */
const eachTried = 400
export const mostTried = 1 << 16
/** What trying may cost in values of f, for a short formula and for a long one. */
const [mostValues, mostPartsValued] = [1_000_000, 60_000_000]

export interface CountNeeded {
  count: number
  error: number
}

/**
 * The smallest count of strips with |sum − area| below a tolerance, by trying: each count up to 400,
 * then doubling and closing in, which takes the error to fall from there on. Null where 65,536 strips
 * are not enough, or a very long formula would cost too much. Simpson's rule is tried with even
 * counts.
 */
export function smallestCount(
  f: RealFunction,
  options: { from: number; to: number; rule: SumRule; area: number; tolerance: number },
): CountNeeded | null {
  const { from, to, rule, area, tolerance } = options
  if (!(tolerance > 0)) throw new RangeError(`a tolerance is above 0: ${tolerance}`)
  const step = rule === 'simpson' ? 2 : 1
  checkStrips({ from, to, count: step, rule })
  let left = Math.min(mostValues, mostPartsValued / countParts(f.tree))
  const errorFor = (count: number) => {
    left -= count
    return Math.abs(riemannTotal(f, { from, to, count, rule }) - area)
  }
  for (let n = step; n <= eachTried && left > 0; n += step) {
    const error = errorFor(n)
    if (error < tolerance) return { count: n, error }
  }
  let low = { count: eachTried, error: errorFor(eachTried) }
  let high = { count: 2 * eachTried, error: errorFor(2 * eachTried) }
  while (high.error >= tolerance) {
    low = high
    const count = 2 * high.count
    if (count > mostTried || left <= 0) return null
    high = { count, error: errorFor(count) }
  }
  for (let i = 0; high.count - low.count > step; i++) {
    if (left <= 0) return null
    // By the power of n with which the error falls, and in turns by halving the gap.
    const share = i % 3 === 2 ? 0.5 : powerShare(low, high, tolerance)
    const way = Math.round((share * (high.count - low.count)) / step) * step
    const count = low.count + Math.max(step, Math.min(way, high.count - low.count - step))
    const tried = { count, error: errorFor(count) }
    if (tried.error < tolerance) high = tried
    else low = tried
  }
  return high
}

/** How far between two counts the error meets a tolerance if it falls like a power of the count. */
function powerShare(low: CountNeeded, high: CountNeeded, tolerance: number): number {
  const order = Math.log(low.error / high.error) / Math.log(high.count / low.count)
  const meets = low.count * (low.error / tolerance) ** (1 / order)
  const share = (meets - low.count) / (high.count - low.count)
  return Number.isFinite(share) ? share : 0.5
}

/** The smallest count whose error bound is below a tolerance, or null where there is no bound or no such count. */
export function countByBound(
  f: RealFunction,
  options: { from: number; to: number; rule: SumRule; tolerance: number },
): number | null {
  const { from, to, rule, tolerance } = options
  if (!(tolerance > 0)) throw new RangeError(`a tolerance is above 0: ${tolerance}`)
  const bound = errorBoundOf(f, from, to, rule)
  if (!bound) return null
  const order = usualOrder(rule)!
  const exact = (bound(1) / tolerance) ** (1 / order)
  // Beyond whole numbers that doubles tell apart there is no smallest one.
  if (!(exact < 2 ** 50)) return null
  const step = rule === 'simpson' ? 2 : 1
  let count = Math.max(step, Math.ceil(exact / step) * step)
  while (count > step && bound(count - step) < tolerance) count -= step
  while (bound(count) >= tolerance) count += step
  return count
}
