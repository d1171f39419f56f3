import { z } from 'zod'
import { commonMembers, markerShapes, nameSchema, placeTextSchema } from '../vocabulary/members'
import { derivativeTree, tellTree, toldReadout } from './shared/toldNumbers'
import type { Told } from '../vocabulary/told'
import { pictograms } from '../vocabulary/pictograms'
import { unitOfDerivative } from '../vocabulary/units'
import {
  failed,
  type LineContext,
  type LineProblem,
  type LineResult,
  type Mark,
  type Phrase,
  type Proposal,
  type Request,
  type SentenceContext,
  type StatementKind,
} from './contract'
import { lookAt, offersAt } from './shared/atPlace'
import { curveSlot, escapeText, placeSlot, placeText, wordsAfter } from './shared/slots'
import { fillWords } from './words'

/** Marker raft on q at t = a, or at the point (u, v). */
export const markerLineSchema = z.strictObject({
  kind: z.literal('marker'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(3),
  place: placeTextSchema,
  /** The height of a point that rides no curve; null on the curve. */
  y: placeTextSchema.nullable(),
  /** A pictogram by its name, or a shape. */
  shape: z.string().min(1).max(40),
  caption: z.string().max(400),
  /** Turned along the tangent, and turned round when it moves back. */
  turned: z.boolean(),
  mirrored: z.boolean(),
  /** A dragged point stops at multiples of this; null where it stops anywhere. */
  grid: z.number().positive().nullable(),
})
export type MarkerLine = z.infer<typeof markerLineSchema>

const shapes: readonly string[] = markerShapes.filter((shape) => shape !== 'none')
const isPictogram = (shape: string) => (pictograms as readonly string[]).includes(shape)
const [shapeSize, pictogramSize] = [16, 40]

/** What is said for a pictogram besides its own name. */
const alike: Readonly<Record<string, string>> = {
  ...{ boat: 'raft', sailboat: 'raft', bicycle: 'bike', cyclist: 'bike', walker: 'person' },
  ...{ man: 'person', woman: 'person', runner: 'person', drop: 'droplet', aeroplane: 'plane' },
  ...{ lorry: 'truck', body: 'disc', ball: 'disc', dot: 'disc', point: 'disc', circle: 'ring' },
}

const wordSlot = (caption: string): Phrase => ({
  slot: 'words',
  field: 'caption',
  text: caption === '' ? 'caption' : `“${caption}”`,
  source: caption,
  latex: `\\text{${escapeText(caption === '' ? 'caption' : `“${caption}”`)}}`,
})

const coordinate = (field: 'place' | 'y', text: string, context: SentenceContext): Phrase => ({
  slot: field === 'place' ? 'place' : 'number',
  field,
  ...placeText(text, context),
})

export const markerKind: StatementKind<MarkerLine> = {
  kind: 'marker',
  schema: markerLineSchema,
  topic: null,
  said: ['marker', 'body', 'point', 'loose point', 'free point'],
  ownWords: true,
  uses: {
    curves: ['curve'],
    places: ['place'],
    numbers: ['y'],
    words: ['caption'],
    point: { place: 'place', height: 'y', grid: 'grid' },
  },
  drawn: { pointWidth: shapeSize, ownShape: true },

  actions: (line) => [
    ...(line.y === null
      ? ([
          {
            id: 'turned',
            label: 'Turned along the curve',
            does: 'change',
            change: { turned: !line.turned },
            pressed: line.turned,
          },
        ] as const)
      : []),
    {
      id: 'mirrored',
      label: 'Looks where it goes',
      does: 'change',
      change: { mirrored: !line.mirrored },
      pressed: line.mirrored,
    },
    ...(line.y === null
      ? []
      : ([
          {
            id: 'grid',
            label: 'On a grid',
            does: 'change',
            change: { grid: line.grid === null ? 1 : null },
            pressed: line.grid !== null,
          },
        ] as const)),
  ],

  sentence: (line, context) => [
    { text: 'Marker ' },
    {
      slot: 'choice',
      field: 'shape',
      text: line.shape,
      source: line.shape,
      latex: `\\text{${escapeText(line.shape)}}`,
      choices: [...new Set([line.shape, ...pictograms, ...shapes])].map((value) => ({
        value,
        text: value,
      })),
    },
    ...(line.y === null
      ? [
          { text: ' on ' },
          curveSlot(line, context),
          { text: ' at ' },
          placeSlot(line.place, context),
        ]
      : [
          { text: ' at (' },
          coordinate('place', line.place, context),
          { text: ', ' },
          coordinate('y', line.y, context),
          { text: ')' },
        ]),
    { text: ', ' },
    wordSlot(line.caption),
  ],

  evaluate(line, context) {
    const found = line.y === null ? onCurve(line, context) : loose(line, line.y, context)
    if (!found.ok) return failed(found.problem)
    const { x, y, slope } = found
    const unit = unitOfDerivative(found.unit, context.variable.unit, line.order)
    const words = fillWords(line.caption, context)
    const missing = !isPictogram(line.shape) && !shapes.includes(line.shape)
    const mark: Mark = {
      kind: 'body',
      id: 'body',
      layer: 'points',
      lane: { curve: line.curve, order: line.order },
      ...{ x, y, place: line.place, free: line.y !== null },
      shape: missing ? 'diamond' : line.shape,
      size: line.look?.markerWidth ?? (isPictogram(line.shape) ? pictogramSize : shapeSize),
      slope: line.turned ? slope : null,
      mirrored: line.mirrored,
      spoken: words.spoken,
      ...(words.spoken === '' ? {} : { label: words.spoken }),
    }
    const result: LineResult = {
      readouts: [toldReadout('height', found.told, unit)],
      marks: [mark],
      problems: words.problems.map(({ message, piece }) => ({
        message: `in the caption, “${piece}”: ${message}`,
      })),
      hints: [],
      ...(missing
        ? { notes: [`There is no pictogram “${line.shape}”: a diamond stands for it.`] }
        : {}),
    }
    return result
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'marker on', 'marker', 'body')
    if (rest === null) return pointOffers(request)
    const [, first = '', behind = ''] = /^(?:an?\s+)?(\p{L}*)(?:\s+on)?\s*(.*)$/u.exec(rest) ?? []
    const known = alike[first.toLowerCase()] ?? first.toLowerCase()
    const isShape = isPictogram(known) || shapes.includes(known)
    const shape = isShape ? known : 'disc'
    return offersAt(isShape ? behind : rest, request, ({ curve, order }, place) =>
      order > 3 ? null : newMarker(curve, order, place, shape),
    )
  },
}

