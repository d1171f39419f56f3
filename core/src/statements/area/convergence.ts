import { riemannTotal } from '../../calculus/riemann'
import {
  countByBound,
  fittedOrder,
  mostTried,
  smallestCount,
  usualOrder,
} from '../../calculus/sumErrors'
import { formatNumber, formatPower, formatShort } from '../../vocabulary/numbers'
import type { AreaLine } from './line'
import type { LineContext, ResultChart, ResultTable } from '../contract'
import { remember, type SpanFacts } from '../shared/spanFacts'

const rules = ['left', 'right', 'midpoint', 'trapezoid', 'simpson'] as const
const counts = [2, 4, 8, 16, 32, 64, 128, 256, 512, 1024]

interface Convergence {
  tables: ResultTable[]
  charts: ResultChart[]
  notes: string[]
}

/** Sums and errors of the rules against the count, their orders, and how many strips are enough. */
export function convergence(line: AreaLine, facts: SpanFacts, context: LineContext): Convergence {
  const { decimals } = context
  const { f, from, to, exact, examination } = facts
  const found = remember(facts, 'convergence', () =>
    rules.map((rule) => {
      const sums = counts.map((count) => riemannTotal(f, { from, to, count, rule }))
      const errors = sums.map((s) => s - exact.value)
      const rounding = exact.errorBound + 1e-15 * Math.abs(exact.value)
      return { rule, sums, errors, order: fittedOrder(counts, errors, rounding) }
    }),
  )
  const digits = Math.max(decimals, 6)
  const rows = counts.map((n, i) => ({
    cells: [String(n), ...found.map(({ sums }) => formatNumber(sums[i]!, digits))],
    values: [n, ...found.map(({ sums }) => sums[i]!)],
  }))
  const series = found.map(({ rule, errors }) => ({
    name: rule,
    points: counts.flatMap((n, i): [number, number][] =>
      Math.abs(errors[i]!) > 0 ? [[n, Math.abs(errors[i]!)]] : [],
    ),
  }))
  const tolerance = context.number(line.tolerance)
  const kinked = (examination?.breaks ?? []).some((b) => b.x > from && b.x < to)
  const orders = found.map(({ rule, order }) => {
    const usual = usualOrder(rule)!
    if (order === null) return `${rule}: no even fall`
    const text = formatNumber(order, 2)
    return Math.abs(order - usual) < 0.15
      ? `${rule} ${text}`
      : `${rule} ${text} instead of ${usual}`
  })
  const odd = found.some(
    ({ rule, order }) => order !== null && Math.abs(order - usualOrder(rule)!) >= 0.15,
  )
  return {
    tables: [{ name: 'Counts', columns: ['n', ...rules], rows, count: rows.length, open: false }],
    charts: [
      {
        name: 'Error against n',
        xLabel: 'n',
        yLabel: '|error|',
        logarithmic: true,
        series,
        summary: `Order of each fall, from the last counts: ${orders.join(', ')}.`,
      },
      {
        name: 'Sum against n',
        xLabel: 'n',
        yLabel: 'sum',
        logarithmic: false,
        series: found.map(({ rule, sums }) => ({
          name: rule,
          points: counts.slice(0, 6).map((n, i): [number, number] => [n, sums[i]!]),
        })),
        summary: `All of them close in on ${formatNumber(exact.value, digits)}.`,
      },
    ],
    notes: [
      `Doubling n divides the error by 2 to the order: ${orders.join(', ')}.`,
      ...(odd ? [whyOdd(facts, kinked)] : []),
      ...(tolerance.ok && tolerance.value > 0 ? enough(facts, tolerance.value, context) : []),
    ],
  }
}

function whyOdd({ f, from, to }: SpanFacts, kinked: boolean): string {
  const [left, right] = [f.beside(from, 1, 1)[1]!, f.beside(to, -1, 1)[1]!]
  if (!Number.isFinite(left) || !Number.isFinite(right)) {
    return 'The slope is infinite at an end, which lowers the orders.'
  }
  if (kinked) return 'A kink or a jump on the span lowers the orders.'
  const [a, b] = [f.value(from), f.value(to)]
  if (Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a))) {
    return 'Equal values at both ends make the main part of the error cancel.'
  }
  return 'The main part of the error cancels here.'
}

/** How many strips keep the error under a tolerance, by trying and by the bound. */
function enough(facts: SpanFacts, tolerance: number, { decimals }: LineContext): string[] {
  const { f, from, to, exact } = facts
  const said = remember(facts, `enough ${tolerance}`, () =>
    (['left', 'midpoint', 'trapezoid', 'simpson'] as const).map((rule) => {
      const tried = smallestCount(f, { from, to, rule, area: exact.value, tolerance })
      const bound = countByBound(f, { from, to, rule, tolerance })
      return `${rule} ${tried?.count ?? `over ${mostTried}`}${bound === null ? '' : ` (sure with ${bound})`}`
    }),
  )
  const under = tolerance < 1e-4 ? formatPower(tolerance) : formatShort(tolerance, decimals + 6)
  return [`Strips until the error is under ${under}: ${said.join(', ')}.`]
}
