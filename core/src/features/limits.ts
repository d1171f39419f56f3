import { substitute } from '../algebra/curves'
import { cancelFreely, simplify } from '../algebra/simplify'
import type { RealFunction } from '../evaluate/compile'
import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { asQuotient } from '../algebra/asQuotient'
import { withValues } from '../evaluate/withValues'
import { keyOf, quotient, type Tree, whole } from '../formula/tree'
import { pinned } from './pinned'
import type { Split } from './split'
import { stretchesOf } from './splits'
import { budgetOf, finish } from './budget'

/** What a formula tends to on one side of a place. */
export type OneSided =
  | { kind: 'value'; range: Interval; reason: string }
  | { kind: 'infinite'; sign: -1 | 1; reason: string }
  /** It comes near to more than one number. */
  | { kind: 'none'; reason: string }
  | { kind: 'unsettled'; reason: string }

const value = (range: Interval, reason: string): OneSided => ({ kind: 'value', range, reason })
const infinite = (sign: -1 | 1, reason: string): OneSided => ({ kind: 'infinite', sign, reason })

/** A jet this long tells the order of a zero up to 7. */
const jetLength = 8

/**
 * The limit of a formula at a place from one side, on which it is smooth and defined close by.
 * Continuity first; for a quotient whose parts both vanish their Taylor coefficients (l'Hôpital's
 * rule in the form of series); then the values close in. A verdict comes with its reason.
 */
export function sideLimit(
  tree: Tree,
  variable: string,
  at: Split,
  side: -1 | 1,
  cell: { from: number; to: number },
): OneSided {
  const there = pinned(tree, at.zeros)
  const notes = I.noNotes()
  const [direct] = compileBoxes(there, variable)(at.enclosure, 1, notes)
  if (!notes.partial && !notes.empty && !notes.jumps && isNarrow(direct!)) {
    return value(direct!, 'the function is continuous there')
  }
  return ofQuotient(tree, variable, at, side) ?? closingIn(tree, variable, at, side, cell)
}

const isNarrow = ({ lo, hi }: Interval) =>
  Number.isFinite(lo) && Number.isFinite(hi) && hi - lo <= 1e-6 * Math.max(1, Math.abs(lo))

/** The first Taylor coefficient that is not 0, and its place in the row; null where none is sure. */
function leading(
  tree: Tree,
  variable: string,
  { enclosure }: Split,
): { order: number; coefficient: Interval } | null {
  const notes = I.noNotes()
  const jet = compileBoxes(tree, variable)(enclosure, jetLength, notes)
  if (notes.empty || notes.partial || notes.kinks || notes.jumps) return null
  const order = jet.findIndex((c) => c.lo > 1e-9 || c.hi < -1e-9)
  if (order < 0) return null
  // Everything before it is 0, or within rounding of it.
  const before = jet.slice(0, order)
  return before.every((c) => I.holdsZero(c) && isNarrow(c))
    ? { order, coefficient: jet[order]! }
    : null
}

function ofQuotient(tree: Tree, variable: string, at: Split, side: -1 | 1): OneSided | null {
  const parts = asQuotient(tree)
  return parts && sideLimitOfQuotient(parts, variable, at, side)
}

function sideLimitOfQuotient(
  parts: { above: Tree; below: Tree },
  variable: string,
  at: Split,
  side: -1 | 1 = 1,
): OneSided | null {
  const [above, below] = [leading(parts.above, variable, at), leading(parts.below, variable, at)]
  if (!above || !below) return null
  const ratio = I.divide(above.coefficient, below.coefficient)
  const order = above.order - below.order
  if (order > 0) return value(I.zeroInterval, 'above it vanishes to a higher order than below')
  if (order === 0) {
    const reason =
      below.order === 0
        ? 'above and below are continuous'
        : `above and below vanish alike, to order ${below.order}`
    return value(ratio, reason)
  }
  const sign = I.signOf(ratio) * (side < 0 && order % 2 !== 0 ? -1 : 1)
  return sign === 0
    ? null
    : infinite(sign as -1 | 1, 'below it vanishes to a higher order than above')
}

