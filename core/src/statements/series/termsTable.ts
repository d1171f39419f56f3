import type { RealFunction } from '../../evaluate/compile'
import { formatNumber, formatPower, formatShort, formatTiny } from '../../vocabulary/numbers'
import { lazyTable, type LineContext, type ResultTable } from '../contract'
import { curveText } from '../shared/slots'
import type { TaylorLine } from './line'
import type { Term } from './terms'

type Function = RealFunction

/** The terms with what they are made of, and at a place how their sum closes in. */
export function termsTable(
  terms: readonly Term[],
  x: number,
  b: number,
  f: Function,
  line: TaylorLine,
  context: LineContext,
): ResultTable {
  const digits = Math.max(6, context.decimals)
  const { letter } = context.variable
  const name = curveText(line)
  return lazyTable(
    {
      name: 'Terms',
      columns: [
        'k',
        `${name}⁽ᵏ⁾(${formatShort(x, 4)})`,
        'k!',
        'coefficient',
        `term at ${letter} = ${formatShort(b, 4)}`,
        'sum so far',
        'error',
      ],
      count: terms.length,
      open: false,
    },
    () => {
      let [sum, factorial] = [0, 1]
      const truth = f.value(b)
      return terms.map(({ k, derivative, coefficient, text }) => {
        if (k > 1) factorial *= k
        const own = [
          formatTiny(derivative, digits),
          factorial < 1e15 ? String(factorial) : formatPower(factorial, 6),
          text,
        ]
        const term = coefficient * (b - x) ** k
        sum += term
        const error = truth - sum
        return {
          cells: [
            String(k),
            ...own,
            formatTiny(term, digits),
            formatNumber(sum, digits),
            Number.isFinite(error) ? formatTiny(error, digits) : '—',
          ],
          values: [
            k,
            derivative,
            factorial,
            coefficient,
            term,
            sum,
            Number.isFinite(error) ? error : null,
          ],
        }
      })
    },
  )
}
