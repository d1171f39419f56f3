import { z } from 'zod'
import type { RealFunction } from '../evaluate/compile'
import { solveInSteps, type Solutions } from '../features/solve'
import { formatCertain, formatNumber, formatShort, formatStretch } from '../study/numbers'
import { placeTextSchema } from '../study/parts'
import { listed, unitOfDerivative, withUnit } from '../study/units'
import { toPlain } from '../language/print'
import { derivativeToLatex, toLatex } from '../language/latex'
import {
  type CurveResult,
  emptyResult,
  failed,
  type LineContext,
  type Mark,
  type SentenceContext,
  type StatementKind,
  type Verdict,
} from './contract'
import { lookOverFormula, overSpanFields } from './shared/overSpan'
import { spanFacts } from './shared/spanFacts'
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
} from './shared/slots'

/** Where is q′ = 2 on [0, 10]; where does q meet r. */
export const whereLineSchema = z.object({
  kind: z.literal('where'),
  ...overSpanFields,
  order: z.int().min(0).max(3),
  /** A number, an expression in sliders, or the name of another curve. */
  target: placeTextSchema,
})
export type WhereLine = z.infer<typeof whereLineSchema>

/** Solutions beyond this are counted, not listed in the sentence. */
const mostSaid = 6

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
      { text: meets ? 'Where does ' : 'Where is ' },
      curveSlot(line, context),
      { text: meets ? ' meet ' : ' = ' },
      targetSlot(line.target, context, meets),
      { text: ' on ' },
      spanSlot(line.span, context),
    ]
  },

  evaluate(line, context) {
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const { f } = curve.derivative(line.order)
    const target = targetOf(line, context)
    if (!target.ok) return failed(target.problem)
    const { level, other } = target
    const found = context.steps(solveInSteps(f, other ?? level!, from, to))
    if (!found) return { ...emptyResult, pending: true }
    const result = told(line, settled(found, f, other ?? level!), context, level, from, to)
    const none = found.complete && found.solutions.length === 0 && found.stretches.length === 0
    const why = none ? whyNoMean(line, curve, from, to, context) : []
    return { ...result, notes: [...result.notes, ...why] }
  },

  offers(request) {
    const typed = request.text.replace(/^where\s+(?:is|does)\s+/i, 'where ')
    const rest = wordsAfter(typed, 'where', 'solve')
    if (rest === null || request.text === '') return []
    const { span, rest: words } = spanIn(rest)
    const [, left = '', right = ''] =
      /^(.*?)(?:\s*(?:=|\bequals?\b|\bmeets?\b|\bis\b)\s*(.*))?$/.exec(words) ?? []
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
        },
      }))
  },
}

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

type Target =
  | { ok: true; level: number | null; other: RealFunction | null }
  | { ok: false; problem: { message: string; fix?: string } }

/** What the curve is to be equal to: a level, or another curve. */
function targetOf(line: WhereLine, context: LineContext): Target {
  const ref = parseCurveRef(line.target)
  const met = ref && context.curve(ref.curve)
  if (ref && met?.ok) {
    if (!met.curve.formula) {
      return { ok: false, problem: { message: `${ref.curve} has no formula` } }
    }
    return { ok: true, level: null, other: met.curve.derivative(ref.order).f }
  }
  const number = context.number(line.target)
  if (number.ok) return { ok: true, level: number.value, other: null }
  const formula = context.formula(line.target)
  if (formula.ok) return { ok: true, level: null, other: formula.f }
  return number
}

