import { z } from 'zod'
import type { Steps } from '../../features/budget'
import * as I from '../../arithmetic/intervals'
import { type Candidate, type SurfaceExtremes, surfaceExtremes } from '../../surfaces/extremes'
import {
  type StationaryPoint,
  type StationaryPoints,
  stationaryPoints,
} from '../../surfaces/stationary'
import { commonMembers, nameSchema } from '../../vocabulary/members'
import { formatNumber, sayNumber, showNumber } from '../../vocabulary/numbers'
import {
  emptyResult,
  failed,
  lazyTable,
  type LineContext,
  type LineResult,
  type ResultTable,
  type SpaceMark,
  type StatementKind,
  type SurfaceResult,
  type Verdict,
} from '../contract'
import { surfaceMeant } from './said'
import { listed } from '../shared/said'
import { ofSurface } from './shared'
import { placeSaidAs } from './words'

/** Critical points of f, with the highest and lowest of its rectangle. */
export const criticalLineSchema = z.strictObject({
  kind: z.literal('critical'),
  ...commonMembers,
  of: nameSchema,
})
export type CriticalLine = z.infer<typeof criticalLineSchema>

interface Found {
  points: StationaryPoints
  extremes: SurfaceExtremes
}

/** The outcome of the long work, kept with the surface that it is about. */
interface Known {
  found: Found | null
  work: Steps<Found>
}

const knownOf = (surface: SurfaceResult, context: LineContext): Known =>
  context.memo(surface, 'critical', () => ({ found: null, work: searched(surface) }))

/** Work that was stopped before goes on where it was, and is done once. */
function* answered(known: Known): Steps<Found> {
  while (!known.found) {
    const step = known.work.next()
    if (step.done) known.found = step.value
    else yield step.value
  }
  return known.found
}

function* searched({ f, within, ends }: SurfaceResult): Steps<Found> {
  const points = yield* stationaryPoints(f, within)
  const extremes = yield* surfaceExtremes(f, within, ends, points)
  return { points, extremes }
}

export const criticalKind: StatementKind<CriticalLine> = {
  kind: 'critical',
  schema: criticalLineSchema,
  topic: 'surfaces',
  said: ['critical points of the surface'],
  claims: /^critical\s+points\s+of\s+the\s+surface\b/i,
  uses: { surfaces: ['of'] },
  drawn: { pointWidth: 10 },

  sentence: (line) => [
    { text: 'Critical points' },
    ...(line.of === 'z' ? [{ text: ' of the surface' }] : ofSurface(line.of, 'of')),
  ],

  long: {
    steps(line, context) {
      const found = context.surface(line.of)
      return found.ok ? answered(knownOf(found.surface, context)) : null
    },
    apply(line, outcome, context) {
      const found = context.surface(line.of)
      if (found.ok) knownOf(found.surface, context).found = outcome as Found
    },
  },

  evaluate(line, context) {
    const made = context.surface(line.of)
    if (!made.ok) return failed(made.problem)
    const known = knownOf(made.surface, context)
    context.steps(answered(known))
    if (!known.found) return { ...emptyResult, pending: true }
    return told(made.surface, known.found, context)
  },

  offers(request) {
    const words = /^critical\s+points\s+of\s+the\s+surface\b(.*)$/i.exec(request.text)
    const surface = words && surfaceMeant(`surface${words[1]!}`, request)
    return surface ? [{ line: { kind: 'critical', id: '', of: surface.name } }] : []
  },
}

function told(
  surface: SurfaceResult,
  { points, extremes }: Found,
  context: LineContext,
): LineResult {
  const { decimals } = context
  const marks = points.points.map((p): SpaceMark => {
    const z = surface.f.value(p.x, p.y)
    const label = p.kind === 'open' ? 'critical' : kindWords[p.kind]
    return {
      ...{ kind: 'spot', id: `critical@${p.x.toPrecision(6)} ${p.y.toPrecision(6)}`, held: false },
      ...{ at: [p.x, p.y, z], label },
    }
  })
  return {
    ...emptyResult,
    tables: points.points.length > 0 ? [tableOf(surface, points.points, decimals)] : [],
    conclusions: extremes.complete
      ? [
          { text: extremeSaid('Highest', extremes.highest, surface, decimals) },
          { text: extremeSaid('Lowest', extremes.lowest, surface, decimals) },
        ]
      : [],
    notes: [...testSaid(surface, points), ...notesOf(surface, points, extremes)],
    verdict: verdictOf(surface, points, decimals),
    space: marks,
  }
}

