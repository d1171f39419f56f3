import { z } from 'zod'
import {
  cutKnownValues,
  type Definition,
  type KnownValue,
  parseDefinition,
} from '../language/definition'
import { derivativeToLatex, nameToLatex, toLatex } from '../language/latex'
import { countPrimes } from '../language/primes'
import { toPlain } from '../language/print'
import {
  commonMembers,
  formulaTextSchema,
  nameSchema,
  placeTextSchema,
  spanSchema,
  unitSchema,
} from '../vocabulary/members'
import { cutSpan } from '../vocabulary/values'
import {
  type CurveContext,
  type CurveLookup,
  type CurveResult,
  emptyResult,
  failed,
  type LineContext,
  type Phrase,
  type Request,
  type SentenceContext,
  type StatementKind,
} from './contract'
import { domainPhrase, formulaCurve } from './curve'
import { accumulated, jumpNotes } from './shared/accumulated'
import {
  curveText,
  escapeText,
  parseCurveRef,
  placeText,
  takenNames,
  wordsAfter,
} from './shared/slots'
import { longOver, spanFacts } from './shared/spanFacts'

/** Let f′(x) = 2x for 0 ≤ x ≤ 3, with f(0) = 1. */
export const givenLineSchema = z.strictObject({
  kind: z.literal('given'),
  ...commonMembers,
  name: nameSchema,
  /** The unit of what is given. */
  unit: unitSchema,
  /** Of which derivative the formula is. */
  order: z.int().min(1).max(2),
  formula: formulaTextSchema,
  /** The last formula that could be read, while the typed one cannot. */
  lastGood: formulaTextSchema.optional(),
  span: spanSchema,
  /** Where values are known, the curve's and for order 2 its slope's; 0 each until they are said. */
  at: placeTextSchema,
  value: placeTextSchema.optional(),
  slope: placeTextSchema.optional(),
})
export type GivenLine = z.infer<typeof givenLineSchema>

/** The members that hold known values, by the order of the derivative whose value they are. */
const valueMembers = ['value', 'slope'] as const

/** A curve that is known by a derivative, and by values said beside it. */
export function givenLine(
  { name, order, body }: Pick<Definition, 'name' | 'order' | 'body'>,
  span: GivenLine['span'],
  known: readonly KnownValue[],
): GivenLine {
  const own = known.filter((k) => k.name === name && k.order < order)
  const values = own.map((k) => [valueMembers[k.order as 0 | 1], k.value] as const)
  return {
    kind: 'given',
    id: '',
    name,
    unit: '',
    order,
    formula: body.trim(),
    span,
    at: own[0]?.at ?? span.from,
    ...Object.fromEntries(values),
  }
}

export const givenKind: StatementKind<GivenLine> = {
  kind: 'given',
  schema: givenLineSchema,
  topic: 'areas',
  said: ['given'],
  uses: {
    name: 'name',
    formulas: ['formula', 'lastGood'],
    domain: 'span',
    places: ['at'],
    numbers: ['value', 'slope'],
  },
  curve: {
    make: givenCurve,
    span: ({ span }) => span,
    lowestOrder: 0,
    opens: ({ order }) => [0, order],
    givenBy({ formula, order }) {
      const called = /^\s*(\p{L}[^\s()]*?)\s*(?:\(\s*\p{L}\s*\))?\s*$/u.exec(formula)
      const graph = called && parseCurveRef(called[1]!)
      return graph && { graph: curveText(graph), order }
    },
  },
  drawn: { stands: ({ name, order }) => ({ curve: name, order }) },

  sentence(line, context) {
    const { letter } = context.variable
    const tree = context.read(line.formula)
    const named = curveText({ curve: line.name, order: line.order })
    return [
      { text: 'Let ' },
      {
        slot: 'formula',
        field: 'formula',
        text: `${named}(${letter}) = ${tree ? toPlain(tree) : line.formula}`,
        source: `${named}(${letter}) = ${line.formula}`,
        latex: `${derivativeToLatex(line.name, line.order, letter, 'primes')}(${nameToLatex(letter)}) = ${
          tree ? toLatex(tree) : `\\text{${escapeText(line.formula)}}`
        }`,
      },
      { text: ' for ' },
      domainPhrase(line, context),
      ...valuePhrases(line, context),
    ]
  },

  long: longOver((line, context) => {
    const found = context.curve(line.name)
    if (!found.ok) return []
    const { from, to } = found.curve
    return [{ curve: found.curve, order: line.order, from, to }]
  }),

  evaluate(line, context) {
    const found = context.curve(line.name)
    if (!found.ok) return failed(found.problem)
    const { curve } = found
    const { problems, from, to } = curve
    const { hints } = curve
    const asked = valuesAsked(line, context)
    const { examination } = spanFacts(curve, line.order, from, to, context)
    if (!examination) return { ...emptyResult, problems, hints, notes: asked, pending: true }
    const [graph, below] = [line.order, line.order - 1].map((order) =>
      curveText({ curve: line.name, order }),
    )
    return {
      ...emptyResult,
      problems,
      hints,
      notes: [...asked, ...jumpNotes(graph!, below!, examination, curve, context)],
    }
  },

  offers(request) {
    return [...defined(request), ...namedGraph(request)]
  },
}

