import { z } from 'zod'
import { countPrimes } from '../../language/primes'
import { formatShort, numberToFormula, sayStretch } from '../../vocabulary/numbers'
import {
  emptyResult,
  failed,
  type LineContext,
  type LineResult,
  type Mark,
  placeName,
  type StatementKind,
} from '../contract'
import { lookOverFormula, offersOver, overSpanFields } from '../shared/overSpan'
import { curveSlot, curveText, spanSlot, wordsAfter } from '../shared/slots'
import { type SpanFacts, spanFacts, asksOver, longOver } from '../shared/spanFacts'
import { concluded, crossingsOf, missingFor } from './facts'
import { bridgesOf, gapsOf } from './bridges'
import { placeSaid } from '../shared/exactPlaces'
import { bridgeWords, gapWords, conclusionWords, missingWords, shown, type Wording } from './words'

const orders = ['f', "f'", "f''"] as const

/** Taking q as f′′: conclusions about f′ on [0, 10]. */
export const concludeLineSchema = z.strictObject({
  kind: z.literal('conclude'),
  ...overSpanFields,
  order: z.int().min(0).max(2),
  /** What the graph is. */
  taken: z.enum(orders),
  /** What is concluded about. */
  about: z.enum(['f', "f'", "f''", "f'''"]),
})
export type ConcludeLine = z.infer<typeof concludeLineSchema>

const primesOf = (text: string) => text.length - 1

/** Whether the graph is taken for what it is. */
const isItself = ({ order, taken }: ConcludeLine) => order === primesOf(taken)

/**
 * The name of the function that is spoken of, one that no other curve of the study has, so that one
 * name never means two functions: f where it is free, else the curve's own where its graph is taken
 * for what it is; that of a derivative always.
 */
function subjectOf(
  line: ConcludeLine,
  { isCurve, curveGivenBy }: Pick<LineContext, 'isCurve' | 'curveGivenBy'>,
): string {
  const given = curveGivenBy(curveText(line), primesOf(line.taken))
  if (given !== null) return given
  const isFree = (letter: string) => !isCurve(letter) || (isItself(line) && letter === line.curve)
  if (isItself(line) && line.order > 0) return line.curve
  if (isFree('f')) return 'f'
  return isItself(line) ? line.curve : (['h', 'g', 'k', 'F'].find(isFree) ?? 'f')
}

/** Three orders up nothing is seen on the graph itself: the derivative below is read instead. */
const stepsUp = ({ about, taken }: ConcludeLine) => (primesOf(about) - primesOf(taken) >= 3 ? 2 : 0)

