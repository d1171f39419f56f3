import { riemannTotal } from '../../calculus/riemann'
import {
  countByBound,
  fittedOrder,
  countsKept,
  eachTried,
  mostTried,
  usualOrder,
} from '../../calculus/sumErrors'
import { equalAtEnds, orderLeft, roughPlaces } from '../../calculus/errorOrder'
import { listed } from '../../vocabulary/units'
import { formatNumber, formatPower, formatShort } from '../../vocabulary/numbers'
import type { AreaLine } from './line'
import { readerOf } from './strips'
import type { LineContext, ResultChart, ResultTable } from '../contract'
import { curveText } from '../shared/slots'
import { remember, type SpanFacts } from '../shared/spanFacts'

type Rule = (typeof rules)[number]
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
  const { f, from, to, exact } = facts
  const read = readerOf(facts, line, context)
  const found = remember(facts, 'convergence', () =>
    rules.map((rule) => {
      const sums = counts.map((count) => riemannTotal(f, { from, to, count, rule, read }))
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
  const orders = found.map(({ rule, order }) => {
    const usual = usualOrder(rule)!
    if (order === null) return `${rule}: the error does not shrink evenly`
    const text = formatNumber(order, 2)
    return Math.abs(order - usual) < sameOrder
      ? `${rule} ${text}`
      : `${rule} ${text} instead of ${usual}`
  })
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
      ...whyOdd(found, facts, context, curveText(line)),
      ...(tolerance.ok && tolerance.value > 0 ? enough(facts, tolerance.value, context) : []),
    ],
  }
}

const howWords = {
  jumps: 'jumps',
  unbounded: 'is unbounded',
  displaced: 'has a value beside its limit',
}

/** An order so much off the usual one is another one. */
const sameOrder = 0.15

/** Why rules fall with other orders than usual, a sentence for each reason. */
function whyOdd(
  found: readonly { rule: Rule; order: number | null }[],
  { f, from, to }: SpanFacts,
  { variable, decimals }: LineContext,
  name: string,
): string[] {
  const odd = found.flatMap(({ rule, order }) =>
    order !== null && Math.abs(order - usualOrder(rule)!) >= sameOrder ? [{ rule, order }] : [],
  )
  const listedRules = (all: readonly Rule[]) => listed([...all], all.length)
  const lower = odd.filter(({ rule, order }) => order < usualOrder(rule)!).map(({ rule }) => rule)
  const higher = odd.filter(({ rule, order }) => order > usualOrder(rule)!).map(({ rule }) => rule)
  const kept = found.filter(({ rule }) => !odd.some((one) => one.rule === rule))
  const sentences: string[] = []
  const rough = roughPlaces(f, from, to)[0]
  if (lower.length > 0) {
    const what = rough && curveText({ curve: name, order: rough.order })
    const at = rough && `${variable.letter} = ${formatShort(rough.x, Math.max(3, decimals))}`
    const fits = rough && lower.every((rule) => usualOrder(rule)! > orderLeft(rough) - sameOrder)
    const rest =
      kept.length > 0
        ? ` ${capital(listedRules(kept.map(({ rule }) => rule)))} ${kept.length > 1 ? 'keep theirs' : 'keeps its own'}.`
        : ''
    sentences.push(
      fits
        ? `${what!} ${howWords[rough.how]} at ${at!}, which lowers the order of ${listedRules(lower)}.${rest}`
        : `So far ${listedRules(lower)} ${lower.length > 1 ? 'fall' : 'falls'} more slowly than usual: these counts are too few to show the order.`,
    )
  }
  const equal = equalAtEnds(f, from, to)
  for (const [derivative, rules] of endTerms) {
    const gained = rules.filter((rule) => higher.includes(rule))
    if (gained.length === 0) continue
    const what = derivative === 0 ? 'values' : derivative === 1 ? 'slopes' : 'third derivatives'
    sentences.push(
      equal[derivative]
        ? `Equal ${what} at both ends make the main part of the error of ${listedRules(gained)} cancel.`
        : `The main part of the error of ${listedRules(gained)} cancels here.`,
    )
  }
  return sentences
}

/** Whose difference between the ends makes the main part of each error (Euler and Maclaurin). */
const endTerms: readonly (readonly [derivative: number, rules: readonly Rule[]])[] = [
  [0, ['left', 'right']],
  [1, ['midpoint', 'trapezoid']],
  [3, ['simpson']],
]

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)

/** From how many strips on the error stays under a tolerance: proven by a bound, or as far as tried. */
function enough(facts: SpanFacts, tolerance: number, { decimals }: LineContext): string[] {
  const { f, from, to, exact } = facts
  const found = remember(facts, `enough ${tolerance}`, () =>
    (['left', 'midpoint', 'trapezoid', 'simpson'] as const).map((rule) => {
      const sure = countByBound(f, { from, to, rule, tolerance })
      return {
        rule,
        sure,
        kept: countsKept(f, { from, to, rule, area: exact.value, tolerance, sure }),
      }
    }),
  )
  const under = tolerance < 1e-4 ? formatPower(tolerance) : formatShort(tolerance, decimals + 6)
  const said = found.map(({ rule, sure, kept }) => {
    const known = sure === null || kept?.proven ? '' : `; guaranteed from ${sure} strips on`
    if (!kept) return `${rule} none up to ${mostTried}${known}`
    const early = kept.early
      ? `; ${kept.early.meets} meets it too, ${kept.early.fails} does not`
      : ''
    return `${rule} ${kept.from} (${kept.proven ? 'proven' : 'as far as tried'}${known}${early})`
  })
  const isOpen = found.some(({ kept }) => !kept?.proven)
  return [
    `From so many strips on the error stays under ${under}: ${said.join(', ')}.`,
    ...(isOpen
      ? [`Counts were tried one by one to ${eachTried}, and in steps to ${mostTried}.`]
      : []),
  ]
}
