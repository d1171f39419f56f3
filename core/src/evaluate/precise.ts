import type { Decimal } from 'decimal.js'
import { type Ball, BallArithmetic } from '../arithmetic/balls'
import { decimalOfNumber } from '../arithmetic/rational'
import {
  type Condition,
  literalFraction,
  type PowerTree,
  quotient,
  type Tree,
} from '../formula/tree'
import { entryOf } from '../functions'
import { writtenOut } from '../functions/writtenOut'

/** Values of the names in a formula. */
export type Places = ReadonlyMap<string, Ball>

/**
 * A formula worked out with balls: exact numbers stay exact, and every result says how far it may be
 * off. A ball without a radius that can be told, where conditions, jumps or poles are not settled at
 * this precision, or where an area without a formula stands in it; NaN where there is no value.
 */
export function preciseValue(tree: Tree, places: Places, B: BallArithmetic): Ball {
  const value = (part: Tree): Ball => preciseValue(part, places, B)
  switch (tree.kind) {
    case 'number':
      return B.of(tree.exact)
    case 'constant':
      return tree.name === 'pi' ? B.pi : B.e
    case 'name':
      return places.get(tree.name) ?? B.unsure
    case 'sum':
      return tree.terms.map(value).reduce((a, b) => B.add(a, b))
    case 'product':
      return tree.factors.map(value).reduce((a, b) => B.multiply(a, b))
    case 'quotient':
      return B.divide(value(tree.above), value(tree.below))
    case 'power':
      return powerOf(tree, value, B)
    case 'call':
      return callOf(tree, value, B)
    case 'pieces':
      for (const { body, when } of tree.pieces) {
        const holds = when ? conditionHolds(when, value, B) : true
        if (holds === null) return B.unsure
        if (holds) return value(body)
      }
      return B.none
    case 'area':
    case 'curve':
      return B.unsure
  }
}

function powerOf(
  { base, exponent }: PowerTree,
  value: (part: Tree) => Ball,
  B: BallArithmetic,
): Ball {
  if (base.kind === 'constant' && base.name === 'e') return B.exp(value(exponent))
  const u = value(base)
  if (u.m.isNaN()) return B.none
  const fraction = literalFraction(exponent)
  const share = fraction ?? (exponent.kind === 'number' ? exponent.exact : null)
  if (!share) {
    // 0 to a moving power is a value on the edge of the domain alone.
    if (u.m.isZero() && u.r.isZero()) {
      const v = value(exponent)
      return v.m.minus(v.r).greaterThan(0)
        ? B.ofNumber(0)
        : v.m.isZero() && v.r.isZero()
          ? B.ofNumber(1)
          : B.unsure
    }
    if (B.isBelow(u, 0)) return wholePower(u, value(exponent), B)
    return B.exp(B.multiply(value(exponent), B.ln(u)))
  }
  if (share.d === 1n) {
    const n = Number(share.n)
    if (Math.abs(n) > 100_000) return B.unsure
    return B.power(u, n)
  }
  if (u.m.isZero() && u.r.isZero()) return share.n > 0n ? B.ofNumber(0) : B.none
  const isBelow = B.isBelow(u, 0)
  // A fraction with an odd denominator means the real root.
  if (isBelow && (!fraction || share.d % 2n === 0n)) return B.none
  const size = B.abs(u)
  const times = Number(share.n)
  const isSquare = share.d === 2n && Math.abs(times) < 1000
  const root = isSquare ? B.power(B.sqrt(size), times) : B.exp(B.multiply(B.of(share), B.ln(size)))
  return isBelow && share.n % 2n !== 0n ? B.negate(root) : root
}

/** A negative base has a power only to whole numbers. */
function wholePower(u: Ball, exponent: Ball, B: BallArithmetic): Ball {
  if (!exponent.r.isZero()) return B.unsure
  return exponent.m.isInteger() && exponent.m.abs().lessThan(100_000)
    ? B.power(u, exponent.m.toNumber())
    : B.none
}

function callOf(
  tree: Tree & { kind: 'call' },
  value: (part: Tree) => Ball,
  B: BallArithmetic,
): Ball {
  const written = writtenOut(tree)
  if (written !== tree) return value(written)
  switch (tree.name) {
    case 'logBase': {
      const [base, of] = tree.args as [Tree, Tree]
      return B.divide(B.ln(value(of)), B.ln(value(base)))
    }
    case 'min':
    case 'max': {
      const sign = tree.name === 'min' ? 1 : -1
      return tree.args.map(value).reduce((a, b) => least(a, b, sign, B))
    }
    default: {
      const entry = entryOf(tree.name)
      const [u] = tree.args as [Tree]
      if (entry.ball) return entry.ball(value(u), B)
      const parts = entry.quotient?.(u)
      const other = parts ? quotient(parts.above, parts.below) : entry.inGrowth?.(u)
      if (other) return value(other)
      const exact = u.kind === 'number' ? entry.exact?.(u) : null
      return exact ? value(exact) : B.unsure
    }
  }
}