export const concludeKind: StatementKind<ConcludeLine> = {
  kind: 'conclude',
  schema: concludeLineSchema,
  topic: 'reasoning',
  said: ['conclude', 'conclude from', 'taking'],
  uses: { curves: ['curve'], spans: ['span'] },
  drawn: { pointWidth: 16 },

  sentence(line, context) {
    const subject = subjectOf(line, context)
    const taken = choice('taken', line.taken, orders, subject)
    const isAnother =
      line.order === 0 && isItself(line) && subject === line.curve && subject !== 'f'
    return [
      { text: 'Taking ' },
      curveSlot(line, context),
      { text: ' as ' },
      isAnother ? { ...taken, text: 'itself', latex: '\\text{itself}' } : taken,
      { text: ': conclusions about ' },
      choice('about', line.about, ['f', "f'", "f''", "f'''"], subject),
      { text: ' on ' },
      spanSlot(line.span, context),
    ]
  },

  long: longOver((line, context) => asksOver([stepsUp(line)])(line, context)),

  evaluate(line, context) {
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const steps = stepsUp(line)
    const facts = spanFacts(curve, line.order + steps, from, to, context)
    if (!facts.examination) return { ...emptyResult, pending: true }
    return resultOf(line, steps, facts, context)
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'conclude from', 'conclude', 'taking')
    return offersOver(rest, request, 2, (ref, span, words) => {
      const [, name = '', taken] = /\bas\s+(\p{L}|itself\b)(['′″]*)/u.exec(words) ?? []
      const [, , about = ''] = /\babout\s+(\p{L})(['′″]*)/u.exec(words) ?? []
      const itself = name === 'itself' || (name === ref.curve && taken === primeText(ref.order))
      const primes = itself ? ref.order : taken === undefined ? 1 : countPrimes(taken)
      const line = { kind: 'conclude' as const, id: '', ...ref, span }
      return {
        ...line,
        taken: orders[Math.min(2, primes)]!,
        about: `f${"'".repeat(Math.min(3, countPrimes(about)))}` as ConcludeLine['about'],
      }
    })
  },
}

const primeText = (order: number) => '′'.repeat(order)

/** A function of the subject among its derivatives; the member says f whatever its name is. */
function choice(field: string, value: string, all: readonly string[], subject: string) {
  const named = (text: string) => shown(subject, primesOf(text))
  return {
    slot: 'choice' as const,
    field,
    text: named(value),
    source: value,
    latex: subject + "'".repeat(primesOf(value)),
    choices: all.map((v) => ({ value: v, text: named(v) })),
  }
}

/** More points than this are not drawn one by one. */
const mostMarked = 100
/** More conclusions than this nobody reads. */
const mostTold = 100

function resultOf(
  line: ConcludeLine,
  /** How many orders above the line's graph the one is that was examined. */
  steps: number,
  facts: SpanFacts,
  context: LineContext,
): LineResult {
  const { from, to } = facts
  const { complete, unresolved } = facts.examination!
  const { variable, decimals } = context
  const graph = curveText(line)
  const orders = { taken: primesOf(line.taken) + steps, about: primesOf(line.about), steps }
  const show = (x: number) => formatShort(x, decimals)
  const lane = { curve: line.curve, order: line.order + steps }
  const marks = crossingsOf(facts)
    .slice(0, mostMarked)
    .map(({ x, value }): Mark => ({
      kind: 'stem',
      id: placeName('crossing', x),
      layer: 'marks',
      lane,
      x,
      y: value,
      label: '',
    }))
  const wording: Wording = {
    subject: subjectOf(line, context),
    letter: variable.letter,
    decimals,
    placeAt: ([lo, hi]) =>
      placeSaid(facts.f, { enclosure: [lo, hi], proven: true }, variable.letter, decimals),
  }
  const about = shown(wording.subject, orders.about)
  // Of a derivative in the study what lies below it is there as well.
  const isGiven = context.curveGivenBy(graph, primesOf(line.taken)) !== null
  const isKnown = isGiven || (isItself(line) && orders.about < line.order)
  const bridges = orders.taken > orders.about ? bridgesOf(facts) : []
  const gaps = orders.taken > orders.about ? gapsOf(facts, bridges) : []
  const primed = (order: number) => wording.subject + "'".repeat(order)
  const start = numberToFormula(from)
  const zeros = Array.from({ length: orders.taken }, (_, k) => `${primed(k)}(${start}) = 0`)
  const drawn = {
    text: `Draw ${wording.subject} by accumulation, ${about}(${show(from)}) = 0`,
    words: `given ${primed(orders.taken)}(${variable.letter}) = ${line.curve}${"'".repeat(line.order)}(${variable.letter}) for ${start} <= ${variable.letter} <= ${numberToFormula(to)}, ${zeros.join(', ')}`,
  }
  const all = concluded(orders, facts, bridges)
  const more = all.length - mostTold
  return {
    ...emptyResult,
    marks,
    conclusions: all.slice(0, mostTold).map((fact) => ({
      text: conclusionWords(fact, orders, wording),
      at: fact.at,
    })),
    notes: [
      ...(more > 0 ? [`${more} more conclusions are left out: choose a shorter span.`] : []),
      ...bridgeWords(bridges, orders, wording),
      ...gapWords(gaps, orders, wording),
      ...(isKnown ? [] : missingFor(orders)).map((what) =>
        missingWords(what, orders, wording.subject),
      ),
    ],
    offers: orders.taken - orders.about === 1 && !isKnown ? [drawn] : [],
    verdict: {
      complete,
      text: complete
        ? `Everything the graph of ${graph} decides on ${sayStretch([from, to], decimals)}`
        : 'Some stretches could not be settled',
      unresolved,
    },
  }
}
