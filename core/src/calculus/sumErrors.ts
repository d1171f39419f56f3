import { differentiate } from '../algebra/differentiate'
import { countParts } from '../formula/tree'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { breaksIn } from './errorOrder'
import { heightReader } from './readHeights'
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
  for (const x of breaksIn(f, from, to)) {
    const [left, right] = [f.beside(x, -1, order), f.beside(x, 1, order)]
    const alike = left.every((v, k) => {
      const slack = 1e-9 * Math.max(1, Math.abs(v))
      return Number.isFinite(v) && Math.abs(v - right[k]!) <= slack
    })
    const value = f.value(x)
    const isDisplaced = !(Math.abs(value - left[0]!) <= 1e-9 * Math.max(1, Math.abs(value)))
    if (!alike || isDisplaced) return false
  }
  return [f.beside(from, 1, order), f.beside(to, -1, order)].every((found, i) => {
    const value = f.value(i === 0 ? from : to)
    const slack = 1e-9 * Math.max(1, Math.abs(value))
    return found.every(Number.isFinite) && Math.abs(value - found[0]!) <= slack
  })
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

/** Strip counts that are tried one by one; beyond them, in steps up to the greatest. */
export const eachTried = 400
export const mostTried = 1 << 16
/** What trying may cost in values of f, for a short formula and for a long one. */
const [mostValues, mostPartsValued] = [1_500_000, 60_000_000]
/** How far apart counts are tried beyond those that are tried one by one. */
const growth = 1.3

export interface CountsKept {
  /** From this count on the error stays below the tolerance, as far as is known. */
  from: number
  /** Whether that is proven for every larger count, or only for those that were tried. */
  proven: boolean
  /** A smaller count that meets the tolerance by chance, and a larger one that does not; or null. */
  early: { meets: number; fails: number } | null
}

/**
 * From which count of strips on |sum − area| stays below a tolerance. `sure` is a count from which a
 * bound of the error guarantees it, or null: what lies below it is tried one by one, where that is
 * not too much, and then the answer is proven. Else counts are tried one by one up to 400, then in
 * steps of 30 % to 65,536 and closed in on between the last that fails and the next. Null where the
 * largest one tried still fails. Simpson's rule is tried with even counts.
 */
export function countsKept(
  f: RealFunction,
  options: {
    from: number
    to: number
    rule: SumRule
    area: number
    tolerance: number
    sure: number | null
  },
): CountsKept | null {
  const { from, to, rule, area, tolerance, sure } = options
  if (!(tolerance > 0)) throw new RangeError(`a tolerance is above 0: ${tolerance}`)
  const step = rule === 'simpson' ? 2 : 1
  checkStrips({ from, to, count: step, rule })
  let left = Math.min(mostValues, mostPartsValued / countParts(f.tree))
  const read = heightReader(f, from, to)
  const meets = (count: number) => {
    left -= count
    const error = Math.abs(riemannTotal(f, { from, to, count, rule, read }) - area)
    return error < tolerance
  }
  let [first, failed, reached] = [0, 0, 0]
  /** The first count tried behind the last that fails. */
  let behind = 0
  const look = (count: number) => {
    const good = meets(count)
    if (good && first === 0) first = count
    if (!good) [failed, behind] = [count, 0]
    else if (behind === 0) behind = count
    reached = count
    return good
  }
  const isProvable = sure !== null && sure <= eachTried
  const each = isProvable ? sure : eachTried
  for (let n = step; n < each + step && left > 0; n += step) look(n)
  if (!isProvable) {
    for (let n = each * growth; n < mostTried * growth && left > n; n *= growth) {
      look(Math.min(mostTried, Math.round(n / step) * step))
    }
  }
  if (failed === reached) return null
  let [low, high] = [failed, behind]
  // Between a count that fails and the next one that was tried.
  while (high - low > step && left > high) {
    const middle = low + Math.max(step, Math.round((high - low) / 2 / step) * step)
    if (middle >= high) break
    if (meets(middle)) high = middle
    else low = middle
  }
  const early = first > 0 && first < low ? { meets: first, fails: low } : null
  return { from: high, proven: isProvable, early }
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