/** What an exponential leaves of a value beside its place before doubles end. */
const vanishing = 1e-300
const beyondBounds = 'the values grow beyond all bounds, as far as they were followed'

/** Distances at which values are looked at, each a tenth of the last. */
const closest = 13

/** What values at ever smaller distances show; no proof, and only clear cases are told. */
function closingIn(
  tree: Tree,
  variable: string,
  at: Split,
  side: -1 | 1,
  cell: { from: number; to: number },
): OneSided {
  const edge = side > 0 ? at.enclosure.hi : at.enclosure.lo
  const room = cell.to - cell.from
  const code = compileBoxes(tree, variable)
  const values: Interval[] = []
  for (let k = 1; k <= closest; k++) {
    const x = edge + side * Math.min(room / 2, 1) * 10 ** -k
    if (x === edge) break
    const notes = I.noNotes()
    const [v] = code(I.point(x), 1, notes)
    if (notes.empty || notes.partial) continue
    const before = values.at(-1)
    if (values.length > 0 && v!.lo >= -vanishing && v!.hi <= vanishing) {
      return value(I.zeroInterval, 'the values settle at 0, as far as doubles tell')
    }
    // Beyond the largest double: it grows without bound, as far as doubles tell.
    if (v!.lo >= 1 / vanishing || v!.hi <= -1 / vanishing) {
      return infinite(v!.lo > 0 ? 1 : -1, beyondBounds)
    }
    // Where rounding outweighs what still changes, closer looks tell nothing.
    if (
      before &&
      I.width(v!) > 0.3 * Math.abs(I.middle(v!) - I.middle(before)) &&
      I.width(v!) > 0
    ) {
      if (I.holdsZero(I.subtract(v!, before))) values.push(v!)
      break
    }
    values.push(v!)
  }
  const [beforeLast, last] = values.slice(-2).map(I.middle)
  if (last !== undefined && beforeLast !== undefined && values.length < closest) {
    const left = Math.abs(last - beforeLast)
    if (left <= 1e-10 * Math.max(1, Math.abs(last))) {
      const slack = 10 * left + 1e-12 * Math.max(1, Math.abs(last))
      return value({ lo: last - slack, hi: last + slack }, 'the values settle to the last digit')
    }
  }
  if (values.length < 4) return { kind: 'unsettled', reason: 'there are too few values close by' }
  const middles = values.map(I.middle)
  const late = middles.slice(-5)
  const sizes = late.map(Math.abs)
  const grows = sizes.every((s, i) => i === 0 || s > sizes[i - 1]!)
  const signs = new Set(late.map(Math.sign))
  const steps = late.slice(1).map((v, i) => Math.abs(v - late[i]!))
  if (grows && signs.size === 1 && !(steps.at(-1)! < 0.5 * steps[0]!)) {
    return infinite(late[0]! > 0 ? 1 : -1, beyondBounds)
  }
  const settles = steps.every((s, i) => i === 0 || s <= 0.9 * steps[i - 1]! || s < 1e-12)
  if (settles && Math.max(...steps) < 0.1 * Math.max(1, ...sizes)) {
    // The rest of a geometric row of steps bounds what is still to come.
    const last = late.at(-1)!
    const rest = 10 * steps.at(-1)! + 1e-9 * Math.max(1, Math.abs(last))
    return value(
      { lo: last - rest, hi: last + rest },
      'the values settle, as far as they were followed',
    )
  }
  const turns = late.slice(2).filter((v, i) => (v - late[i + 1]!) * (late[i + 1]! - late[i]!) < 0)
  if (turns.length >= 2)
    return { kind: 'none', reason: 'the values go to and fro without settling' }
  return { kind: 'unsettled', reason: 'the values neither settle nor grow clearly' }
}

