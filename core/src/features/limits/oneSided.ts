import type { Interval } from '../../arithmetic/intervals'
import type { Tree } from '../../formula/tree'

/** What a formula tends to on one side of a place. */
export type OneSided =
  /** With the number itself where it has a form. */
  | { kind: 'value'; range: Interval; exact?: Tree; reason: string }
  | { kind: 'infinite'; sign: -1 | 1; reason: string }
  /** It comes near to more than one number. */
  | { kind: 'none'; reason: string }
  | { kind: 'unsettled'; reason: string }

export const tendsTo = (range: Interval, reason: string, exact?: Tree): OneSided =>
  exact ? { kind: 'value', range, exact, reason } : { kind: 'value', range, reason }
export const growsTo = (sign: -1 | 1, reason: string): OneSided => ({
  kind: 'infinite',
  sign,
  reason,
})
