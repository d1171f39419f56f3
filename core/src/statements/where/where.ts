import { exactSolutions } from '../shared/exactPlaces'
import { withValues } from '../../evaluate/withValues'
import { derivativeToLatex, toLatex } from '../../language/latex'
import { toPlain } from '../../language/print'
import { formatShort } from '../../vocabulary/numbers'
import {
  type CurveResult,
  emptyResult,
  failed,
  type LaneOf,
  type LineContext,
  type LineResult,
  type Mark,
  type Phrase,
  placeName,
  type Request,
  type SentenceContext,
  type StatementKind,
} from '../contract'
import { lookOverFormula } from '../shared/overSpan'
import { longSolving, solved, solvingOf } from '../shared/solving'
import {
  curvesMeant,
  curveSlot,
  curveText,
  escapeText,
  likelySpan,
  parseCurveRef,
  spanIn,
  spanSlot,
  wordsAfter,
} from '../shared/slots'
import { noMeanOf, settled, type Settled, touching } from './facts'
import {
  noMeanWords,
  solutionsTable,
  solutionsWords,
  touchingWords,
  verdictOf,
  type Wording,
} from './words'
import { type Asked, type Relation, type Target, type WhereLine, whereLineSchema } from './line'
import { setTold } from './setTold'

export const whereKind: StatementKind<WhereLine> = {
  kind: 'where',
  schema: whereLineSchema,
  topic: 'solving',
  said: ['where', 'solve'],
  uses: { curves: ['curve'], spans: ['span'], numbers: ['target'] },
  whenAdded: ({ curve, order, target }) => ({ lane: { curve, order }, other: target }),
  drawn: { pointWidth: 9 },

  sentence(line, context) {
    const meets = parseCurveRef(line.target) !== null && context.isCurve(line.target)
    return [
      { text: meets && !line.relation ? 'Where does ' : 'Where is ' },
      curveSlot(line, context),
      ...(line.relation
        ? [{ text: ' ' }, relationSlot(line.relation), { text: ' ' }]
        : [{ text: meets ? ' meet ' : ' = ' }]),
      targetSlot(line.target, context, meets),
      { text: ' on ' },
      spanSlot(line.span, context),
    ]
  },

  long: longSolving(questionOf),

  evaluate(line, context) {
    const asked = questionOf(line, context)
    if (!asked.ok) return failed(asked.problem)
    const { curve, level, question } = asked
    const [f, target, from, to] = question
    const solving = solvingOf(asked, context)
    if (!solving.found) context.steps(solved(solving))
    if (!solving.found) return { ...emptyResult, pending: true }
    if (line.relation) return setTold(line, line.relation, asked, solving.found, context)
    const all = settled(solving.found, f, target)
    const exactOf = exactSolutions(f, asked.goal, solving.found)
    const result = resultOf({ line, unit: curve.unit, level, context, exactOf }, all, curve, [
      from,
      to,
    ])
    const none = all.complete && all.solutions.length + all.stretches.length === 0
    const lacks = none ? noMeanOf(line, curve, from, to, context) : null
    const why = lacks ? [noMeanWords(lacks, line, context)] : []
    const touches = touchingWords(touching(all, f, target, [from, to]), level, line, context)
    return { ...result, notes: [...result.notes!, ...touches, ...why] }
  },

  offers(request) {
    const typed = request.text.replace(/^where\s+(?:is|does)\s+/i, 'where ')
    const rest = wordsAfter(typed, 'where', 'solve')
    if (rest === null || request.text === '') return []
    const compared = comparisonIn(rest, request)
    const { span, rest: words } = spanIn(compared ? compared.behind : rest)
    const [, left = '', right = ''] = compared
      ? ['', compared.curve, compared.target]
      : (/^(.*?)(?:\s*(?:=|\bequals?\b|\bmeets?\b|\bis\b)\s*(.*))?$/.exec(words) ?? [])
    if (compared && words.trim() !== '') return []
    const { refs, rest: unread } = curvesMeant(left, request)
    if (unread !== '') return []
    const target = right.trim() || '0'
    return refs
      .filter((ref) => ref.order <= 3)
      .map(({ curve, order }) => ({
        line: {
          kind: 'where' as const,
          id: '',
          curve,
          order,
          target,
          span: likelySpan(span, request, curve),
          ...(compared ? { relation: compared.relation } : {}),
        },
      }))
  },
}

