import { placeIs } from './shared/said'
import { z } from 'zod'
import { numberToFormula, sayNumber } from '../vocabulary/numbers'
import { unitOfDerivative } from '../vocabulary/units'
import {
  type CurveResult,
  emptyResult,
  failed,
  type LineContext,
  type LineResult,
  type StatementKind,
} from './contract'
import { asEstimate, numberReadout } from './shared/lines'
import { toldReadout } from './shared/toldNumbers'
import { readingsWithin } from './shared/readingsWithin'
import { measuredStrips } from '../calculus/measuredSums'
import { compensatedSum } from '../calculus/quadrature'
import { lookOver, lookOverFormula, offersOver, overSpanFields } from './shared/overSpan'
import { curveSlot, curveText, spanSlot, wordsAfter } from './shared/slots'
import { toldOver, spanFacts, asksOver, longOver } from './shared/spanFacts'

/** Average of q over [1, 4]. */
export const averageLineSchema = z.strictObject({
  kind: z.literal('average'),
  ...overSpanFields,
  order: z.int().min(0).max(3),
})
export type AverageLine = z.infer<typeof averageLineSchema>

export const averageKind: StatementKind<AverageLine> = {
  kind: 'average',
  schema: averageLineSchema,
  topic: 'areas',
  said: ['average', 'average value of', 'average of'],
  uses: { curves: ['curve'], spans: ['span'] },
  drawn: {},

  sentence: (line, context) => [
    { text: 'Average of ' },
    curveSlot(line, context),
    { text: ' over ' },
    spanSlot(line.span, context),
  ],

  long: longOver(asksOver()),

  evaluate(line, context) {
    const found = context.curve(line.curve)
    if (found.ok && found.curve.readings && line.order === 0) {
      return averageOfReadings(line, found.curve, context)
    }
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const { variable, decimals } = context
    const facts = spanFacts(curve, line.order, from, to, context)
    const { exact } = facts
    const show = (x: number) => sayNumber(x, Math.max(3, decimals))
    if (!Number.isFinite(exact.value)) {
      const where = exact.undefinedOn
        ? `${curveText(line)} has no value from ${show(exact.undefinedOn[0])} to ${show(exact.undefinedOn[1])}`
        : `the area grows without bound at ${placeIs(variable.letter, show(exact.divergesAt ?? from))}`
      return failed({ message: `there is no average: ${where}`, fix: 'choose another span' })
    }
    const value = exact.value / (to - from)
    const lane = { curve: line.curve, order: line.order }
    const unit = unitOfDerivative(curve.unit, variable.unit, line.order)
    const told = toldOver('average', line, facts, context)
    const out = toldReadout('average', told, unit)
    return {
      readouts: [out],
      marks: [
        { kind: 'level', id: 'average', layer: 'marks', lane, y: value, from, to, label: out.text },
      ],
      problems: [],
      hints: [],
      notes: [`A level strip of this height over the span has the area under ${curveText(line)}.`],
      offers: [
        {
          text: `Where is ${curveText(line)} equal to its average?`,
          line: {
            kind: 'where',
            id: '',
            curve: line.curve,
            order: line.order,
            target: numberToFormula(value),
            span: line.span,
          },
        },
      ],
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'average value of', 'average of', 'average')
    if (rest !== null && /^(?:rate|slope)\b/.test(rest)) return []
    return offersOver(rest, request, 3, (ref, span) => ({
      kind: 'average' as const,
      id: '',
      ...ref,
      span,
    }))
  },
}

/** The average of readings: the sum along slanted tops over the width of the span. */
function averageOfReadings(
  line: AverageLine,
  curve: CurveResult,
  context: LineContext,
): LineResult {
  const over = lookOver(line, context)
  if (!over.ok) return failed(over.problem)
  const { from, to } = over
  const within = readingsWithin(curve, from, to, context)
  if (!within.ok) return failed(within.problem)
  const made = measuredStrips(within.xs, within.ys, 'trapezoid')
  const sum = compensatedSum(made.ok ? made.strips.map((s) => s.area) : [])
  const value = sum / (to - from)
  const out = asEstimate(numberReadout('average', value, curve.unit, context.decimals))
  const lane = { curve: line.curve, order: 0 }
  return {
    ...emptyResult,
    readouts: [out],
    marks: [
      { kind: 'level', id: 'average', layer: 'marks', lane, y: value, from, to, label: out.text },
    ],
    notes: [
      'The sum along slanted tops over the width of the span: an estimate, since between readings the curve is not known.',
    ],
  }
}
