import { z } from 'zod'
import { lookAtPlace } from '../features/place/placeFacts'
import { formatShort } from '../vocabulary/numbers'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { unitOfDerivative } from '../vocabulary/units'
import {
  factsAt,
  lookAt,
  missingDerivative,
  tooSmallNotes,
  offersAt,
  type AtPlace,
} from './shared/atPlace'
import {
  failed,
  type LineContext,
  type LineResult,
  type Mark,
  type StatementKind,
} from './contract'
import { curveSlot, curveText, placeSlot, wordsAfter } from './shared/slots'
import { estimatedWhere } from './shared/lines'
import { derivativeTree, tellTree, toldLine, toldReadout } from './shared/toldNumbers'
import { trailAction, trailOf } from './shared/trail'

/** Tangent to q at t = a. */
export const tangentLineSchema = z.strictObject({
  kind: z.literal('tangent'),
  ...commonMembers,
  curve: nameSchema,
  /** The tangent to q′ has order 1. */
  order: z.int().min(0).max(2),
  place: placeTextSchema,
  extent: z.enum(['short', 'whole']),
  /** Whether the slopes passed on the way from the slider's beginning stay on the derivative's lane. */
  trail: z.boolean().default(false),
})
export type TangentLine = z.infer<typeof tangentLineSchema>

export const tangentKind: StatementKind<TangentLine> = {
  kind: 'tangent',
  schema: tangentLineSchema,
  topic: 'rates',
  said: ['tangent', 'tangent to'],
  uses: { curves: ['curve'], places: ['place'] },
  actions(line, { speaks, sliderOf }) {
    if (!speaks) return []
    const { curve, order, trail } = line
    const whole = line.extent === 'whole'
    const extent = whole ? 'short' : 'whole'
    const slider = sliderOf(line.place)
    return [
      { id: 'whole', label: 'Whole line', does: 'change', change: { extent }, pressed: whole },
      ...(slider
        ? [
            trailAction('Trail of slopes', trail),
            {
              id: 'sweep',
              label: 'Sweep',
              does: 'sweep' as const,
              slider: slider.name,
              change: { trail: true, extent: 'short' },
              lane: { curve, order: order + 1 },
            },
          ]
        : []),
    ]
  },
  drawn: { tinted: 'lines', pointWidth: 16 },

  sentence: (line, context) => [
    { text: 'Tangent to ' },
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
    const y = derivatives[order]!
    const slope = derivatives[order + 1]!
    if (!Number.isFinite(slope)) {
      if (Number.isFinite(y) && factsAt({ order }, found.at).kind === 'vertical') {
        return upright(line, x, y, context)
      }
      const ref = { curve: line.curve, order: Number.isFinite(y) ? order + 1 : order }
      return failed(missingDerivative(ref, found.at, variable.letter))
    }
    const unit = unitOfDerivative(curve.unit, variable.unit, order + 1)
    const { at } = found
    const [steep, height] = [order + 1, order].map((k) =>
      derivativeTree(curve, k, at, derivatives[k]!),
    )
    const isTyped = at.exact !== null
    const toldSlope = tellTree(steep!, slope, context, isTyped)
    const slopeText = toldSlope.text
    const lane = { curve: line.curve, order }
    const marks: Mark[] = [
      { kind: 'line', id: 'tangent', layer: 'marks', lane, x, y, slope, extent: line.extent },
      {
        kind: 'riseOverRun',
        id: 'slope',
        layer: 'marks',
        lane,
        x,
        y,
        slope,
        decimals,
        rise: slopeText,
        exact: toldSlope.fraction !== undefined,
      },
      { kind: 'dot', id: 'point', layer: 'points', lane, x, y, place: line.place },
      // The slope is the height of the next lane: seen there, it is the derivative's graph.
      {
        kind: 'dot',
        id: 'height',
        layer: 'points',
        lane: { curve: line.curve, order: order + 1 },
        x,
        y: slope,
        place: line.place,
        label: slopeText,
      },
    ]
    const area = order === 0 ? curve.accumulates : undefined
    // A curve that is given by its derivative has that on the next lane already.
    const under = area?.curve === line.curve ? undefined : area
    if (under) {
      // The slope of an accumulated area is the height of what lies over it.
      const lane = { curve: under.curve, order: under.order }
      marks.push({
        kind: 'dot',
        id: 'heightUnder',
        layer: 'points',
        lane,
        x,
        y: slope,
        place: line.place,
        label: slopeText,
      })
    }
    if (line.trail) {
      const above = { curve: line.curve, order: order + 1 }
      marks.unshift(...trailOf(above, curve.derivative(order + 1).f, line.place, x, context))
    }
    return {
      readouts: estimatedWhere(curve.readings !== undefined, [
        toldReadout('slope', toldSlope, unit),
        toldLine(
          { place: at, value: height!, slope: steep! },
          { value: y, slope },
          context,
          isTyped,
        ),
      ]),
      marks,
      problems: [],
      hints: [],
      notes: [
        ...tooSmallNotes(found.at, [order, order + 1], context),
        ...(under ? [areaSlopeNote(line.curve, curveText(under), found.at)] : []),
      ],
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'tangent to', 'tangent')
    if (rest === null) return []
    return offersAt(rest, request, ({ curve, order }, place) =>
      order > 2
        ? null
        : { kind: 'tangent', id: '', curve, order, place, extent: 'short', trail: false },
    )
  },
}

/** The tangent where the curve itself is vertical: it has an equation and no slope. */
function upright(
  line: TangentLine,
  x: number,
  y: number,
  { variable, decimals }: LineContext,
): LineResult {
  const lane = { curve: line.curve, order: line.order }
  return {
    readouts: [
      { id: 'line', label: 'line', text: `${variable.letter} = ${formatShort(x, decimals)}` },
    ],
    marks: [
      {
        kind: 'line',
        id: 'tangent',
        layer: 'marks',
        lane,
        x,
        y,
        slope: Infinity,
        extent: line.extent,
      },
      { kind: 'dot', id: 'point', layer: 'points', lane, x, y, place: line.place },
    ],
    problems: [],
    hints: [],
    notes: ['The tangent is vertical here: it has an equation and no slope.'],
  }
}

/** What the slope of an area is: the height of its integrand, or what that tends to. */
function areaSlopeNote(area: string, integrand: string, { x, exact, curve }: AtPlace): string {
  const { kind } = lookAtPlace(curve.accumulates!.f, x, exact)
  return kind === 'hole' || kind === 'displaced'
    ? `${area}′ is what ${integrand} tends to there: a single place adds no area.`
    : `${area}′ = ${integrand}: the slope is the height of ${integrand} there.`
}
