import type { RealFunction } from '../../evaluate/compile'
import type { BreakKind } from '../../features/examination'
import type { Solutions } from '../../features/solve'
import type { CurveResult, LineContext } from '../contract'
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
