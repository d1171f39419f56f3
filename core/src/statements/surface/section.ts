import { z } from 'zod'
import { derivativeToLatex, nameToLatex } from '../../language/latex'
import { withValues } from '../../evaluate/withValues'
import { commonMembers, nameSchema, placeTextSchema, spanSchema } from '../../vocabulary/members'
import {
  type CurveContext,
  type CurveLookup,
  emptyResult,
  failed,
  type Mark,
  type Point3,
  type StatementKind,
  type SurfaceResult,
} from '../contract'
import { curveOfTree } from '../shared/curveOfTree'
import { placeText, takenNames } from '../shared/slots'
import { tellTree, toldReadout, valueTree } from '../shared/toldNumbers'
import { pointFor, surfaceMeant } from './said'
import { ofSurface, partialName } from './shared'

/** Section s(x) with y = b, slope at x = a. */
export const sectionLineSchema = z.strictObject({
  kind: z.literal('section'),
  ...commonMembers,
  /** The section as a curve of its own. */
  name: nameSchema,
  of: nameSchema,
  /** Which variable is held. */
  held: z.enum(['first', 'second']),
  /** At which value. */
  at: placeTextSchema,
  /** Where along it the slope is shown. */
  place: placeTextSchema,
  span: spanSchema,
})
export type SectionLine = z.infer<typeof sectionLineSchema>

/** So many places draw it in the view of the surfaces. */
const looks = 160

export const sectionKind: StatementKind<SectionLine> = {
  kind: 'section',
  schema: sectionLineSchema,
  topic: 'surfaces',
  said: ['section'],
  claims: /^(?:the\s+)?(?:cross[-\s]?)?section\b/i,
  uses: { name: 'name', surfaces: ['of'], numbers: ['at'], places: ['place'], domain: 'span' },
  curve: { make: sectionCurve, span: ({ span }) => span },
  drawn: { pointWidth: 16, stands: ({ name }) => ({ curve: name, order: 0 }) },

  sentence(line, context) {
    const letters = context.surfaceLetters(line.of) ?? ['x', 'y']
    const [along, fixed] = line.held === 'second' ? letters : ([letters[1], letters[0]] as const)
    const [at, place] = [placeText(line.at, context), placeText(line.place, context)]
    return [
      { text: 'Section ' },
      {
        slot: 'curve',
        field: 'name',
        text: `${line.name}(${along})`,
        source: line.name,
        latex: `${derivativeToLatex(line.name, 0, along, 'primes')}(${nameToLatex(along)})`,
      },
      ...ofSurface(line.of, 'of'),
      { text: ' with ' },
      {
        slot: 'number',
        field: 'at',
        text: `${fixed} = ${at.text}`,
        source: line.at,
        latex: `${nameToLatex(fixed)} = ${at.latex}`,
      },
      { text: ', slope at ' },
      {
        slot: 'place',
        field: 'place',
        text: `${along} = ${place.text}`,
        source: line.place,
        latex: `${nameToLatex(along)} = ${place.latex}`,
      },
    ]
  },

  evaluate(line, context) {
    const made = context.surface(line.of)
    if (!made.ok) return failed(made.problem)
    const own = context.curve(line.name)
    if (!own.ok) return failed(own.problem)
    const [fixed, place] = [context.number(line.at), context.number(line.place)]
    if (!fixed.ok) return failed(fixed.problem)
    if (!place.ok) return failed(place.problem)
    const { surface } = made
    const { curve } = own
    const { letters } = surface
    const along = line.held === 'second' ? letters[0] : letters[1]
    const t = place.value
    const [y, slope] = [curve.f.value(t), curve.derivative(1).f.value(t)]
    const space = [
      { kind: 'path' as const, id: 'section', points: pathOf(line, surface, fixed.value) },
    ]
    if (!Number.isFinite(y)) {
      const message = `the section has no value at ${along} = ${line.place}`
      return { ...failed({ message, fix: 'move the place' }), space }
    }
    const isTyped = fixed.exact !== null && place.exact !== null
    const isRough = fixed.rough || place.rough
    const tell = (order: number, known: number) => {
      const tree = isRough ? null : valueTree(curve.derivative(order).f, place.tree)
      return tellTree(tree, known, context, isTyped)
    }
    const height = tell(0, y)
    const lane = { curve: line.name, order: 0 }
    const dot: Mark = {
      ...{ kind: 'dot', id: 'point', layer: 'points', lane, x: t, y, place: line.place },
    }
    if (!Number.isFinite(slope)) {
      return {
        ...emptyResult,
        readouts: [toldReadout('height', height, '')],
        marks: [dot],
        notes: [`The section has no slope at ${along} = ${line.place}.`],
        space,
      }
    }
    const steep = tell(1, slope)
    const isExact = steep.fraction !== undefined
    return {
      ...emptyResult,
      readouts: [toldReadout('slope', steep, ''), toldReadout('height', height, '')],
      notes: [
        `The slope of this section is the partial derivative ${partialName(surface.name, along)} at this point.`,
      ],
      marks: [
        { kind: 'line', id: 'tangent', layer: 'marks', lane, x: t, y, slope, extent: 'short' },
        {
          ...{ kind: 'riseOverRun', id: 'slope', layer: 'marks', lane, x: t, y, slope },
          ...{ decimals: context.decimals, rise: steep.text, exact: isExact },
        },
        dot,
      ],
      space,
    }
  },

  offers(request) {
    const said = /^(?:the\s+)?(?:cross[-\s]?)?section\b(.*)$/i.exec(request.text)
    const surface = said && surfaceMeant(said[1]!, request)
    if (!surface) return []
    const [first, second] = surface.letters
    const named = new RegExp(`\\b(${first}|${second})\\s*=\\s*(\\S.*?)(?:\\s*,.*)?$`, 'u').exec(
      said[1]!,
    )
    const lone = new RegExp(
      `\\b(?:with|at|for|in|along)\\s+(${first}|${second})\\s*(?:held|fixed|constant)?$`,
      'u',
    ).exec(said[1]!)
    const isAlong = lone && /\balong\b/.test(lone[0])
    const heldLetter =
      named?.[1] ?? (lone ? (isAlong ? other(lone[1]!, first, second) : lone[1]) : undefined)
    const both: ('first' | 'second')[] =
      heldLetter === undefined ? ['second', 'first'] : [heldLetter === first ? 'first' : 'second']
    return both.map((held) => {
      const point = pointFor(null, surface, request)
      const [at, place] = held === 'second' ? [point.y, point.x] : [point.x, point.y]
      const value = named?.[2]?.trim()
      const taken = takenNames(request)
      const names = held === 'second' ? ['s', 'u', 'c'] : ['r', 'v', 'd']
      const name = [...names, 'S', 'R'].find((n) => !taken.has(n)) ?? 'S'
      const line: SectionLine = {
        ...{ kind: 'section', id: '', name, of: surface.name, held, at: value ?? at, place },
        span: surface.sides[held === 'second' ? 0 : 1],
      }
      const newSliders = point.newSliders.filter((s) => s.name === line.at || s.name === line.place)
      return { line, newSliders }
    })
  },
}

