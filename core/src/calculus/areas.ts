import type { RealFunction } from '../evaluate/compile'
import { compileTree } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { substitute } from '../algebra/curves'
import { solve } from '../features/solve'
import { stretchesOf } from '../features/splits'
import { budgetOf, finish } from '../features/budget'
import { name, negate, sum } from '../formula/tree'
import { integrate } from './integrate'
import { compensatedSum } from './quadrature'
import { simplify } from '../algebra/simplify'

/** A stretch on which f keeps its sign, with the signed area over it. */
export interface AreaPart {
  from: number
  to: number
  area: number
  /** f is 0 where the part begins; else its sign changes there by a jump, or the span begins. */
  meets: boolean
}

export interface TotalArea {
  /** Parts below the axis, or below the other curve, count against those above. */
  signed: number
  /** Every part counts as positive. */
  total: number
  errorBound: number
  parts: AreaPart[]
  /** The crossings are proven to be all. */
  complete: boolean
  diverges: boolean
}

/**
 * The area between f and the axis over [from, to], signed and total, cut at the proven zeros of f
 * and where f changes its sign by a jump. Ends the wrong way round are put right. NaN where f has no
 * values on a part.
 */
export function areaUnder(f: RealFunction, from: number, to: number): TotalArea {
  const [a, b] = from <= to ? [from, to] : [to, from]
  if (a === b) {
    return { signed: 0, total: 0, errorBound: 0, parts: [], complete: true, diverges: false }
  }
  const { solutions, complete } = solve(f, 0, a, b)
  const tree = withValues(f.tree, f.parameters)
  const { splits, unresolved } = finish(stretchesOf(tree, f.variable, a, b, budgetOf()))
  const zeros = solutions.map(({ x }) => ({ x, meets: true }))
  const joins = splits
    .map(({ enclosure: { lo, hi } }) => ({ x: lo + (hi - lo) / 2, meets: false }))
    .filter(({ x }) => !zeros.some((z) => Math.abs(z.x - x) <= closest(x)))
  const cuts = [...zeros, ...joins].filter(({ x }) => x > a && x < b).sort((p, q) => p.x - q.x)
  const starts = [{ x: a, meets: false }, ...cuts]
  const found = starts.map(({ x, meets }, i) => {
    const to = starts[i + 1]?.x ?? b
    return { from: x, to, meets, ...integrate(f, x, to) }
  })
  const areas = found.map((p) => p.value)
  return {
    signed: compensatedSum(areas) + 0,
    total: compensatedSum(areas.map(Math.abs)),
    errorBound: found.reduce((total, p) => total + p.errorBound, 0),
    parts: partsOf(found),
    complete: complete && unresolved.length === 0,
    diverges: found.some((p) => p.diverges),
  }
}

/** Nearer than this a join of pieces is the zero that was found there. */
const closest = (x: number) => 2e-9 * Math.max(1, Math.abs(x))

/** Pieces that join without a change of sign are one part. */
function partsOf(found: readonly (Omit<AreaPart, 'area'> & { value: number })[]): AreaPart[] {
  const parts: AreaPart[] = []
  for (const { from, to, meets, value } of found) {
    const last = parts.at(-1)
    if (last && !meets && last.area * value >= 0) {
      last.to = to
      last.area += value
    } else parts.push({ from, to, area: value, meets })
  }
  return parts
}

/** The area between two curves, cut where they meet: signed is that of f − g. */
export const areaBetween = (
  f: RealFunction,
  g: RealFunction,
  from: number,
  to: number,
): TotalArea => areaUnder(differenceOf(f, g), from, to)

/** f − g as a function of f's variable. */
export function differenceOf(f: RealFunction, g: RealFunction): RealFunction {
  const { variable } = f
  const own = withValues(f.tree, f.parameters)
  const other = substitute(withValues(g.tree, g.parameters), g.variable, name(variable))
  return compileTree(simplify(sum(own, negate(other))), { variable })
}

/** The mean of f over a span: its area divided by its width. NaN for a span without width. */
export function averageValue(
  f: RealFunction,
  from: number,
  to: number,
): { value: number; errorBound: number } {
  const { value, errorBound } = integrate(f, from, to)
  const width = to - from
  return { value: value / width, errorBound: errorBound / Math.abs(width) }
}