/** (q(b) - q(a))/((b) - (a)): the average rate over a span, as lines ask for it. */
const averageOf = /^\((\p{L}[₀-₉]*'*)\((.+)\) - \1\(.+\)\)\/\(\(.+\) - \(.+\)\)$/u

/**
 * Why a rate need not be equal to the average rate anywhere: by the mean value theorem it is, where
 * the curve is continuous on the closed span and has a slope inside it.
 */
function whyNoMean(
  line: WhereLine,
  curve: CurveResult,
  from: number,
  to: number,
  context: LineContext,
): string[] {
  const lower = { curve: line.curve, order: line.order - 1 }
  if (line.order === 0 || !averageOf.test(line.target)) return []
  const { examination } = spanFacts(curve, lower.order, from, to, context)
  const inside = examination?.breaks.find(
    ({ x, kind }) =>
      kind !== 'vertical' && (kind === 'kink' || kind === 'cusp' ? x > from && x < to : true),
  )
  if (!inside) return []
  const where = `${context.variable.letter} = ${formatShort(inside.x, Math.max(3, context.decimals))}`
  const name = curveText(lower)
  const slopeless = inside.kind === 'kink' || inside.kind === 'cusp'
  const lacks = slopeless
    ? `${name} has a ${inside.kind} at ${where}, and no slope there`
    : `${name} is not continuous at ${where}`
  return [`The average rate need not be taken here: ${lacks}.`]
}

/** A stretch on which both are equal all along, and which of its ends belong to it. */
interface EqualStretch {
  ends: readonly [number, number]
  closed: readonly [boolean, boolean]
}
type Settled = Omit<Solutions, 'stretches'> & { stretches: EqualStretch[] }

/** A solution at the end of a stretch belongs to the stretch. */
function settled(found: Solutions, f: RealFunction, target: RealFunction | number): Settled {
  const holds = (x: number) =>
    f.value(x) === (typeof target === 'number' ? target : target.value(x))
  const stretches = found.stretches.map(([a, b]): EqualStretch => ({
    ends: [a, b],
    closed: [holds(a), holds(b)],
  }))
  const solutions = found.solutions.filter(
    ({ x }) => !found.stretches.some(([a, b]) => x >= a && x <= b),
  )
  return { ...found, solutions, stretches }
}

/** "[1, 2)" */
const stretchText = ({ ends, closed }: EqualStretch, decimals: number) => {
  const inside = formatStretch(ends, decimals).slice(1, -1)
  return `${closed[0] ? '[' : '('}${inside}${closed[1] ? ']' : ')'}`
}

function told(
  line: WhereLine,
  found: Settled,
  context: LineContext,
  level: number | null,
  from: number,
  to: number,
) {
  const { variable, decimals } = context
  const { letter, unit } = variable
  const curve = context.curve(line.curve)
  const valueUnit = curve.ok ? unitOfDerivative(curve.curve.unit, unit, line.order) : ''
  const own = line.order === 0 ? null : curve.ok ? curve.curve.f : null
  const name = curveText(line)
  const certain = ([lo, hi]: readonly [number, number]) => formatCertain([lo, hi], decimals)
  const rows = found.solutions.map(({ x, value, enclosure, proven }) => {
    const shown = certain(enclosure)
    const height = own?.value(x)
    return {
      cells: [
        (shown.certain && proven ? '' : '≈ ') + shown.text,
        formatNumber(value, decimals),
        ...(height === undefined ? [] : [formatNumber(height, decimals)]),
      ],
      values: [x, value, ...(height === undefined ? [] : [height])],
      x,
    }
  })
  const lane = { curve: line.curve, order: line.order }
  const marks: Mark[] = [
    ...(level === null
      ? []
      : [
          { kind: 'level' as const, lane, y: level, from, to, label: formatShort(level, decimals) },
        ]),
    ...found.solutions.slice(0, 200).flatMap(({ x, value }): Mark[] => [
      { kind: 'stem', lane, x, y: value, label: '' },
      ...(own
        ? [
            {
              kind: 'stem' as const,
              lane: { curve: line.curve, order: 0 },
              x,
              y: own.value(x),
              label: '',
            },
          ]
        : []),
    ]),
  ]
  const show = (x: number) => formatShort(x, Math.max(3, decimals))
  const span = `[${show(from)}, ${show(to)}]`
  const verdict: Verdict = {
    complete: found.complete,
    text: found.complete
      ? rows.length === 0 && found.stretches.length === 0
        ? `No solution on ${span}: proven`
        : `Complete: no other solution on ${span}`
      : `Not settled on ${found.unresolved
          .slice(0, 3)
          .map((stretch) => formatStretch(stretch, Math.max(3, decimals)))
          .join(', ')}`,
    unresolved: found.unresolved,
  }
  const target =
    level === null ? 'they meet' : `${name} is ${withUnit(formatShort(level, decimals), valueUnit)}`
  const places = rows.map((r) => r.cells[0]!)
  const notes = [
    ...(rows.length > 0
      ? [`${capital(target)} at ${letter} = ${listed(places, mostSaid, unit)}.`]
      : []),
    ...(found.stretches.length > 0
      ? [
          `${level === null ? 'They are equal' : capital(target)} all along ${listed(
            found.stretches.map((one) => stretchText(one, Math.max(3, decimals))),
            mostSaid,
          )}.`,
        ]
      : []),
  ]
  return {
    ...emptyResult,
    marks,
    notes,
    verdict,
    tables:
      rows.length === 0
        ? []
        : [
            {
              name: 'Solutions' as const,
              columns: [letter, `${name}(${letter})`, ...(own ? [`${line.curve}(${letter})`] : [])],
              rows,
              count: rows.length,
              open: true,
            },
          ],
  }
}

const capital = (text: string) =>
  /^[a-z]\S/.test(text) && !/^[a-z]′/.test(text) ? text[0]!.toUpperCase() + text.slice(1) : text
