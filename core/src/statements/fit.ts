import { fitPolynomial } from '../calculus/fit'
import { fitShape, type Shape } from '../calculus/fitShapes'
import { rationalFromNumber } from '../arithmetic/rational'
import { call, constant, name, power, product, sum, type Tree } from '../formula/tree'
import { formatNumber, sayNumber } from '../vocabulary/numbers'
import { readingQuotients } from '../tables/table'
import { failed, type LineContext, type LineResult, type StatementKind } from './contract'
import { columnOf, columnOrder } from './table'
import { curveText, wordsAfter, parseCurveRef } from './shared/slots'
import { type FitLine, columns, fitLineSchema, shapes } from './fitLine'

type FitColumn = (typeof columns)[number]

const degrees: Partial<Record<(typeof shapes)[number], number>> = {
  line: 1,
  quadratic: 2,
  cubic: 3,
  quartic: 4,
}

const named = {
  line: 'straight line',
  quadratic: 'quadratic',
  cubic: 'cubic',
  quartic: 'quartic',
  exponential: 'exponential',
  power: 'power',
  sine: 'sine',
} as const

const columnWords: Record<FitColumn, string> = {
  'f(x)': 'the values of',
  forward: 'the forward quotients of',
  backward: 'the backward quotients of',
  central: 'the central quotients of',
  "f'(x)": 'the slopes of',
}

export const fitKind: StatementKind<FitLine> = {
  kind: 'fit',
  schema: fitLineSchema,
  topic: 'tables',
  said: ['fit', 'fit a formula', 'fit a'],
  uses: { curves: ['curve'] },
  drawn: {},

  sentence: (line) => [
    { text: line.shape === 'exponential' ? 'Fit an ' : 'Fit a ' },
    {
      slot: 'choice',
      field: 'shape',
      text: named[line.shape],
      source: line.shape,
      latex: `\\text{${named[line.shape]}}`,
      choices: shapes.map((value) => ({ value, text: named[value] })),
    },
    { text: ' to ' },
    {
      slot: 'choice',
      field: 'column',
      text: columnWords[line.column],
      source: line.column,
      latex: `\\text{${columnWords[line.column]}}`,
      choices: columns.map((value) => ({ value, text: columnWords[value] })),
    },
    { text: ` ${curveText(line)}` },
  ],

  evaluate(line, context) {
    const found = readingsFor(line, context)
    if ('problem' in found) return failed(found.problem)
    const { xs, ys } = found
    try {
      return fitted(line, xs, ys, context)
    } catch (error) {
      if (!(error instanceof RangeError)) throw error
      return failed({ message: error.message, fix: 'choose another shape, or more rows' })
    }
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'fit a formula', 'fit a', 'fit')
    if (rest === null || request.text === '') return []
    const shape = shapes.find((s) => rest.startsWith(s)) ?? 'quadratic'
    // "fit a line to q" asks for q itself, "fit a line to q′" for its slopes.
    const [, said = ''] = /\b(?:to|of)\s+(?:the\s+)?(\S+)$/.exec(rest) ?? []
    const named = parseCurveRef(said)
    const itself = said === 'values' || named?.order === 0
    const columns = itself ? (['f(x)', 'central'] as const) : (['central', 'f(x)'] as const)
    const meant = request.curves.filter(({ name }) => !named || name === named.curve)
    return meant.flatMap(({ name }) =>
      columns.map((column) => ({
        line: { kind: 'fit' as const, id: '', curve: name, order: 0, column, shape },
      })),
    )
  },
}

/** What is fitted: the column of the curve's table, or the readings of a measured curve. */
function readingsFor(
  line: FitLine,
  context: LineContext,
): { xs: number[]; ys: number[] } | { problem: { message: string; fix?: string } } {
  const found = context.curve(line.curve)
  if (!found.ok) return { problem: found.problem }
  const { readings } = found.curve
  if (readings) {
    const { xs, ys } = readings
    if (line.column === 'f(x)') return { xs: [...xs], ys: [...ys] }
    const rule = line.column === "f'(x)" ? 'central' : line.column
    const slopes = readingQuotients(xs, ys).map((q) => q[rule])
    const kept = xs.flatMap((x, i): [number, number][] =>
      Number.isFinite(slopes[i]) ? [[x, slopes[i]!]] : [],
    )
    return { xs: kept.map(([x]) => x), ys: kept.map(([, y]) => y) }
  }
  const result = context.tableOf(line.curve, line.order, line.table)
  const table = result?.tables?.[0]
  const at = table?.columnIds?.indexOf(line.column)
  if (!table || at === undefined) {
    return {
      problem: { message: `there is no table of ${curveText(line)} yet`, fix: 'say “table” first' },
    }
  }
  if (at < 0) {
    return {
      problem: {
        message: `the table of ${curveText(line)} has no such column`,
        fix: 'choose its columns in the table',
      },
    }
  }
  return columnOf(table.rows, at)
}

