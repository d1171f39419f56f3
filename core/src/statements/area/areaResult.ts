import { placeIs } from '../shared/said'
import { overShort, stripTop } from '../../calculus/overShort'
import type { RiemannSum, SumRule } from '../../calculus/riemann'
import { formatNotZero, formatNumber, formatShort, sayNumber } from '../../vocabulary/numbers'
import { unitOfArea, unitOfDerivative, withUnit } from '../../vocabulary/units'
import {
  type CurveResult,
  type DrawnStrip,
  emptyResult,
  lazyTable,
  type LineContext,
  type LineProblem,
  type LineResult,
  type Mark,
  type Readout,
  type ResultTable,
} from '../contract'
import { exactSum, mostExactStrips } from '../../calculus/exactSum'
import { addRational, negateRational, type Rational, zero } from '../../arithmetic/rational'
import { exactRational } from '../../evaluate/exactRational'
import { tellFraction, type Told } from '../../vocabulary/told'
import { endOf, type Place, toldReadout } from '../shared/toldNumbers'
import { curveText } from '../shared/slots'
import { remember, type SpanFacts, toldOver, toldTotal, totalOf } from '../shared/spanFacts'
import type { AreaLine } from './line'
import { convergence } from './convergence'
import { sigmaLatex } from './sigma'
import { cut, readerOf, ruleOf } from './strips'
import { totalFact, whyOf } from './why'
import { widthOf, widthText, widthTree, widthTreeText } from './width'
import { toPlain } from '../../language/print'
import { whyWords } from './words'

/** Strips beyond this are summed and not drawn one by one. */
const mostDrawn = 10_000
/** Rows of a table beyond this are left out, which it says. */
const mostRows = 10_000

/** What a sum of strips comes to beside the area itself. */
interface Sums {
  name: string
  unit: string
  sum: number
  facts: SpanFacts
  strips: readonly Strip[]
  /** How heights are read; null where they are random. */
  rule: SumRule | null
  /** A strip without a height. */
  bad: Strip | undefined
  /** Both the sum and the area are numbers. */
  measurable: boolean
  /** The area of what sticks out and of what is left out; null where that is not known. */
  apart: { over: number; short: number } | null
  /** The area with every part counted as positive, where it is told apart from the area itself. */
  total: number | null
}
type Strip = RiemannSum['strips'][number]

/** All that a line shows of n strips under a formula. */
export function stripsResult(
  line: AreaLine,
  curve: CurveResult,
  facts: SpanFacts,
  n: number,
  position: number,
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const { f, exact, area, turns, examination } = facts
  const made = cut(line, facts, n, position, context)
  if (!made) return { ...emptyResult, pending: true }
  const { strips, sum } = made
  const name = curveText(line)
  const unit = unitOfArea(unitOfDerivative(curve.unit, variable.unit, line.order), variable.unit)
  const lane = { curve: line.curve, order: line.order }
  const rule = ruleOf(line, position)
  const bad = strips.find((s) => !Number.isFinite(s.height))
  const measurable = Number.isFinite(exact.value) && !bad
  // Without its turns f could cross a strip's top unseen, and the totals would be too small.
  const apart =
    measurable && examination
      ? overShort(f, strips, rule ?? 'left', area, turns, readerOf(facts, line, context))
      : null
  const whole = examination ? totalOf(facts) : null
  const differs = whole !== null && Math.abs(whole - Math.abs(exact.value)) > 0.5 * 10 ** -decimals
  const total = differs ? whole : null
  const sums: Sums = { name, unit, sum, strips, rule, facts, bad, measurable, apart, total }
  const top =
    rule === 'trapezoid' || rule === 'simpson'
      ? stripTop(f, strips, rule, readerOf(facts, line, context))
      : null
  const marks: Mark[] =
    strips.length <= mostDrawn
      ? [
          {
            kind: 'strips',
            id: 'strips',
            layer: 'insides',
            lane,
            strips: drawnStrips(strips, top).filter((s) => Number.isFinite(s.height)),
            slivers: apart?.slivers ?? [],
            of: lane,
          },
        ]
      : [
          {
            kind: 'shade',
            id: 'area',
            layer: 'insides',
            lane,
            from: facts.from,
            to: facts.to,
            of: lane,
          },
        ]
  const chart = line.convergence && measurable ? convergence(line, facts, context) : null
  const shapes = measurable ? whyOf(line, facts, strips.length, position) : []
  const named = typeof rule === 'string' && rule !== 'lower' && rule !== 'upper' ? rule : null
  const rounding = exact.errorBound + 1e-14 * Math.abs(exact.value)
  const why = apart ? [...shapes, ...totalFact(named, shapes, apart, rounding)] : shapes
  return {
    readouts: readoutsOf(line, sums, context),
    marks,
    problems: problemsOf(sums, context),
    hints: [],
    notes: [
      widthNote(
        [endOf(line.span.from, facts.from, context), endOf(line.span.to, facts.to, context)],
        strips.length,
        context,
      ),
      ...why.map((fact) => whyWords(fact, name, { decimals, unit })),
      ...(total !== null
        ? ['Parts below the axis count against those above; the total counts every part.']
        : []),
      ...(line.rule === 'simpson' && n % 2 === 1
        ? [`A parabola takes two strips, so ${n + 1} stand here for ${n}.`]
        : []),
      ...(chart?.notes ?? []),
    ],
    tables: [...(chart?.tables ?? []), stripTable(strips, context, name)],
    charts: chart?.charts ?? [],
    sigma: sigmaLatex(line, facts, strips.length, position, context, sum),
    ...(examination ? {} : { pending: true }),
  }
}