function tableOf(
  { f, name, letters }: SurfaceResult,
  points: readonly StationaryPoint[],
  decimals: number,
): ResultTable {
  const columns = [...letters, name, 'kind', 'because']
  return lazyTable({ name: 'Features', columns, count: points.length, open: true }, () =>
    points.map((p) => {
      const z = f.value(p.x, p.y)
      const cells = [p.x, p.y, z].map((v) => formatNumber(v, decimals))
      return {
        cells: [
          ...cells,
          kindWords[p.kind],
          because(p, `${name}_${letters[0].repeat(2)}`, decimals),
        ],
        values: [p.x, p.y, z, null, null],
      }
    }),
  )
}

/** The second derivative test, with D for its determinant. */
function because(
  { kind, determinant, bend }: StationaryPoint,
  bendName: string,
  decimals: number,
): string {
  const value = (side: I.Interval) => showNumber(I.middle(side), decimals)
  if (kind === 'saddle') return `D = ${value(determinant)} < 0`
  if (kind !== 'open') {
    const sign = kind === 'minimum' ? '> 0' : '< 0'
    return `D = ${value(determinant)} > 0, ${bendName} = ${value(bend)} ${sign}`
  }
  const isZero = determinant.lo === 0 && determinant.hi === 0
  return isZero ? 'D = 0: the test says nothing' : 'the sign of D is not settled'
}

/** What the kinds are called, as for curves. */
const kindWords = {
  maximum: 'high',
  minimum: 'low',
  saddle: 'saddle',
  open: 'not settled',
} as const

function extremeSaid(
  which: 'Highest' | 'Lowest',
  places: SurfaceExtremes['highest'],
  { name }: SurfaceResult,
  decimals: number,
): string {
  const [first] = places
  const at = (where: Candidate['where']) =>
    places.flatMap((one) => (one.where === where ? [placeSaidAs([one.x, one.y], decimals)] : []))
  const [inside, edges, corners] = [at('inside'), at('edge'), at('corner')]
  const list = listed([
    ...inside,
    ...edges.map((place) => `${place} on an edge`),
    ...corners.map((place, i) =>
      i > 0 ? place : `the corner${corners.length > 1 ? 's' : ''} ${place}`,
    ),
  ])
  const value = sayNumber(first!.z, decimals)
  const is = value.startsWith('≈') ? value : `= ${value}`
  return `${which} on the closed rectangle: ${name} ${is} at ${list}`
}

/** What D is. */
function testSaid(
  { name, letters: [x, y] }: SurfaceResult,
  { points }: StationaryPoints,
): string[] {
  if (points.length === 0) return []
  const by = (letters: string) => `${name}_${letters}`
  return [`D is ${by(x + x)}·${by(y + y)} − ${by(x + y)}², of the second derivative test.`]
}

function notesOf(
  { name }: SurfaceResult,
  points: StationaryPoints,
  extremes: SurfaceExtremes,
): string[] {
  const rough = points.rough
    ? [
        `${name} may have folds, jumps or edges on the rectangle: points at which it has no partial derivatives are not listed.`,
      ]
    : []
  const open = extremes.complete
    ? []
    : ['Which of its values is the highest and which the lowest is not told: not all is settled.']
  return [...rough, ...open]
}

function verdictOf(
  { letters }: SurfaceResult,
  { points, unresolved, complete, shared }: StationaryPoints,
  decimals: number,
): Verdict {
  const [x, y] = letters
  const all = points.length
  if (complete) {
    const many = all === 0 ? 'none' : all === 1 ? 'one point' : `${all} points`
    return {
      complete,
      text: `Complete: ${many} at which both partial derivatives are 0, by ${points.some(({ at: { x: side } }) => side.lo === side.hi) ? 'interval Newton and exact arithmetic' : 'interval Newton'}`,
      unresolved: [],
    }
  }
  const [box] = unresolved
  const open = points.find(({ proven }) => !proven)
  const span = (side: I.Interval) => {
    const m = I.middle(side)
    return I.width(side) < 1e-3 ? sayNumber(m, decimals) : null
  }
  const [near, beside] = box ? [span(box.x), span(box.y)] : [null, null]
  const where =
    unresolved.length === 1 && near !== null && beside !== null
      ? `close to ${placeSaidAs(open ? [open.x, open.y] : [I.middle(box!.x), I.middle(box!.y)], decimals)} there may be more`
      : shared
        ? `the two partial derivatives share a factor: critical points may fill a line in ${x} and ${y}`
        : 'some places could not be settled'
  return { complete, text: `Not complete: ${where}`, unresolved: [] }
}
