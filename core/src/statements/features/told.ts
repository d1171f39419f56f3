import { formatStretch, sayNumber, sayStretch } from '../../vocabulary/numbers'
import { placeIs } from '../shared/said'
import type { Examination, Feature } from '../../features/examination'
import { because } from '../shared/because'
import {
  emptyResult,
  type LineContext,
  type LineResult,
  type Mark,
  placeName,
  type ResultRow,
  type Verdict,
} from '../contract'
import { curveText } from '../shared/slots'
import type { SpanFacts } from '../shared/spanFacts'
import type { FeaturesLine } from './line'
import { listOf } from './lists'
import { candidateRows, extremeReasons, extremes } from './rows'
import { certainly } from './certainly'

/** Longer lists go without exact forms. */
const mostExact = 60

export function told(
  line: FeaturesLine,
  facts: SpanFacts,
  found: Examination,
  unit: string,
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const { from, to } = facts
  const { letter } = variable
  const name = curveText(line)
  const lane = { curve: line.curve, order: line.order }
  const shown = (feature: Feature) => certainly(facts, feature, line, context)
  const all = listOf(line.only, found, line, facts)
  const hasExact = all.length <= mostExact && all.some(({ feature }) => shown(feature).exactly)
  const rows: ResultRow[] = all.map(({ what, feature, fact }) => {
    const { cells } = shown(feature)
    const exactly = hasExact ? [shown(feature).exactly ?? ''] : []
    return {
      cells: [what, ...cells, because(fact, name), ...exactly],
      values: [
        null,
        feature.x,
        Number.isFinite(feature.value) ? feature.value : null,
        null,
        ...exactly.map(() => null),
      ],
      x: feature.x,
    }
  })
  const marks: Mark[] = all
    .filter(({ feature, what }) => Number.isFinite(feature.value) && what !== 'end')
    .slice(0, 200)
    .map(({ what, feature }) => {
      const { x, value } = shown(feature)
      const at = placeIs(letter, x)
      const label = what === 'zero' ? at : `${what} ${value} at ${at}`
      return {
        kind: 'stem',
        id: placeName(what, feature.x),
        layer: 'marks',
        lane,
        x: feature.x,
        y: feature.value,
        label: line.labels ? label : '',
      }
    })
  const show = (x: number) => sayNumber(x, Math.max(3, decimals))
  const span = sayStretch([from, to], Math.max(3, decimals))
  const plural = line.only === 'features' ? 'feature' : line.only.replace(/s$/, '')
  const verdict: Verdict = {
    complete: found.complete,
    text: found.complete
      ? all.length === 0
        ? `No ${plural} on ${span}: proven`
        : line.only === 'features'
          ? `Complete on ${span}`
          : `Complete: no other ${plural} on ${span}`
      : `Not settled on ${found.unresolved
          .slice(0, 3)
          .map((stretch) => formatStretch(stretch, Math.max(3, decimals)))
          .join(', ')}`,
    unresolved: found.unresolved,
  }
  const decides = line.only !== 'zeros' && line.only !== 'inflections'
  const candidates = decides ? candidateRows(line, facts, found, context) : []
  return {
    ...emptyResult,
    readouts: decides ? extremes(line, found, unit, facts, context) : [],
    marks,
    verdict,
    notes: [
      ...found.level.map(
        ([a, b]) =>
          `${name} is level from ${placeIs(letter, show(a))} to ${show(b)}: a stretch, not points.`,
      ),
      ...(decides ? extremeReasons(name, line, found, facts, context) : []),
      ...(decides
        ? missingExtremes(found, name, `${span}${line.ends ? '' : ' without its ends'}`)
        : []),
      ...(found.inflections.some((i) => !i.hasTangent) && line.only !== 'zeros'
        ? ['An inflection at a kink has no tangent there.']
        : []),
    ],
    tables: [
      ...(rows.length > 0
        ? [
            {
              name: 'Features' as const,
              columns: [
                'kind',
                letter,
                `${name}(${letter})`,
                'because',
                ...(hasExact ? ['exactly'] : []),
              ],
              rows,
              count: rows.length,
              open: true,
            },
          ]
        : []),
      ...(candidates.length > 0
        ? [
            {
              name: 'Candidates' as const,
              columns: [letter, `${name}(${letter})`, 'what', 'extreme'],
              rows: candidates,
              count: candidates.length,
              open: false,
            },
          ]
        : []),
    ],
  }
}

function missingExtremes(found: Examination, name: string, span: string): string[] {
  return (['highest', 'lowest'] as const).flatMap((which) => {
    if (found[which]) return []
    return found.extremesDecided[which]
      ? [`${name} takes no ${which} value on ${span}.`]
      : [`Whether ${name} takes a ${which} value on ${span} is not settled.`]
  })
}
