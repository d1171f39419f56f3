import { z } from 'zod'
import { formatCertain, formatShort } from '../vocabulary/numbers'
import { unitOfArea, unitOfDerivative } from '../vocabulary/units'
import { mayChangeSign, signStretches } from './shared/signStretches'
import {
  emptyResult,
  failed,
  type LineContext,
  type Readout,
  type SignFigure,
  type StatementKind,
} from './contract'
import { numberReadout } from './shared/lines'
import { lookOverFormula, offersOver, overSpanFields } from './shared/overSpan'
import { curveSlot, curveText, spanSlot, wordsAfter } from './shared/slots'
import {
  exactOver,
  type SpanFacts,
  spanSigns,
  totalOf,
  asksOver,
  longOver,
} from './shared/spanFacts'

/** Signs of q, q′ and q′′ on [0, 10]. */
export const signsLineSchema = z.strictObject({
  kind: z.literal('signs'),
  ...overSpanFields,
  order: z.int().min(0).max(1),
  /** Read as a position's velocity: where it speeds up and slows down. */
  speed: z.boolean(),
})
export type SignsLine = z.infer<typeof signsLineSchema>

const words = [
  ['above the axis', 'below the axis'],
  ['rises', 'falls'],
  ['concave up', 'concave down'],
] as const

const closest = (x: number) => 2e-9 * Math.max(1, Math.abs(x))

export const signsKind: StatementKind<SignsLine> = {
  kind: 'signs',
  schema: signsLineSchema,
  topic: 'reasoning',
  said: [
    'signs',
    'sign chart',
    'sign chart of',
    'signs of',
    'speed',
    'speeding up',
    'speeding up of',
    'speed of',
  ],
  uses: { curves: ['curve'], spans: ['span'] },

  sentence: (line, context) => [
    { text: line.speed ? 'Speeding up and slowing down of ' : 'Sign chart of ' },
    curveSlot(line, context),
    { text: ' on ' },
    spanSlot(line.span, context),
  ],

  long: longOver(asksOver([0, 1, 2]), 'signChanges'),

  evaluate(line, context) {
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const { decimals, variable } = context
    const certain = (enclosure: readonly [number, number]) =>
      formatCertain(enclosure, decimals).text
    const facts = [0, 1, 2].map((k) => spanSigns(curve, line.order + k, from, to, context))
    const found = facts.map((f) => f.signChanges)
    if (found.some((e) => e === null)) return { ...emptyResult, pending: true }
    const name = curveText(line)
    const rows: SignFigure['rows'] = found.map((changes, k) => {
      const { zeros, breaks } = changes!
      const cuts = breaks.filter(mayChangeSign)
      const stretch = (sign: 1 | -1) =>
        signStretches(facts[k]!, sign).map(([a, b]) => ({
          from: a,
          to: b,
          sign,
          words: words[k]![sign > 0 ? 0 : 1],
        }))
      return {
        name: name + '′'.repeat(k),
        stretches: [...stretch(1), ...stretch(-1)].sort((p, q) => p.from - q.from),
        marks: [
          ...zeros.map((z) => ({ x: z.x, text: certain(z.enclosure), zero: true })),
          ...cuts
            .filter((b) => !zeros.some((z) => Math.abs(z.x - b.x) <= closest(b.x)))
            .map((b) => ({ x: b.x, text: certain(b.enclosure), zero: false })),
        ],
      }
    })
    const complete = found.every((e) => e!.complete)
    const verdict = {
      complete,
      text: complete ? 'Every change of sign is here: proven' : 'Not every sign could be settled',
      unresolved: found.flatMap((e) => e!.unresolved),
    }
    if (!line.speed) return { ...emptyResult, signs: { from, to, rows }, verdict }
    // The speed |v| rises where v and v′ have one sign; either changes it at a zero or a break.
    const [v, a] = [facts[0]!.f, facts[1]!.f]
    const inside = found
      .slice(0, 2)
      .flatMap((e) => [...e!.zeros, ...e!.breaks].map((p) => p.x))
      .filter((x) => x > from && x < to)
      .sort((p, q) => p - q)
    // A zero that is a break as well, or a zero of both, is found to within its enclosure.
    const cuts = [from, ...inside.filter((x, i) => !(x - inside[i - 1]! <= closest(x))), to]
    const show = (x: number) => formatShort(x, decimals)
    const conclusions = cuts.slice(1).flatMap((end, i) => {
      const begin = cuts[i]!
      const middle = begin + (end - begin) / 2
      const [sv, sa] = [Math.sign(v.value(middle)), Math.sign(a.value(middle))]
      if (sv === 0 || sa === 0 || Number.isNaN(sv * sa)) return []
      const sign = (s: number) => (s > 0 ? '> 0' : '< 0')
      return [
        {
          text: `It ${sv * sa > 0 ? 'speeds up' : 'slows down'} from ${variable.letter} = ${show(begin)} to ${show(end)}, because ${name} ${sign(sv)} and ${name}′ ${sign(sa)} inside.`,
          at: begin,
        },
      ]
    })
    const next = curveText({ curve: line.curve, order: line.order + 1 })
    return {
      ...emptyResult,
      readouts: ways(line, facts[0]!, curve.unit, context),
      signs: { from, to, rows: rows.slice(0, 2) },
      conclusions,
      verdict,
      notes: [
        `${name} is read as the velocity of what moves, ${next} as its acceleration; where ${name} is a position, ask for ${next}.`,
      ],
    }
  },

  offers(request) {
    const chart = wordsAfter(request.text, 'sign chart of', 'sign chart', 'signs of', 'signs')
    const speed = wordsAfter(request.text, 'speeding up of', 'speeding up', 'speed of', 'speed')
    return offersOver(chart ?? speed, request, 1, (ref, span) => ({
      kind: 'signs' as const,
      id: '',
      ...ref,
      span,
      speed: chart === null,
    }))
  },
}

/** How far from its beginning it ends, and how far it went: the area under v, and all of its parts. */
function ways(line: SignsLine, facts: SpanFacts, unit: string, context: LineContext): Readout[] {
  const { variable, decimals } = context
  const total = totalOf(facts)
  if (!Number.isFinite(facts.exact.value) || total === null || !Number.isFinite(total)) return []
  const length = unitOfArea(unitOfDerivative(unit, variable.unit, line.order), variable.unit)
  const form = exactOver('area', line, facts, context)
  return [
    {
      ...numberReadout('displacement', facts.exact.value, length, decimals),
      ...(form ? { exact: form } : {}),
    },
    numberReadout('distance', total, length, decimals),
  ]
}
