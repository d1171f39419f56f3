import { z } from 'zod'
import { accumulate, type Accumulation } from '../calculus/accumulate'
import { areaTree } from '../calculus/areaTree'
import { compileTree, type RealFunction } from '../evaluate/compile'
import type { Examination } from '../features/examination'
import { derivativeToLatex, nameToLatex } from '../language/latex'
import { formatShort } from '../vocabulary/numbers'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { listed, unitOfArea } from '../vocabulary/units'
import {
  type CurveLookup,
  emptyResult,
  failed,
  type LineContext,
  type StatementKind,
} from './contract'
import {
  curveSlot,
  curveText,
  endsOpen,
  parseCurveRef,
  placeText,
  wordsAfter,
} from './shared/slots'
import { spanFacts, longOver } from './shared/spanFacts'

/** Let A(t) be the area under q from 0 to t. */
export const accumulateLineSchema = z.strictObject({
  kind: z.literal('accumulate'),
  ...commonMembers,
  name: nameSchema,
  curve: nameSchema,
  order: z.int().min(0).max(3),
  lower: placeTextSchema,
  /** What it begins with at the lower end, where that is not 0. */
  start: placeTextSchema.optional(),
})
export type AccumulateLine = z.infer<typeof accumulateLineSchema>

export const accumulateKind: StatementKind<AccumulateLine> = {
  kind: 'accumulate',
  schema: accumulateLineSchema,
  topic: 'areas',
  said: ['accumulate', 'accumulated area under'],
  uses: { name: 'name', curves: ['curve'], places: ['lower'], numbers: ['start'] },
  curve: { make: areaCurve, span: (line, spanOf) => spanOf(line.curve), lowestOrder: 0 },
  drawn: { stands: ({ name }) => ({ curve: name, order: 0 }) },

  sentence(line, context) {
    const { letter } = context.variable
    return [
      { text: 'Let ' },
      {
        slot: 'curve',
        field: 'name',
        text: `${line.name}(${letter})`,
        source: line.name,
        latex: `${derivativeToLatex(line.name, 0, letter, 'primes')}(${letter})`,
      },
      { text: ' be the area under ' },
      curveSlot(line, context),
      { text: ' from ' },
      {
        slot: 'place',
        field: 'lower',
        ...placeText(line.lower, context),
      },
      { text: ' to ' },
      { text: letter, latex: nameToLatex(letter) },
      ...(line.start === undefined
        ? []
        : [
            { text: ', plus ' },
            { slot: 'number' as const, field: 'start', ...placeText(line.start, context) },
          ]),
    ]
  },

  long: longOver((line, context) => {
    const [found, own] = [context.curve(line.name), context.curve(line.curve)]
    if (!found.ok || !own.ok || !own.curve.formula) return []
    const { from, to } = found.curve
    return [{ curve: own.curve, order: line.order, from, to }]
  }),

  evaluate(line, context) {
    const found = context.curve(line.name)
    if (!found.ok) return failed(found.problem)
    const own = context.curve(line.curve)
    const { problems, from, to } = found.curve
    if (!own.ok || !own.curve.formula) return { ...emptyResult, problems }
    const { examination } = spanFacts(own.curve, line.order, from, to, context)
    if (!examination) return { ...emptyResult, problems, pending: true }
    return {
      ...emptyResult,
      problems,
      notes: jumpNotes(line, examination, found.curve, context),
    }
  },

  offers({ text, curves, variable }) {
    const open = text.startsWith('area') && endsOpen(text, variable.letter)
    const rest = wordsAfter(
      open ? text.replace(/^area\s+(?:under\s+)?/, 'accumulate ') : text,
      'accumulate',
      'accumulated area under',
    )
    if (rest === null) return []
    const ref = parseCurveRef(rest.replace(/^(?:of|under)\s+/, '').split(' ')[0] ?? '')
    const lower = /from\s+(\S+)/.exec(rest)?.[1]
    const start = /plus\s+(\S+)/.exec(rest)?.[1]
    const taken = new Set(curves.map((c) => c.name))
    const name = ['A', 'B', 'G', 'S', 'V'].find((n) => !taken.has(n)) ?? 'A'
    return curves
      .filter((c) => !ref || ref.curve === c.name)
      .map((c) => ({
        line: {
          kind: 'accumulate' as const,
          id: '',
          name,
          curve: c.name,
          order: ref?.order ?? 0,
          lower: lower ?? c.from,
          ...(start === undefined ? {} : { start }),
        },
      }))
  },
}

