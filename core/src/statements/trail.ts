import { z } from 'zod'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { failed, type StatementKind } from './contract'
import { lookAt, offersAt } from './shared/atPlace'
import { curveSlot, placeSlot, wordsAfter } from './shared/slots'

const styles = ['broad', 'dots', 'tangents'] as const
const styleWords = { broad: 'broad', dots: 'dots', tangents: 'its tangents' } as const

/**
 * Trail of q at t = a: what the place passes while the line is shown stays marked. Of q′ it is the slopes
 * of q that stay, of ∫q the areas.
 */
export const trailLineSchema = z.strictObject({
  kind: z.literal('trail'),
  ...commonMembers,
  curve: nameSchema,
  /** -1 for the area from the beginning of the span. */
  order: z.int().min(-1).max(3),
  place: placeTextSchema,
  /** A broad highlight along the curve, a dot wherever it has been, or the tangents that it leaves. */
  style: z.enum(styles),
})
export type TrailLine = z.infer<typeof trailLineSchema>

export const trailKind: StatementKind<TrailLine> = {
  kind: 'trail',
  schema: trailLineSchema,
  topic: null,
  said: ['trail', 'trail of', 'trail of tangents to'],
  uses: { curves: ['curve'], places: ['place'] },
  drawn: {},
  whenAdded: ({ curve, order }) => (order === 0 ? null : { lane: { curve, order } }),

  sentence: (line, context) => [
    ...(line.order < 0
      ? [{ text: `Trail of the area under ${line.curve}` }]
      : [{ text: 'Trail of ' }, curveSlot(line, context)]),
    { text: ' at ' },
    placeSlot(line.place, context),
    { text: ', ' },
    {
      slot: 'choice',
      field: 'style',
      text: styleWords[line.style],
      source: line.style,
      latex: `\\text{${styleWords[line.style]}}`,
      choices: styles.map((value) => ({ value, text: styleWords[value] })),
    },
  ],

  evaluate(line, context) {
    const found = lookAt(line, Math.max(0, line.order), context)
    if (!found.ok) return failed(found.problem)
    if (line.order < 0 && found.at.curve.accumulates) {
      return failed({
        message: `${line.curve} is an area itself: the area under it is not drawn`,
        fix: `take the trail of ${line.curve}`,
      })
    }
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
    const { style, order: beside, curve } = passedThere(rest)
    return offersAt(curve, request, ({ curve, order }, place) =>
      order + beside > 3 || order + beside < -1
        ? null
        : { kind: 'trail', id: '', curve, order: order + beside, place, style },
    )
  },
}

/** What is to stay of a curve: its tangents, its slopes as heights of its rate, areas as those of its area. */
function passedThere(words: string): { style: TrailLine['style']; order: number; curve: string } {
  const after = (...leads: string[]) => wordsAfter(words, ...leads)
  const tangents = after('tangents to', 'tangents of', 'the tangents to', 'tangents')
  if (tangents !== null) return { style: 'tangents', order: 0, curve: tangents }
  const slopes = after('the slope of', 'slope of', 'slopes of', 'the slopes of')
  if (slopes !== null) return { style: 'dots', order: 1, curve: slopes }
  const areas = after('the area under', 'area under', 'areas under', 'the height of the area under')
  if (areas !== null) return { style: 'dots', order: -1, curve: areas }
  return { style: 'broad', order: 0, curve: words }
}
