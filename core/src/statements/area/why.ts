import type { SpanFacts } from '../shared/spanFacts'
import { endsBelong } from '../shared/intervals'
import type { Stretch } from '../shared/signStretches'
import type { AreaLine } from './line'
import { ruleOf } from './strips'

/** What of a curve's shape decides whether strips lie over or under it. */
export type Shape = 'rises' | 'falls' | 'concaveUp' | 'concaveDown'
/** What a rule puts in place of the curve. */
export type Tops = 'left' | 'right' | 'middle' | 'slanted'

/** What a sum is called by its rule. */
export type SumName = 'left' | 'right' | 'midpoint' | 'trapezoid' | 'simpson' | 'plain'

/** Why a sum is over or short, before it is put into words. */
export type WhyFact =
  /** On these strips, counted from 1, the shape decides; `whole` where they are all. */
  | {
      kind: 'shape'
      tops: Tops
      shape: Shape
      over: boolean
      on: Stretch
      strips: readonly [first: number, last: number]
      whole: boolean
    }
  /** So many stretches more than are listed. */
  | { kind: 'more'; count: number }
  /** No strip lies in one stretch. */
  | { kind: 'undecided' }
  | { kind: 'never'; over: boolean }
  /** What follows for the whole sum: from every strip, or from what they come to. */
  | { kind: 'every'; sum: SumName; over: boolean }
  | { kind: 'total'; sum: SumName; over: number; short: number }
  | { kind: 'cancels'; sum: SumName }

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
export function whyOf(line: AreaLine, facts: SpanFacts, n: number, position: number): WhyFact[] {
  const { examination, from, to } = facts
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
  const found = [over, short].flatMap((shape) => lists[shape].map((on) => ({ shape, on })))
  const decided = found
    .flatMap(({ shape, on }): (WhyFact & { kind: 'shape' })[] => {
      const strips = stripsIn(on, shape, tops, facts, n)
      if (!strips) return []
      const [first, last] = strips
      const at = (i: number) => (i === 0 ? from : i === n ? to : from + ((to - from) * i) / n)
      const whole = first === 0 && last === n
      const counted = [first + 1, last] as const
      const isOver = shape === over
      return [
        {
          kind: 'shape',
          tops,
          shape,
          over: isOver,
          on: [at(first), at(last)],
          strips: counted,
          whole,
        },
      ]
    })
    .sort((p, q) => p.on[0] - q.on[0])
  if (found.length > 0 && decided.length === 0) return [{ kind: 'undecided' }]
  const more = decided.length - mostReasons
  const covered = decided.reduce((total, { strips: [a, b] }) => total + b - a + 1, 0)
  const isOneWay = decided.length > 0 && decided.every((d) => d.over === decided[0]!.over)
  return [
    ...decided.slice(0, mostReasons),
    ...(more > 0 ? [{ kind: 'more' as const, count: more }] : []),
    ...(isOneWay && covered === n
      ? [{ kind: 'every' as const, sum: rule as SumName, over: decided[0]!.over }]
      : []),
  ]
}

/** Which ends of a strip each rule reads. */
const reads: Record<Tops, readonly [left: boolean, right: boolean]> = {
  left: [true, false],
  right: [false, true],
  slanted: [true, true],
  middle: [false, false],
}

/**
 * The strips that lie in a stretch as a whole, from one index up to another, or null where none do.
 * A height that is read at an end of the stretch counts only where that end belongs to it.
 */
function stripsIn(
  [a, b]: Stretch,
  shape: Shape,
  tops: Tops,
  { f, from, to, examination }: SpanFacts,
  n: number,
): readonly [first: number, last: number] | null {
  const width = (to - from) / n
  const [low, high] = [(a - from) / width, (b - from) / width]
  const slack = 1e-9
  const closed = endsBelong(f, [a, b], shape, examination!.breaks)
  const isEdge = (share: number) => Math.abs(share - Math.round(share)) <= slack
  let [first, last] = [Math.ceil(low - slack), Math.floor(high + slack)]
  if (isEdge(low) && reads[tops][0] && !closed[0]) first += 1
  if (isEdge(high) && reads[tops][1] && !closed[1]) last -= 1
  return first < last ? [Math.max(0, first), Math.min(n, last)] : null
}

/** Whether the whole sum is over or short, where every strip does not tell it already. */
export function totalFact(
  rule: SumName | null,
  facts: readonly WhyFact[],
  { over, short }: { over: number; short: number },
  rounding: number,
): WhyFact[] {
  if (facts.some(({ kind }) => kind === 'every' || kind === 'never')) return []
  if (over === 0 && short === 0) return []
  const sum = rule ?? 'plain'
  const isCertain = Math.abs(over - short) > rounding
  if (isCertain) return [{ kind: 'total', sum, over, short }]
  return over > rounding ? [{ kind: 'cancels', sum }] : []
}
