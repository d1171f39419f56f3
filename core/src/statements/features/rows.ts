import { placeIs } from '../shared/said'
import type { BreakKind, Examination, Extreme } from '../../features/examination'
import { endsBelong, intervalText } from '../shared/intervals'
import { listed, withUnit } from '../../vocabulary/units'
import type { LineContext, Readout, ResultRow } from '../contract'
import type { SpanFacts } from '../shared/spanFacts'
import type { FeaturesLine } from './line'
import { oneSign } from '../shared/said'
import { certainly } from './certainly'

export function candidateRows(
  line: FeaturesLine,
  facts: SpanFacts,
  found: Examination,
  context: LineContext,
): ResultRow[] {
  const { from, to } = facts
  const at = (extreme: Examination['highest'], x: number) =>
    extreme?.at.some((f) => f.x === x) === true
  return found.candidates
    .filter(({ x }) => line.ends || (x !== from && x !== to))
    .map((feature) => {
      const [x, value] = certainly(facts, feature, line, context).cells
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

/** Candidates beyond this are counted, not listed in a sentence. */
const mostSaid = 6

/**
 * Why the absolute extremes are what they are: by the values at the candidates, and beside breaks by
 * what the curve tends to. Without the ends of a span they are not decided so.
 */
export function extremeReasons(
  name: string,
  line: FeaturesLine,
  found: Examination,
  facts: SpanFacts,
  context: LineContext,
): string[] {
  const { variable, decimals } = context
  if (!line.ends) return []
  const values = found.candidates
    .filter(({ value }) => Number.isFinite(value))
    .map((feature) => certainly(facts, feature, line, context).said.value)
  const isBroken = found.breaks.some(({ kind }) => breaksOff.includes(kind))
  return (['highest', 'lowest'] as const).flatMap((which) => {
    const extreme = found[which]
    const isAtCandidate = extreme?.at.some((at) => found.candidates.some(({ x }) => x === at.x))
    if (!extreme || !isAtCandidate || values.length < 2) return []
    const { value } = certainly(facts, extreme.at[0]!, line, context).said
    const places = extreme.at.map((at) => certainly(facts, at, line, context).said.x)
    const along = heldAlong(extreme, found, facts, decimals)
    const where = along
      ? `all along ${along}`
      : `at ${placeIs(variable.letter, listed(oneSign(places), mostSaid))}`
    const [most, beyond] = which === 'highest' ? ['largest', 'larger'] : ['smallest', 'smaller']
    const among =
      values.length > mostSaid
        ? `the ${values.length} candidates`
        : `the candidates: ${listed(oneSign(values), mostSaid)}`
    const beside = isBroken ? `, and nothing that it tends to beside a break is ${beyond}` : ''
    return [
      `${name} is ${which} ${where}, because ${value} is the ${most} of its values at ${among}${beside}.`,
    ]
  })
}

/** The stretch on which an extreme is held, or null where it is taken at places alone. */
export function heldAlong(
  extreme: Extreme,
  { level, breaks }: Pick<Examination, 'level' | 'breaks'>,
  { f }: Pick<SpanFacts, 'f'>,
  decimals: number,
): string | null {
  const held = level.find(([a, b]) => f.value((a + b) / 2) === extreme.value)
  const closed = held && endsBelong(f, held, 'level', breaks)
  return held && closed ? intervalText(held, closed, Math.max(3, decimals)) : null
}

/** Where a curve may come near to values that it does not take. */
const breaksOff: readonly BreakKind[] = [
  'jump',
  'displaced',
  'hole',
  'pole',
  'domain-end',
  'oscillation',
]

/** The absolute extremes, decided by the candidates; without its ends a span may have none. */
export function extremes(
  line: FeaturesLine,
  found: Examination,
  unit: string,
  facts: SpanFacts,
  context: LineContext,
): Readout[] {
  const { variable, decimals } = context
  const out = (label: 'highest' | 'lowest', extreme: Examination['highest']): Readout[] => {
    if (!extreme) return []
    const inside = extreme.at.filter((f) => line.ends || (f.x !== facts.from && f.x !== facts.to))
    const first = inside[0]
    if (!first) return []
    const { value, x } = certainly(facts, first, line, context)
    const along = heldAlong(extreme, found, facts, decimals)
    if (along) {
      const text = `${withUnit(value, unit)} all along ${along}`
      return [{ id: label, label, text, value: extreme.value }]
    }
    const more = inside.length > 1 ? ` and ${inside.length - 1} more` : ''
    return [
      {
        id: label,
        label,
        text: `${withUnit(value, unit)} at ${placeIs(variable.letter, x)}${more}`,
        value: extreme.value,
      },
    ]
  }
  return [...out('highest', found.highest), ...out('lowest', found.lowest)]
}
