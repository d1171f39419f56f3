import { z } from 'zod'
import type { RealFunction } from '../evaluate/compile'
import { heldAt } from '../features/held'
import { formatNumber, formatShort } from '../vocabulary/numbers'
import { placeTextSchema } from '../vocabulary/members'
import { readingQuotients, tableColumns, type TableColumn, tabulate } from '../tables/table'
import {
  type CurveResult,
  failed,
  type LineContext,
  type LineResult,
  type Mark,
  type StatementKind,
} from './contract'
import type { FitLine } from './fitLine'
import { lookOver, offersOver, overSpanFields } from './shared/overSpan'
import { curveSlot, curveText, placeText, spanSlot, wordsAfter } from './shared/slots'

/** Table of q over [0, 10] by 0.5. */
export const tableLineSchema = z.strictObject({
  kind: z.literal('table'),
  ...overSpanFields,
  order: z.int().min(0).max(3),
  step: placeTextSchema,
  /** The distance of shifted values and quotients. */
  h: placeTextSchema,
  columns: z.array(z.enum(tableColumns)).min(1).max(tableColumns.length),
})
export type TableLine = z.infer<typeof tableLineSchema>

export const usualColumns: TableColumn[] = ['x', 'f(x)', 'forward', 'central', "f'(x)"]
/** Columns that readings have: between them nothing is known. */
export const readingColumns: TableColumn[] = ['x', 'f(x)', 'forward', 'backward', 'central']
/** More points than this are not drawn: they would hide the curve. */
const mostDrawn = 2000

export const tableKind: StatementKind<TableLine> = {
  kind: 'table',
  schema: tableLineSchema,
  topic: 'tables',
  said: ['table', 'table of'],
  uses: { curves: ['curve'], spans: ['span'], numbers: ['step', 'h'] },
  actions(line, { letter, isMeasured }) {
    const { curve, order, columns } = line
    const name = curveText(line)
    const offered = isMeasured(curve) && order === 0 ? readingColumns : tableColumns
    const column = columns.includes('central') ? ('central' as const) : ('f(x)' as const)
    const fit: FitLine = {
      kind: 'fit',
      id: '',
      curve,
      order,
      column,
      shape: 'quadratic',
      table: line.id,
    }
    return [
      {
        id: 'columns',
        label: 'Columns',
        does: 'choose',
        field: 'columns',
        all: tableColumns,
        options: offered.map((value) => {
          const chosen = columns.includes(value)
          const fixed = value === 'x' || (chosen && columns.length === 1)
          return { value, text: columnTitle(value, name, letter), chosen, fixed }
        }),
      },
      { id: 'fit', label: 'Fit a formula', does: 'add', line: fit },
    ]
  },
  tabulates: ({ curve, order }) => ({ curve, order }),
  drawn: { pointWidth: 6 },

  sentence: (line, context) => [
    { text: 'Table of ' },
    curveSlot(line, context),
    { text: ' over ' },
    spanSlot(line.span, context),
    ...(context.isMeasured(line.curve) && line.order === 0
      ? [{ text: ' at its readings' }]
      : [
          { text: ' by ' },
          { slot: 'number' as const, field: 'step', ...placeText(line.step, context) },
          ...(line.columns.some(usesDistance)
            ? [
                { text: ', quotients with h = ' },
                { slot: 'number' as const, field: 'h', ...placeText(line.h, context) },
              ]
            : []),
        ]),
  ],

  evaluate(line, context) {
    const over = lookOver(line, context)
    if (!over.ok) return failed(over.problem)
    if (over.curve.readings && line.order === 0) {
      const rows = rowsOfReadings(line, over.curve.readings, over.from, over.to)
      return withRows(line, rows, context, null)
    }
    const [step, h] = [context.number(line.step), context.number(line.h)]
    if (!step.ok) return failed(step.problem)
    if (!h.ok) return failed(h.problem)
    if (step.value <= 0) {
      return failed({
        message: `a table goes on by a step above 0, and ${line.step} is ${formatShort(step.value, 6)}`,
        fix: 'use a step such as 0.5',
      })
    }
    if (h.value === 0 && line.columns.some(usesDistance)) {
      return failed({
        message: 'h is 0: a quotient would divide by 0',
        fix: 'use a small h such as 0.001',
      })
    }
    const rows = Math.floor((over.to - over.from) / step.value + 1e-9) + 1
    if (rows > mostTableRows) {
      return failed({
        message: `a step of ${formatShort(step.value, 9)} makes ${rows} rows`,
        fix: `use a larger step: ${mostTableRows} rows are the most`,
      })
    }
    const { curve, from, to } = over
    const { f } = curve.derivative(line.order)
    const table = tabulate(f, { from, to, step: step.value, h: h.value, columns: line.columns })
    return withRows(line, table.rows, context, curve.formula ? f : null)
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'table of', 'table')
    if (rest === null || request.text === '') return []
    const [, words = '', by, h] =
      /^(.*?)(?:\s*\bby\s+([^\s,]+))?(?:\s*,?\s*(?:quotients with\s+)?h\s*=\s*(\S+))?$/.exec(
        rest,
      ) ?? []
    return offersOver(words, request, 3, (ref, span) => ({
      kind: 'table' as const,
      id: '',
      ...ref,
      span,
      step: by ?? '0.5',
      h: h ?? '0.001',
      columns: request.measured.includes(ref.curve) ? readingColumns : usualColumns,
    }))
  },
}

