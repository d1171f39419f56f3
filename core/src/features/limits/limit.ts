import type { RealFunction } from '../../evaluate/compile'
import * as I from '../../arithmetic/intervals'
import { withValues } from '../../evaluate/withValues'
import { budgetOf, finish } from '../budget'
import { stretchesOf } from '../splits'
import { farOut } from './approach'
import { limitByGrowth } from './byGrowth'
import type { Tree } from '../../formula/tree'
import type { OneSided } from './oneSided'
import { sideLimit, unsettled } from './sideLimit'

/** The verdict on a limit, with its reason in words. */
export type Limit = { reason: string } & (
  | { kind: 'value'; value: number; enclosure: [lo: number, hi: number]; exact?: Tree }
  | { kind: 'infinite'; sign: -1 | 1 }
  | { kind: 'none' | 'unsettled' }
)

/** Far enough to both sides to see what lies at a place, near enough to leave out the rest. */
const neighbourhood = 0.5

/**
 * The limit of f at a place, or at Infinity or -Infinity; from one side where one is named, else
 * from both, which must agree. Continuity, series and growth decide, each with proof; what they leave
 * open is unsettled. A side without values has no limit.
 */
export function limit(f: RealFunction, at: number, side?: -1 | 1): Limit {
  const tree = withValues(f.tree, f.parameters)
  const { variable } = f
  if (Number.isNaN(at)) return { kind: 'unsettled', reason: 'there is no such place' }
  if (!Number.isFinite(at)) {
    return told(limitByGrowth(tree, farOut(variable, at > 0 ? 1 : -1)) ?? unsettled)
  }
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
    return told(sideLimit(stretch.tree, variable, split, way))
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
    const { exact } = found
    const value = near + 0
    return { kind: 'value', value, enclosure: [lo, hi], reason, ...(exact ? { exact } : {}) }
  }
  if (found.kind === 'infinite') return { kind: 'infinite', sign: found.sign, reason }
  return { kind: found.kind, reason }
}
