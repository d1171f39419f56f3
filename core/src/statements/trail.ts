import { z } from 'zod'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { failed, type StatementKind } from './contract'
import { lookAt, offersAt } from './shared/atPlace'
import { curveSlot, placeSlot, wordsAfter } from './shared/slots'

const styles = ['broad', 'dots'] as const

/** Trail of q at t = a: what the place passes while the line is shown stays marked. */
export const trailLineSchema = z.strictObject({
  kind: z.literal('trail'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(3),
  place: placeTextSchema,
  /** A broad highlight along the curve, or a dot wherever it has been. */
  style: z.enum(styles),
})
export type TrailLine = z.infer<typeof trailLineSchema>

export const trailKind: StatementKind<TrailLine> = {
  kind: 'trail',
  schema: trailLineSchema,
  topic: null,
  said: ['trail', 'trail of'],
  uses: { curves: ['curve'], places: ['place'] },
  drawn: {},

  sentence: (line, context) => [
    { text: 'Trail of ' },
    curveSlot(line, context),
    { text: ' at ' },
    placeSlot(line.place, context),
    { text: ', ' },
    {
      slot: 'choice',
      field: 'style',
      text: line.style,
      source: line.style,
      latex: `\\text{${line.style}}`,
      choices: styles.map((value) => ({ value, text: value })),
    },
  ],

  evaluate(line, context) {
    const found = lookAt(line, line.order, context)
    if (!found.ok) return failed(found.problem)
    const lane = { curve: line.curve, order: line.order }
    return {
      readouts: [],
      marks: [
        { kind: 'trail', id: 'trail', layer: 'insides', lane, x: found.at.x, style: line.style },
      ],
      problems: [],
      hints: [],
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'trail of', 'trail')
    if (rest === null) return []
    return offersAt(rest, request, ({ curve, order }, place) =>
      order > 3 ? null : { kind: 'trail', id: '', curve, order, place, style: 'broad' },
    )
  },
}
