import { z } from 'zod'
import { derivativeToLatex, nameToLatex } from '../language/latex'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import {
  type CurveLookup,
  emptyResult,
  failed,
  type LineContext,
  type StatementKind,
} from './contract'
import { accumulated, jumpNotes } from './shared/accumulated'
import {
  curveSlot,
  curveText,
  endsOpen,
  parseCurveRef,
  placeText,
  wordsAfter,
  takenNames,
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
      notes: jumpNotes(curveText(line), line.name, examination, found.curve, context),
    }
  },

  offers(request) {
    const { text, curves, variable } = request
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
    const asked = /\bas\s+(\p{L})$/u.exec(rest)?.[1]
    const taken = takenNames(request)
    const names = [...(asked ? [asked] : []), 'A', 'B', 'G', 'S', 'V']
    const name = names.find((n) => !taken.has(n)) ?? 'A'
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
  if (!curve.formula) {
    return {
      ok: false,
      problem: {
        message: `${curve.name} is given by readings`,
        fix: 'say “area” for the strips between readings',
      },
    }
  }
  return { ok: true, curve: accumulated(curve, line.order, line.name, { lower, start }, context) }
}