function fitted(line: FitLine, xs: number[], ys: number[], context: LineContext): LineResult {
  const { decimals, variable } = context
  const degree = degrees[line.shape]
  const lane = {
    curve: line.curve,
    order: line.order + (columnOrder(line.column) ?? 0),
  }
  const show = (v: number) => formatNumber(v, decimals)
  let formula: Tree
  let text: string
  let rSquared: number
  let residuals: readonly number[]
  let doubt: string | null = null
  if (degree !== undefined) {
    const fit = fitPolynomial(xs, ys, degree)
    ;({ rSquared, residuals } = fit)
    formula = polynomialTree(fit.coefficients, variable.letter)
    text = polynomialText(fit.coefficients, variable.letter, decimals)
    if (xs.length <= degree + 2)
      doubt = `${xs.length} rows hardly test a formula with ${degree + 1} free numbers`
  } else {
    const fit = fitShape(xs, ys, line.shape as Shape)
    ;({ rSquared, residuals, doubt } = fit)
    const [a = 0, b = 0, c = 0, d = 0] = fit.parameters
    const x = variable.letter
    if (line.shape === 'exponential') {
      formula = product(number(a), power(constant('e'), product(number(b), name(x))))
      text = `${show(a)} e^(${show(b)}${x})`
    } else if (line.shape === 'power') {
      formula = product(number(a), power(name(x), number(b)))
      text = `${show(a)} ${x}^(${show(b)})`
    } else {
      const inside = sum(product(number(b), name(x)), number(c))
      formula = sum(product(number(a), call('sin', inside)), number(d))
      text = `${show(a)} sin(${show(b)}${x}${signed(c, decimals)})${signed(d, decimals)}`
    }
  }
  const worst = residuals.reduce((m, r) => Math.max(m, Math.abs(r)), 0)
  return {
    readouts: [
      { id: 'formula', label: 'formula', text: `y = ${text}` },
      { id: 'rSquared', label: 'R²', text: formatNumber(rSquared, 6), value: rSquared },
    ],
    marks: [
      {
        kind: 'graph',
        id: 'fit',
        layer: 'ground',
        lane,
        of: { formula, letter: variable.letter },
        from: Math.min(...xs),
        to: Math.max(...xs),
      },
    ],
    problems: [],
    hints: [],
    notes: [
      `The largest distance of a row from the formula is ${sayNumber(worst, Math.max(decimals, 6))}.`,
      ...(doubt ? [`Take it with care: ${doubt}.`] : []),
    ],
  }
}

const number = (value: number): Tree => ({
  kind: 'number',
  exact: rationalFromNumber(value),
  decimal: true,
})

/** c₀ + x(c₁ + x(c₂ + …)), as it is evaluated with the least rounding. */
const polynomialTree = (coefficients: readonly number[], letter: string): Tree =>
  coefficients
    .slice(0, -1)
    .reduceRight<Tree>(
      (rest, c) => sum(number(c), product(name(letter), rest)),
      number(coefficients.at(-1) ?? 0),
    )

function signed(value: number, decimals: number): string {
  const text = formatNumber(value, decimals)
  return text.startsWith('−') ? ` − ${text.slice(1)}` : ` + ${text}`
}

const raised = '⁰¹²³⁴⁵⁶⁷⁸⁹'

/** 0.250t² − 1.400t + 4.000, highest power first; what rounds to 0 is left out. */
export function polynomialText(
  coefficients: readonly number[],
  letter: string,
  decimals: number,
): string {
  let text = ''
  for (let k = coefficients.length - 1; k >= 0; k--) {
    const number = formatNumber(coefficients[k]!, decimals)
    if (!/[1-9]/.test(number)) continue
    const size = number.replace('−', '')
    const power = k < 2 ? '' : [...String(k)].map((d) => raised[Number(d)]).join('')
    const term = k === 0 ? size : `${/^1(\.0*)?$/.test(size) ? '' : size}${letter}${power}`
    const negative = number.startsWith('−')
    text += text === '' ? (negative ? '−' : '') + term : `${negative ? ' − ' : ' + '}${term}`
  }
  return text === '' ? formatNumber(0, decimals) : text
}
