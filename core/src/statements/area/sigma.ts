import { formatNumber, formatShort } from '../../vocabulary/numbers'
import type { LineContext } from '../contract'
import type { SpanFacts } from '../shared/spanFacts'
import type { AreaLine } from './line'
import { ruleOf } from './strips'
import { widthLatex, widthOf, widthTree } from './width'
import { endOf } from '../shared/toldNumbers'
import { exactRational } from '../../evaluate/exactRational'
import { toLatex } from '../../language/latex'

/** The sum in sigma notation with this study's numbers. */
export function sigmaLatex(
  line: AreaLine,
  { from, to }: SpanFacts,
  n: number,
  position: number,
  context: LineContext,
  sum: number,
): string {
  const { decimals, variable } = context
  const ends = [endOf(line.span.from, from, context), endOf(line.span.to, to, context)] as const
  const tree = widthTree([ends[0].tree, ends[1].tree], n)
  const rule = ruleOf(line, position)
  const short = (x: number) => formatShort(x, 6).replaceAll('−', '-')
  const width = tree ? toLatex(tree) : widthLatex(widthOf(from, to, n))
  const name = `${line.curve}${"'".repeat(line.order)}`
  const isPlain = exactRational(ends[0].tree) !== null
  const start = from === 0 ? '' : `${isPlain ? short(from) : toLatex(ends[0].tree)} + `
  const at = (shift: string) => `${name}\\left(${start}${shift}\\cdot ${width}\\right)`
  const { letter } = variable
  const strip = `[${letter}_{i-1},\\,${letter}_i]`
  const value = Number.isFinite(sum)
    ? ` \\approx ${formatNumber(sum, decimals).replaceAll('−', '-')}`
    : ''
  const total = (terms: string, count = n) =>
    `\\sum_{i=1}^{${count}} ${terms}\\cdot ${width}${value}`
  switch (rule) {
    case null:
      return total(`${name}(${letter}_i^*)`).concat(`,\\quad ${letter}_i^* \\in ${strip}`)
    case 'left':
      return total(at('(i - 1)'))
    case 'right':
      return total(at('i'))
    case 'midpoint':
      return total(at('(i - \\tfrac12)'))
    case 'trapezoid':
      return total(`\\frac{${at('(i - 1)')} + ${at('i')}}{2}`)
    case 'simpson':
      return total(`\\frac{${at('(2i - 2)')} + 4${at('(2i - 1)')} + ${at('2i')}}{3}`, n / 2)
    case 'lower':
      return total(`\\Bigl(\\min_{${strip}} ${name}\\Bigr)`)
    case 'upper':
      return total(`\\Bigl(\\max_{${strip}} ${name}\\Bigr)`)
    default:
      return total(at(`(i - 1 + ${short(rule.position)})`))
  }
}
