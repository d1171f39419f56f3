import { breaksIn } from '../../calculus/errorOrder'
import type { RealFunction } from '../../evaluate/compile'
import * as I from '../../arithmetic/intervals'
import { lookAtPlace } from '../../features/place/placeFacts'
import { signInside } from '../../features/sign'
import type { Solutions } from '../../features/solve'
import type { Tree } from '../../formula/tree'
import { near } from '../shared/signStretches'
import type { Relation } from './line'

/** A part of the set on which an inequality holds: an interval, or one place. */
export interface HoldsOn {
  ends: readonly [number, number]
  closed: readonly [boolean, boolean]
}

/** An end of the span, with its form where it hangs on no slider. */
export interface SpanEnd {
  value: number
  exact: Tree | null
}

type Sign = -1 | 0 | 1

const fits: Record<Relation, (sign: Sign) => boolean> = {
  '>': (sign) => sign > 0,
  '>=': (sign) => sign >= 0,
  '<': (sign) => sign < 0,
  '<=': (sign) => sign <= 0,
}

/**
 * Where a difference stands in a relation to 0 on a closed span: between its zeros, breaks and the
 * ends it keeps one sign, so one place inside decides; zeros, breaks and ends are decided each by its
 * own value. What could not be settled belongs to no part.
 */
export function holdsOn(
  difference: RealFunction,
  relation: Relation,
  { solutions, stretches, unresolved }: Solutions,
  [from, to]: readonly [SpanEnd, SpanEnd],
): HoldsOn[] {
  const zeros = solutions.map(({ x }) => x)
  const places = [
    ...zeros,
    ...stretches.flat(),
    ...unresolved.flat(),
    ...breaksIn(difference, from.value, to.value),
  ].filter((x) => x > from.value && x < to.value)
  const cuts = [from.value, ...places, to.value]
    .sort((a, b) => a - b)
    .filter((x, i, all) => i === 0 || !near(x, all[i - 1]!))
  const holds = fits[relation]
  const isEqual = (x: number) =>
    zeros.some((z) => near(z, x)) || stretches.some(([a, b]) => a <= x && x <= b)
  const isOpen = (a: number, b: number) => unresolved.some(([lo, hi]) => lo <= a && b <= hi)
  const atPlace = (x: number): boolean => {
    if (isEqual(x)) return holds(0)
    if (isOpen(x, x)) return false
    const exact = x === from.value ? from.exact : x === to.value ? to.exact : null
    const { value } = lookAtPlace(difference, x, exact)
    const sign = value && I.signOf(value.range)
    return sign !== null && sign !== 0 && holds(sign)
  }
  const between = (a: number, b: number): boolean => {
    const middle = a + (b - a) / 2
    if (isOpen(a, b)) return false
    if (stretches.some(([lo, hi]) => lo <= middle && middle <= hi)) return holds(0)
    const sign = signInside(difference, a, b)
    return sign !== null && holds(sign)
  }
  const parts: HoldsOn[] = []
  cuts.forEach((x, i) => {
    const last = parts.at(-1)
    const reaches = last !== undefined && last.ends[1] === x && !last.closed[1]
    const own = atPlace(x)
    if (own && reaches) parts[parts.length - 1] = { ...last, closed: [last.closed[0], true] }
    else if (own) parts.push({ ends: [x, x], closed: [true, true] })
    const next = cuts[i + 1]
    if (next === undefined || !between(x, next)) return
    const open = parts.at(-1)
    const goesOn = open !== undefined && open.ends[1] === x && open.closed[1]
    if (goesOn) {
      parts[parts.length - 1] = { ends: [open.ends[0], next], closed: [open.closed[0], false] }
    } else parts.push({ ends: [x, next], closed: [false, false] })
  })
  return parts
}
