import { z } from 'zod'
import { accumulate } from '../calculus/accumulate'
import { accumulateOutwards } from '../calculus/accumulateOutwards'
import { formatShort, sayNumber } from '../vocabulary/numbers'
import {
  commonMembers,
  formulaTextSchema,
  nameSchema,
  spanSchema,
  unitSchema,
  windowSchema,
} from '../vocabulary/members'
import { nameToLatex, toLatex } from '../language/latex'
import { toPlain, toText } from '../language/print'
import { joinPlaces } from '../features/joins'
import { lookAtPlace } from '../features/place/placeFacts'
import { joinWords } from './shared/placeWords'
import { parseDefinition } from '../language/definition'
import {
  type CurveContext,
  type CurveLookup,
  type CurveResult,
  type DrawnFunction,
  emptyResult,
  failed,
  type LineContext,
  type LineProblem,
  type Phrase,
  type SentenceContext,
  type StatementKind,
} from './contract'
import { cutSpan } from '../vocabulary/values'
import { escapeText, placeText, takenNames, wordsAfter } from './shared/slots'

/** Let q(t) = … for from ≤ t ≤ to. */
export const curveLineSchema = z.strictObject({
  kind: z.literal('curve'),
  ...commonMembers,
  name: nameSchema,
  unit: unitSchema,
  /** As typed, readable or not: nothing typed is lost. */
  formula: formulaTextSchema,
  /** The last formula that could be read, while the typed one cannot. */
  lastGood: formulaTextSchema.optional(),
  span: spanSchema,
  /**
   * What the frame opens on, while nobody has asked for a span: the curve is then drawn wherever one
   * looks, and its span is only what other lines begin with.
   */
  window: windowSchema.nullable().optional(),
})
export type CurveLine = z.infer<typeof curveLineSchema>

/** A curve of a formula, over a span or, with a window, wherever one looks. */
export const curveLine = (
  id: string,
  name: string,
  formula: string,
  { span, window }: Pick<CurveLine, 'span' | 'window'>,
): CurveLine => ({
  kind: 'curve',
  id,
  name,
  unit: '',
  formula,
  span,
  ...(window ? { window } : {}),
})

/** What stands in a line until its window is known. */
const usualSpan = { from: '-10', to: '10' }
export const usualWindow: [number, number] = [-10, 10]

export const curveKind: StatementKind<CurveLine> = {
  kind: 'curve',
  schema: curveLineSchema,
  topic: null,
  said: ['let'],
  uses: { name: 'name', formulas: ['formula', 'lastGood'], domain: 'span', window: 'window' },
  curve: { make: formulaCurve, span: ({ span }) => span, joins: true },
  drawn: { stands: ({ name }) => ({ curve: name, order: 0 }) },

  sentence(line, context) {
    const { letter } = context.variable
    const head = `${line.name}(${letter})`
    const tree = context.read(line.formula)
    return [
      { text: 'Let ' },
      {
        slot: 'formula',
        field: 'formula',
        text: `${head} = ${tree ? toPlain(tree) : line.formula}`,
        source: `${head} = ${line.formula}`,
        latex: `${nameToLatex(line.name)}(${nameToLatex(letter)}) = ${
          tree ? toLatex(tree) : `\\text{${escapeText(line.formula)}}`
        }`,
      },
      ...(line.window ? [] : [{ text: ' for ' }, domainPhrase(line, context)]),
    ]
  },

  actions: ({ span, window }, { number }) => {
    if (window)
      return [{ id: 'span', label: 'Set a span', does: 'change', change: { window: null } }]
    const [from, to] = [number(span.from), number(span.to)]
    if (from === null || to === null || from >= to) return []
    const label = 'Draw it everywhere'
    return [{ id: 'span', label, does: 'change', change: { window: [from, to] } }]
  },

  evaluate(line, context) {
    const found = context.curve(line.name)
    if (!found.ok) return failed(found.problem)
    const { curve } = found
    const { problems, hints } = curve
    return {
      ...emptyResult,
      hints,
      problems: [...problems, ...emptySpan(curve, context)],
      notes: joinNotes(curve, context),
    }
  },

  offers(request) {
    const { text, variable, curves } = request
    const rest = wordsAfter(text, 'let')
    const { formula, span: asked } = cutSpan(rest || text)
    const typed = parseDefinition(formula)
    if (!typed || typed.order > 0 || typed.body.trim() === '') return []
    if (typed.variable && typed.variable !== variable.letter) return []
    if (takenNames(request).has(typed.name)) return []
    const [first] = curves
    const { from, to } = asked ?? first ?? usualSpan
    const isOpen = !asked && (!first || first.everywhere)
    const line = curveLine('', typed.name, typed.body.trim(), {
      span: { from, to },
      ...(isOpen ? { window: usualWindow } : {}),
    })
    return [{ line }]
  },
}

