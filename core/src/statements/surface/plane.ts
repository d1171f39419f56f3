import { z } from 'zod'
import { negate, product, sum } from '../../formula/tree'
import { toLatex } from '../../language/latex'
import { toPlain } from '../../language/print'
import { remainderBound } from '../../surfaces/local'
import { commonMembers, nameSchema, placeTextSchema } from '../../vocabulary/members'
import { showNumber } from '../../vocabulary/numbers'
import {
  emptyResult,
  failed,
  type LineContext,
  type LineProblem,
  type Readout,
  type SpaceMark,
  type StatementKind,
} from '../contract'
import { numberSlot } from '../shared/slots'
import { tellTree, toldReadout } from '../shared/toldNumbers'
import { partialRead } from './partials'
import { pointFor, pointIn, surfaceMeant } from './said'
import {
  lookAtPoint,
  noSlope,
  ofSurface,
  partialName,
  type PointOn,
  pointPhrases,
  tellAt,
  treeAt,
} from './shared'
import { boundSaid, placeSaidAs, runSaid, termsSaid } from './words'

/** Tangent plane at (a, b). */
export const planeLineSchema = z.strictObject({
  kind: z.literal('plane'),
  ...commonMembers,
  of: nameSchema,
  x: placeTextSchema,
  y: placeTextSchema,
  /** How far away in x and in y its error is told; left out where nobody asks. */
  near: placeTextSchema.optional(),
  /** Whether the gradient is drawn. */
  gradient: z.boolean().default(true),
})
export type PlaneLine = z.infer<typeof planeLineSchema>

export const planeKind: StatementKind<PlaneLine> = {
  kind: 'plane',
  schema: planeLineSchema,
  topic: 'surfaces',
  said: ['tangent plane'],
  claims: /^(?:the\s+)?tangent\s+planes?\b/i,
  uses: {
    surfaces: ['of'],
    numbers: ['x', 'y', 'near'],
    point: { place: 'x', height: 'y' },
  },
  drawn: { pointWidth: 16 },

  sentence: (line, context) => [
    { text: 'Tangent plane' },
    ...ofSurface(line.of, 'to'),
    { text: ' at ' },
    ...pointPhrases(line, context),
    ...(line.near === undefined
      ? []
      : [{ text: ', error within ' }, numberSlot('near', line.near, context)]),
  ],

  actions: ({ gradient, near }) => [
    {
      ...{ id: 'gradient', label: 'Gradient', does: 'change', change: { gradient: !gradient } },
      pressed: gradient,
    },
    {
      ...{ id: 'near', label: 'Error nearby', does: 'change' },
      change: { near: near === undefined ? '0.1' : undefined },
      pressed: near !== undefined,
    },
  ],

  evaluate(line, context) {
    const found = lookAtPoint(line, context)
    if (!found.ok) return failed(found.problem)
    const { at } = found
    const { f, letters } = at.surface
    const [fx, fy] = [f.partial(1, 0), f.partial(0, 1)]
    const [p, q] = [fx.value(at.x.x, at.y.x), fy.value(at.x.x, at.y.x)]
    if (!Number.isFinite(p) || !Number.isFinite(q)) return failed(noSlope(at, context.decimals))
    const near = nearOf(line, at, context)
    if ('problem' in near) return failed(near.problem)
    const [height, slopeX, slopeY] = [f, fx, fy].map((g) => tellAt(g, at, context)) as [
      ReturnType<typeof tellAt>,
      ReturnType<typeof tellAt>,
      ReturnType<typeof tellAt>,
    ]
    const formula = (letter: string): Readout => {
      const tree = partialRead(at.surface, letter)
      const label = partialName(at.surface.name, letter)
      return { id: `formula ${letter}`, label, text: toPlain(tree), latex: toLatex(tree) }
    }
    const steepest = Math.hypot(p, q)
    const label = toldReadout('height', height, '')
    const readouts: Readout[] = [
      label,
      formula(letters[0]),
      { ...toldReadout(`slope along ${letters[0]}`, slopeX, '') },
      formula(letters[1]),
      { ...toldReadout(`slope along ${letters[1]}`, slopeY, '') },
      ...planeReadouts(at, [height.text, slopeX.text, slopeY.text], context),
      { id: 'gradient', label: 'gradient', text: `(${slopeX.text}, ${slopeY.text})` },
      {
        id: 'steepest',
        label: 'steepest slope',
        text: showNumber(steepest, context.decimals),
        value: steepest,
      },
    ]
    const point = [at.x.x, at.y.x, at.z] as const
    const space: SpaceMark[] = [
      { kind: 'plane', id: 'plane', at: point, slopes: [p, q] },
      ...(line.gradient && steepest > 0 ? [gradientArrow(point, [p, q], at)] : []),
      { kind: 'spot', id: 'point', at: point, label: height.text, held: true },
    ]
    const notes = [...at.notes, ...touches(at), ...near.notes]
    return { ...emptyResult, readouts, notes, ...(at.isDrawn ? { space } : {}) }
  },

  offers(request) {
    const words = request.text.replace(/^(?:the\s+)?tangent\s+planes?\b/i, '')
    if (words === request.text && !/^tangent\s+plane$/i.test(request.text)) return []
    const surface = surfaceMeant(words, request)
    if (!surface) return []
    const said = pointIn(words)
    const { x, y, newSliders } = pointFor(said, surface, request)
    const line: PlaneLine = {
      ...{ kind: 'plane', id: '', of: surface.name, x, y, gradient: true },
    }
    return [{ line, newSliders }]
  },
}

