import { exactPlace } from '../shared/exactPlaces'
import { tellNumber } from '../../vocabulary/told'
import { formatCertain } from '../../vocabulary/numbers'
import { mayChangeSign, signStretches } from '../shared/signStretches'
import {
  emptyResult,
  failed,
  type Phrase,
  type SentenceContext,
  type SignFigure,
  type StatementKind,
} from '../contract'
import { lookOverFormula, offersOver } from '../shared/overSpan'
import { readAs, readingOf, type SignsLine, signsLineSchema } from './line'
import { motionTold, velocityAbove } from './motion'
import { curveSlot, curveText, spanSlot, wordsAfter } from '../shared/slots'
import { spanSigns, asksOver, longOver } from '../shared/spanFacts'

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
    'motion',
    'motion of',
    'at rest',
    'turns back',
    'turning back',
    'total distance',
    'displacement',
  ],
  uses: { curves: ['curve'], spans: ['span'] },

  sentence: (line, context) => [
    { text: line.speed ? 'Speeding up and slowing down of ' : 'Sign chart of ' },
    curveSlot(line, context),
    { text: ' on ' },
    spanSlot(line.span, context),
    ...(line.speed ? [{ text: ', read as a ' }, readingSlot(line, context)] : []),
  ],

  long: longOver(asksOver([0, 1, 2]), 'signChanges'),

  evaluate(line, context) {
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const { decimals } = context
    const certain = ([lo, hi]: readonly [number, number]) => {
      const exact = exactPlace(curve.derivative(line.order).f, {
        enclosure: [lo, hi],
        proven: true,
      })
      return exact ? tellNumber(exact, decimals, null).text : formatCertain([lo, hi], decimals).text
    }
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
    const above = velocityAbove(line, context.variable.letter)
    const told = motionTold(line, facts, curve.unit, context)
    return {
      ...emptyResult,
      ...told,
      signs: { from, to, rows: rows.slice(above, above + 2) },
      verdict,
    }
  },

  offers(request) {
    const chart = wordsAfter(request.text, 'sign chart of', 'sign chart', 'signs of', 'signs')
    const asked = askedOf.exec(request.text)
    const motion = asked ? `${asked[1]!}${asked[2]!}` : wordsAfter(request.text, ...moving)
    return offersOver(chart ?? motion, request, 1, (ref, span, said) => {
      const as = readAs.find((one) => new RegExp(`\\b(?:as|is) an? ${one}\\b`).test(said))
      return {
        kind: 'signs' as const,
        id: '',
        ...ref,
        span,
        speed: chart === null,
        ...(as && chart === null ? { as } : {}),
      }
    })
  },
}

function readingSlot(line: SignsLine, { variable }: SentenceContext): Phrase {
  const reading = readingOf(line, variable.letter)
  return {
    slot: 'choice',
    field: 'as',
    text: reading,
    source: reading,
    latex: `\\text{${reading}}`,
    choices: readAs.map((value) => ({ value, text: value })),
  }
}

/** "when is s at rest", "where does s turn back on 0 to 4" */
const askedOf =
  /^(?:(?:when|where)\s+)?(?:is\s+|does\s+)?([^\s]+)\s+(?:at rest|turn(?:s|ing)? (?:back|round|around)|speed(?:s|ing)? up|slow(?:s|ing)? down)\b(.*)$/i
const moving = [
  ...['speeding up and slowing down of', 'speeding up of', 'speeding up', 'speed of', 'speed'],
  ...['motion of', 'motion', 'at rest of', 'at rest', 'turning back of', 'turning back'],
  ...['turns back', 'total distance of', 'total distance', 'displacement of', 'displacement'],
]
