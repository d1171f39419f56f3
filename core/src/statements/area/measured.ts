import {
  type MeasuredRule,
  type MeasuredStrip,
  measuredStrips,
  type NoStrips,
} from '../../calculus/measuredSums'
import { compensatedSum } from '../../calculus/quadrature'
import { formatNumber, formatShort } from '../../vocabulary/numbers'
import { unitOfArea, withUnit } from '../../vocabulary/units'
import {
  type CurveResult,
  emptyResult,
  failed,
  type LineContext,
  type LineProblem,
  type LineResult,
} from '../contract'
import { asEstimate, numberReadout } from '../shared/lines'
import { lookOver } from '../shared/overSpan'
import { readingsWithin } from '../shared/readingsWithin'
import { stripTable } from './areaResult'
import type { AreaLine } from './line'

/** A line that says no count takes the strips as they lie; older studies say so with 1. */
const asTheyLie = new Set(['0', '1'])
export const isAsTheyLie = ({ count }: Pick<AreaLine, 'count'>) => asTheyLie.has(count.trim())

/** How a line reads its heights between readings, or null where nothing is known of them there. */
function measuredRule({ rule, position }: AreaLine, { number }: LineContext): MeasuredRule | null {
  if (rule === 'trapezoid' || rule === 'simpson') return rule
  const share = number(position)
  if (rule !== 'position' || !share.ok) return null
  return ({ 0: 'left', 0.5: 'midpoint', 1: 'right' } as const)[share.value] ?? null
}

/** Strips between the readings of a span: at their own widths, or put together to as many as asked. */
export function measuredResult(
  line: AreaLine,
  curve: CurveResult,
  context: LineContext,
): LineResult {
  const over = lookOver(line, context)
  if (!over.ok) return failed(over.problem)
  const within = readingsWithin(curve, over.from, over.to, context)
  if (!within.ok) return failed(within.problem)
  const rule = measuredRule(line, context)
  if (!rule) {
    return failed({
      message: 'between readings no height is known, so strips cannot be read so',
      fix: 'read them at the left, at the right, at the middle of pairs or along a slanted top',
    })
  }
  const asked = context.number(line.count)
  if (!asked.ok) return failed(asked.problem)
  const count = isAsTheyLie(line) ? null : Math.round(asked.value)
  if (count !== null && count < 1) {
    return failed({ message: `${formatShort(asked.value, 3)} is no count of strips` })
  }
  const { xs, ys } = within
  const made = measuredStrips(xs, ys, rule, count)
  if (!made.ok) return failed(noStripsWords(made, rule, context))
  return told(line, curve, made.strips, measuredStrips(xs, ys, 'trapezoid'), context)
}

function told(
  line: AreaLine,
  curve: CurveResult,
  strips: readonly MeasuredStrip[],
  slanted: ReturnType<typeof measuredStrips>,
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const unit = unitOfArea(curve.unit, variable.unit)
  const sumOf = (all: readonly MeasuredStrip[]) => compensatedSum(all.map((s) => s.area))
  const sum = sumOf(strips)
  const trapezoids = slanted.ok ? sumOf(slanted.strips) : NaN
  const lane = { curve: line.curve, order: 0 }
  const reference = withUnit(formatNumber(trapezoids, decimals), unit)
  const isReference = line.rule === 'trapezoid' && isAsTheyLie(line)
  return {
    ...emptyResult,
    readouts: [
      numberReadout('sum', sum, unit, decimals),
      ...(isReference ? [] : [numberReadout('difference', sum - trapezoids, unit, decimals)]),
    ].map(asEstimate),
    marks: [
      {
        kind: 'strips',
        id: 'strips',
        layer: 'insides',
        lane,
        strips: strips.map(({ from, to, height, top }) => ({
          from,
          to,
          height,
          ...(top ? { top } : {}),
        })),
        slivers: [],
        of: lane,
      },
    ],
    notes: [
      `${strips.length} ${strips.length === 1 ? 'strip' : 'strips'}, widths as they were read: an estimate, since between readings the curve is not known.${isReference ? '' : ` The difference is to the sum along slanted tops, ${reference}.`}`,
    ],
    tables: [stripTable(strips, context, curve.name)],
  }
}

/** Why readings make no strips of a kind, and what would. */
function noStripsWords(
  none: NoStrips,
  rule: MeasuredRule,
  { variable, decimals }: LineContext,
): LineProblem {
  const show = (x: number) => formatShort(x, Math.max(3, decimals))
  const what = rule === 'midpoint' ? 'midpoints take' : 'a parabola takes'
  switch (none.why) {
    case 'count':
      return {
        message: `${none.between} strips between readings cannot be put together to ${none.count} of ${rule === 'midpoint' ? 'an even number' : 'equally many'}`,
        fix: `ask for a number that divides ${rule === 'midpoint' ? none.between / 2 : none.between}, or choose another span`,
      }
    case 'odd':
      return {
        message: `${what} the strips between readings in pairs, and there are ${none.between}`,
        fix: 'choose a span with an even number of them, or a slanted top',
      }
    case 'uneven':
      return {
        message: `the reading at ${variable.letter} = ${show(none.at)} is not in the middle between ${show(none.from)} and ${show(none.to)}`,
        fix: 'choose a span with readings at equal distances, or a slanted top',
      }
  }
}