/** The verdict on a limit, with its reason in words. */
export type Limit = { reason: string } & (
  | { kind: 'value'; value: number; enclosure: [lo: number, hi: number] }
  | { kind: 'infinite'; sign: -1 | 1 }
  | { kind: 'none' | 'unsettled' }
)

/** Far enough to both sides to see what lies at a place, near enough to leave out the rest. */
const neighbourhood = 0.5

/**
 * The limit of f at a place, or at Infinity or -Infinity; from one side where one is named, else
 * from both, which must agree. Continuity and series decide with proof; beyond them the values are
 * followed, which the reason says. A side without values has no limit.
 */
export function limit(f: RealFunction, at: number, side?: -1 | 1): Limit {
  const tree = withValues(f.tree, f.parameters)
  const { variable } = f
  if (Number.isNaN(at)) return { kind: 'unsettled', reason: 'there is no such place' }
  if (!Number.isFinite(at)) return atInfinity(tree, variable, at > 0 ? 1 : -1)
  const around = finish(
    stretchesOf(tree, variable, at - neighbourhood, at + neighbourhood, budgetOf(3000)),
  )
  const split = around.splits.find((s) => s.enclosure.lo <= at && at <= s.enclosure.hi) ?? {
    enclosure: I.point(at),
    zeros: new Set<string>(),
  }
  const from = (way: -1 | 1): Limit => {
    const stretch = around.stretches.find((s) =>
      way < 0
        ? s.from < at && s.to >= split.enclosure.lo
        : s.to > at && s.from <= split.enclosure.hi,
    )
    if (!stretch?.tree) {
      return { kind: 'none', reason: `there are no values on the ${way < 0 ? 'left' : 'right'}` }
    }
    return told(sideLimit(stretch.tree, variable, split, way, stretch))
  }
  if (side) return from(side)
  const [left, right] = [from(-1), from(1)]
  if (left.kind === 'value' && right.kind === 'value') {
    const slack = 1e-9 * Math.max(1, Math.abs(left.value))
    const agree =
      left.enclosure[0] <= right.enclosure[1] + slack &&
      right.enclosure[0] <= left.enclosure[1] + slack
    if (agree) return right
    return { kind: 'none', reason: 'the sides tend to different numbers' }
  }
  if (left.kind === 'infinite' && right.kind === 'infinite') {
    return left.sign === right.sign
      ? right
      : { kind: 'none', reason: 'one side grows and the other falls without bound' }
  }
  if (left.kind === 'unsettled' || right.kind === 'unsettled') {
    return left.kind === 'unsettled' ? left : right
  }
  return left.kind === 'none'
    ? left
    : right.kind === 'none'
      ? right
      : {
          kind: 'none',
          reason: 'one side tends to a number and the other has no bound',
        }
}

function told(found: OneSided): Limit {
  const { reason } = found
  if (found.kind === 'value') {
    const { lo, hi } = found.range
    // What settles on a round number within its bounds is that number.
    const round = Math.round(I.middle(found.range))
    const near = lo <= round && round <= hi && hi - lo < 1e-6 ? round : I.middle(found.range)
    return { kind: 'value', value: near + 0, enclosure: [lo, hi], reason }
  }
  if (found.kind === 'infinite') return { kind: 'infinite', sign: found.sign, reason }
  return { kind: found.kind, reason }
}

/** x = ±1/t, t from the right of 0. */
function atInfinity(tree: Tree, variable: string, sign: -1 | 1): Limit {
  const t: Tree = { kind: 'name', name: variable }
  const turned = simplify(substitute(tree, variable, quotient(whole(sign), t)))
  const split = { enclosure: I.point(0), zeros: new Set([keyOf(t)]) }
  const powers = asQuotient(cancelFreely(turned))
  const exact = powers && sideLimitOfQuotient(powers, variable, split)
  return told(exact ?? closingIn(turned, variable, split, 1, { from: 0, to: 2 }))
}
