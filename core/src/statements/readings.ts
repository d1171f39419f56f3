import { z } from 'zod'
import type { RealFunction } from '../evaluate/compile'
import { readingsProblem } from '../calculus/measuredSums'
import { derivativeToLatex } from '../language/latex'
import { name as nameTree } from '../formula/tree'
import { formatShort, numberToFormula } from '../vocabulary/numbers'
import { commonMembers, nameSchema, type SpanText, unitSchema } from '../vocabulary/members'
import { type CurveLookup, emptyResult, failed, type StatementKind } from './contract'
import type { FitLine } from './fitLine'

const finite = z.number().finite()
export const mostReadings = 5000

/** Let q(t) be read at 25 places. */
export const readingsLineSchema = z.strictObject({
  kind: z.literal('readings'),
  ...commonMembers,
  name: nameSchema,
  unit: unitSchema,
  points: z.array(z.tuple([finite, finite])).max(mostReadings),
})
export type ReadingsLine = z.infer<typeof readingsLineSchema>

/** Readings to add under a letter: places rising, each with what was read there. */
export const readingsLine = (name: string, points: readonly [number, number][]): ReadingsLine => ({
  kind: 'readings',
  id: '',
  name,
  unit: '',
  points: [...points],
})

export const readingsKind: StatementKind<ReadingsLine> = {
  kind: 'readings',
  schema: readingsLineSchema,
  topic: 'readings',
  said: [],
  uses: { name: 'name' },
  actions({ name }) {
    const fit: FitLine = {
      kind: 'fit',
      id: '',
      curve: name,
      order: 0,
      column: 'f(x)',
      shape: 'cubic',
    }
    return [{ id: 'fit', label: 'Fit a formula', does: 'add', line: fit }]
  },
  curve: { make: readingsCurve, span: spanOfReadings, measured: true, joins: true },
  drawn: { pointWidth: 6, stands: ({ name }) => ({ curve: name, order: 0 }) },

  sentence: ({ name, points }, { variable }) => [
    { text: 'Let ' },
    {
      slot: 'curve',
      field: 'name',
      text: `${name}(${variable.letter})`,
      source: name,
      latex: `${derivativeToLatex(name, 0, variable.letter, 'primes')}(${variable.letter})`,
    },
    { text: ` be given by ${points.length} readings` },
  ],

  evaluate(line, { curve, variable, decimals }) {
    const found = curve(line.name)
    if (!found.ok) return failed(found.problem)
    const show = (x: number) => formatShort(x, decimals)
    return {
      ...emptyResult,
      marks: [
        {
          kind: 'points',
          id: 'readings',
          layer: 'ground',
          lane: { curve: line.name, order: 0 },
          points: line.points,
        },
      ],
      notes: [
        `From ${variable.letter} = ${show(found.curve.from)} to ${show(found.curve.to)}; straight between readings.`,
      ],
      offers: [{ text: 'Readings and their quotients', words: `table of ${line.name}` }],
    }
  },

  offers: () => [],
}

function spanOfReadings({ points }: ReadingsLine): SpanText {
  const [first, last] = [points[0]?.[0] ?? 0, points.at(-1)?.[0] ?? 1]
  return { from: numberToFormula(first), to: numberToFormula(last) }
}

/** Readings as a curve: straight from one to the next, so slopes are the quotients of neighbours. */
export function readingsCurve({ name, unit, points }: ReadingsLine): CurveLookup {
  const xs = points.map(([x]) => x)
  const ys = points.map(([, y]) => y)
  const problem = readingsProblem(xs, ys)
  if (problem) {
    return { ok: false, problem: { message: problem, fix: 'sort the file by its first column' } }
  }
  const f = polyline(xs, ys)
  return {
    ok: true,
    curve: {
      name,
      unit,
      tree: f.tree,
      f,
      from: xs[0]!,
      to: xs.at(-1)!,
      reach: { from: xs[0]!, to: xs.at(-1)! },
      window: null,
      stale: false,
      problems: [],
      hints: [],
      formula: false,
      readings: { xs, ys },
      derivative: (order) => ({ tree: f.tree, f: derivativeOf(f, order) }),
      drawn: (order) => (order >= 0 ? derivativeOf(f, order) : areaUnderPolyline(f, xs, ys)),
    },
  }
}

