import { z } from 'zod'
import { derivativeToLatex, nameToLatex, toLatex } from '../language/latex'
import { toPlain } from '../language/print'
import { commonMembers, nameSchema } from '../vocabulary/members'
import { emptyResult, failed, type Phrase, type StatementKind } from './contract'
import { parseCurveRef, wordsAfter } from './shared/slots'

/** Rate of change q′(t) = …, found symbolically. */
export const rateLineSchema = z.strictObject({
  kind: z.literal('rate'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(1).max(3),
})
export type RateLine = z.infer<typeof rateLineSchema>

const opening = ['', 'Rate of change ', 'Rate of change of the rate ', 'Third derivative ']

export const rateKind: StatementKind<RateLine> = {
  kind: 'rate',
  schema: rateLineSchema,
  topic: 'rates',
  said: ['rate', 'rate of change of', 'rate of change', 'derivative of', 'derivative'],
  uses: { curves: ['curve'] },
  drawn: { stands: ({ curve, order }) => ({ curve, order }) },
  whenAdded: ({ curve, order }) => ({ lane: { curve, order } }),

  sentence({ curve, order }, context): Phrase[] {
    const { letter } = context.variable
    const tree = context.derivative(curve, order)
    const symbol = derivativeToLatex(curve, order, letter, context.notation)
    const head = context.notation === 'ratios' ? symbol : `${symbol}(${nameToLatex(letter)})`
    return [
      { text: opening[order]! },
      {
        slot: 'curve',
        field: 'curve',
        text: `${curve}${'′'.repeat(order)}(${letter})${tree ? ` = ${toPlain(tree)}` : ''}`,
        source: curve + '′'.repeat(order),
        latex: tree ? `${head} = ${toLatex(tree)}` : head,
      },
    ]
  },

  evaluate({ curve }, context) {
    const found = context.curve(curve)
    return found.ok ? emptyResult : failed(found.problem)
  },

  offers({ text, curves }) {
    const rest = wordsAfter(
      text,
      'rate of change of',
      'rate of change',
      'rate',
      'derivative of',
      'derivative',
    )
    // "derivative at 2" asks for a value, "rate of change from 2 to 5" for an average.
    if (rest === null || /\b(?:at|from|over|on)\b/.test(rest)) return []
    const ref = parseCurveRef(rest.replace(/^of /, ''))
    const orders = ref && ref.order > 0 ? [ref.order] : [1, 2]
    return curves
      .filter(({ name }) => !ref || ref.curve === name)
      .flatMap(({ name }) =>
        orders
          .filter((order) => order <= 3)
          .map((order) => ({ line: { kind: 'rate' as const, id: '', curve: name, order } })),
      )
  },
}
