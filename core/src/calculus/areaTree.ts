import { exactZero } from '../algebra/exactZeros/exactZeros'
import { antiderivative } from '../algebra/antiderivative'
import { substitute } from '../algebra/curves'
import { withKnownValues } from '../algebra/knownValues'
import { simplify } from '../algebra/simplify'
import type { Interval } from '../arithmetic/intervals'
import { decimalOfNumber } from '../arithmetic/rational'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { budgetOf, finish } from '../features/budget'
import { stretchesOf } from '../features/splits'
import type { Split } from '../features/split'
import {
  type AreaFunction,
  type AreaTree,
  compare,
  type Condition,
  exactly,
  keyOf,
  name,
  negate,
  type Piece,
  pieces,
  sum,
  type Tree,
} from '../formula/tree'
import { accumulate, type Accumulation } from './accumulate'

/** An end or a number: its value, and its form where it hangs on no slider. */
export interface Given {
  value: number
  exact: Tree | null
}

/** The area under f from `lower`, beginning with `start`, on a span. */
export interface Accumulated {
  called: string
  f: RealFunction
  lower: Given
  start: Given
  from: number
  to: number
  area: Accumulation
}

/**
 * The area up to x as a tree, for all that works on formulas: an antiderivative where one is proven
 * to hold on the whole span, else a part of its own, which has values and enclosures, and the
 * integrand for its rate of change. The area goes on beyond its span as far as it is asked for.
 */
export function areaTree(of: Accumulated): Tree {
  return closedTree(of) ?? openArea(of)
}

const formOf = ({ value, exact }: Given): Tree => exact ?? exactly(decimalOfNumber(value))

/** An area as a part of its own, without a formula: its values, enclosures and integrand. */
export function openArea(of: Accumulated): AreaTree {
  const { f, called } = of
  const rate = withValues(f.tree, f.parameters)
  return { kind: 'area', name: called, area: areaFunction(of, rate), at: name(f.variable), rate }
}

/** Room for the roundings of both sides where an antiderivative is compared with quadrature. */
const slack = 1e-11
const mostBoxes = 400

/** An area of more pieces than this is no formula to work with. */
const mostParts = 24

/** The area from the beginning of a stretch, as a formula that holds on all of it. */
interface Part {
  from: Tree
  to: Tree
  /** F, such that the area from u to v on the stretch is F(v) − F(u). */
  whole: Tree
  range: Interval
}

/**
 * F(x) − F(lower) + start, piece by piece where f breaks at places that have an exact form: each
 * stretch of f has an antiderivative that is bounded on it, and where two meet A is continuous. The
 * rule by which F was found is its proof; the area by quadrature must agree at the ends of the span.
 */
function closedTree(of: Accumulated): Tree | null {
  const { f, lower, start, area } = of
  const { variable } = f
  const parts = partsOf(of)
  const home = parts?.findIndex((p) => p.range.lo <= lower.value && lower.value <= p.range.hi) ?? -1
  if (!parts || home < 0) return null
  const worth = (tree: Tree, at: Tree) => substitute(tree, variable, at)
  const bodies: Tree[] = []
  const through = (tree: Tree, at: Tree, value: Tree) =>
    withKnownValues(simplify(sum(tree, negate(worth(tree, at)), value)))
  bodies[home] = through(parts[home]!.whole, formOf(lower), formOf(start))
  for (let i = home + 1; i < parts.length; i++) {
    const { from: join, whole } = parts[i]!
    bodies[i] = through(whole, join, worth(bodies[i - 1]!, join))
  }
  for (let i = home - 1; i >= 0; i--) {
    const { to: join, whole } = parts[i]!
    bodies[i] = through(whole, join, worth(bodies[i + 1]!, join))
  }
  const tree = withinDomain(joined(parts, bodies, variable), parts, of)
  const code = compileTree(tree, { variable })
  const agrees = [0.01, 0.5, 0.99].every((share) => {
    const x = parts[0]!.range.lo + share * (parts.at(-1)!.range.hi - parts[0]!.range.lo)
    const [own, other] = [code.value(x) - start.value, area.value(x)]
    return Math.abs(own - other) <= area.errorBound + slack * Math.max(1, Math.abs(other))
  })
  return agrees ? tree : null
}

/** Where an area runs away it ends. */
function withinDomain(tree: Tree, parts: readonly Part[], { f, area }: Accumulated): Tree {
  const { runsAway } = area.domain
  const x = name(f.variable)
  const [first, last] = [parts[0]!, parts.at(-1)!]
  const conditions: Condition[] = [
    ...(runsAway.includes(first.range.lo) ? [compare(x, '>', first.from)] : []),
    ...(runsAway.includes(last.range.hi) ? [compare(x, '<', last.to)] : []),
  ]
  if (conditions.length === 0) return tree
  const when: Condition = conditions.length === 1 ? conditions[0]! : { kind: 'all', of: conditions }
  if (tree.kind !== 'pieces') return pieces({ body: tree, when })
  return pieces(
    ...tree.pieces.map((piece) => ({
      body: piece.body,
      when: piece.when ? bothHold(piece.when, when) : when,
    })),
  )
}