const other = (letter: string, first: string, second: string) => (letter === first ? second : first)

/** The section on the surface. */
function pathOf({ held }: SectionLine, { f, within }: SurfaceResult, at: number): Point3[] {
  const side = held === 'second' ? within.x : within.y
  return Array.from({ length: looks + 1 }, (_, i) => {
    const t = side.lo + ((side.hi - side.lo) * i) / looks
    const [x, y] = held === 'second' ? [t, at] : [at, t]
    return [x, y, f.value(x, y)]
  })
}

/** The surface with one variable held, as a curve of the other one. */
function sectionCurve(line: SectionLine, context: CurveContext): CurveLookup {
  const found = context.surface(line.of)
  if (!found.ok) return found
  const { surface } = found
  const { number } = context
  const [at, from, to] = [number(line.at), number(line.span.from), number(line.span.to)]
  if (!at.ok) return at
  if (!from.ok) return from
  if (!to.ok) return to
  if (from.value >= to.value) {
    const message = 'the span of the section does not end above its beginning'
    return { ok: false, problem: { message, fix: 'swap its ends' } }
  }
  const { letter } = context.variable
  const f = surface.f.section(line.held === 'first' ? 0 : 1, at.tree, letter)
  const along = surface.letters[line.held === 'first' ? 1 : 0]
  return {
    ok: true,
    curve: {
      ...curveOfTree(line.name, withValues(f.tree, f.parameters), letter, {
        ...{ unit: '', window: null, stale: surface.stale },
        ...{ from: from.value, to: to.value },
        reach: { from: from.value, to: to.value },
      }),
      ...(along === letter ? {} : { along }),
    },
  }
}
