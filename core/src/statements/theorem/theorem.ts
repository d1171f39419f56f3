import { sayNumber } from '../../vocabulary/numbers'
import { exactPlace, exactSolutions } from '../shared/exactPlaces'
import { whole } from '../../formula/tree'
import { placeOf } from '../shared/toldNumbers'
import type { Solutions } from '../../features/solve'
import { toPlain } from '../../language/print'
import { emptyResult, failed, type LineContext, type StatementKind } from '../contract'
import { lookOverFormula, offersOver } from '../shared/overSpan'
import { curveSlot, curveText, placeText, spanSlot } from '../shared/slots'
import { type Question, solved, solvingOf } from '../shared/solving'
import { asksOver, longOver, spanFacts } from '../shared/spanFacts'
import type { Case } from './case'
import { checked } from './cases'
import { endFacts, type Given } from './facts'
import {
  type TheoremLine,
  theoremLineSchema,
  type TheoremName,
  theoremNames,
  theorems,
} from './line'

const overSpan = longOver<TheoremLine>((line, context) => asksOver()(line, context))

export const theoremKind: StatementKind<TheoremLine> = {
  kind: 'theorem',
  schema: theoremLineSchema,
  topic: 'reasoning',
  said: [
    'mean value theorem',
    'rolle’s theorem',
    "rolle's theorem",
    'intermediate value theorem',
    'extreme value theorem',
    'fundamental theorem',
    'first derivative test',
    'second derivative test',
  ],
  uses: { curves: ['curve'], spans: ['span'], numbers: ['level'] },
  drawn: {},

  sentence(line, context) {
    return [
      {
        slot: 'choice',
        field: 'theorem',
        text: theorems[line.theorem],
        source: line.theorem,
        latex: `\\text{${theorems[line.theorem]}}`,
        choices: theoremNames.map((value) => ({ value, text: theorems[value] })),
      },
      { text: ' for ' },
      curveSlot(line, context),
      { text: ' on ' },
      spanSlot(line.span, context),
      ...(line.theorem === 'intermediateValue'
        ? [
            { text: ' and the value ' },
            { slot: 'number' as const, field: 'level', ...placeText(line.level, context) },
          ]
        : []),
    ]
  },

  long: {
    steps(line, context) {
      const looking = overSpan.steps(line, context)
      const question = questionOf(line, context)
      if (!looking && !question) return null
      return (function* () {
        const examined = looking ? yield* looking : null
        return { examined, found: question ? yield* solved(solvingOf(question, context)) : null }
      })()
    },
    apply(line, outcome, context) {
      const { examined, found } = outcome as { examined: unknown; found: Solutions | null }
      if (examined) overSpan.apply(line, examined, context)
      const question = questionOf(line, context)
      if (question && found) solvingOf(question, context).found = found
    },
  },

  evaluate(line, context) {
    const given = givenOf(line, context)
    if (!given.ok) return failed(given.problem)
    const { curve, ends } = given
    const facts = spanFacts(curve, line.order, ends[0].value, ends[1].value, context)
    const question = questionOf(line, context)
    const solving = question && solvingOf(question, context)
    if (solving && !solving.found) context.steps(solved(solving))
    if (!facts.examination || (solving && !solving.found)) return { ...emptyResult, pending: true }
    const { f, endFacts: known, level } = given
    const one: Case = {
      line,
      curve,
      f,
      ends,
      endFacts: known,
      facts,
      found: solving?.found ?? null,
      solutionOf: question && solving?.found ? solutionsOf(question, level, solving.found) : null,
      level,
      context,
      wording: {
        name: curveText(line),
        letter: context.variable.letter,
        decimals: context.decimals,
        ends: [endText(ends[0]), endText(ends[1])],
        exactOf: ([lo, hi]) => exactPlace(f, { enclosure: [lo, hi], proven: true }),
      },
    }
    return checked(one)
  },

  offers(request) {
    const asked = request.text
      .replace(/^(?:does|do|check|use|apply|can|is)\s+/i, '')
      .replace(/^the\s+/i, '')
      .replace(/\?+$/, '')
      .replace(/\btheorem of calculus\b/i, 'theorem')
    const found = said.find(({ words }) => words.test(asked))
    if (!found) return []
    const behind = asked.replace(found.words, '').replace(/^\s*(?:apply|hold|work)s?\b/i, '')
    const level = /[,;]?\s*(?:and|with|at|for)?\s*(?:the\s+)?(?:value|level)\s+(\S+)\s*$/i.exec(
      behind,
    )
    const rest = level ? behind.slice(0, level.index) : behind
    return offersOver(rest.trim(), request, 1, (ref, span) => ({
      kind: 'theorem' as const,
      id: '',
      ...ref,
      span,
      theorem: found.theorem,
      level: level?.[1] ?? '0',
    }))
  },
}

