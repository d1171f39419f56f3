import type { Examination } from '../../features/examination'
import { endsBelong, intervalText } from '../shared/intervals'
import { withUnit } from '../../vocabulary/units'
import type { LineContext, Readout, ResultRow } from '../contract'
import type { SpanFacts } from '../shared/spanFacts'
import type { FeaturesLine } from './line'
import { certainly } from './certainly'

export function candidateRows(
  line: FeaturesLine,
  facts: SpanFacts,
  found: Examination,
  { decimals }: LineContext,
): ResultRow[] {
  const { from, to } = facts
  const at = (extreme: Examination['highest'], x: number) =>
    extreme?.at.some((f) => f.x === x) === true
  return found.candidates
    .filter(({ x }) => line.ends || (x !== from && x !== to))
    .map((feature) => {
      const { x, value } = certainly(facts, feature, decimals)
      const isEnd = feature.x === from || feature.x === to
      const says = [
        ...(at(found.highest, feature.x) ? ['highest'] : []),
        ...(at(found.lowest, feature.x) ? ['lowest'] : []),
      ]
      return {
        cells: [x, value, isEnd ? 'end' : 'critical point', says.join(', ')],
        values: [feature.x, feature.value, null, null],
        x: feature.x,
      }
    })
}

/** The absolute extremes, decided by the candidates; without its ends a span may have none. */
export function extremes(
  line: FeaturesLine,
  found: Examination,
  unit: string,
  facts: SpanFacts,
  { variable, decimals }: LineContext,
): Readout[] {
  const out = (label: 'highest' | 'lowest', extreme: Examination['highest']): Readout[] => {
    if (!extreme) return []
    const inside = extreme.at.filter((f) => line.ends || (f.x !== facts.from && f.x !== facts.to))
    const first = inside[0]
    if (!first) return []
    const { value, x } = certainly(facts, first, decimals)
    const level = found.level.find(([a, b]) => facts.f.value((a + b) / 2) === extreme.value)
    if (level) {
      const closed = endsBelong(facts.f, level, 'level', found.breaks)
      const along = intervalText(level, closed, Math.max(3, decimals))
      const text = `${withUnit(value, unit)} all along ${along}`
      return [{ id: label, label, text, value: extreme.value }]
    }
    const more = inside.length > 1 ? ` and ${inside.length - 1} more` : ''
    return [
      {
        id: label,
        label,
        text: `${withUnit(value, unit)} at ${variable.letter} = ${x}${more}`,
        value: extreme.value,
      },
    ]
  }
  return [...out('highest', found.highest), ...out('lowest', found.lowest)]
}
