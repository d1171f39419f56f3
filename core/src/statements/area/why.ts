import type { SpanFacts } from '../shared/spanFacts'
import type { Stretch } from '../shared/signStretches'
import type { AreaLine } from './line'
import { ruleOf } from './strips'

/** What of a curve's shape decides whether strips lie over or under it. */
export type Shape = 'rises' | 'falls' | 'concaveUp' | 'concaveDown'
/** What a rule puts in place of the curve. */
export type Tops = 'left' | 'right' | 'middle' | 'slanted'

/** Why a sum is over or short, before it is put into words. */
export type WhyFact =
  /** On a stretch the shape decides; `whole` where that is the span. */
  | { kind: 'shape'; tops: Tops; shape: Shape; over: boolean; on: Stretch; whole: boolean }
  /** So many stretches more than are listed. */
  | { kind: 'more'; count: number }
  /** No strip lies in one stretch. */
  | { kind: 'undecided' }
  | { kind: 'never'; over: boolean }

/** Stretches beyond this are counted. */
const mostReasons = 6

/** How each rule lies to a shape, in both ways of it. */
const decides: Readonly<Record<string, readonly [tops: Tops, over: Shape, short: Shape]>> = {
  left: ['left', 'falls', 'rises'],
  right: ['right', 'rises', 'falls'],
  trapezoid: ['slanted', 'concaveUp', 'concaveDown'],
  midpoint: ['middle', 'concaveDown', 'concaveUp'],
}

/** Why the sum of n strips is over or short, where the shape decides it, along the span. */
export function whyOf(
  line: AreaLine,
  { examination, from, to }: SpanFacts,
  n: number,
  position: number,
): WhyFact[] {
  if (!examination) return []
  const rule = ruleOf(line, position)
  if (rule === 'lower' || rule === 'upper') return [{ kind: 'never', over: rule === 'lower' }]
  const deciding = typeof rule === 'string' ? decides[rule] : undefined
  if (!deciding) return []
  const [tops, over, short] = deciding
  const lists: Record<Shape, readonly Stretch[]> = {
    rises: examination.rising,
    falls: examination.falling,
    concaveUp: examination.concaveUp,
    concaveDown: examination.concaveDown,
  }
  const stretches = [over, short]
    .flatMap((shape) => lists[shape].map(([a, b]) => ({ shape, a, b })))
    .map((one) => ({ ...one, on: [Math.max(one.a, from), Math.min(one.b, to)] as const }))
    .filter(({ on: [a, b] }) => b - a > 1e-9 * (to - from))
    .sort((p, q) => p.a - q.a)
  const width = (to - from) / n
  /** The shape decides over strips that lie in one stretch, and over no other. */
  const holdsStrip = ([a, b]: Stretch) => {
    const first = Math.ceil((a - from) / width - 1e-9)
    return from + (first + 1) * width <= b + 1e-9 * width
  }
  const all = stretches.filter(({ on }) => holdsStrip(on))
  if (stretches.length > 0 && all.length === 0) return [{ kind: 'undecided' }]
  const more = all.length - mostReasons
  return [
    ...all.slice(0, mostReasons).map(({ shape, on }): WhyFact => {
      const whole = on[0] === from && on[1] === to
      return { kind: 'shape', tops, shape, over: shape === over, on, whole }
    }),
    ...(more > 0 ? [{ kind: 'more' as const, count: more }] : []),
  ]
}