/** An end as it was typed where that is short, else by its digits. */
function endText({ value, exact }: Given): string {
  const typed = exact && toPlain(exact)
  return typed && typed.length <= longestEnd ? typed : sayNumber(value, fewestDecimals)
}
const longestEnd = 8
const fewestDecimals = 3

const said: readonly { words: RegExp; theorem: TheoremName }[] = [
  { words: /^(?:mean value theorem|mvt)\b/i, theorem: 'meanValue' },
  { words: /^rolle(?:['’]?s)?(?: theorem)?\b/i, theorem: 'rolle' },
  { words: /^(?:intermediate value theorem|ivt)\b/i, theorem: 'intermediateValue' },
  { words: /^(?:extreme value theorem|evt)\b/i, theorem: 'extremeValue' },
  { words: /^(?:fundamental theorem|ftc)\b/i, theorem: 'fundamental' },
  { words: /^first[- ]derivative test\b/i, theorem: 'firstDerivative' },
  { words: /^second[- ]derivative test\b/i, theorem: 'secondDerivative' },
]

/** The curve, its ends and what they come to, or what is in the way. */
function givenOf(line: TheoremLine, context: LineContext) {
  const over = lookOverFormula(line, context)
  if (!over.ok) return over
  const level = context.number(line.level)
  if (!level.ok) return level
  const { curve, from, to } = over
  const { f } = curve.derivative(line.order)
  const exactOf = (text: string) => {
    const found = context.number(text)
    return found.ok ? found.exact : null
  }
  const ends = [
    { value: from, exact: exactOf(line.span.from) },
    { value: to, exact: exactOf(line.span.to) },
  ] as const
  const key = `ends ${line.order} ${from} ${to} ${line.span.from} ${line.span.to}`
  const known = context.memo(curve, key, () => endFacts(f, ends))
  return { ok: true as const, curve, f, ends, level, endFacts: known }
}

/** The exact number of a place that was solved for. */
function solutionsOf(
  { question: [f, target] }: Question,
  level: Given,
  found: Solutions,
): Case['wording']['exactOf'] {
  const known = level.exact ?? placeOf(level.value).tree
  const goal = typeof target !== 'number' ? target.tree : target === level.value ? known : whole(0)
  const exactOf = exactSolutions(f, goal, found)
  return ([lo, hi]) => exactOf({ x: lo + (hi - lo) / 2, enclosure: [lo, hi], proven: true })
}

/** The place that a theorem promises is solved for. */
function questionOf(line: TheoremLine, context: LineContext): Question | null {
  const given = givenOf(line, context)
  if (!given.ok) return null
  const { curve, f, ends, level, endFacts: known } = given
  const [from, to] = [ends[0].value, ends[1].value]
  const slopes = curve.derivative(line.order + 1).f
  switch (line.theorem) {
    case 'meanValue':
      return known.rate ? { curve, question: [slopes, known.rate.f, from, to] } : null
    case 'rolle':
      return { curve, question: [slopes, 0, from, to] }
    case 'intermediateValue':
      return { curve, question: [f, level.value, from, to] }
    default:
      return null
  }
}
