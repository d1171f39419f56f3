import { oneSign, placeIs, treeSaid } from './shared/said'
import { z } from 'zod'
import { type AreaJoint, areaBetween, differenceOf, type TotalArea } from '../calculus/areas'
import { integrate } from '../calculus/integrate'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { exactZero } from '../algebra/exactZeros/exactZeros'
import { simplify } from '../algebra/simplify'
import { call, keyOf, negate, type Tree } from '../formula/tree'
import { type End, exactAreaNumber } from '../vocabulary/exactArea'
import { sayNumber } from '../vocabulary/numbers'
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
    const { variable } = context
    const unit = unitOfArea(curve.unit, variable.unit)
    const told = toldBetween({ f, g, area }, line, [from, to], context)
    const readouts = context.memo(pair, `${key} told ${told.key}`, told.work)
    const placesOf = (how: AreaJoint['how']) =>
      area.joints.filter((j) => j.how === how).map((j) => readouts.placeSaid(j.x))
    const [crossings, touching] = [placesOf('crosses'), placesOf('touches')]
    const at = (how: AreaJoint['how'], words: string) =>
      placesOf(how).length === 0
        ? []
        : [`At ${placeIs(variable.letter, listed(oneSign(placesOf(how)), mostListed))} ${words}.`]
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
        ...area.parts.map((p, i) => {
          const [left, right] = [p.from, p.to].map(readouts.placeSaid)
          const where = `From ${left} to ${right}`
          if (p.side === 0) return `${where} they are equal all along.`
          const above = p.side > 0 ? curveText(line) : line.target
          return `${where} ${above} lies above: ${withUnit(readouts.parts[i]!, unit)}.`
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
            : `Complete: they cross at ${listed(oneSign(crossings), mostListed)} and nowhere else`
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

/** Longer lists of parts go without exact forms. */
const mostExact = 12

/** The areas and the places between them as they are read: in exact form where they have one. */
function toldBetween(
  { f, g, area }: { f: RealFunction; g: RealFunction; area: TotalArea },
  { span }: BetweenLine,
  [a, b]: readonly [number, number],
  context: LineContext,
) {
  const { decimals } = context
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
    const isShort = area.parts.length <= mostExact
    const endAt = (x: number): End => {
      const end = ends.find((one) => one.x === x)
      return { value: x, exact: end ? end.tree : isShort ? crossingAt(gap, x) : null }
    }
    const places = Math.max(3, decimals)
    const known = new Map([a, b, ...area.joints.map(({ x }) => x)].map((x) => [x, endAt(x)]))
    return {
      area: tell(size, area.total),
      difference: tell(gap, area.signed),
      placeSaid: (x: number) => {
        const exact = known.get(x)?.exact
        return exact ? treeSaid(exact, places) : sayNumber(x, places)
      },
      parts: area.parts.map((part) => {
        const [p, q] = [known.get(part.from), known.get(part.to)]
        const tree =
          p?.exact && q?.exact
            ? exactAreaNumber(gap, p, q, integrate(gap, part.from, part.to))
            : null
        const positive = tree && (part.side < 0 ? simplify(negate(tree)) : tree)
        return positive ? treeSaid(positive, decimals) : sayNumber(Math.abs(part.area), decimals)
      }),
    }
  }
  const key = `${decimals} ${isTyped} ${ends.map(({ tree }) => keyOf(tree)).join(' ')}`
  return { key, work }
}

/** The exact number of a crossing that was found, where it has one. */
function crossingAt(gap: RealFunction, x: number): Tree | null {
  const reach = 1e-9 * Math.max(1, Math.abs(x))
  return exactZero(gap.tree, gap.variable, { lo: x - reach, hi: x + reach })
}