/** Strips as they are drawn: what is level has its height alone. */
export const drawnStrips = (
  strips: readonly Omit<Strip, 'sample' | 'area'>[],
  top: ((strip: number, x: number) => number) | null,
): DrawnStrip[] =>
  strips.map(({ from, to, height }, i) => ({
    from,
    to,
    height,
    ...(top ? { top: [top(i, from), top(i, (from + to) / 2), top(i, to)] as const } : {}),
  }))

function readoutsOf(line: AreaLine, sums: Sums, context: LineContext): Readout[] {
  const { unit, sum, facts, bad, measurable, apart, total } = sums
  const { decimals } = context
  const { exact } = facts
  const told = (id: string, one: Told) => toldReadout(id, one, unit)
  const whole = toldOver('area', line, facts, context)
  const exactly = fractionOfSum(line, sums, context)
  const ofSum = exactly ? tellFraction(exactly, decimals, false) : rounded(sum, sums, decimals)
  const apartBy = differenceOf(exactly, whole, sum - exact.value, sums, decimals)
  // Of over and short one is the whole difference where the other is nothing.
  const side = (size: number, other: number, sign: 1 | -1): Told =>
    other === 0 && apartBy.fraction && size !== 0
      ? tellFraction(
          sign > 0 ? apartBy.fraction : negateRational(apartBy.fraction),
          decimals,
          false,
        )
      : rounded(size, sums, decimals)
  return [
    ...(bad ? [] : [told('sum', ofSum)]),
    ...(Number.isFinite(exact.value) ? [told('exact', whole)] : []),
    ...(measurable ? [differenceReadout(apartBy, unit)] : []),
    ...(apart
      ? [
          told('over', side(apart.over, apart.short, 1)),
          told('short', side(apart.short, apart.over, -1)),
        ]
      : []),
    ...(total !== null ? [told('total', toldTotal(line, facts, total, context))] : []),
  ]
}

/** What doubles lose in a sum of strips, as a share of their sizes added up. */
const lost = 1e-14

/** A sum of doubles: what is no more than their rounding is 0. */
function rounded(value: number, { strips }: Sums, decimals: number): Told {
  const size = strips.reduce((total, s) => total + Math.abs(s.area), 0)
  const isNothing = Math.abs(value) <= lost * size
  return isNothing
    ? tellFraction(zero, decimals, false)
    : { value, text: formatNotZero(value, decimals), certain: true }
}