/** The equation of the plane from its point, and multiplied out. */
function planeReadouts(
  at: PointOn,
  [height, slopeX, slopeY]: readonly [string, string, string],
  context: LineContext,
): Readout[] {
  const { f, letters, name } = at.surface
  const [x0, y0] = [at.x, at.y].map(
    (place) => tellTree(place.tree, place.x, context, at.isTyped).text,
  ) as [string, string]
  const fromPoint = termsSaid(height, [
    [slopeX, runSaid(letters[0], x0)],
    [slopeY, runSaid(letters[1], y0)],
  ])
  const [z0, p, q] = [f, f.partial(1, 0), f.partial(0, 1)].map((g) => treeAt(g, at)) as [
    ReturnType<typeof treeAt>,
    ReturnType<typeof treeAt>,
    ReturnType<typeof treeAt>,
  ]
  const known =
    at.z -
    f.partial(1, 0).value(at.x.x, at.y.x) * at.x.x -
    f.partial(0, 1).value(at.x.x, at.y.x) * at.y.x
  const isRough = at.x.rough || at.y.rough
  const constant = sum(z0, negate(product(p, at.x.tree)), negate(product(q, at.y.tree)))
  const told = tellTree(isRough ? null : constant, known, context, at.isTyped)
  const terms = [
    [slopeX, letters[0]],
    [slopeY, letters[1]],
  ] as const
  const left = name
  const behind = termsSaid('0', terms)
  const size = told.text.startsWith('−') ? `− ${told.text.slice(1)}` : `+ ${told.text}`
  const isZero = !/[1-9∞]/.test(told.text)
  const out = behind === '0' ? told.text : isZero ? behind : `${behind} ${size}`
  const plane = { id: 'plane', label: 'plane', text: `${left} = ${fromPoint}` }
  if (out === fromPoint) return [plane]
  return [plane, { id: 'plane out', label: 'multiplied out', text: `${left} = ${out}` }]
}

/** An arrow up the slope on the plane, as long as a sixth of the rectangle. */
function gradientArrow(
  [x, y, z]: readonly [number, number, number],
  [p, q]: readonly [number, number],
  { surface: { within } }: PointOn,
): SpaceMark {
  const size = Math.hypot(p, q)
  const reach = Math.min(within.x.hi - within.x.lo, within.y.hi - within.y.lo) / 6
  const [u, v] = [(p / size) * reach, (q / size) * reach]
  return {
    ...{ kind: 'arrow', id: 'gradient', role: 'gradient', label: 'steepest' },
    from: [x, y, z],
    to: [x + u, y + v, z + p * u + q * v],
  }
}

/** What is not known of it: that it touches, where the partial derivatives may jump. */
function touches(at: PointOn): string[] {
  const small = 1e-6 * Math.max(1, Math.abs(at.x.x), Math.abs(at.y.x))
  if (remainderBound(at.surface.f, at.x.x, at.y.x, small, 1) !== null) return []
  return [
    'The second partial derivatives are not bounded around this point: that the plane touches the surface here is not proven.',
  ]
}

function nearOf(
  line: PlaneLine,
  at: PointOn,
  context: LineContext,
): { notes: string[] } | { problem: LineProblem } {
  if (line.near === undefined) return { notes: [] }
  const read = context.number(line.near)
  if (!read.ok) return { problem: read.problem }
  const r = read.value
  if (!(r > 0)) {
    return { problem: { message: 'the error is told within a distance above 0', fix: 'write 0.1' } }
  }
  const bound = remainderBound(at.surface.f, at.x.x, at.y.x, r, 1)
  const [x, y] = at.surface.letters
  const where = `Within ${showNumber(r, 12)} of ${placeSaidAs([at.x.x, at.y.x], context.decimals)} in ${x} and in ${y}`
  return {
    notes: [
      bound === null
        ? `${where} the second partial derivatives are not known everywhere: no bound of the error is proven.`
        : `${where} the plane is off by at most ${boundSaid(bound)}: proven by bounds of the second partial derivatives.`,
    ],
  }
}
