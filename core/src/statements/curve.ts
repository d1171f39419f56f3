import { z } from 'zod'
import { formatShort } from '../study/numbers'
import {
  formulaTextSchema,
  idSchema,
  lineLookSchema,
  nameSchema,
  spanSchema,
  unitSchema,
} from '../study/parts'
import { nameToLatex, toLatex } from '../language/latex'
import { toPlain, toText } from '../language/print'
import { describeJoin, type Join, joinPlaces } from '../features/joins'
import { parseDefinition } from '../language/definition'
import {
  type CurveResult,
  emptyResult,
  failed,
  type LineContext,
  type LineProblem,
  type StatementKind,
} from './kind'
import { cutSpan } from '../study/values'
import { escapeText, wordsAfter } from './slots'

/** Let q(t) = … for from ≤ t ≤ to. */
export const curveLineSchema = z.object({
  kind: z.literal('curve'),
  id: idSchema,
  look: lineLookSchema.optional(),
  name: nameSchema,
  unit: unitSchema,
  /** As typed, readable or not: nothing typed is lost. */
  formula: formulaTextSchema,
  /** The last formula that could be read, while the typed one cannot. */
  lastGood: formulaTextSchema.optional(),
  span: spanSchema,
})
export type CurveLine = z.infer<typeof curveLineSchema>

export const curveKind: StatementKind<CurveLine> = {
  kind: 'curve',
  schema: curveLineSchema,

  sentence(line, context) {
    const { letter } = context.variable
    const head = `${line.name}(${letter})`
    const tree = context.read(line.formula)
    const ends = context.ends(line.name)
    const end = (text: string) => {
      const read = context.read(text)
      return read ? { plain: toPlain(read), latex: toLatex(read) } : { plain: text, latex: text }
    }
    const [from, to] = [end(line.span.from), end(line.span.to)]
    const [low, high] = [ends.from ? '≤' : '<', ends.to ? '≤' : '<']
    const latexOf = (relation: string) => (relation === '≤' ? '\\le' : '<')
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
      { text: ' for ' },
      {
        slot: 'domain',
        field: 'span',
        text: `${from.plain} ${low} ${letter} ${high} ${to.plain}`,
        source: `${line.span.from} ${low} ${letter} ${high} ${line.span.to}`,
        latex: `${from.latex} ${latexOf(low)} ${nameToLatex(letter)} ${latexOf(high)} ${to.latex}`,
      },
    ]
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

  offers({ text, variable, curves }) {
    const rest = wordsAfter(text, 'let')
    const { formula, span: asked } = cutSpan(rest || text)
    const typed = parseDefinition(formula)
    if (!typed || typed.body.trim() === '') return []
    if (typed.variable && typed.variable !== variable.letter) return []
    const taken = new Set([...curves.map((c) => c.name), variable.letter])
    if (taken.has(typed.name)) return []
    const span = asked ?? curves[0] ?? { from: '-10', to: '10' }
    return [
      {
        line: {
          kind: 'curve',
          id: '',
          name: typed.name,
          unit: '',
          formula: typed.body.trim(),
          span: { from: span.from, to: span.to },
        },
      },
    ]
  },

  placeFields: [],
  rename: (line, names) => ({
    ...line,
    name: names(line.name),
    formula: names(line.formula),
    ...(line.lastGood === undefined ? {} : { lastGood: names(line.lastGood) }),
  }),
}

/** Says so where a look at 101 places of the span finds no value at all. */
function emptySpan(curve: CurveResult, { decimals }: LineContext): LineProblem[] {
  const { from, to } = curve
  const xs = Float64Array.from({ length: 101 }, (_, i) => from + ((to - from) * i) / 100)
  if (curve.f.values(xs).some((y) => Number.isFinite(y))) return []
  const show = (x: number) => formatShort(x, decimals)
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
    return found.ok && found.value > curve.from && found.value < curve.to ? [found.value] : []
  })
  const inOrder = [...new Set(places)].sort((a, b) => a - b)
  return inOrder
    .slice(0, mostJoins)
    .map((x) => joinSentence(describeJoin(curve.f, x), curve.name, context))
}

function joinSentence(join: Join, name: string, { variable, decimals }: LineContext): string {
  const show = (value: number) => formatShort(value, Math.max(decimals, 3))
  const at = `At ${variable.letter} = ${show(join.x)},`
  const [left, leftSlope] = join.left
  const [right, rightSlope] = join.right
  switch (join.kind) {
    case 'smooth':
      return `${at} the pieces meet smoothly: ${name} is continuous and has the slope ${show(leftSlope)}.`
    case 'kink':
      return `${at} there is a kink: ${name} is continuous, its slope goes from ${show(leftSlope)} to ${show(rightSlope)}.`
    case 'steep':
      return `${at} the pieces meet: ${name} is continuous and has no slope.`
    case 'jump':
      return `${at} ${name} jumps from ${show(left)} to ${show(right)}: it is not continuous and has no slope.`
    case 'hole':
      return Number.isNaN(join.value)
        ? `${at} ${name} has no value, though both sides tend to ${show(left)}.`
        : `${at} ${name} is ${show(join.value)}, though both sides tend to ${show(left)}: it is not continuous.`
    case 'end': {
      const side = Number.isFinite(left) ? 'after' : Number.isFinite(right) ? 'before' : 'beside'
      return `${at} ${name} ends: it has no values right ${side} it.`
    }
  }
}
