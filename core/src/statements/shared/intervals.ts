import { sayStretch } from '../../vocabulary/numbers'
import * as I from '../../arithmetic/intervals'
import type { RealFunction } from '../../evaluate/compile'
import type { Break } from '../../features/examination'
import { alike } from '../../features/outstanding'
import { lookAtPlace, type SideFacts } from '../../features/place/placeFacts'

/** Breaks at which a function is continuous all the same. */
const whole: readonly Break['kind'][] = ['kink', 'cusp', 'vertical']
const nearTo = (x: number) => 1e-9 * Math.max(1, Math.abs(x))
const isBroken = (x: number, breaks: readonly Break[]) =>
  breaks.some(
    ({ kind, enclosure: [lo, hi] }) =>
      !whole.includes(kind) && lo - nearTo(x) <= x && x <= hi + nearTo(x),
  )

/** What holds all along a stretch, for which its ends are asked. */
export type Holds = 'rises' | 'falls' | 'level' | 'concaveUp' | 'concaveDown'

/** Which of the two ends of a stretch belong to it. */
export type Closed = readonly [from: boolean, to: boolean]

/**
 * Whether the ends of a stretch belong to it: one does exactly if the property holds with the value
 * there included. A rising stretch takes in an end that lies below its beginning or above its end,
 * one that is concave up an end above it; a level one only the same value. Where there is no value,
 * or where it cannot be told, the end does not belong.
 */
export function endsBelong(
  f: RealFunction,
  [from, to]: readonly [number, number],
  holds: Holds,
  breaks: readonly Break[],
): Closed {
  const belongs = (x: number, way: 'from' | 'to') => {
    if (!isBroken(x, breaks)) return Number.isFinite(f.value(x))
    const { value, left, right } = lookAtPlace(f, x)
    const side: SideFacts = way === 'from' ? right : left
    if (!value || side.limit?.kind !== 'value') return false
    if (alike(value.range, side.limit.range)) return true
    const above = I.middle(value.range) > I.middle(side.limit.range)
    switch (holds) {
      case 'rises':
        return above === (way === 'to')
      case 'falls':
        return above === (way === 'from')
      case 'concaveUp':
        return above
      case 'concaveDown':
        return !above
      case 'level':
        return false
    }
  }
  return [belongs(from, 'from'), belongs(to, 'to')]
}

/** Whether what lies below a graph is known to reach an end: not where the graph runs away there. */
export function endsReached(
  f: RealFunction,
  [from, to]: readonly [number, number],
  breaks: readonly Break[],
): Closed {
  const runsAway = (side: SideFacts) => side.limit !== null && side.limit.kind !== 'value'
  return [
    !isBroken(from, breaks) || !runsAway(lookAtPlace(f, from).right),
    !isBroken(to, breaks) || !runsAway(lookAtPlace(f, to).left),
  ]
}

/** “[−2, 0)”: round where an end does not belong. */
export function intervalText(
  stretch: readonly [number, number],
  [from, to]: Closed,
  decimals: number,
): string {
  return sayStretch(stretch, decimals, [from, to])
}
