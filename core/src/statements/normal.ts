import { z } from 'zod'
import { formatShort } from '../vocabulary/numbers'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { factsAt, lookAt, missingDerivative, tooSmallNotes, offersAt } from './shared/atPlace'
import { failed, type StatementKind } from './contract'
import { estimatedWhere } from './shared/lines'
import { derivativeTree, tellTree, toldLine, toldReadout } from './shared/toldNumbers'
import { quotient, type Tree, whole } from '../formula/tree'
import { curveSlot, placeSlot, wordsAfter } from './shared/slots'

/** Normal to q at t = a. */
export const normalLineSchema = z.strictObject({
  kind: z.literal('normal'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  place: placeTextSchema,
})
export type NormalLine = z.infer<typeof normalLineSchema>

export const normalKind: StatementKind<NormalLine> = {
  kind: 'normal',
  schema: normalLineSchema,
  topic: 'rates',
  said: ['normal', 'normal to'],
  uses: { curves: ['curve'], places: ['place'] },
  drawn: { tinted: 'lines', pointWidth: 16 },

  sentence: (line, context) => [
    { text: 'Normal to ' },
    curveSlot(line, context),
    { text: ' at ' },
    placeSlot(line.place, context),
  ],

  evaluate(line, context) {
    const { order } = line
    const { variable, decimals } = context
    const found = lookAt(line, order + 1, context)
    if (!found.ok) return failed(found.problem)
    const { x, curve, derivatives } = found.at
    const [y, slope] = [derivatives[order]!, derivatives[order + 1]!]
    const lane = { curve: line.curve, order }
    const [steep, height] = [order + 1, order].map((k) =>
      derivativeTree(curve, k, found.at, derivatives[k]!),
    ) as [Tree | null, Tree | null]
    const isTyped = found.at.exact !== null
    const dot = {
      kind: 'dot' as const,
      id: 'point',
      layer: 'points' as const,
      lane,
      x,
      y,
      place: line.place,
    }
    if (!Number.isFinite(slope)) {
      if (Number.isFinite(y) && factsAt({ order }, found.at).kind === 'vertical') {
        return {
          readouts: [
            toldReadout('slope', tellTree(whole(0), 0, context, false), ''),
            toldLine(
              { place: found.at, value: height, slope: whole(0) },
              { value: y, slope: 0 },
              context,
              isTyped,
            ),
          ],
          marks: [
            { kind: 'line', id: 'normal', layer: 'marks', lane, x, y, slope: 0, extent: 'short' },
            dot,
          ],
          problems: [],
          hints: [],
          notes: ['The tangent is vertical here, so the normal is level.'],
        }
      }
      return failed(
        missingDerivative({ curve: line.curve, order: order + 1 }, found.at, variable.letter),
      )
    }
    const tooSmall = tooSmallNotes(found.at, [order + 1], context)
    if (tooSmall.length > 0) {
      const name = `${line.curve}${'′'.repeat(order + 1)}`
      return failed({
        message: `the slope of the normal is −1/${name}, and ${name} is too small to hold there`,
        fix: 'move the place to where the slope is larger',
      })
    }
    const equal = 'It stands upright on the tangent where both axes have the same scale.'
    if (slope === 0) {
      return {
        readouts: [
          { id: 'line', label: 'line', text: `${variable.letter} = ${formatShort(x, decimals)}` },
        ],
        marks: [
          {
            kind: 'line',
            id: 'normal',
            layer: 'marks',
            lane,
            x,
            y,
            slope: Infinity,
            extent: 'short',
          },
          dot,
        ],
        problems: [],
        hints: [],
        notes: ['The tangent is level here, so the normal is vertical and has no slope.'],
      }
    }
    const own = -1 / slope
    const upright = steep && quotient(whole(-1), steep)
    return {
      readouts: estimatedWhere(curve.readings !== undefined, [
        toldReadout('slope', tellTree(upright, own, context, isTyped), ''),
        toldLine(
          { place: found.at, value: height, slope: upright },
          { value: y, slope: own },
          context,
          isTyped,
        ),
      ]),
      marks: [
        { kind: 'line', id: 'normal', layer: 'marks', lane, x, y, slope: own, extent: 'short' },
        dot,
      ],
      problems: [],
      hints: [],
      notes: [equal],
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'normal to', 'normal')
    if (rest === null || request.text === '') return []
    return offersAt(rest, request, ({ curve, order }, place) =>
      order > 2 ? null : { kind: 'normal', id: '', curve, order, place },
    )
  },
}
