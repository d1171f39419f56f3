import { z } from 'zod'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { unitOfDerivative } from '../vocabulary/units'
import { lookAt, missingDerivative, tooSmallNotes, offersAt } from './shared/atPlace'
import { type CurveResult, failed, type Mark, type StatementKind } from './contract'
import { estimatedWhere } from './shared/lines'
import { derivativeTree, tellTree, toldReadout } from './shared/toldNumbers'
import { isBetweenReadings } from './shared/readingsWithin'
import { curveSlot, placeSlot, wordsAfter } from './shared/slots'
import { trailAction, trailOf } from './shared/trail'

/** Value of q′ at t = 2. */
export const valueLineSchema = z.strictObject({
  kind: z.literal('value'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(3),
  place: placeTextSchema,
  /** Whether the values passed on the way from the slider's beginning stay on the lane. */
  trail: z.boolean().optional(),
})
export type ValueLine = z.infer<typeof valueLineSchema>

export const valueKind: StatementKind<ValueLine> = {
  kind: 'value',
  schema: valueLineSchema,
  topic: 'rates',
  said: ['value', 'value of'],
  uses: { curves: ['curve'], places: ['place'] },
  actions: ({ place, trail }, { sliderOf }) =>
    sliderOf(place) ? [trailAction('Trail', trail === true)] : [],
  drawn: { pointWidth: 16 },

  sentence: (line, context) => [
    { text: 'Value of ' },
    curveSlot(line, context),
    { text: ' at ' },
    placeSlot(line.place, context),
  ],

  evaluate(line, context) {
    const { curve: name, order } = line
    const { variable } = context
    const found = lookAt(line, order, context)
    if (!found.ok) return failed(found.problem)
    const { x, curve, derivatives } = found.at
    const value = derivatives[order]!
    if (!Number.isFinite(value)) return failed(missingDerivative(line, found.at, variable.letter))
    const unit = unitOfDerivative(curve.unit, variable.unit, order)
    const { at } = found
    const told = tellTree(
      derivativeTree(curve, order, at, value),
      value,
      context,
      at.exact !== null,
    )
    return {
      readouts: estimatedWhere(isBetweenReadings(curve, order, x), [
        toldReadout('value', told, unit),
      ]),
      marks: [
        ...shadeOf(curve, order, x),
        ...(line.trail
          ? trailOf({ curve: name, order }, curve.drawn(order), line.place, x, context)
          : []),
        {
          kind: 'dot',
          id: 'value',
          layer: 'points',
          lane: { curve: name, order },
          x,
          y: value,
          place: line.place,
          label: told.text,
        },
      ],
      problems: [],
      hints: [],
      notes: tooSmallNotes(found.at, [order], context),
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'value of', 'value')
    if (rest === null) return []
    return offersAt(rest, request, ({ curve, order }, place) =>
      order > 3 ? null : { kind: 'value', id: '', curve, order, place },
    )
  },
}

/** The area that a value of an accumulation stands for, under its curve. */
function shadeOf({ accumulates }: CurveResult, order: number, x: number): Mark[] {
  if (!accumulates || order !== 0) return []
  const { curve, order: under, lower } = accumulates
  const lane = { curve, order: under }
  const [from, to] = [Math.min(lower, x), Math.max(lower, x)]
  return from < to
    ? [{ kind: 'shade', id: 'area', layer: 'insides', lane, from, to, of: lane }]
    : []
}
