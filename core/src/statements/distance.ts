import { sayStretch } from '../vocabulary/numbers'
import { placeIs } from './shared/said'
import { z } from 'zod'
import { simplify } from '../algebra/simplify'
import { derivativeToLatex } from '../language/latex'
import {
  call,
  exactly,
  name as nameTree,
  negate,
  power,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import { decimalOfNumber } from '../arithmetic/rational'
import { withValues } from '../evaluate/withValues'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { withUnit } from '../vocabulary/units'
import { lookAt } from './shared/atPlace'
import {
  type CurveLookup,
  emptyResult,
  failed,
  type LineContext,
  type Mark,
  type StatementKind,
} from './contract'
import { curveOfTree } from './shared/curveOfTree'
import { shownFeature } from './shared/exactPlaces'
import { derivativeTree, tellTree, toldReadout } from './shared/toldNumbers'
import {
  curvesMeant,
  curveSlot,
  likelyPlace,
  placeSaid,
  placeSlot,
  placeText,
  wordsAfter,
} from './shared/slots'
import { spanFacts, longOver } from './shared/spanFacts'

/** Let L(t) be the distance from q at t = a to (3, 1). */
export const distanceLineSchema = z.strictObject({
  kind: z.literal('distance'),
  ...commonMembers,
  /** The length as a curve of its own. */
  name: nameSchema,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  place: placeTextSchema,
  x: placeTextSchema,
  y: placeTextSchema,
  /** How many digits the least length is told with. */
  digits: z.int().min(0).max(12).optional(),
})
export type DistanceLine = z.infer<typeof distanceLineSchema>

/** As many digits as are ever shown, where they are certain. */
const allDigits = 12

export const distanceKind: StatementKind<DistanceLine> = {
  kind: 'distance',
  schema: distanceLineSchema,
  topic: 'extremes',
  said: ['distance', 'distance from', 'distance of'],
  uses: { name: 'name', curves: ['curve'], places: ['place'], numbers: ['x', 'y'] },
  actions: ({ digits }) => [
    {
      id: 'digits',
      label: 'More digits',
      does: 'change',
      change: { digits: digits === undefined ? allDigits : undefined },
      pressed: digits !== undefined,
    },
  ],
  curve: { make: distanceCurve, span: (line, spanOf) => spanOf(line.curve) },
  drawn: { pointWidth: 16, stands: ({ name }) => ({ curve: name, order: 0 }) },

  sentence(line, context) {
    const { letter } = context.variable
    const [x, y] = [placeText(line.x, context), placeText(line.y, context)]
    return [
      { text: 'Distance ' },
      {
        slot: 'curve',
        field: 'name',
        text: `${line.name}(${letter})`,
        source: line.name,
        latex: `${derivativeToLatex(line.name, 0, letter, 'primes')}(${letter})`,
      },
      { text: ' from ' },
      curveSlot(line, context),
      { text: ' at ' },
      placeSlot(line.place, context),
      { text: ' to (' },
      { slot: 'number', field: 'x', ...x },
      { text: ', ' },
      { slot: 'number', field: 'y', ...y },
      { text: ')' },
    ]
  },

  long: longOver((line, context) => {
    const own = context.curve(line.name)
    return own.ok ? [{ curve: own.curve, order: 0, from: own.curve.from, to: own.curve.to }] : []
  }),

  evaluate(line, context) {
    const own = context.curve(line.name)
    if (!own.ok) return failed(own.problem)
    const at = lookAt({ curve: line.curve, place: line.place }, line.order, context)
    if (!at.ok) return failed(at.problem)
    const [px, py] = [context.number(line.x), context.number(line.y)]
    if (!px.ok) return failed(px.problem)
    if (!py.ok) return failed(py.problem)
    const { variable, decimals } = context
    const { x, derivatives } = at.at
    const y = derivatives[line.order]!
    const length = Math.hypot(x - px.value, y - py.value)
    const { curve } = own
    const facts = spanFacts(curve, 0, curve.from, curve.to, context)
    const found = facts.examination
    const lane = { curve: line.curve, order: line.order }
    const isTyped = [at.at, px, py].every((one) => one.exact !== null)
    const told = tellTree(derivativeTree(curve, 0, at.at, length), length, context, isTyped)
    const lengthText = told.text
    const marks: Mark[] = [
      {
        kind: 'joint',
        id: 'distance',
        layer: 'marks',
        lane,
        x,
        y,
        toX: px.value,
        toY: py.value,
        label: lengthText,
      },
      { kind: 'dot', id: 'point', layer: 'points', lane, x, y, place: line.place },
      {
        kind: 'dot',
        id: 'length',
        layer: 'points',
        lane: { curve: line.name, order: 0 },
        x,
        y: length,
        place: line.place,
        label: lengthText,
      },
    ]
    const readout = toldReadout('length', told, curve.unit)
    if (!found) return { ...emptyResult, readouts: [readout], marks, pending: true }
    const least = found.lowest
    const digits = Math.max(decimals, line.digits ?? decimals)
    const lowest = least && shownFeature(curve.f, least.at[0]!, digits)
    return {
      ...emptyResult,
      readouts: [
        readout,
        ...(least && lowest
          ? [
              {
                id: 'lowest',
                label: 'lowest',
                text: `${withUnit(lowest.value, curve.unit)} at ${placeIs(variable.letter, lowest.x)}`,
                value: least.value,
              },
            ]
          : []),
      ],
      marks: [
        ...marks,
        ...(least
          ? [
              {
                kind: 'stem' as const,
                id: 'shortest',
                layer: 'marks' as const,
                lane: { curve: line.name, order: 0 },
                x: least.x,
                y: least.value,
                label: 'shortest',
              },
            ]
          : []),
      ],
      verdict: {
        complete: found.complete && least !== null,
        text:
          found.complete && least
            ? `No shorter distance on ${sayStretch([curve.from, curve.to], 6)}: proven by ${found.candidates.length} candidates`
            : 'The least distance could not be settled',
        unresolved: found.unresolved,
      },
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'distance from', 'distance of', 'distance')
    if (rest === null || request.text === '') return []
    const point = /to\s*\(?\s*([^,()]+)\s*,\s*([^()]+?)\s*\)?\s*$/.exec(rest)
    const taken = new Set(request.curves.map((c) => c.name))
    const name = ['L', 'D', 'd', 'l'].find((n) => !taken.has(n)) ?? 'L'
    const before = point ? rest.slice(0, point.index).trim() : rest
    const [, words = '', said] = /^(.*?)(?:\s+at\s+(\S.*))?$/.exec(before) ?? []
    const { place, sliders } = said === undefined ? likelyPlace(request) : placeSaid(said, request)
    return curvesMeant(words, request)
      .refs.filter((ref) => ref.order <= 2)
      .map(({ curve, order }) => ({
        line: {
          kind: 'distance' as const,
          id: '',
          name,
          curve,
          order,
          place,
          x: point?.[1]?.trim() ?? '0',
          y: point?.[2]?.trim() ?? '0',
        },
        newSliders: sliders,
      }))
  },
}

/** The length as a curve with a formula: √((t − x)² + (q(t) − y)²). */
export function distanceCurve(line: DistanceLine, context: LineContext): CurveLookup {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const [px, py] = [context.number(line.x), context.number(line.y)]
  if (!px.ok) return px
  if (!py.ok) return py
  const { curve } = found
  if (!curve.formula) {
    return { ok: false, problem: { message: `${curve.name} has no formula to measure from` } }
  }
  const { letter } = context.variable
  const under = curve.derivative(line.order).f
  const minus = (tree: Tree, value: number) =>
    sum(tree, negate(exactly(decimalOfNumber(value), true)))
  const square = (tree: Tree) => power(tree, whole(2))
  const tree = call(
    'sqrt',
    simplify(
      sum(
        square(minus(nameTree(letter), px.value)),
        square(minus(withValues(under.tree, under.parameters), py.value)),
      ),
    ),
  )
  return { ok: true, curve: curveOfTree(line.name, tree, letter, curve) }
}
