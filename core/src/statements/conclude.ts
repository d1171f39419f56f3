import { z } from 'zod'
import type { Break } from '../features/examine'
import { insideOf } from '../features/splits'
import { formatCertain, formatShort, numberToFormula } from '../study/numbers'
import {
  emptyResult,
  failed,
  type LineContext,
  type LineResult,
  type Mark,
  type StatementKind,
} from './contract'
import { lookOverFormula, offersOver, overSpanFields } from './shared/overSpan'
import { curveSlot, curveText, spanSlot, wordsAfter } from './shared/slots'
import { type SpanFacts, spanFacts } from './shared/spanFacts'

const orders = ['f', "f'", "f''"] as const

/** Taking q as f′′: conclusions about f′ on [0, 10]. */
export const concludeLineSchema = z.object({
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
const shown = (order: number) => `f${'′'.repeat(order)}`

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

  evaluate(line, context) {
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    // Three orders up nothing is seen on the graph itself: the derivative below is read instead.
    const steps = primesOf(line.about) - primesOf(line.taken) >= 3 ? 2 : 0
    const facts = spanFacts(curve, line.order + steps, from, to, context)
    if (!facts.examination) return { ...emptyResult, pending: true }
    return concluded(line, steps, facts, context)
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

type Stretch = readonly [number, number]
interface Conclusion {
  text: string
  at?: number
}

/**
 * What follows about f⁽ᵏ⁾ from the graph of f⁽ᵐ⁾: from the graph itself for k = m, from its signs
 * for the function one order below, from its rise and fall for that one above, from its concavity
 * for that two above. What would need a value that the graph does not give is said to be missing.
 */
function concluded(
  line: ConcludeLine,
  /** How many orders above the line's graph the one is that was examined. */
  steps: number,
  facts: SpanFacts,
  context: LineContext,
): LineResult {
  const { from, to } = facts
  const found = facts.examination!
  const { variable, decimals } = context
  const graph = curveText(line)
  const [taken, about] = [primesOf(line.taken) + steps, primesOf(line.about)]
  const show = (x: number) => formatShort(x, decimals)
  const span = ([a, b]: Stretch) => `[${show(a)}, ${show(b)}]`
  const certain = (enclosure: readonly [number, number]) => formatCertain(enclosure, decimals).text
  const fAbout = shown(about)
  const fTaken = shown(taken)
  const positive = signStretches(facts, 1)
  const negative = signStretches(facts, -1)
  const conclusions: Conclusion[] = []
  const say = (list: readonly Stretch[], does: string, reason: string) => {
    for (const stretch of list) {
      conclusions.push({
        text: `${fAbout} ${does} on ${span(stretch)}, because ${reason}.`,
        at: stretch[0],
      })
    }
  }
  const sign = (up: boolean) => (up ? '− to +' : '+ to −')
  const crossings = found.zeros.filter(({ x }) => {
    const before = positive.some(([, b]) => near(b, x))
      ? 1
      : negative.some(([, b]) => near(b, x))
        ? -1
        : 0
    const after = positive.some(([a]) => near(a, x))
      ? 1
      : negative.some(([a]) => near(a, x))
        ? -1
        : 0
    return before * after < 0
  })
  const goesUp = (x: number) => positive.some(([a]) => near(a, x))
  const missing: string[] = []
  const below = taken - about
  if (below === 0) {
    say(found.rising, 'rises', `the graph of ${fTaken} rises there`)
    say(found.falling, 'falls', `the graph of ${fTaken} falls there`)
    say(found.level, 'is level', `the graph of ${fTaken} is level there`)
    for (const t of found.turningPoints) {
      conclusions.push({
        text: `${fAbout} has a local ${t.kind} at ${variable.letter} = ${certain(t.enclosure)}, because its graph turns from ${t.kind === 'maximum' ? 'rising to falling' : 'falling to rising'} there.`,
        at: t.x,
      })
    }
    say(found.concaveUp, 'is concave up', `the slope of ${fTaken} rises there`)
    say(found.concaveDown, 'is concave down', `the slope of ${fTaken} falls there`)
  } else if (below === 1) {
    say(positive, 'rises', `${fTaken} > 0 inside`)
    say(negative, 'falls', `${fTaken} < 0 inside`)
    for (const z of crossings) {
      const up = goesUp(z.x)
      conclusions.push({
        text: `${fAbout} has a local ${up ? 'minimum' : 'maximum'} at ${variable.letter} = ${certain(z.enclosure)}, because ${fTaken} goes ${sign(up)} there.`,
        at: z.x,
      })
    }
    say(found.rising, 'is concave up', `${fTaken} rises there`)
    say(found.falling, 'is concave down', `${fTaken} falls there`)
    for (const t of found.turningPoints) {
      conclusions.push({
        text: `${fAbout} has an inflection at ${variable.letter} = ${certain(t.enclosure)}, because ${fTaken} turns from ${t.kind === 'maximum' ? 'rising to falling' : 'falling to rising'} there.`,
        at: t.x,
      })
    }
    missing.push(`Values of ${fAbout} need one value of ${fAbout} beside the graph.`)
  } else if (below === 2) {
    say(positive, 'is concave up', `${fTaken} > 0 inside`)
    say(negative, 'is concave down', `${fTaken} < 0 inside`)
    for (const z of crossings) {
      conclusions.push({
        text: `${fAbout} has an inflection at ${variable.letter} = ${certain(z.enclosure)}, because ${fTaken} goes ${sign(goesUp(z.x))} there.`,
        at: z.x,
      })
    }
    missing.push(
      `Where ${fAbout} rises and falls needs one value of ${shown(about + 1)} beside the graph; values of ${fAbout} one value of ${fAbout} as well.`,
    )
  } else if (below === -1) {
    say(found.rising, 'is 0 or above', `the graph of ${fTaken} rises there`)
    say(found.falling, 'is 0 or below', `the graph of ${fTaken} falls there`)
    say(found.level, 'is 0', `the graph of ${fTaken} is level there`)
    for (const t of found.turningPoints) {
      conclusions.push({
        text: t.vanishes
          ? `${fAbout} is 0 at ${variable.letter} = ${certain(t.enclosure)} and goes ${t.kind === 'maximum' ? '+ to −' : '− to +'} there, because the graph of ${fTaken} turns.`
          : `${fAbout} is missing at ${variable.letter} = ${certain(t.enclosure)}, because the graph of ${fTaken} has a kink there.`,
        at: t.x,
      })
    }
    say(found.concaveUp, 'rises', `the graph of ${fTaken} is concave up there`)
    say(found.concaveDown, 'falls', `the graph of ${fTaken} is concave down there`)
  } else {
    say(found.concaveUp, 'is 0 or above', `the graph of ${fTaken} is concave up there`)
    say(found.concaveDown, 'is 0 or below', `the graph of ${fTaken} is concave down there`)
    const bends = found.concaveUp.length + found.concaveDown.length + found.breaks.length > 0
    if (found.complete && !bends) say([[from, to]], 'is 0', `the graph of ${fTaken} is straight`)
    for (const p of found.inflections) {
      const up = found.concaveUp.some(([a]) => near(a, p.x))
      const turns = up ? 'down to concave up' : 'up to concave down'
      const where = `${variable.letter} = ${certain(p.enclosure)}`
      conclusions.push({
        text: p.vanishes
          ? `${fAbout} is 0 at ${where} and goes ${sign(up)} there, because the graph of ${fTaken} turns from concave ${turns}.`
          : `${fAbout} goes ${sign(up)} at ${where}, where it is missing, because the graph of ${fTaken} turns from concave ${turns}.`,
        at: p.x,
      })
    }
    missing.push(
      `Where ${fAbout} rises and falls is not seen on this graph: it follows from the lane of ${shown(about - 1)}.`,
    )
  }
  if (steps > 0) {
    missing.push(
      `${fAbout} is not seen on the graph of ${shown(taken - steps)}: this follows from the lane of ${fTaken}.`,
    )
  }
  const lane = { curve: line.curve, order: line.order + steps }
  const marks: Mark[] = crossings
    .slice(0, 100)
    .map((z) => ({ kind: 'stem', lane, x: z.x, y: z.value, label: '' }))
  return {
    ...emptyResult,
    marks,
    conclusions,
    notes: missing,
    offers:
      below === 1
        ? [
            {
              text: `Draw ${fAbout} by accumulation, ${fAbout}(${show(from)}) = 0`,
              words: `accumulate ${graph} from ${numberToFormula(from)} plus 0`,
            },
          ]
        : [],
    verdict: {
      complete: found.complete,
      text: found.complete
        ? `Everything the graph of ${graph} decides on ${span([from, to])}`
        : 'Some stretches could not be settled',
      unresolved: found.unresolved,
    },
  }
}

const near = (a: number, b: number) =>
  Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b))

/** At a kink, a cusp or a vertical tangent a function is continuous: its sign cannot jump there. */
export const mayChangeSign = ({ kind }: Break) =>
  kind !== 'kink' && kind !== 'cusp' && kind !== 'vertical'

/** Maximal closed stretches on which a function keeps one sign but for isolated zeros. */
export function signStretches({ f, from, to, signChanges }: SpanFacts, sign: 1 | -1): Stretch[] {
  const { zeros } = signChanges!
  const breaks = signChanges!.breaks.filter(mayChangeSign)
  const cuts = [from, ...zeros.map((z) => z.x), ...breaks.map((b) => b.x), to]
    .filter((x) => x >= from && x <= to)
    .sort((a, b) => a - b)
  const stretches: [number, number][] = []
  for (let i = 1; i < cuts.length; i++) {
    const [a, b] = [cuts[i - 1]!, cuts[i]!]
    // Between two cuts f is continuous and not 0, so one place inside tells its sign.
    if (near(a, b) || Math.sign(f.value(insideOf({ from: a, to: b }))) !== sign) continue
    const last = stretches.at(-1)
    const touching = last && near(last[1], a) && !breaks.some((x) => near(x.x, a))
    if (touching) last[1] = b
    else stretches.push([a, b])
  }
  return stretches
}