/** ", with f′(0) = 2 and f(0) = 1" */
function valuePhrases(line: GivenLine, context: SentenceContext): Phrase[] {
  const at = placeText(line.at, context)
  const orders = Array.from({ length: line.order }, (_, i) => line.order - 1 - i)
  return orders.flatMap((order, i): Phrase[] => {
    const field = valueMembers[order as 0 | 1]
    const head = curveText({ curve: line.name, order })
    const latex = derivativeToLatex(line.name, order, context.variable.letter, 'primes')
    return [
      { text: i === 0 ? ', with ' : ' and ' },
      { text: `${head}(`, latex: `${latex}(` },
      i === 0 ? { slot: 'place', field: 'at', ...at } : { text: at.text, latex: at.latex },
      { text: ')', latex: ')' },
      { text: ' = ' },
      { slot: 'number', field, ...placeText(line[field] ?? '0', context) },
    ]
  })
}

/** What is taken for granted until it is said. */
function valuesAsked(line: GivenLine, { number }: LineContext): string[] {
  const place = number(line.at)
  if (!place.ok) return []
  const at = place.exact ? toPlain(place.exact) : line.at
  const unsaid = valueMembers
    .slice(0, line.order)
    .flatMap((member, order) =>
      line[member] === undefined ? [`${curveText({ curve: line.name, order })}(${at}) = 0`] : [],
    )
  if (unsaid.length === 0) return []
  const named = curveText({ curve: line.name, order: line.order })
  const taken = `${unsaid.reverse().join(' and ')} ${unsaid.length > 1 ? 'are' : 'is'} taken`
  return [`${named} alone does not decide ${line.name}: ${taken} until another value is typed.`]
}

/** The curve itself, from its derivative upwards by areas. */
function givenCurve(line: GivenLine, context: CurveContext): CurveLookup {
  const found = formulaCurve(line, context)
  if (!found.ok) return found
  const lower = context.number(line.at)
  if (!lower.ok) return lower
  let curve: CurveResult = found.curve
  for (let order = line.order - 1; order >= 0; order--) {
    const start = context.number(line[valueMembers[order as 0 | 1]] ?? '0')
    if (!start.ok) return start
    const above = curve
    const area = accumulated(above, 0, line.name, { lower, start }, context)
    curve = {
      ...area,
      problems: [...found.curve.problems, ...area.problems],
      hints: found.curve.hints,
      accumulates: { curve: line.name, order: order + 1, lower: lower.value, f: above.f },
    }
  }
  return { ok: true, curve }
}

/** A definition with a span and known values behind it, in either order. */
export function cutGiven(text: string) {
  const behind = cutKnownValues(text)
  const { formula, span } = cutSpan(behind.rest)
  const { rest, known } = cutKnownValues(formula)
  return { formula: rest, span, known: [...known, ...behind.known] }
}

/** let f′(x) = 2x, f(0) = 3 */
function defined(request: Request) {
  const { text, variable, curves } = request
  const { formula, span, known } = cutGiven(wordsAfter(text, 'let', 'given') || text)
  const typed = parseDefinition(formula)
  if (!typed || typed.order === 0 || typed.order > 2 || typed.body.trim() === '') return []
  if (typed.variable && typed.variable !== variable.letter) return []
  if (takenNames(request).has(typed.name)) return []
  const { from, to } = span ?? curves[0] ?? { from: '-10', to: '10' }
  return [{ line: givenLine(typed, { from, to }, known) }]
}

/** "this graph is f″ of h", "q is h′": a curve that is there is the derivative of one that is not. */
function namedGraph(request: Request) {
  const { text, ref, curves, variable } = request
  const match =
    /^(?:let\s+|given\s+)?(this graph|the graph|\S+)\s+(?:is|be)\s+(?:the graph of\s+)?(\p{L})\s*(['’′"″]{1,2})(?:\s+of\s+(\p{L}))?$/u.exec(
      text,
    )
  if (!match) return []
  const [, graph = '', letter = '', primes = '', of] = match
  const name = of ?? letter
  const named = /graph$/.test(graph) ? (ref ?? firstOf(curves)) : parseCurveRef(graph)
  const own = named && curves.find((c) => c.name === named.curve)
  const order = countPrimes(primes)
  if (!own || order > 2 || takenNames(request).has(name)) return []
  const body = `${curveText(named)}(${variable.letter})`
  return [{ line: givenLine({ name, order, body }, { from: own.from, to: own.to }, []) }]
}

const firstOf = (curves: Request['curves']) =>
  curves[0] ? { curve: curves[0].name, order: 0 } : null
