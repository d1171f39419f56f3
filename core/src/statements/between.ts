import { z } from 'zod'
import { type AreaJoint, areaBetween, differenceOf } from '../calculus/areas'
import { integrate } from '../calculus/integrate'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { call, keyOf } from '../formula/tree'
import { type End, exactAreaNumber } from '../vocabulary/exactArea'
import { formatNumber, formatShort } from '../vocabulary/numbers'
import { placeTextSchema } from '../vocabulary/members'
import { listed, unitOfArea, withUnit } from '../vocabulary/units'
import { failed, type LineContext, type StatementKind } from './contract'
import { endOf, tellWithin, toldReadout } from './shared/toldNumbers'
import { lookOver, overSpanFields } from './shared/overSpan'
import {
  curveSlot,
  curveText,
  likelySpan,
  parseCurveRef,
  spanIn,
  spanSlot,
  wordsAfter,
} from './shared/slots'

/** Area between q and r over [0, 10]. */
export const betweenLineSchema = z.strictObject({
  kind: z.literal('between'),
  ...overSpanFields,
  order: z.int().min(0).max(3),
  /** The name of the other curve. */
  target: placeTextSchema,
})
export type BetweenLine = z.infer<typeof betweenLineSchema>

export const betweenKind: StatementKind<BetweenLine> = {
  kind: 'between',
  schema: betweenLineSchema,
  topic: 'areas',
  said: ['between', 'area between'],
  uses: { curves: ['curve'], spans: ['span'], numbers: ['target'] },
  whenAdded: ({ curve, order, target }) => ({ lane: { curve, order }, other: target }),
  drawn: { tinted: 'areas' },

  sentence: (line, context) => [
    { text: 'Area between ' },
    curveSlot(line, context),
    { text: ' and ' },
    {
      slot: 'target',
      field: 'target',
      text: line.target.replaceAll("'", '′'),
      source: line.target,
      latex: line.target,
    },
    { text: ' over ' },
    spanSlot(line.span, context),
  ],

  evaluate(line, context) {
    const over = lookOver(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const ref = parseCurveRef(line.target)
    const other = ref && context.curve(ref.curve)
    if (!ref || !other?.ok) {
      return failed({
        message: `there is no curve ${line.target}`,
        fix: 'name another curve of this study',
      })
    }
    if (!curve.formula || !other.curve.formula) {
      return failed({ message: 'both curves need a formula for a proven area' })
    }
    if (from < other.curve.reach.from || to > other.curve.reach.to) {
      return failed({
        message: `the span reaches beyond that of ${line.target}`,
        fix: 'choose a shorter span',
      })
    }
    const [f, g] = [curve.derivative(line.order).f, other.curve.derivative(ref.order).f]
    // The other curve may change under the same name, so it is the owner's key that holds it.
    const pairs = context.memo(curve, 'pairs', () => new WeakMap<object, object>())
    const pair = pairs.get(other.curve) ?? {}
    pairs.set(other.curve, pair)
    const key = `between ${line.order} ${ref.order} ${from} ${to}`
    const area = context.memo(pair, key, () => areaBetween(f, g, from, to))
    const { variable, decimals } = context
    const unit = unitOfArea(curve.unit, variable.unit)
    const show = (x: number) => formatShort(x, Math.max(3, decimals))
    const placesOf = (how: AreaJoint['how']) =>
      area.joints.filter((j) => j.how === how).map((j) => show(j.x))
    const [crossings, touching] = [placesOf('crosses'), placesOf('touches')]
    const at = (how: AreaJoint['how'], words: string) =>
      placesOf(how).length === 0
        ? []
        : [`At ${variable.letter} = ${listed(placesOf(how), mostListed)} ${words}.`]
    const told = toldBetween(
      { f, g, total: area.total, signed: area.signed },
      line,
      [from, to],
      context,
    )
    const readouts = context.memo(pair, `${key} told ${told.key}`, told.work)
    return {
      readouts: [
        toldReadout('area', readouts.area, unit),
        toldReadout('difference', readouts.difference, unit),
      ],
      marks: [
        {
          kind: 'shade',
          id: 'area',
          layer: 'insides',
          lane: { curve: line.curve, order: line.order },
          from,
          to,
          of: { curve: line.curve, order: line.order },
          against: ref,
        },
      ],
      problems: area.diverges ? [{ message: 'the area between them grows without bound' }] : [],
      hints: [],
      notes: [
        ...area.parts.map((p) => {
          const where = `From ${show(p.from)} to ${show(p.to)}`
          if (p.side === 0) return `${where} they are equal all along.`
          const above = p.side > 0 ? curveText(line) : line.target
          return `${where} ${above} lies above: ${withUnit(formatNumber(Math.abs(p.area), decimals), unit)}.`
        }),
        ...at('touches', 'they touch and do not cross'),
        ...at('jumps', 'they change sides by a jump, without meeting'),
        ...at('missing', 'they change sides where one of them has no value, without meeting'),
      ],
      verdict: {
        complete: area.complete,
        text: area.complete
          ? crossings.length === 0
            ? `They do not cross on this span${touching.length > 0 ? ', though they touch' : ''}: proven`
            : `Complete: they cross at ${listed(crossings, mostListed)} and nowhere else`
          : 'Not every crossing could be settled',
        unresolved: [],
      },
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'area between', 'between')
    if (rest === null || request.text === '') return []
    const { span, rest: words } = spanIn(rest)
    const [first, second] = words.split(/\s+(?:and\s+)?/)
    const named = [first, second].map((w) => (w ? parseCurveRef(w) : null))
    return request.curves.flatMap((a, i) =>
      request.curves.slice(i + 1).flatMap((b) => {
        const wanted = named.every((n) => !n || n.curve === a.name || n.curve === b.name)
        if (!wanted) return []
        return [
          {
            line: {
              kind: 'between' as const,
              id: '',
              curve: named[0]?.curve ?? a.name,
              order: named[0]?.order ?? 0,
              target: named[1] ? second! : named[0]?.curve === b.name ? a.name : b.name,
              span: likelySpan(span, request, a.name),
            },
          },
        ]
      }),
    )
  },
}

const mostListed = 8

/** Both areas as they are read, in exact form where the ends and all crossings have one. */
function toldBetween(
  { f, g, total, signed }: { f: RealFunction; g: RealFunction; total: number; signed: number },
  { span }: BetweenLine,
  [a, b]: readonly [number, number],
  context: LineContext,
) {
  const ends = [endOf(span.from, a, context), endOf(span.to, b, context)] as const
  const isTyped = ends.every((end) => end.exact !== null)
  const [from, to] = ends.map(({ x, tree }) => ({ value: x, exact: tree })) as [End, End]
  const work = () => {
    const gap = differenceOf(f, g)
    const size = compileTree(call('abs', gap.tree), { variable: gap.variable })
    const tell = (of: RealFunction, value: number) => {
      const known = { ...integrate(of, a, b), value }
      return tellWithin(exactAreaNumber(of, from, to, known), known, context, isTyped)
    }
    return { area: tell(size, total), difference: tell(gap, signed) }
  }
  const key = `${context.decimals} ${isTyped} ${ends.map(({ tree }) => keyOf(tree)).join(' ')}`
  return { key, work }
}
