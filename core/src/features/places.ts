import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import type { Split } from './split'
import { valueAtSplit } from './pinned'
import type { Zero } from './zero'
import type { Feature, Study } from './examination'

export function featureWith(
  x: number,
  value: Interval,
  enclosure: Interval,
  proven = true,
): Feature {
  return { x, value: I.middle(value), enclosure: [enclosure.lo, enclosure.hi], proven }
}

/** A place inside its enclosure with the value of f there. */
export function featureAt(
  study: Study,
  { enclosure, proven }: Pick<Zero, 'enclosure' | 'proven'>,
): Feature {
  const x = Math.min(study.to, Math.max(study.from, I.middle(enclosure)))
  const direct = study.f.value(x)
  const split = study.marks.find((m) => m.split?.enclosure === enclosure)?.split
  const exact = split ? valueAtSplit(study.tree, study.variable, split) : null
  const value = exact ? I.middle(exact) : direct
  return { x, value, enclosure: [enclosure.lo, enclosure.hi], proven }
}

export const splitAt = (splits: readonly Split[], x: number) =>
  splits.find((s) => s.enclosure.lo <= x && x <= s.enclosure.hi)
