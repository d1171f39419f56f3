import { z } from 'zod'
import { formatShort, numberToFormula } from '../../vocabulary/numbers'
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
import { conclusionWords, missingWords, shown } from './words'

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

/** Three orders up nothing is seen on the graph itself: the derivative below is read instead. */
const stepsUp = ({ about, taken }: ConcludeLine) => (primesOf(about) - primesOf(taken) >= 3 ? 2 : 0)

export const concludeKind: StatementKind<ConcludeLine> = {
  kind: 'conclude',
  schema: concludeLineSchema,
  topic: 'reasoning',
  said: ['conclude', 'conclude from', 'taking'],
  uses: { curves: ['curve'], spans: ['span'] },
  drawn: { pointWidth: 16 },

  sentence: (line, context) => [
    { text: 'Taking ' },
    curveSlot(line, context),
    { text: ' as ' },
    choice('taken', line.taken, orders),
    { text: ': conclusions about ' },
    choice('about', line.about, ['f', "f'", "f''", "f'''"]),
    { text: ' on ' },
    spanSlot(line.span, context),
  ],

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
      const taken = /\bas\s+f('{0,2}|′{0,2}|″)/.exec(words)
      const primes = taken ? taken[1]!.replaceAll('″', '′′').length : 1
      const line = { kind: 'conclude' as const, id: '', ...ref, span }
      return { ...line, taken: orders[primes]!, about: 'f' as const }
    })
  },
}

const choice = (field: string, value: string, all: readonly string[]) => ({
  slot: 'choice' as const,
  field,
  text: value.replaceAll("'", '′'),
  source: value,
  latex: value,
  choices: all.map((v) => ({ value: v, text: v.replaceAll("'", '′') })),
})

/** More points than this are not drawn one by one. */
const mostMarked = 100

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
  const about = shown(orders.about)
  const drawn = {
    text: `Draw ${about} by accumulation, ${about}(${show(from)}) = 0`,
    words: `accumulate ${graph} from ${numberToFormula(from)} plus 0`,
  }
  return {
    ...emptyResult,
    marks,
    conclusions: concluded(orders, facts).map((fact) => ({
      text: conclusionWords(fact, orders, variable.letter, decimals),
      at: fact.at,
    })),
    notes: missingFor(orders).map((what) => missingWords(what, orders)),
    offers: orders.taken - orders.about === 1 ? [drawn] : [],
    verdict: {
      complete,
      text: complete
        ? `Everything the graph of ${graph} decides on [${show(from)}, ${show(to)}]`
        : 'Some stretches could not be settled',
      unresolved,
    },
  }
}
