import type { RealFunction } from '../../evaluate/compile'
import type { Solutions } from '../../features/solve'
import type { CurveResult, LineContext, LineResult } from '../contract'
import type { SpanFacts } from '../shared/spanFacts'
import type { EndFacts, Given } from './facts'
import type { TheoremLine } from './line'
import type { Wording } from './words'

/** What a theorem is checked with. */
export interface Case {
  line: TheoremLine
  curve: CurveResult
  f: RealFunction
  ends: readonly [Given, Given]
  endFacts: EndFacts
  facts: SpanFacts
  /** Where f′ is the average rate or 0, or f the level; null where the theorem asks for no place. */
  found: Solutions | null
  /** The exact number of such a place, where it is known. */
  solutionOf: Wording['exactOf'] | null
  level: Given
  context: LineContext
  wording: Wording
}

/** Sentences in order, with the numbers beside them. */
export type Told = Pick<LineResult, 'readouts' | 'marks'> & {
  sentences: readonly string[]
  open?: boolean
}

export const lane = ({ line: { curve, order } }: Case, above = 0) => ({
  curve,
  order: order + above,
})