/** The sum as a fraction, where its ends and all its heights are fractions. */
function fractionOfSum(line: AreaLine, { facts, rule, strips }: Sums, context: LineContext) {
  if (rule === null || strips.length > mostExactStrips) return null
  const ends = [line.span.from, line.span.to].map((text, i) =>
    exactRational(endOf(text, i === 0 ? facts.from : facts.to, context).tree),
  )
  const [from, to] = ends
  if (!from || !to) return null
  const key = `sum ${from.n}/${from.d} ${to.n}/${to.d} ${strips.length} ${JSON.stringify(rule)}`
  return remember(facts, key, () => exactSum(facts.f, [from, to], strips.length, rule))
}

/** How far the sum is from the area: exactly where both are fractions. */
function differenceOf(
  sum: Rational | null,
  whole: Told,
  known: number,
  sums: Sums,
  decimals: number,
): Told {
  if (sum && whole.fraction) {
    return tellFraction(addRational(sum, negateRational(whole.fraction)), decimals, false)
  }
  return rounded(known, sums, decimals)
}

function differenceReadout({ text, value, fraction }: Told, unit: string): Readout {
  const size = withUnit(text.replace('−', ''), unit)
  const none = fraction?.n === 0n ? 'none' : 'none to the digits shown'
  return {
    id: 'difference',
    label: 'difference',
    text: value === 0 || !/[1-9]/.test(text) ? none : `${value > 0 ? 'over' : 'short'} by ${size}`,
    value,
  }
}

function problemsOf({ name, facts, bad }: Sums, { variable, decimals }: LineContext) {
  const { undefinedOn, diverges, divergesAt } = facts.exact
  const show = (x: number) => sayNumber(x, Math.max(3, decimals))
  const problems: LineProblem[] = []
  if (undefinedOn) {
    problems.push({
      message: `${name} has no value from ${placeIs(variable.letter, show(undefinedOn[0]))} to ${show(undefinedOn[1])}`,
      fix: 'choose a span on which the curve is drawn',
    })
  }
  if (diverges) {
    problems.push({
      message: `the area grows without bound at ${placeIs(variable.letter, show(divergesAt!))}: sums do not settle`,
      fix: 'keep the span away from there',
    })
  }
  if (bad) {
    problems.push({
      message: `${name} has no value that can be read in the strip from ${show(bad.from)} to ${show(bad.to)}, so there is no sum`,
      fix: 'read the height elsewhere in the strips, or move the span',
    })
  }
  return problems
}

/** "w = (10 − 0)/16 = 0.625 h" */
function widthNote(ends: readonly [Place, Place], n: number, { variable, decimals }: LineContext) {
  const places = Math.max(3, decimals)
  const [a, b] = ends.map(({ x, tree }) => {
    const text = toPlain(tree)
    return text.length <= longestEnd ? text : formatShort(x, places)
  })
  const tree = widthTree([ends[0].tree, ends[1].tree], n)
  const width = tree
    ? widthTreeText(tree, places, variable.unit)
    : widthText(widthOf(ends[0].x, ends[1].x, n), variable.unit)
  return `w = (${b} − ${wrapped(a!)})/${n} ${width}`
}
const longestEnd = 10

const wrapped = (text: string) => (text.startsWith('−') ? `(${text})` : text)

export function stripTable(
  strips: readonly { from: number; to: number; sample: number; height: number; area: number }[],
  { variable, decimals }: LineContext,
  name: string,
): ResultTable {
  const short = (x: number) => formatShort(x, Math.max(3, decimals))
  const columns = [
    'i',
    'from',
    'to',
    `sample ${variable.letter}`,
    `height ${name}`,
    'area',
    'sum so far',
  ]
  const count = Math.min(strips.length, mostRows)
  return lazyTable({ name: 'Strips', columns, count, open: false }, () => {
    let running = 0
    return strips.slice(0, count).map((s, i) => {
      running += s.area
      return {
        cells: [
          String(i + 1),
          short(s.from),
          short(s.to),
          short(s.sample),
          formatNumber(s.height, decimals),
          formatNumber(s.area, decimals),
          formatNumber(running, decimals),
        ],
        values: [i + 1, s.from, s.to, s.sample, s.height, s.area, running],
        x: s.sample,
      }
    })
  })
}