/** "f > 0 on 0 to 3", "f is positive": which curve is compared with what, and what stands behind. */
function comparisonIn(
  text: string,
  { curves }: Request,
): { curve: string; relation: Relation; target: string; behind: string } | null {
  const plain = text
    .replace(/^(\S+)\s+(?:is\s+)?(?:positive|above the axis)\b/, '$1 > 0')
    .replace(/^(\S+)\s+(?:is\s+)?(?:negative|below the axis)\b/, '$1 < 0')
  const found =
    /^(\S+?)\s*(>=|≥|<=|≤|>|<)\s*(\S.*?)((?:\s+(?:on|over|for|from|in|between)\s.*)?)$/.exec(plain)
  const [, curve = '', sign = '', target = '', behind = ''] = found ?? []
  const ref = parseCurveRef(curve)
  if (!ref || !curves.some((c) => c.name === ref.curve)) return null
  return { curve, relation: relationSigns[sign]!, target, behind: behind.trim() }
}

const relationSigns: Readonly<Record<string, Relation>> = {
  '>': '>',
  '>=': '>=',
  '≥': '>=',
  '<': '<',
  '<=': '<=',
  '≤': '<=',
}
const relationText: Readonly<Record<Relation, string>> = {
  '>': '>',
  '>=': '≥',
  '<': '<',
  '<=': '≤',
}

const relationSlot = (relation: Relation): Phrase => ({
  slot: 'choice',
  field: 'relation',
  text: relationText[relation],
  source: relation,
  latex: { '>': '>', '>=': '\\ge', '<': '<', '<=': '\\le' }[relation],
  choices: (['>', '>=', '<', '<='] as const).map((value) => ({ value, text: relationText[value] })),
})

function targetSlot(target: string, context: SentenceContext, meets: boolean) {
  const ref = parseCurveRef(target)
  const tree = meets ? null : context.read(target)
  return {
    slot: 'target' as const,
    field: 'target',
    text: ref && meets ? curveText(ref) : tree ? toPlain(tree) : target,
    source: target,
    latex:
      ref && meets
        ? derivativeToLatex(ref.curve, ref.order, context.variable.letter, context.notation)
        : tree
          ? toLatex(tree)
          : `\\text{${escapeText(target)}}`,
  }
}

/** What is to be solved, or what is in its way. */
function questionOf(line: WhereLine, context: LineContext): Asked | (Target & { ok: false }) {
  const over = lookOverFormula(line, context)
  if (!over.ok) return over
  const { curve, from, to } = over
  const target = targetOf(line, context)
  if (!target.ok) return target
  const { f } = curve.derivative(line.order)
  const { level, other, goal } = target
  return { ok: true, curve, level, goal, question: [f, other ?? level!, from, to] }
}

/** What the curve is to be equal to: a level, or another curve. */
function targetOf(line: WhereLine, context: LineContext): Target {
  const ref = parseCurveRef(line.target)
  const met = ref && context.curve(ref.curve)
  if (ref && met?.ok) {
    if (!met.curve.formula) {
      return { ok: false, problem: { message: `${ref.curve} has no formula` } }
    }
    const other = met.curve.derivative(ref.order).f
    return { ok: true, level: null, other, goal: withValues(other.tree, other.parameters) }
  }
  const number = context.number(line.target)
  if (number.ok) return { ok: true, level: number.value, other: null, goal: number.tree }
  const formula = context.formula(line.target)
  if (formula.ok) {
    const other = formula.f
    return { ok: true, level: null, other, goal: withValues(other.tree, other.parameters) }
  }
  return number
}

/** More solutions than this are not drawn one by one. */
const mostMarked = 200

function resultOf(
  wording: Wording,
  found: Settled,
  curve: CurveResult,
  span: readonly [from: number, to: number],
): LineResult {
  const { line, level, context } = wording
  const lane = { curve: line.curve, order: line.order }
  const lower = { curve: line.curve, order: 0 }
  // What has a rate somewhere also has a height there.
  const own = line.order === 0 ? null : curve.f
  const stem = (on: LaneOf, x: number, y: number): Mark => ({
    kind: 'stem',
    id: placeName(on.order === lane.order ? 'solution' : 'height', x),
    layer: 'marks',
    lane: on,
    x,
    y,
    label: '',
  })
  const table = solutionsTable(found, own, wording)
  return {
    ...emptyResult,
    marks: [
      ...(level === null
        ? []
        : [
            {
              kind: 'level' as const,
              id: 'target',
              layer: 'marks' as const,
              lane,
              y: level,
              from: span[0],
              to: span[1],
              label: formatShort(level, context.decimals),
            },
          ]),
      ...found.solutions
        .slice(0, mostMarked)
        .flatMap(({ x, value }) => [
          stem(lane, x, value),
          ...(own ? [stem(lower, x, own.value(x))] : []),
        ]),
    ],
    notes: solutionsWords(found, wording),
    verdict: verdictOf(found, span, context.decimals),
    tables: table ? [table] : [],
  }
}
