import { integrate } from '../../calculus/integrate'
import { lookAtPlace } from '../../features/place/placeFacts'
import type { BreakKind, Feature } from '../../features/examination'
import * as I from '../../arithmetic/intervals'
import { near, type Stretch } from '../shared/signStretches'
import type { SpanFacts } from '../shared/spanFacts'

/**
 * A place at which the graph of a derivative is not continuous, though what lies below it goes on:
 * the function is taken to be continuous there.
 */
export interface Bridge extends Feature {
  kind: BreakKind
  /** The sign of what the right side tends to less what the left does; 0 where they agree. */
  step: -1 | 0 | 1
}

/** Finite on both sides: whatever the value, the area below goes on. */
const bounded: readonly BreakKind[] = ['jump', 'displaced', 'hole']

/** Inside the span, where the graph is not continuous and its area is bounded. */
export function bridgesOf({ f, from, to, examination }: SpanFacts): Bridge[] {
  const { breaks } = examination!
  return breaks.flatMap(({ x, kind, enclosure }, i): Bridge[] => {
    if (x <= from || x >= to || near(x, from) || near(x, to)) return []
    const reach = Math.min(
      x - (breaks[i - 1]?.x ?? from),
      (breaks[i + 1]?.x ?? to) - x,
      (to - from) / 1000,
    )
    if (!bounded.includes(kind) && !(kind === 'pole' && isIntegrable(f, x, reach / 2))) return []
    return [{ x, enclosure, kind, value: NaN, proven: true, step: stepAt(f, x) }]
  })
}

/** Breaks inside the span across which nothing goes on. */
export function gapsOf({ from, to, examination }: SpanFacts, bridges: readonly Bridge[]): number[] {
  const cut: readonly BreakKind[] = ['pole', 'domain-end', 'oscillation']
  return examination!.breaks
    .filter(({ kind }) => cut.includes(kind))
    .map(({ x }) => x)
    .filter((x) => x > from && x < to && !near(x, from) && !near(x, to))
    .filter((x) => !bridges.some((b) => near(b.x, x)))
}

function isIntegrable(f: SpanFacts['f'], x: number, reach: number): boolean {
  const sides = [integrate(f, x - reach, x), integrate(f, x, x + reach)]
  return sides.every(({ diverges, value }) => !diverges && Number.isFinite(value))
}

function stepAt(f: SpanFacts['f'], x: number): -1 | 0 | 1 {
  const { kind, left, right } = lookAtPlace(f, x)
  const worth = ({ limit }: typeof left) =>
    limit?.kind === 'value'
      ? I.middle(limit.range)
      : limit?.kind === 'infinite'
        ? limit.sign * Infinity
        : NaN
  const [before, after] = [worth(left), worth(right)]
  if (kind === 'hole' || kind === 'displaced' || before === after) return 0
  return after > before ? 1 : -1
}

/** Stretches that meet at a bridge are one, where it lets them. */
export function joinedAcross(
  stretches: readonly Stretch[],
  bridges: readonly Bridge[],
  joins: (bridge: Bridge) => boolean = () => true,
): Stretch[] {
  const joined: [number, number][] = []
  for (const [a, b] of [...stretches].sort((p, q) => p[0] - q[0])) {
    const last = joined.at(-1)
    const meets = last && near(last[1], a) && bridges.some((one) => near(one.x, a) && joins(one))
    if (meets) last[1] = b
    else joined.push([a, b])
  }
  return joined
}

/** Bridges at which stretches of one kind end and those of the other begin; `up` to the first kind. */
export const changesAt = (
  bridges: readonly Bridge[],
  [positive, negative]: readonly [readonly Stretch[], readonly Stretch[]],
): { bridge: Bridge; up: boolean }[] =>
  bridges.flatMap((bridge) => {
    const touches = (all: readonly Stretch[], end: 0 | 1) =>
      all.some((stretch) => near(stretch[end], bridge.x))
    const up = touches(negative, 1) && touches(positive, 0)
    const down = touches(positive, 1) && touches(negative, 0)
    return up || down ? [{ bridge, up }] : []
  })
