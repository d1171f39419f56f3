import { unitOfDerivative } from '../../vocabulary/units'
import { emptyResult, failed, type StatementKind } from '../contract'
import { lookOverFormula, offersOver } from '../shared/overSpan'
import { curveSlot, spanSlot, wordsAfter } from '../shared/slots'
import { spanFacts, asksOver, longOver } from '../shared/spanFacts'
import { told } from './told'
import { type FeaturesLine, type Wanted, featuresLineSchema, wanted } from './line'

const heads: Record<Wanted, string> = {
  features: 'Features',
  zeros: 'Zeros',
  'turning points': 'Turning points',
  inflections: 'Inflections',
  'critical points': 'Critical points',
}

export const featuresKind: StatementKind<FeaturesLine> = {
  kind: 'features',
  schema: featuresLineSchema,
  topic: 'extremes',
  said: ['features', 'turning points', 'zeros', 'inflections', 'critical points'],
  uses: { curves: ['curve'], spans: ['span'] },
  actions: ({ labels, ends }) => [
    {
      id: 'labels',
      label: 'Labels in the picture',
      does: 'change',
      change: { labels: !labels },
      pressed: labels,
    },
    {
      id: 'ends',
      label: 'Count the ends',
      does: 'change',
      change: { ends: !ends },
      pressed: ends,
    },
  ],
  drawn: { pointWidth: 9 },

  sentence: (line, context) => [
    {
      slot: 'choice',
      field: 'only',
      text: heads[line.only],
      source: line.only,
      latex: `\\text{${heads[line.only]}}`,
      choices: wanted.map((value) => ({ value, text: heads[value] })),
    },
    { text: ' of ' },
    curveSlot(line, context),
    { text: ' on ' },
    spanSlot(line.span, context),
  ],

  long: longOver(asksOver()),

  evaluate(line, context) {
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const facts = spanFacts(curve, line.order, from, to, context)
    if (!facts.examination) return { ...emptyResult, pending: true }
    return told(
      line,
      facts,
      facts.examination,
      unitOfDerivative(curve.unit, context.variable.unit, line.order),
      context,
    )
  },

  offers(request) {
    if (request.text === '') return []
    return wanted.flatMap((only) => {
      const rest = wordsAfter(request.text, `${only} of`, only)
      return offersOver(rest, request, 2, (ref, span) => ({
        kind: 'features' as const,
        id: '',
        ...ref,
        only,
        span,
        ends: true,
        labels: true,
      }))
    })
  },
}
