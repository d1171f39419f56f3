import { z } from 'zod'
import type { Interval } from '../../arithmetic/intervals'
import type { Tree } from '../../formula/tree'
import { nameToLatex, toLatex } from '../../language/latex'
import { toPlain } from '../../language/print'
import { heightsOf } from '../../surfaces/mesh'
import { compileSurface } from '../../surfaces/surface'
import { sayStretch } from '../../vocabulary/numbers'
import {
  commonMembers,
  formulaTextSchema,
  nameSchema,
  spanSchema,
  type SpanText,
} from '../../vocabulary/members'
import {
  emptyResult,
  failed,
  type LineProblem,
  type Phrase,
  type SentenceContext,
  type StatementKind,
  type SurfaceContext,
  type SurfaceLookup,
} from '../contract'
import { escapeText, placeText, takenNames } from '../shared/slots'
import { cutSides, surfaceDefinition } from './said'

/** Surface z = … over [from, to] × [from, to]. */
export const surfaceLineSchema = z.strictObject({
  kind: z.literal('surface'),
  ...commonMembers,
  surface: nameSchema,
  /** The letters of its two variables. */
  first: nameSchema,
  second: nameSchema,
  /** As typed, readable or not: nothing typed is lost. */
  formula: formulaTextSchema,
  /** The last formula that could be read, while the typed one cannot. */
  lastGood: formulaTextSchema.optional(),
  firstSpan: spanSchema,
  secondSpan: spanSchema,
})
export type SurfaceLine = z.infer<typeof surfaceLineSchema>

export const surfaceKind: StatementKind<SurfaceLine> = {
  kind: 'surface',
  schema: surfaceLineSchema,
  topic: 'surfaces',
  said: ['surface'],
  claims:
    /^(?:let\s+)?(?:the\s+)?surface\s.*=|^(?:let\s+)?\p{L}\s*\(\s*\p{L}\s*,\s*\p{L}\s*\)\s*=/iu,
  uses: {
    surface: 'surface',
    formulas: ['formula', 'lastGood'],
    sides: ['firstSpan', 'secondSpan'],
  },
  surface: {
    letters: ({ first, second }) => [first, second],
    sides: ({ firstSpan, secondSpan }) => [firstSpan, secondSpan],
    make: surfaceMade,
  },
  drawn: {},

  sentence: (line, context) => {
    const letters = [line.first, line.second] as const
    const tree = context.readOver(line.formula, letters)
    const head = headOf(line)
    return [
      { text: 'Surface ' },
      {
        slot: 'formula',
        field: 'formula',
        text: `${head.text} = ${tree ? toPlain(tree) : line.formula}`,
        source: `${head.text} = ${line.formula}`,
        latex: `${head.latex} = ${tree ? toLatex(tree) : `\\text{${escapeText(line.formula)}}`}`,
      },
      { text: ' over ' },
      sidePhrase('firstSpan', line.firstSpan, context),
      { text: ' × ' },
      sidePhrase('secondSpan', line.secondSpan, context),
    ]
  },

  evaluate(line, context) {
    const found = context.surface(line.surface)
    if (!found.ok) return failed(found.problem)
    const { surface } = found
    const { f, within, problems, hints } = surface
    const heights = context.memo(surface, 'heights', () => heightsOf(f, within))
    if (!heights) {
      const said = [within.x, within.y].map(({ lo, hi }) => sayStretch([lo, hi], context.decimals))
      return failed(...problems, {
        message: `${line.surface} has no value at any place looked at over ${said.join(' × ')}`,
        fix: 'choose another rectangle, or check the formula and its sliders',
      })
    }
    return {
      ...emptyResult,
      problems,
      hints,
      space: [{ kind: 'sheet', id: 'sheet', of: f, within, role: 'surface' }],
    }
  },

  offers(request) {
    const read = surfaceDefinition(request.text)
    if (!read) return []
    const { sides, formula } = cutSides(read.body, read.letters)
    const name = read.name
    if (takenNames(request).has(name) || read.letters.includes(name)) return []
    const [firstSpan, secondSpan] = sides ?? [usualSide, usualSide]
    return [
      {
        line: {
          ...{ kind: 'surface' as const, id: '', surface: name, formula },
          ...{ first: read.letters[0], second: read.letters[1], firstSpan, secondSpan },
        },
      },
    ]
  },
}

/** What a surface is looked at over, where nobody says it. */
export const usualSide: SpanText = { from: '-5', to: '5' }

/** "z", and "f(x, y)" where it has another name or other letters. */
function headOf({ surface, first, second }: SurfaceLine) {
  if (surface === 'z' && first === 'x' && second === 'y') return { text: 'z', latex: 'z' }
  const [f, x, y] = [surface, first, second].map(nameToLatex)
  return { text: `${surface}(${first}, ${second})`, latex: `${f}(${x}, ${y})` }
}

/** "[−5, 5]" */
function sidePhrase(
  field: 'firstSpan' | 'secondSpan',
  span: SpanText,
  context: SentenceContext,
): Phrase {
  const [from, to] = [placeText(span.from, context), placeText(span.to, context)]
  return {
    slot: 'span',
    field,
    text: `[${from.text}, ${to.text}]`,
    source: `${span.from} to ${span.to}`,
    latex: `[${from.latex}, ${to.latex}]`,
  }
}

function surfaceMade(line: SurfaceLine, context: SurfaceContext): SurfaceLookup {
  const letters = [line.first, line.second] as const
  const typed = context.readOver(line.formula, letters)
  const problems: LineProblem[] = typed.ok ? [] : typed.problems
  const good =
    typed.ok || line.lastGood === undefined ? typed : context.readOver(line.lastGood, letters)
  if (!good.ok) return { ok: false, problem: problems[0] ?? good.problems[0]! }
  const x = sideOf(line.firstSpan, line.first, context)
  if ('problem' in x) return { ok: false, problem: x.problem }
  const y = sideOf(line.secondSpan, line.second, context)
  if ('problem' in y) return { ok: false, problem: y.problem }
  return {
    ok: true,
    surface: {
      name: line.surface,
      letters,
      tree: good.tree,
      f: compileSurface(good.tree, letters, context.valuesIn(good.tree)),
      within: { x: x.side, y: y.side },
      ends: { x: x.ends, y: y.ends },
      stale: !typed.ok,
      problems,
      hints: typed.ok ? typed.hints : [],
    },
  }
}

interface Side {
  side: Interval
  ends: readonly [Tree, Tree]
}

function sideOf(
  span: SpanText,
  letter: string,
  { number }: SurfaceContext,
): Side | { problem: LineProblem } {
  const [from, to] = [number(span.from), number(span.to)]
  if (!from.ok) return { problem: from.problem }
  if (!to.ok) return { problem: to.problem }
  if (from.value < to.value) {
    return { side: { lo: from.value, hi: to.value }, ends: [from.tree, to.tree] }
  }
  return {
    problem: {
      message: `the side along ${letter} does not end above its beginning`,
      fix: 'swap its ends, or check the sliders in them',
    },
  }
}