/** The straight lines through readings as a function. */
function polyline(xs: readonly number[], ys: readonly number[]): RealFunction {
  const last = xs.length - 1
  const slopes = xs.slice(1).map((x, i) => (ys[i + 1]! - ys[i]!) / (x - xs[i]!))
  /** The stretch that holds x, the left one where `side` is -1 and x is a reading. */
  const stretchAt = (x: number, side: -1 | 1): number => {
    let [lo, hi] = [0, last]
    while (lo < hi) {
      const m = (lo + hi + 1) >> 1
      if (side > 0 ? xs[m]! <= x : xs[m]! < x) lo = m
      else hi = m - 1
    }
    return Math.min(lo, last - 1)
  }
  const inside = (x: number) => x >= xs[0]! && x <= xs[last]!
  const value = (x: number) => {
    if (!inside(x)) return NaN
    const i = stretchAt(x, 1)
    return x === xs[i + 1] ? ys[i + 1]! : ys[i]! + slopes[i]! * (x - xs[i]!)
  }
  const beside = (x: number, side: -1 | 1, order: number) => {
    const slope = inside(x) ? slopes[stretchAt(x, side)]! : NaN
    const higher = new Array<number>(Math.max(0, order - 1)).fill(inside(x) ? 0 : NaN)
    return [value(x), slope, ...higher].slice(0, order + 1)
  }
  const f: RealFunction = {
    // There is no formula; the letter stands in where a size is asked for.
    tree: nameTree('x'),
    variable: 'x',
    value,
    values(at, out = new Float64Array(at.length)) {
      for (let i = 0; i < at.length; i++) out[i] = value(at[i]!)
      return out
    },
    derivatives(x, order) {
      const [left, right] = [beside(x, -1, order), beside(x, 1, order)]
      if (x === xs[0]) return right
      if (x === xs[last]) return left
      return left.map((v, k) => (k === 0 || v === right[k] ? v : NaN))
    },
    beside,
    enclose(a, b) {
      const [lo, hi] = a <= b ? [a, b] : [b, a]
      const seen = [lo, hi].filter(inside).map(value)
      for (let i = Math.max(0, stretchAt(lo, 1)); i <= last && xs[i]! <= hi; i++) {
        if (xs[i]! >= lo) seen.push(ys[i]!)
      }
      return seen.length === 0 ? [NaN, NaN] : [Math.min(...seen), Math.max(...seen)]
    },
    parameters: {},
    withParameters: () => f,
  }
  return f
}

/** Slopes of the straight lines; higher derivatives are 0 between readings. */
function derivativeOf(f: RealFunction, order: number): RealFunction {
  if (order === 0) return f
  const value = (x: number) => f.beside(x, 1, order)[order]!
  const slope: RealFunction = {
    ...f,
    value,
    values(xs, out = new Float64Array(xs.length)) {
      for (let i = 0; i < xs.length; i++) out[i] = value(xs[i]!)
      return out
    },
    derivatives: (x, n) => f.derivatives(x, order + n).slice(order),
    beside: (x, side, n) => f.beside(x, side, order + n).slice(order),
    enclose: (a, b) => {
      const seen = [a, (a + b) / 2, b].map(value).filter(Number.isFinite)
      return [Math.min(...seen), Math.max(...seen)]
    },
    withParameters: () => slope,
  }
  return slope
}

/** Trapezoids added up from the first reading. */
function areaUnderPolyline(f: RealFunction, xs: readonly number[], ys: readonly number[]) {
  const sums = [0]
  for (let i = 1; i < xs.length; i++) {
    sums.push(sums[i - 1]! + ((xs[i]! - xs[i - 1]!) * (ys[i]! + ys[i - 1]!)) / 2)
  }
  const value = (x: number) => {
    const y = f.value(x)
    if (Number.isNaN(y)) return NaN
    let i = xs.findIndex((at) => at > x) - 1
    if (i < 0) i = xs.length - 1
    return sums[i]! + ((x - xs[i]!) * (y + ys[i]!)) / 2
  }
  return {
    tree: f.tree,
    value,
    values(at: ArrayLike<number>, out = new Float64Array(at.length)) {
      for (let i = 0; i < at.length; i++) out[i] = value(at[i]!)
      return out
    },
    derivatives: (x: number, order: number) =>
      [value(x), ...f.derivatives(x, Math.max(0, order - 1))].slice(0, order + 1),
    enclose: (a: number, b: number): [number, number] => {
      const [least, greatest] = f.enclose(a, b)
      const reach = Math.abs(b - a) * Math.max(Math.abs(least), Math.abs(greatest))
      const at = value((a + b) / 2)
      return [at - reach, at + reach]
    },
  }
}