const newMarker = (curve: string, order: number, place: string, shape: string): MarkerLine => ({
  ...{ kind: 'marker', id: '', curve, order, place, y: null, shape, caption: '' },
  ...{ grid: null, turned: isPictogram(shape), mirrored: isPictogram(shape) },
})

/** "point (2, 3)": a point that can be dragged in the plane; its coordinates are two sliders. */
function pointOffers(request: Request): Proposal<MarkerLine>[] {
  const rest = wordsAfter(request.text, 'loose point', 'free point', 'point')
  const [lane] = request.curves
  if (rest === null || !lane) return []
  const found = /^(?:at\s+)?\(?\s*(-?[\d.]+)\s*[,;]\s*(-?[\d.]+)\s*\)?$/.exec(
    rest.replace(/−/g, '-'),
  )
  if (rest !== '' && !found) return []
  const [x, y] = found ? [Number(found[1]), Number(found[2])] : [Number(lane.from) || 0, 0]
  const around = (at: number) => ({ from: Math.floor(at - 10), to: Math.ceil(at + 10), step: 0.1 })
  return [
    {
      line: { ...newMarker(lane.name, 0, 'u', 'disc'), y: 'v' },
      newSliders: [
        { name: 'u', place: true, value: x, ...around(x) },
        { name: 'v', place: false, value: y, ...around(y) },
      ],
    },
  ]
}

type Where =
  | { ok: true; x: number; y: number; slope: number; unit: string; told: Told }
  | { ok: false; problem: LineProblem }

function onCurve(line: MarkerLine, context: LineContext): Where {
  const found = lookAt(line, line.order + 1, context)
  if (!found.ok) return found
  const { x, curve, derivatives } = found.at
  const [y, slope] = [derivatives[line.order]!, derivatives[line.order + 1]!]
  if (Number.isFinite(y)) {
    const tree = derivativeTree(curve, line.order, found.at, y)
    const told = tellTree(tree, y, context, found.at.exact !== null)
    return { ok: true, x, y, slope, unit: curve.unit, told }
  }
  return {
    ok: false,
    problem: {
      message: `${curve.name}${'′'.repeat(line.order)} has no value there`,
      fix: 'move the place',
    },
  }
}

function loose(line: MarkerLine, height: string, context: LineContext): Where {
  const lane = context.curve(line.curve)
  if (!lane.ok) return lane
  const [x, y] = [context.number(line.place), context.number(height)]
  if (!x.ok) return x
  if (!y.ok) return y
  const told = tellTree(y.tree, y.value, context, y.exact !== null)
  return { ok: true, x: x.value, y: y.value, slope: 0, unit: lane.curve.unit, told }
}
