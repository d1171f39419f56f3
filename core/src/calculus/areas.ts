import type { RealFunction } from '../evaluate/compile'
import { compileTree } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { substitute } from '../algebra/curves'
import { solve } from '../features/solve'
import { stretchesOf } from '../features/splits'
import { budgetOf, finish } from '../features/budget'
import { signInside } from '../features/sign'
import { name, negate, sum } from '../formula/tree'
import { integrate } from './integrate'
import { compensatedSum } from './quadrature'
import { simplify } from '../algebra/simplify'

/** A stretch on which f keeps its sign but for places at which it touches 0, with its signed area. */
export interface AreaPart {
  from: number
  to: number
  area: number
  /** 0 where f is 0 all along. */
  side: -1 | 0 | 1
}

/**
 * What f does at a place between its parts, or within one: it is 0 and changes its sign or keeps it,
 * or changes its sign without being 0, by a jump or where it has no value.
 */
export interface AreaJoint {
  x: number
  how: 'crosses' | 'touches' | 'jumps' | 'missing'
}

export interface TotalArea {
  /** Parts below the axis, or below the other curve, count against those above. */
  signed: number
  /** Every part counts as positive. */
  total: number
  errorBound: number
  parts: AreaPart[]
  joints: AreaJoint[]
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
    return { ...nothing, parts: [], joints: [] }
  }
  const { solutions, stretches, complete } = solve(f, 0, a, b)
  const tree = withValues(f.tree, f.parameters)
  const { splits, unresolved } = finish(stretchesOf(tree, f.variable, a, b, budgetOf()))
  const zeros = solutions.map(({ x }) => x)
  const isZero = (x: number) => zeros.some((z) => Math.abs(z - x) <= closest(x))
  const joins = splits
    .map(({ enclosure: { lo, hi } }) => lo + (hi - lo) / 2)
    .filter((x) => !isZero(x))
  const ends = stretches
    .flat()
    .filter((x) => !isZero(x) && !joins.some((y) => Math.abs(x - y) <= closest(x)))
  const cuts = [...zeros, ...joins, ...ends].filter((x) => x > a && x < b).sort((p, q) => p - q)
  const starts = [a, ...cuts]
  const found = starts.map((from, i): Found => {
    const to = starts[i + 1] ?? b
    const middle = from + (to - from) / 2
    const isLevel = stretches.some(([lo, hi]) => lo <= middle && middle <= hi)
    const side = isLevel ? 0 : (signInside(f, from, to) ?? 0)
    return { from, to, side, ...(isLevel ? none : integrate(f, from, to)) }
  })
  const areas = found.map((p) => p.value)
  return {
    signed: compensatedSum(areas) + 0,
    total: compensatedSum(areas.map(Math.abs)),
    errorBound: found.reduce((total, p) => total + p.errorBound, 0),
    parts: partsOf(found),
    joints: found.slice(1).flatMap((q, i) => {
      const how = jointOf(found[i]!.side, q.side, isZero(q.from), f.value(q.from))
      return how ? [{ x: q.from, how }] : []
    }),
    complete: complete && unresolved.length === 0,
    diverges: found.some((p) => p.diverges),
  }
}

interface Found {
  from: number
  to: number
  side: -1 | 0 | 1
  value: number
  errorBound: number
  diverges: boolean
}
const none = { value: 0, errorBound: 0, diverges: false }
const nothing = { signed: 0, total: 0, errorBound: 0, complete: true, diverges: false }

/** Nearer than this a join of pieces is the zero that was found there. */
const closest = (x: number) => 2e-9 * Math.max(1, Math.abs(x))

/** What f does between two sides; null where nothing is to be told. */
function jointOf(
  before: -1 | 0 | 1,
  after: -1 | 0 | 1,
  isZero: boolean,
  value: number,
): AreaJoint['how'] | null {
  if (before * after === 0) return null
  if (isZero) return before === after ? 'touches' : 'crosses'
  if (before === after) return null
  return Number.isFinite(value) ? 'jumps' : 'missing'
}

/** Neighbours on one side are one part. */
function partsOf(found: readonly Found[]): AreaPart[] {
  const parts: AreaPart[] = []
  for (const { from, to, side, value } of found) {
    const last = parts.at(-1)
    if (last?.side === side) {
      last.to = to
      last.area += value
    } else parts.push({ from, to, area: value, side })
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
