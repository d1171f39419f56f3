import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import type { Cell, Feature, Outstanding } from './examination'
import type { OneSided } from './limits/oneSided'
import type { Sign } from './sign'

/**
 * Whether two enclosures may be of one number: they meet, or nearly do. 1e-9 of the size is what a
 * place that is only enclosed leaves open.
 */
export function alike(a: Interval, b: Interval): boolean {
  const slack = 1e-9 * Math.max(1, Math.abs(I.middle(a)))
  return a.lo <= b.hi + slack && b.lo <= a.hi + slack
}

/** Whether f goes up or down over a jump, its value between what its sides tend to. */
export function stepOver(before: Interval, value: Interval, after: Interval): Sign {
  const between = (a: Interval, b: Interval) => alike(a, b) || a.hi < b.lo
  if (between(before, value) && between(value, after)) return 1
  return between(after, value) && between(value, before) ? -1 : 0
}

/** What lies beside a place: what f tends to, and the cells; a side without values has no limit. */
interface Beside {
  before: OneSided | null
  after: OneSided | null
  left: Cell | undefined
  right: Cell | undefined
}

/**
 * Whether the value of f at a place where it is not continuous, or ends, is the highest or lowest
 * nearby. Where a side tends to the value itself its course decides; one that is level beside it is
 * told as a stretch, and no such place.
 */
export function outstandingAt(
  feature: Feature,
  where: Outstanding['where'],
  { before, after, left, right }: Beside,
): Outstanding | null {
  const sides = [
    before && towards(feature, before, left, 1),
    after && towards(feature, after, right, -1),
  ].filter((side) => side !== null)
  if (sides.length === 0) return null
  if (sides.every((side) => side === 1)) return { ...feature, kind: 'maximum', where }
  return sides.every((side) => side === -1) ? { ...feature, kind: 'minimum', where } : null
}

/** 1 where the values on a side lie below the value, -1 where above, 0 where it cannot be told. */
function towards(
  { value }: Feature,
  limit: OneSided,
  cell: Cell | undefined,
  /** 1 for the left side, on which rising means coming up to it. */
  way: 1 | -1,
): Sign {
  if (limit.kind === 'infinite') return limit.sign > 0 ? -1 : 1
  if (limit.kind !== 'value') return 0
  if (!alike(limit.range, I.point(value))) return value > I.middle(limit.range) ? 1 : -1
  const course = way === 1 ? cell?.rise.end : cell?.rise.start
  return ((course ?? 0) * way) as Sign
}
