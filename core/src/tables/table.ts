import type { RealFunction } from '../evaluate/compile'
import { differenceQuotient } from '../calculus/secant'

export const tableColumns = [
  'x',
  'f(x)',
  'f(x+h)',
  'f(x-h)',
  'forward',
  'backward',
  'central',
  "f'(x)",
  "f''(x)",
] as const
export type TableColumn = (typeof tableColumns)[number]

export interface TableOptions {
  from: number
  to: number
  /** From one row to the next; may be below 0 where the span runs down. */
  step: number
  /** The step of shifted values and quotients. */
  h: number
  columns: readonly TableColumn[]
}

export interface Table {
  columns: TableColumn[]
  /** One number for each column; NaN where f has no value. */
  rows: number[][]
}

export const mostRows = 100_000

/** How many rows a table has; RangeError where it has none or too many. */
export function rowCount(from: number, to: number, step: number): number {
  if (![from, to, step].every(Number.isFinite) || step === 0) {
    throw new RangeError(`a table needs finite ends and a step: ${from} to ${to} by ${step}`)
  }
  // A last row that rounding has set a hair beyond the end still counts.
  const count = Math.floor((to - from) / step + 1e-9) + 1
  if (count < 1) throw new RangeError(`steps of ${step} lead away from ${to}`)
  if (count > mostRows) throw new RangeError(`a table has ${mostRows} rows at the most: ${count}`)
  return count
}

/**
 * Places from `from` to `to`, the last one at or before `to`. Each is from + i·step rounded to the
 * decimals the three numbers are written with, so that 0.1 · 3 reads 0.3.
 */
export function placesOf(from: number, to: number, step: number): Float64Array {
  const decimals = Math.max(decimalsOf(from), decimalsOf(step))
  return Float64Array.from({ length: rowCount(from, to, step) }, (_, i) => {
    const x = from + i * step
    return decimals <= 15 ? Number(x.toFixed(decimals)) : x
  })
}

function decimalsOf(value: number): number {
  const [mantissa = '', exponent = '0'] = String(Math.abs(value)).split('e')
  return Math.max(0, (mantissa.split('.')[1]?.length ?? 0) - Number(exponent))
}

/** A table of f, its shifted values, difference quotients and derivatives. */
export function tabulate(f: RealFunction, options: TableOptions): Table {
  const { from, to, step, h } = options
  const columns = [...options.columns]
  const unknown = columns.find((c) => !tableColumns.includes(c))
  if (unknown !== undefined) throw new RangeError(`unknown column: ${unknown}`)
  const xs = placesOf(from, to, step)
  const shifted = (by: number) => f.values(xs.map((x) => x + by))
  const derivatives = (order: number) =>
    Float64Array.from(xs, (x) => f.derivatives(x, order)[order]!)
  const quotients = (rule: 'forward' | 'backward' | 'central') =>
    Float64Array.from(xs, (x) => differenceQuotient(f, x, h, rule).value)
  const make: Record<TableColumn, () => Float64Array> = {
    x: () => xs,
    'f(x)': () => f.values(xs),
    'f(x+h)': () => shifted(h),
    'f(x-h)': () => shifted(-h),
    forward: () => quotients('forward'),
    backward: () => quotients('backward'),
    central: () => quotients('central'),
    "f'(x)": () => derivatives(1),
    "f''(x)": () => derivatives(2),
  }
  const values = columns.map((column) => make[column]())
  return { columns, rows: Array.from(xs, (_, i) => values.map((column) => column[i]!)) }
}

/** Places where readings were taken, with slopes between neighbours. */
export interface ReadingQuotients {
  /** To the next reading, from the one before, and across both; NaN at the ends. */
  forward: number
  backward: number
  central: number
}

/** Difference quotients of readings, equal widths or not. */
export function readingQuotients(xs: ArrayLike<number>, ys: ArrayLike<number>): ReadingQuotients[] {
  const slope = (i: number, k: number) =>
    i < 0 || k >= xs.length ? NaN : (ys[k]! - ys[i]!) / (xs[k]! - xs[i]!)
  return Array.from({ length: xs.length }, (_, i) => ({
    forward: slope(i, i + 1),
    backward: slope(i - 1, i),
    central: slope(i - 1, i + 1),
  }))
}