function least(a: Ball, b: Ball, sign: 1 | -1, B: BallArithmetic): Ball {
  const order = compareBalls(a, b)
  if (order !== null) return order * sign <= 0 ? a : b
  if (a.m.isNaN() || b.m.isNaN()) return B.none
  // One of the two, whichever: both lie in here.
  const m = a.m.plus(b.m).div(2)
  const apart = a.m.minus(b.m).abs()
  return { m, r: apart.plus(a.r).plus(b.r) }
}

/** −1, 0 or 1 where that is sure; null where it is not. */
function compareBalls(a: Ball, b: Ball): -1 | 0 | 1 | null {
  const gap = a.m.minus(b.m)
  const spread = a.r.plus(b.r)
  if (spread.isZero()) return gap.isZero() ? 0 : gap.isNegative() ? -1 : 1
  return gap.abs().greaterThan(spread) ? (gap.isNegative() ? -1 : 1) : null
}

/** Whether a condition holds; null where that is not settled at this precision. */
function conditionHolds(
  condition: Condition,
  value: (part: Tree) => Ball,
  B: BallArithmetic,
): boolean | null {
  if (condition.kind !== 'compare') {
    const all = condition.of.map((part) => conditionHolds(part, value, B))
    const decisive = condition.kind === 'any'
    if (all.includes(decisive)) return decisive
    return all.includes(null) ? null : !decisive
  }
  const values = condition.terms.map(value)
  if (values.some(({ m }) => m.isNaN())) return false
  const answers = condition.relations.map((relation, i) => {
    const order = compareBalls(values[i]!, values[i + 1]!)
    if (order === null) return null
    switch (relation) {
      case '<':
        return order < 0
      case '<=':
        return order <= 0
      case '>':
        return order > 0
      case '>=':
        return order >= 0
      case '=':
        return order === 0
      case '!=':
        return order !== 0
    }
  })
  if (answers.includes(false)) return false
  return answers.includes(null) ? null : true
}

const arithmetics = new Map<number, BallArithmetic>()
/** Arithmetic with so many digits; made once. */
function ballsOf(digits: number): BallArithmetic {
  let known = arithmetics.get(digits)
  if (!known) arithmetics.set(digits, (known = new BallArithmetic(digits)))
  return known
}

/** Digits that are tried one after the other: where numbers cancel more are needed. */
const precisions = [25, 50, 100, 200, 400]

/** A number between two decimals that are as near as was asked for. */
export interface Certain {
  lo: Decimal
  hi: Decimal
}

/**
 * The value of a formula at a place that is a double, taken as the decimal it is written with, or a
 * formula without names: worked out with more and more digits until `enough` says that they are
 * enough. Null where there is no value, or 400 digits are not enough.
 */
export function certainValue(
  tree: Tree,
  variable: string,
  at: Tree | number,
  parameters: Readonly<Record<string, number>>,
  enough: (found: Certain) => boolean,
): Certain | null {
  let last: Certain | null = null
  for (const digits of precisions) {
    const B = ballsOf(digits)
    const places = new Map<string, Ball>()
    for (const [name, value] of Object.entries(parameters)) {
      if (Number.isFinite(value)) places.set(name, B.of(decimalOfNumber(value)))
    }
    places.set(
      variable,
      typeof at === 'number' ? B.of(decimalOfNumber(at)) : preciseValue(at, places, B),
    )
    const found = preciseValue(tree, places, B)
    if (found.m.isNaN()) return null
    if (!found.r.isFinite()) continue
    const [lo, hi] = B.ends(found)
    last = { lo, hi }
    if (enough(last)) return last
  }
  // What 400 digits do not tell from a number that ends there is that number.
  return last && last.hi.minus(last.lo).abs().lessThan('1e-150') ? last : null
}

/** Near enough for a double: the two ends are the same one, or neighbours. */
export const enoughForDouble = ({ lo, hi }: Certain): boolean => {
  const [a, b] = [lo.toNumber(), hi.toNumber()]
  return a === b || Math.abs(b - a) <= 2.3e-16 * Math.abs(a)
}

/** The double nearest to the value of a formula at a place; NaN where there is none, or it is not told. */
export const nearestDouble = (
  tree: Tree,
  variable: string,
  at: Tree | number,
  parameters: Readonly<Record<string, number>>,
): number => nearValue(tree, variable, at, parameters, enoughForDouble)

/** The same as near as `enough` asks for. */
export function nearValue(
  tree: Tree,
  variable: string,
  at: Tree | number,
  parameters: Readonly<Record<string, number>>,
  enough: (found: Certain) => boolean,
): number {
  const found = certainValue(tree, variable, at, parameters, enough)
  if (!found) return NaN
  return found.lo.isNegative() !== found.hi.isNegative() && !enough(found)
    ? 0
    : found.lo.plus(found.hi).div(2).toNumber()
}
