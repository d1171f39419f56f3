import type { RealFunction } from '../../evaluate/compile'
import type { BreakKind } from '../../features/examination'
import type { Solutions } from '../../features/solve'
import { breaksIn } from '../../calculus/errorOrder'
import type { CurveResult, LineContext } from '../contract'
import { near } from '../shared/signStretches'
import { spanFacts } from '../shared/spanFacts'
import type { WhereLine } from './line'

/** A stretch on which both are equal all along, and which of its ends belong to it. */
export interface EqualStretch {
  ends: readonly [number, number]
  closed: readonly [boolean, boolean]
}
export type Settled = Omit<Solutions, 'stretches'> & { stretches: EqualStretch[] }

/** A solution at the end of a stretch belongs to the stretch. */
export function settled(found: Solutions, f: RealFunction, target: RealFunction | number): Settled {
  const holds = (x: number) =>
    f.value(x) === (typeof target === 'number' ? target : target.value(x))
  const stretches = found.stretches.map(([a, b]): EqualStretch => ({
    ends: [a, b],
    closed: [holds(a), holds(b)],
  }))
  const solutions = found.solutions.filter(
    ({ x }) => !found.stretches.some(([a, b]) => x >= a && x <= b),
  )
  return { ...found, solutions, stretches }
}

/** More solutions than this are not told apart. */
const mostLooked = 50

/**
 * The solutions at which f touches its target and does not cross it: the difference has one sign on
 * both sides, up to the next solution or break. Those beside what could not be settled are left out.
 */
export function touching(
  { solutions, stretches, unresolved }: Settled,
  f: RealFunction,
  target: RealFunction | number,
  [from, to]: readonly [number, number],
): number[] {
  if (solutions.length === 0 || solutions.length > mostLooked) return []
  const gap = (x: number) => f.value(x) - (typeof target === 'number' ? target : target.value(x))
  /** 0 where rounding leaves it open. */
  const gapSign = (x: number) => {
    const [lo, hi] = f.enclose(x, x)
    const [least, most] = typeof target === 'number' ? [target, target] : target.enclose(x, x)
    return lo > most ? 1 : hi < least ? -1 : 0
  }
  const trees = typeof target === 'number' ? [f] : [f, target]
  const breaks = trees.flatMap((one) => breaksIn(one, from, to))
  const cuts = [
    ...[from, to, ...breaks, ...solutions.map(({ x }) => x)],
    ...stretches.flatMap(({ ends }) => ends),
  ].sort((a, b) => a - b)
  const isOpen = (x: number) => unresolved.some(([lo, hi]) => lo <= x && x <= hi)
  return solutions.flatMap(({ x }) => {
    const before = cuts.findLast((c) => c < x && !near(c, x))
    const after = cuts.find((c) => c > x && !near(c, x))
    if (before === undefined || after === undefined) return []
    if (breaks.some((b) => near(b, x)) && !Number.isFinite(gap(x))) return []
    const beside = [x - (x - before) / 2, x + (after - x) / 2]
    if (beside.some(isOpen)) return []
    const [p, q] = beside.map(gapSign)
    return p === q && p !== 0 ? [x] : []
  })
}

/** (q(b) - q(a))/((b) - (a)): the average rate over a span, as lines ask for it. */
const averageOf = /^\((\p{L}[₀-₉]*'*)\((.+)\) - \1\(.+\)\)\/\(\(.+\) - \(.+\)\)$/u

/** What of the mean value theorem's conditions is not given, and where. */
export interface NoMean {
  x: number
  /** Set where the curve is continuous and has no slope. */
  slopeless: Extract<BreakKind, 'kink' | 'cusp'> | null
}

/**
 * Why a rate need not be equal to the average rate anywhere: by the mean value theorem it is, where
 * the curve is continuous on the closed span and has a slope inside it.
 */
export function noMeanOf(
  line: WhereLine,
  curve: CurveResult,
  from: number,
  to: number,
  context: LineContext,
): NoMean | null {
  if (line.order === 0 || !averageOf.test(line.target)) return null
  const { examination } = spanFacts(curve, line.order - 1, from, to, context)
  for (const { x, kind } of examination?.breaks ?? []) {
    if (kind === 'vertical') continue
    const slopeless = kind === 'kink' || kind === 'cusp' ? kind : null
    if (!slopeless || (x > from && x < to)) return { x, slopeless }
  }
  return null
}
