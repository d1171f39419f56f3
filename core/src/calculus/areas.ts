import type { RealFunction } from '../evaluate/compile'
import { compileTree } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { substitute } from './curves'
import { solve } from '../features/solve'
import { name, negate, sum } from '../language/tree'
import { integrate } from './integrate'
import { compensatedSum } from './quadrature'
import { simplify } from './simplify'

/** A stretch between two crossings with the signed area over it. */
export interface AreaPart {
  from: number
  to: number
  area: number
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
 * The area between f and the axis over [from, to], signed and total, cut at the proven zeros of f.
 * Ends the wrong way round are put right. NaN where f has no values on a part.
 */
export function areaUnder(f: RealFunction, from: number, to: number): TotalArea {
  const [a, b] = from <= to ? [from, to] : [to, from]
  if (a === b) {
    return { signed: 0, total: 0, errorBound: 0, parts: [], complete: true, diverges: false }
  }
  const { solutions, complete } = solve(f, 0, a, b)
  const cuts = [a, ...solutions.map((s) => s.x).filter((x) => x > a && x < b), b]
  const found = cuts
    .slice(1)
    .map((to, i) => ({ from: cuts[i]!, to, ...integrate(f, cuts[i]!, to) }))
  const areas = found.map((p) => p.value)
  return {
    signed: compensatedSum(areas) + 0,
    total: compensatedSum(areas.map(Math.abs)),
    errorBound: found.reduce((total, p) => total + p.errorBound, 0),
    parts: found.map(({ from, to, value }) => ({ from, to, area: value })),
    complete,
    diverges: found.some((p) => p.diverges),
  }
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
