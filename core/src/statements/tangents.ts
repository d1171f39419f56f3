import { z } from 'zod'
import type { RealFunction } from '../evaluate/compile'
import type { Solutions } from '../features/solve'
import { lineEquation } from '../vocabulary/equation'
import { roundedLine } from './shared/lines'
import { commonMembers, nameSchema, placeTextSchema, spanSchema } from '../vocabulary/members'
import { formatCertain, formatNumber, sayStretch } from '../vocabulary/numbers'
import {
  emptyResult,
  failed,
  type LineContext,
  type LineProblem,
  type LineResult,
  type Mark,
  placeName,
  type StatementKind,
} from './contract'
import { lookOverFormula, offersOver } from './shared/overSpan'
import { longSolving, type Question, solved, solvingOf } from './shared/solving'
import { curveSlot, curveText, numberSlot, spanSlot, wordsAfter } from './shared/slots'
import { verdictOf } from './where/words'

/** Tangents to q through (3, 1) on [0, 10], and tangents to q with slope 2. */
export const tangentsLineSchema = z.strictObject({
  kind: z.literal('tangents'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(1),
  span: spanSchema,
  by: z.enum(['point', 'slope']),
  x: placeTextSchema,
  y: placeTextSchema,
  slope: placeTextSchema,
})
export type TangentsLine = z.infer<typeof tangentsLineSchema>

export const tangentsKind: StatementKind<TangentsLine> = {
  kind: 'tangents',
  schema: tangentsLineSchema,
  topic: 'rates',
  said: ['tangents', 'tangents to'],
  uses: { curves: ['curve'], spans: ['span'], numbers: ['x', 'y', 'slope'] },
  drawn: { pointWidth: 12 },

  sentence: (line, context) => [
    { text: 'Tangents to ' },
    curveSlot(line, context),
    ...(line.by === 'slope'
      ? [{ text: ' with slope ' }, numberSlot('slope', line.slope, context)]
      : [
          { text: ' through (' },
          numberSlot('x', line.x, context),
          { text: ', ' },
          numberSlot('y', line.y, context),
          { text: ')' },
        ]),
    { text: ' on ' },
    spanSlot(line.span, context),
  ],

  long: longSolving(askedOf),

  evaluate(line, context) {
    const asked = askedOf(line, context)
    if (!asked.ok) return failed(asked.problem)
    const solving = solvingOf(asked, context)
    if (!solving.found) context.steps(solved(solving))
    if (!solving.found) return { ...emptyResult, pending: true }
    return told(line, asked, solving.found, context)
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'tangents to', 'tangents')
    const point = rest && /\s*\bthrough\s*\(\s*([^,]+?)\s*,\s*(.+?)\s*\)(?=\s|$)/.exec(rest)
    const slope = rest && /\s*\bwith slope\s+(\S+)/.exec(rest)
    const found = point ?? slope
    // Without either they are asked for with the slope that is looked for most.
    const words = rest && found ? rest.replace(found[0], '') : rest
    return offersOver(words, request, 1, (ref, span) => ({
      kind: 'tangents' as const,
      id: '',
      ...ref,
      span,
      by: point ? ('point' as const) : ('slope' as const),
      x: point?.[1] ?? '0',
      y: point?.[2] ?? '0',
      slope: slope?.[1] ?? '0',
    }))
  },
}

interface Asked extends Question {
  ok: true
  f: RealFunction
  slopes: RealFunction
  span: readonly [number, number]
  /** The point they go through; null where their slope is given. */
  point: readonly [number, number] | null
}

/**
 * The places at which the tangent has the slope, f′(c) = m, or goes through the point,
 * f(c) + f′(c)(X − c) = Y.
 */
function askedOf(
  line: TangentsLine,
  context: LineContext,
): Asked | { ok: false; problem: LineProblem } {
  const over = lookOverFormula(line, context)
  if (!over.ok) return over
  const { curve, from, to } = over
  const { f } = curve.derivative(line.order)
  const slopes = curve.derivative(line.order + 1).f
  const common = { ok: true as const, curve, f, slopes, span: [from, to] as const }
  if (line.by === 'slope') {
    const slope = context.number(line.slope)
    if (!slope.ok) return slope
    return { ...common, question: [slopes, slope.value, from, to], point: null }
  }
  const [x, y] = [context.number(line.x), context.number(line.y)]
  if (!x.ok) return x
  if (!y.ok) return y
  const { letter } = context.variable
  const name = curveText(line)
  const through = context.formula(
    `${name}(${letter}) + ${name}′(${letter})·((${line.x}) − ${letter}) − (${line.y})`,
  )
  if (!through.ok) return through
  return { ...common, question: [through.f, 0, from, to], point: [x.value, y.value] }
}

/** More tangents than this are listed and not drawn. */
const mostDrawn = 30

function told(
  line: TangentsLine,
  { f, slopes, span, point }: Asked,
  found: Solutions,
  context: LineContext,
): LineResult {
  const { decimals, variable } = context
  const { letter } = variable
  const lane = { curve: line.curve, order: line.order }
  const name = curveText(line)
  const { solutions, stretches } = found
  const touched = solutions.flatMap(({ x, enclosure, proven }) => {
    const [value, slope] = [f.value(x), slopes.value(x)]
    return Number.isFinite(slope) ? [{ x, enclosure, proven, value, slope }] : []
  })
  const rows = touched.map(({ x, enclosure, proven, value, slope }) => {
    const shown = formatCertain(enclosure, decimals)
    return {
      cells: [
        (shown.certain && proven ? '' : '≈ ') + shown.text,
        formatNumber(value, decimals),
        formatNumber(slope, decimals),
        lineEquation(roundedLine({ at: x, value, slope }, decimals), letter),
      ],
      values: [x, value, slope, null],
      x,
    }
  })
  const marks: Mark[] = touched.slice(0, mostDrawn).flatMap(({ x, value, slope }): Mark[] => [
    {
      kind: 'line',
      id: placeName('tangent', x),
      layer: 'marks',
      lane,
      x,
      y: value,
      slope,
      extent: 'whole',
    },
    { kind: 'spot', id: placeName('touch', x), layer: 'marks', lane, x, y: value, filled: true },
  ])
  if (point) {
    const [x, y] = point
    marks.push({ kind: 'spot', id: 'point', layer: 'marks', lane, x, y, filled: true })
  }
  const places = Math.max(3, decimals)
  const along = stretches.map((stretch) => sayStretch(stretch, places))
  const count = touched.length
  return {
    ...emptyResult,
    marks,
    tables:
      rows.length === 0
        ? []
        : [
            {
              name: 'Solutions',
              columns: [letter, `${name}(${letter})`, 'slope', 'line'],
              rows,
              count,
              open: true,
            },
          ],
    notes: [
      ...(along.length === 0 ? [] : [`Every tangent along ${along.join(' and ')} is one.`]),
      ...(count > mostDrawn ? [`The first ${mostDrawn} of ${count} are drawn.`] : []),
    ],
    verdict: verdictOf(
      { ...found, stretches: stretches.map((ends) => ({ ends, closed: [true, true] })) },
      span,
      decimals,
    ),
  }
}
