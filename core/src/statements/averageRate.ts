import { z } from 'zod'
import { heldAt } from '../features/held'
import { formatShort } from '../vocabulary/numbers'
import { unitOfDerivative, withUnit } from '../vocabulary/units'
import { failed, type StatementKind } from './contract'
import { tooLarge } from './shared/atPlace'
import { estimatedWhere } from './shared/lines'
import { derivativeTree, endOf, tellTree, toldReadout } from './shared/toldNumbers'
import { negate, quotient, sum } from '../formula/tree'
import { isBetweenReadings } from './shared/readingsWithin'
import { lookOver, offersOver, overSpanFields } from './shared/overSpan'
import { curveSlot, curveText, spanSlot, wordsAfter } from './shared/slots'

/** Average rate of q over [1, 4]. */
export const averageRateLineSchema = z.strictObject({
  kind: z.literal('averageRate'),
  ...overSpanFields,
  order: z.int().min(0).max(2),
})
export type AverageRateLine = z.infer<typeof averageRateLineSchema>

export const averageRateKind: StatementKind<AverageRateLine> = {
  kind: 'averageRate',
  schema: averageRateLineSchema,
  topic: 'rates',
  said: ['average rate', 'average rate of'],
  uses: { curves: ['curve'], spans: ['span'] },
  drawn: {},

  sentence: (line, context) => [
    { text: 'Average rate of ' },
    curveSlot(line, context),
    { text: ' over ' },
    spanSlot(line.span, context),
  ],

  evaluate(line, context) {
    const found = lookOver(line, context)
    if (!found.ok) return failed(found.problem)
    const { curve, from, to } = found
    const { order } = line
    const { variable } = context
    const { f } = curve.derivative(order)
    const [ya, yb] = [f.value(from), f.value(to)]
    const name = curveText(line)
    if (!Number.isFinite(ya) || !Number.isFinite(yb)) {
      const at = Number.isFinite(ya) ? to : from
      if (curve.formula && heldAt(f, at) === 'tooLarge') {
        return failed(tooLarge(`${name}(${formatShort(at, 6)})`))
      }
      return failed({
        message: `${name} has no value at ${variable.letter} = ${formatShort(at, 6)}`,
        fix: 'move that end to where the curve is drawn',
      })
    }
    const [rise, run] = [yb - ya, to - from]
    const ends = [line.span.from, line.span.to].map((text, i) =>
      endOf(text, i === 0 ? from : to, context),
    )
    const isTyped = ends.every((end) => end.exact !== null)
    const trees = ends.map((end, i) => derivativeTree(curve, order, end, i === 0 ? ya : yb))
    const [first, last] = trees
    const riseTree = first && last ? sum(last, negate(first)) : null
    const runTree = sum(ends[1]!.tree, negate(ends[0]!.tree))
    const toldRise = tellTree(riseTree, rise, context, isTyped)
    const toldRate = tellTree(riseTree && quotient(riseTree, runTree), rise / run, context, isTyped)
    const unit = unitOfDerivative(curve.unit, variable.unit, order)
    const lane = { curve: line.curve, order }
    const primed = curveText(line).replaceAll('′', "'")
    const riseOut = toldReadout('rise', toldRise, unit)
    const runText = withUnit(formatShort(run, 12), variable.unit)
    return {
      readouts: estimatedWhere(isBetweenReadings(curve, order, from, to), [
        toldReadout('value', toldRate, unitOfDerivative(curve.unit, variable.unit, order + 1)),
        riseOut,
        { id: 'run', label: 'run', text: runText, value: run },
      ]),
      marks: [
        {
          kind: 'line',
          id: 'secant',
          layer: 'marks',
          lane,
          x: from,
          y: ya,
          slope: toldRate.value,
          extent: 'whole',
        },
        {
          kind: 'chord',
          id: 'slope',
          layer: 'marks',
          lane,
          x: from,
          y: ya,
          toX: to,
          toY: yb,
          rise: riseOut.text,
          run: runText,
        },
      ],
      problems: [],
      hints: [],
      offers: [
        {
          text: `Where is ${name}′ equal to this average rate?`,
          line: {
            kind: 'where',
            id: '',
            curve: line.curve,
            order: order + 1,
            target: `(${primed}(${line.span.to}) - ${primed}(${line.span.from}))/((${line.span.to}) - (${line.span.from}))`,
            span: line.span,
          },
        },
      ],
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'average rate of', 'average rate')
    return offersOver(rest, request, 2, (ref, span) => ({
      kind: 'averageRate' as const,
      id: '',
      ...ref,
      span,
    }))
  },
}