/** "0 ≤ t ≤ 10" */
export function domainPhrase(
  { name, span }: Pick<CurveLine, 'name' | 'span'>,
  context: SentenceContext,
): Phrase {
  const { letter } = context.variable
  const ends = context.ends(name)
  const [from, to] = [placeText(span.from, context), placeText(span.to, context)]
  const [low, high] = [ends.from ? '≤' : '<', ends.to ? '≤' : '<']
  const latexOf = (relation: string) => (relation === '≤' ? '\\le' : '<')
  return {
    slot: 'domain',
    field: 'span',
    text: `${from.text} ${low} ${letter} ${high} ${to.text}`,
    source: `${span.from} ${low} ${letter} ${high} ${span.to}`,
    latex: `${from.latex} ${latexOf(low)} ${nameToLatex(letter)} ${latexOf(high)} ${to.latex}`,
  }
}

/** Says so where a look at 101 places of the span finds no value at all. */
function emptySpan(curve: CurveResult, { decimals }: LineContext): LineProblem[] {
  const { from, to } = curve
  const xs = Float64Array.from({ length: 101 }, (_, i) => from + ((to - from) * i) / 100)
  if (curve.f.values(xs).some((y) => Number.isFinite(y))) return []
  const show = (x: number) => sayNumber(x, decimals)
  return [
    {
      message: `${curve.name} has no value between ${show(from)} and ${show(to)}`,
      fix: 'choose another span, or check the sliders',
    },
  ]
}

const mostJoins = 8

/** A sentence for each place inside the span where pieces meet. */
function joinNotes(curve: CurveResult, context: LineContext): string[] {
  const { letter } = context.variable
  const places = joinPlaces(curve.tree, letter).flatMap((at) => {
    const found = context.number(toText(at))
    return found.ok && found.value > curve.reach.from && found.value < curve.reach.to ? [found] : []
  })
  const inOrder = places
    .sort((a, b) => a.value - b.value)
    .filter((place, i) => i === 0 || place.value !== places[i - 1]!.value)
  return inOrder.slice(0, mostJoins).map(({ value, exact }) => {
    const facts = context.memo(curve, `place ${value}`, () => lookAtPlace(curve.f, value, exact))
    const at = `At ${letter} = ${formatShort(value, Math.max(context.decimals, 3))},`
    return joinWords(facts, curve.name, at, context.decimals)
  })
}

/** What a line has that brings a formula. */
type FormulaMembers = Pick<CurveLine, 'name' | 'unit' | 'formula' | 'span' | 'window'> & {
  lastGood?: string
}

/** A curve by its formula; while that cannot be read the last readable one stands in. */
export function formulaCurve(line: FormulaMembers, context: CurveContext): CurveLookup {
  const circle = context.circle(line.name)
  if (circle) return { ok: false, problem: circle }
  const typed = context.read(line.formula)
  const problems = typed.ok ? [] : typed.problems
  const good = typed.ok || line.lastGood === undefined ? typed : context.read(line.lastGood)
  if (!good.ok) return { ok: false, problem: problems[0] ?? good.problems[0]! }
  const bound = context.bind(good.tree, line.name)
  if (!bound.ok) return bound
  const span = ownSpan(line, context)
  if ('problem' in span) return { ok: false, problem: span.problem }
  const f = bound.derivative(0)
  const derivative = (order: number) => ({
    tree: context.derivativeOf(good.tree, order),
    f: bound.derivative(order),
  })
  const { window = null } = line
  let area: DrawnFunction | undefined
  return {
    ok: true,
    curve: {
      name: line.name,
      unit: line.unit,
      tree: good.tree,
      f,
      from: span.from,
      to: span.to,
      reach: window ? { from: -Infinity, to: Infinity } : span,
      window,
      stale: !typed.ok,
      problems,
      hints: typed.ok ? typed.hints : [],
      formula: true,
      derivative,
      drawn(order) {
        if (order >= 0) return bound.derivative(order)
        area ??= window
          ? { ...accumulateOutwards(f, span.from, span), tree: f.tree }
          : { ...accumulate(f, span.from, span.from, span.to), tree: f.tree }
        return area
      },
    },
  }
}

function ownSpan(
  line: FormulaMembers,
  { number }: LineContext,
): { from: number; to: number } | { problem: LineProblem } {
  const [from, to] = [number(line.span.from), number(line.span.to)]
  if (!from.ok) return { problem: from.problem }
  if (!to.ok) return { problem: to.problem }
  if (from.value >= to.value) {
    const show = (x: number) => formatShort(x, 6)
    return {
      problem: {
        message: `the span of ${line.name} runs from ${show(from.value)} to ${show(to.value)}`,
        fix: 'let it end above where it begins',
      },
    }
  }
  return { from: from.value, to: to.value }
}