/** The accumulated area as a curve of its own. */
export function areaCurve(line: AccumulateLine, context: LineContext): CurveLookup {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const lower = context.number(line.lower)
  if (!lower.ok) return lower
  const start = context.number(line.start ?? '0')
  if (!start.ok) return start
  const { curve } = found
  const { letter, unit } = context.variable
  const { from, to } = curve
  const { f } = curve.derivative(line.order)
  if (!curve.formula) {
    return {
      ok: false,
      problem: {
        message: `${curve.name} is given by readings`,
        fix: 'say “area” for the strips between readings',
      },
    }
  }
  const area = accumulate(f, lower.value, from, to)
  const show = (x: number) => formatShort(x, 6)
  const fix = 'begin on the other side of it, or choose another span'
  const told = (at: number | null, message: string) =>
    at === null ? [] : [{ message: `${message} ${letter} = ${show(at)}`, fix }]
  const problems = [
    ...told(area.divergesAt, `the area under ${curve.name} grows without bound at`),
    ...told(area.unsettledAt, `the area under ${curve.name} could not be settled at`),
  ]
  const tree = areaTree({ called: line.name, f, lower, start, from, to, area })
  const whole: RealFunction = {
    ...compileTree(tree, { variable: f.variable }),
    ...raised(area, start.value),
    withParameters: () => whole,
  }
  const derivative = (order: number) =>
    order === 0 ? { tree, f: whole } : curve.derivative(line.order + order - 1)
  return {
    ok: true,
    curve: {
      name: line.name,
      unit: unitOfArea(curve.unit, unit),
      tree,
      f: whole,
      from,
      to,
      stale: curve.stale,
      problems,
      hints: [],
      formula: true,
      accumulates: { curve: line.curve, order: line.order, lower: lower.value, f },
      derivative,
      drawn: (order) => derivative(Math.max(0, order)).f,
    },
  }
}

/** An accumulation that begins with a value of its own. */
function raised(area: Accumulation, by: number): Accumulation {
  if (by === 0) return area
  const first = (all: number[]) => [all[0]! + by, ...all.slice(1)]
  return {
    ...area,
    value: (x) => area.value(x) + by,
    values(xs, out) {
      const ys = area.values(xs, out)
      for (let i = 0; i < ys.length; i++) ys[i]! += by
      return ys
    },
    derivatives: (x, order) => first(area.derivatives(x, order)),
    beside: (x, side, order) => first(area.beside(x, side, order)),
    enclose(lo, hi) {
      const [least, most] = area.enclose(lo, hi)
      // One rounding of the sum to either side.
      const slack = 2 ** -52 * (Math.abs(by) + Math.max(Math.abs(least), Math.abs(most)))
      return [least + by - slack, most + by + slack]
    },
  }
}

/** Where q jumps, A has a kink. */
function jumpNotes(
  line: AccumulateLine,
  { breaks }: Examination,
  { from, to }: { from: number; to: number },
  { variable }: LineContext,
): string[] {
  const places = breaks
    .filter(({ kind, x }) => kind === 'jump' && x > from && x < to)
    .map(({ x }) => formatShort(x, 6))
  if (places.length === 0) return []
  const at = listed(places, mostPlaces)
  const kinks = places.length > 1 ? 'has kinks' : 'has a kink'
  return [
    `At ${variable.letter} = ${at}, ${curveText(line)} jumps, so ${line.name} ${kinks} there.`,
  ]
}

const mostPlaces = 4