const mostTableRows = 20_000
const usesDistance = (column: TableColumn) =>
  ['f(x+h)', 'f(x-h)', 'forward', 'backward', 'central'].includes(column)

/** A column's head in the study's own letters. */
export function columnTitle(column: TableColumn, name: string, letter: string): string {
  const titles: Record<TableColumn, string> = {
    x: letter,
    'f(x)': `${name}(${letter})`,
    'f(x+h)': `${name}(${letter} + h)`,
    'f(x-h)': `${name}(${letter} − h)`,
    forward: 'forward quotient',
    backward: 'backward quotient',
    central: 'central quotient',
    "f'(x)": `${name}′(${letter})`,
    "f''(x)": `${name}′′(${letter})`,
  }
  return titles[column]
}

/** The order of derivative whose lane a column's numbers belong to, above the table's own. */
export const columnOrder = (column: TableColumn): number | null =>
  column === 'f(x)'
    ? 0
    : ['forward', 'backward', 'central', "f'(x)"].includes(column)
      ? 1
      : column === "f''(x)"
        ? 2
        : null

function withRows(
  line: TableLine,
  rows: number[][],
  { variable, decimals }: LineContext,
  /** What the rows are values of, where that is a formula. */
  f: RealFunction | null,
): LineResult {
  const name = curveText(line)
  const xAt = line.columns.indexOf('x')
  const shown = (value: number, column: TableColumn, x: number) => {
    if (column === 'x') return formatShort(value, 9)
    if (Number.isFinite(value)) return formatNumber(value, decimals)
    // Where a double cannot hold a value there still is one.
    return column === 'f(x)' && f && heldAt(f, x) === 'tooLarge' ? 'too large' : '—'
  }
  const marks: Mark[] = line.columns.flatMap((column, k): Mark[] => {
    const order = columnOrder(column)
    // One row of points for each lane: the values, and the first column of quotients.
    const first = line.columns.findIndex((c) => columnOrder(c) === order) === k
    if (order === null || !first || xAt < 0 || column === "f'(x)" || column === "f''(x)") return []
    const points = rows.flatMap((row): [number, number][] =>
      Number.isFinite(row[k]) ? [[row[xAt]!, row[k]!]] : [],
    )
    if (points.length > mostDrawn) return []
    const lane = { curve: line.curve, order: line.order + order }
    return [{ kind: 'points', id: column, layer: 'ground', lane, points }]
  })
  return {
    readouts: [],
    marks,
    problems: [],
    hints: [],
    tables: [
      {
        name: 'Values',
        columns: line.columns.map((c) => columnTitle(c, name, variable.letter)),
        columnIds: line.columns,
        count: rows.length,
        rows: rows.map((row) => ({
          cells: row.map((v, k) => shown(v, line.columns[k]!, row[xAt] ?? NaN)),
          values: row.map((v) => (Number.isFinite(v) ? v : null)),
          ...(xAt < 0 ? {} : { x: row[xAt]! }),
        })),
        open: true,
      },
    ],
  }
}

/** The numbers of one column of a table, or of readings, beside their places. */
export function columnOf(
  rows: readonly { values: readonly (number | null)[]; x?: number }[],
  column: number,
): { xs: number[]; ys: number[] } {
  const pairs = rows.flatMap(({ x, values }): [number, number][] => {
    const y = values[column]
    return x === undefined || y === null || y === undefined ? [] : [[x, y]]
  })
  return { xs: pairs.map(([x]) => x), ys: pairs.map(([, y]) => y) }
}

/** The readings inside a span, with the quotients of neighbours, whose distances may differ. */
function rowsOfReadings(
  { columns }: TableLine,
  { xs, ys }: NonNullable<CurveResult['readings']>,
  from: number,
  to: number,
): number[][] {
  return readingQuotients(xs, ys).flatMap((quotients, i) => {
    const x = xs[i]!
    if (x < from || x > to) return []
    const known: Partial<Record<TableColumn, number>> = { x, 'f(x)': ys[i]!, ...quotients }
    return [columns.map((column) => known[column] ?? NaN)]
  })
}
