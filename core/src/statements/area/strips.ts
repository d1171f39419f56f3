import {
  extremeSum,
  riemannSum,
  type RiemannSum,
  stripEnds,
  sumOf,
  type SumRule,
} from '../../calculus/riemann'
import { heightReader } from '../../calculus/readHeights'
import { seeded } from '../../search/population'
import { remember, type SpanFacts } from '../shared/spanFacts'
import { keyOf } from '../../formula/tree'
import type { LineContext } from '../contract'
import type { AreaLine } from './line'

/** The rule of a line as sums know it; random heights have none. */
export function ruleOf(line: AreaLine, position: number): SumRule | null {
  if (line.rule === 'random') return null
  if (line.rule !== 'position') return line.rule
  const share = Math.min(1, Math.max(0, position))
  return share === 0
    ? 'left'
    : share === 1
      ? 'right'
      : share === 0.5
        ? 'midpoint'
        : { position: share }
}

/** How heights are read on a span: made once, whatever the count. */
export function readerOf(facts: SpanFacts, { span }: AreaLine, context: LineContext) {
  const { f, from, to } = facts
  const ends = [span.from, span.to].map((text) => {
    const found = context.number(text)
    return found.ok ? found.exact : null
  })
  const key = `reader ${ends.map((end) => (end ? keyOf(end) : '')).join(' ')}`
  return remember(facts, key, () => heightReader(f, from, to, [ends[0]!, ends[1]!]))
}

/** The strips of a line; null while lower or upper still wait for the examination. */
export function cut(
  line: AreaLine,
  facts: SpanFacts,
  n: number,
  position: number,
  context: LineContext,
): RiemannSum | null {
  const { f, from, to, examination } = facts
  const rule = ruleOf(line, position)
  if (rule === null) return randomStrips(line, facts, n)
  if (rule === 'lower' || rule === 'upper') {
    if (!examination) return null
    return extremeSum(f, stripEnds(from, to, n), rule, examination)
  }
  const count = rule === 'simpson' ? n + (n % 2) : n
  return riemannSum(f, { from, to, count, rule, read: readerOf(facts, line, context) })
}

function randomStrips({ seed }: AreaLine, { f, from, to }: SpanFacts, n: number): RiemannSum {
  const random = seeded(seed)
  const ends = stripEnds(from, to, n)
  const samples = Float64Array.from({ length: n }, (_, i) => {
    const [a, b] = [ends[i]!, ends[i + 1]!]
    return a + random() * (b - a)
  })
  return sumOf(ends, f.values(samples), samples)
}
