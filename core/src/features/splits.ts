import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { compileTree } from '../evaluate/compile'
import { simplify } from '../algebra/simplify'
import { keyOf, type Tree, negate } from '../formula/tree'
import type { Budget, Steps } from './budget'
import { endSlack, isAtEnd, ulpOf } from './ends'
import type { Zero } from './zero'
import { zeroFactors } from './zeroFactors'
import { zerosWithin } from './zeros'
import { rootsBetween, squareFreeParts, toRationalFunction } from '../algebra/polynomials'
import { type Split, type Stretch, type Stretches, mergeSplits, reachingEnds } from './split'
import { criticalParts, levelsOf, mostPlaces } from './criticalParts'
import { settledAt } from './settled'
import { valueAtSplit } from './pinned'

/** A place inside a stretch, at no share of it that a formula is likely to be special at. */
export const insideOf = ({ from, to }: Pick<Stretch, 'from' | 'to'>) => from + 0.4619 * (to - from)

/** Takes a formula apart on [from, to]; what could not be settled is said. */
export function* stretchesOf(
  tree: Tree,
  variable: string,
  from: number,
  to: number,
  budget: Budget,
): Steps<Stretches> {
  const { parts, stairs, complete } = criticalParts(tree, { lo: from, hi: to }, variable)
  const unresolved: Interval[] = complete ? [] : [{ lo: from, hi: to }]
  const found: Split[] = []
  const take = (part: Tree, zeros: SpanZeros) => {
    unresolved.push(...zeros.unresolved)
    // As it stands in the formula, and as it stands in what the formula is simplified to.
    const keys = [part, simplify(part), simplify(negate(part))].map(keyOf)
    for (const zero of zeros.zeros) {
      found.push({ enclosure: zero.enclosure, zeros: new Set(keys), parts: [part] })
    }
  }
  for (const part of parts) {
    take(part, yield* zerosOn(part, variable, from, to, budget, { most: mostPlaces }))
  }
  for (const stair of stairs) {
    const known = yield* stretchesOf(stair.part, variable, from, to, budget)
    unresolved.push(...known.unresolved)
    for (const { level, near } of levelsOf(stair, known, variable, from, to)) {
      const options = { known: near, most: mostPlaces }
      take(level, yield* zerosOn(level, variable, from, to, budget, options))
    }
  }
  const splits = mergeSplits(found.map((split) => reachingEnds(split, from, to)))
  const edges = [from, ...splits.flatMap(({ enclosure }) => [enclosure.lo, enclosure.hi]), to]
  const f = compileTree(tree, { variable })
  const stretches: Stretch[] = []
  // Stretches on which one formula holds share it, and all that is worked out from it.
  const settled = new Map<string, Tree>()
  for (let i = 0; i < edges.length; i += 2) {
    const [a, b] = [edges[i]!, edges[i + 1]!]
    if (!(a < b)) continue
    yield budget.boxes / budget.most
    // Between splits one answer holds throughout, so one place inside tells it.
    const inside = insideOf({ from: a, to: b })
    const defined = Number.isFinite(f.value(inside))
    const own = defined ? settledAt(tree, variable, inside) : null
    const key = own && keyOf(own)
    if (own && !settled.has(key!)) settled.set(key!, simplify(own))
    stretches.push({ from: a, to: b, tree: own && settled.get(key!)! })
  }
  return { splits, stretches, unresolved }
}

/** A zero on a closed span: inside a stretch, at a split, or at an end. */
export interface SpanZero extends Zero {
  at: 'inside' | 'split' | 'end'
}

export interface SpanZeros {
  zeros: SpanZero[]
  unresolved: Interval[]
  /** Stretches on which the formula is 0 throughout. */
  vanishing: Interval[]
}

/**
 * The end of a span where a formula vanishes there, exactly or to within the rounding of the end;
 * null where none of its factors is proven to. A factor that touches the axis is one that crosses
 * it, taken twice.
 */
function zeroAtEnd(tree: Tree, variable: string, end: number): Interval | null {
  const at = compileBoxes(tree, variable)(I.point(end), 1, I.noNotes())[0]!
  if (at.lo === 0 && at.hi === 0) return I.point(end)
  const slack = endSlack * ulpOf(end)
  const around = { lo: end - slack, hi: end + slack }
  for (const { tree: factor } of zeroFactors(tree, variable)) {
    const rational = toRationalFunction(factor, variable)
    if (rational) {
      const roots = squareFreeParts(rational.above).flatMap((part) =>
        rootsBetween(part.factor, around.lo, around.hi),
      )
      if (roots.length > 0) return around
      continue
    }
    const [value, slope] = compileBoxes(factor, variable)(around, 2, I.noNotes())
    if (I.holdsZero(value!) && (slope!.lo > 0 || slope!.hi < 0)) return around
  }
  return null
}

/** All zeros of a formula on the closed span [from, to], splits and ends included. */
export function* zerosOn(
  tree: Tree,
  variable: string,
  from: number,
  to: number,
  budget: Budget,
  { known, most }: { known?: Stretches; most?: number } = {},
): Steps<SpanZeros> {
  const { splits, stretches, unresolved } =
    known ?? (yield* stretchesOf(tree, variable, from, to, budget))
  const zeros: SpanZero[] = []
  const open: Interval[] = [...unresolved]
  const vanishing: Interval[] = []
  for (const stretch of stretches) {
    if (!stretch.tree) continue
    const found = yield* zerosWithin(stretch.tree, variable, stretch.from, stretch.to, budget, most)
    if (found.vanishes) vanishing.push({ lo: stretch.from, hi: stretch.to })
    zeros.push(...found.zeros.map((zero): SpanZero => ({ ...zero, at: 'inside' })))
    open.push(...found.unresolved)
  }
  for (const split of splits) {
    const value = valueAtSplit(tree, variable, split)
    if (!value || !I.holdsZero(value)) continue
    const exact = value.lo === 0 && value.hi === 0
    // A zero that is only near by its digits is listed, but not as proven.
    if (!exact && I.width(value) > 1e-6) continue
    zeros.push({ enclosure: split.enclosure, multiplicity: null, proven: exact, at: 'split' })
    if (!exact) open.push(split.enclosure)
  }
  for (const end of [from, to]) {
    if (splits.some((s) => s.enclosure.lo <= end && end <= s.enclosure.hi)) continue
    if (zeros.some((z) => isAtEnd(z.enclosure, end))) continue
    if (vanishing.some((v) => v.lo === end || v.hi === end)) continue
    const stretch = stretches.find((s) => s.from === end || s.to === end)
    if (!stretch?.tree) continue
    const enclosure = zeroAtEnd(stretch.tree, variable, end)
    if (enclosure) zeros.push({ enclosure, multiplicity: null, proven: true, at: 'end' })
  }
  zeros.sort((a, b) => a.enclosure.lo - b.enclosure.lo)
  const apart = zeros.filter((z, i) => i === 0 || zeros[i - 1]!.enclosure.hi < z.enclosure.lo)
  return { zeros: apart, unresolved: open, vanishing }
}