const bothHold = (a: Condition, b: Condition): Condition => ({ kind: 'all', of: [a, b] })

/** Stretches that go on with one formula are one. */
function joined(parts: readonly Part[], bodies: readonly Tree[], variable: string): Tree {
  const kept = bodies.flatMap((body, i): Piece[] => {
    const next = bodies[i + 1]
    if (next && keyOf(next) === keyOf(body)) return []
    return [{ body, when: next ? compare(name(variable), '<', parts[i]!.to) : null }]
  })
  return kept.length === 1 ? kept[0]!.body : pieces(...kept)
}

function partsOf({ f, lower, from, to, area }: Accumulated): Part[] | null {
  const { variable } = f
  const tree = withValues(f.tree, f.parameters)
  const low = Math.max(area.domain.from, Math.min(from, lower.value))
  const high = Math.min(area.domain.to, Math.max(to, lower.value))
  if (!(low < high)) return null
  const found = finish(stretchesOf(tree, variable, low, high, budgetOf(mostBoxes)))
  const { stretches, splits, unresolved } = found
  if (unresolved.length > 0 || stretches.length > mostParts) return null
  const edge = (x: number): Tree | null => {
    if (x === lower.value) return formOf(lower)
    const split = splits.find((s) => s.enclosure.lo === x || s.enclosure.hi === x)
    const form = split ? placeOfSplit(split, variable) : null
    return form ?? (x === low || x === high ? exactly(decimalOfNumber(x)) : null)
  }
  /** A little inside where the area runs away, and its antiderivative with it. */
  const bounded = (x: number, way: 1 | -1) =>
    area.domain.runsAway.includes(x) ? x + way * nearEnd * (high - low) : x
  const parts: Part[] = []
  for (const { from: a, to: b, tree: own } of stretches) {
    const ends = [edge(a), edge(b)] as const
    const whole = own && antiderivative(own, variable)
    if (!ends[0] || !ends[1] || !whole) return null
    const F = compileTree(whole, { variable })
    const [least, most] = F.enclose(bounded(a, 1), bounded(b, -1))
    if (!Number.isFinite(least) || !Number.isFinite(most)) return null
    parts.push({ from: ends[0], to: ends[1], whole, range: { lo: a, hi: b } })
  }
  return parts
}

const nearEnd = 1e-6

/** The exact place of a split, where one of the formulas that vanish there leads to it. */
export function placeOfSplit({ parts = [], enclosure }: Split, variable: string): Tree | null {
  for (const part of parts) {
    const exact = exactZero(part, variable, enclosure)
    if (exact) return exact
  }
  return null
}

/** Beyond this many times its span an area is not followed. */
const furthest = 2 ** 20

function areaFunction(of: Accumulated, rate: Tree): AreaFunction {
  const { f, lower, start } = of
  let { from, to, area } = of
  /** Grows the span until it holds both places, where they are within reach. */
  const reach = (lo: number, hi: number) => {
    const width = of.to - of.from
    const inReach = of.from - lo <= furthest * width && hi - of.to <= furthest * width
    if (!inReach || !(lo < from || hi > to)) return
    while (lo < from) from -= to - from
    while (hi > to) to += to - from
    area = accumulate(f, lower.value, from, to)
  }
  const value = (x: number) => {
    reach(x, x)
    return area.value(x) + start.value
  }
  return {
    runsAway: (x, side) => {
      const { domain } = area
      if (!domain.runsAway.includes(x) || x !== (side > 0 ? domain.from : domain.to)) return null
      const near = f.value(x + side * nearEnd * (of.to - of.from))
      return Math.sign(near) === 0 ? null : near * side < 0 ? 1 : -1
    },
    key: [of.from, of.to, lower.value, start.value, keyOf(rate)].join(' '),
    value,
    enclose(lo, hi) {
      if (lo === hi && lo === lower.value) return [start.value, start.value]
      if (!Number.isFinite(lo) || !Number.isFinite(hi)) return [-Infinity, Infinity]
      reach(lo, hi)
      const [least, most] = area.enclose(lo, hi)
      // One rounding of the sum to either side.
      const size = Math.abs(start.value) + Math.max(Math.abs(least), Math.abs(most))
      const rounding = start.value === 0 ? 0 : 2 ** -52 * size
      return [least + start.value - rounding, most + start.value + rounding]
    },
  }
}
