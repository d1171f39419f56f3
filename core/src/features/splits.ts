import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { compileTree } from '../evaluate/compile'
import { holds } from '../formula/relations'
import { entryOf, maybeEntry } from '../functions'
import { simplify } from '../algebra/simplify'
import {
  call,
  childrenOf,
  type Condition,
  dependsOn,
  keyOf,
  literalFraction,
  mapChildren,
  negate,
  quotient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import {
  type Budget,
  endSlack,
  isAtEnd,
  type Steps,
  ulpOf,
  type Zero,
  zeroFactors,
  zerosWithin,
} from './zeros'
import { rootsBetween, squareFreeParts, toRationalFunction } from '../algebra/polynomials'

/** A place where a formula may stop being smooth or having values. */
export interface Split {
  enclosure: Interval
  /** Parts of the formula that are exactly 0 there, by their keys. */
  zeros: ReadonlySet<string>
}

/** A formula on a span, taken apart into stretches on which it is one smooth formula. */
export interface Stretches {
  splits: Split[]
  stretches: Stretch[]
  unresolved: Interval[]
}

export interface Stretch {
  from: number
  to: number
  /** The formula there without bars, steps and pieces; null where it has no values. */
  tree: Tree | null
}

/** More crossings of whole numbers, and more poles of one kind, are not listed one by one. */
const [mostSteps, mostPlaces] = [400, 240]

const minus = (a: Tree, b: Tree): Tree => sum(a, negate(b))

/** A part of a formula that breaks it at whole numbers, and those it may take on the span. */
interface Stairs {
  part: Tree
  low: number
  high: number
}

/** The parts of a formula whose zeros may be splits, with those of its parts. */
function criticalParts(
  tree: Tree,
  span: Interval,
  variable: string,
): { parts: Tree[]; stairs: Stairs[]; complete: boolean } {
  const found = new Map<string, Tree>()
  const stairs = new Map<string, Stairs>()
  let complete = true
  const add = (part: Tree) => {
    if (dependsOn(part, variable)) found.set(keyOf(part), part)
  }
  const visitCondition = (condition: Condition): void => {
    if (condition.kind !== 'compare') return condition.of.forEach(visitCondition)
    condition.relations.forEach((_, i) => add(minus(condition.terms[i]!, condition.terms[i + 1]!)))
  }
  const visit = (part: Tree): void => {
    childrenOf(part).forEach(visit)
    if (part.kind === 'quotient') add(part.below)
    if (part.kind === 'pieces') part.pieces.forEach(({ when }) => when && visitCondition(when))
    if (part.kind === 'power') {
      const { base, exponent } = part
      const fraction = literalFraction(exponent)
      const natural =
        !fraction && exponent.kind === 'number' && exponent.exact.d === 1n && exponent.exact.n >= 0n
      const positive = base.kind === 'constant' || (base.kind === 'number' && base.exact.n > 0n)
      if (!natural && !positive) add(base)
    }
    if (part.kind !== 'call') return
    const [first, second] = part.args as [Tree, Tree?]
    switch (part.name) {
      case 'logBase':
        add(first)
        add(sum(first, whole(-1)))
        return add(second!)
      case 'min':
      case 'max':
        for (let i = 0; i < part.args.length; i++) {
          for (let j = i + 1; j < part.args.length; j++) add(minus(part.args[i]!, part.args[j]!))
        }
        return
      default: {
        const { breaks, breaksAtWholes } = entryOf(part.name)
        breaks?.(first).forEach(add)
        if (!breaksAtWholes) return
        const [range] = compileBoxes(first, variable)(span, 1, I.noNotes())
        const [low, high] = [Math.floor(range!.lo), Math.ceil(range!.hi)]
        if (!(high - low <= mostSteps)) {
          complete = false
          return
        }
        if (dependsOn(first, variable)) stairs.set(keyOf(first), { part: first, low, high })
      }
    }
  }
  visit(tree)
  return { parts: [...found.values()], stairs: [...stairs.values()], complete }
}

/**
 * For each whole number that a part may take: the part less that number, and of the part taken apart
 * what can hold its zeros. A part is taken apart once for all of them.
 */
function* levelsOf(
  { part, low, high }: Stairs,
  { stretches, splits }: Stretches,
  variable: string,
  from: number,
  to: number,
): Generator<{ level: Tree; near: Stretches }> {
  const rangeOf = ({ tree, from: lo, to: hi }: Stretch) =>
    tree && compileBoxes(tree, variable)({ lo, hi }, 1, I.noNotes())[0]!
  const ranges = stretches.map(rangeOf)
  const values = splits.map((split) => valueAtSplit(part, variable, split))
  for (let k = low; k <= high; k++) {
    // An end that is a rounded decimal may miss its number by the rounding.
    const slack = 1e-6 * Math.max(1, Math.abs(k))
    const holdsIt = (v: Interval | null) => v !== null && v.lo <= k + slack && v.hi >= k - slack
    const near = {
      stretches: stretches.flatMap((stretch, i) =>
        stretch.tree && holdsIt(ranges[i]!)
          ? [{ ...stretch, tree: simplify(sum(stretch.tree, whole(-k))) }]
          : [],
      ),
      splits: splits.filter(
        ({ enclosure: { lo, hi } }, i) =>
          holdsIt(values[i]!) || (lo <= from && from <= hi) || (lo <= to && to <= hi),
      ),
      unresolved: [],
    }
    if (near.stretches.length + near.splits.length > 0) {
      yield { level: sum(part, whole(-k)), near }
    }
  }
}

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
    for (const zero of zeros.zeros) {
      found.push({ enclosure: zero.enclosure, zeros: new Set([keyOf(part)]) })
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

/**
 * A split at an end of the span holds that end in its enclosure: an end is a decimal that doubles
 * need not hold, and so is the place, so the two are never compared as equal doubles.
 */
function reachingEnds(split: Split, from: number, to: number): Split {
  const ends = [from, to].filter((end) => isAtEnd(split.enclosure, end))
  if (ends.length === 0) return split
  return { ...split, enclosure: ends.map(I.point).reduce(I.hull, split.enclosure) }
}

/**
 * The same stretches a little shorter where a split is only enclosed. An enclosure is as narrow as
 * rounding lets it be; right beside it a formula that runs away is all rounding still. This many
 * units in the last place further its sign can be told.
 */
const elbowRoom = 16
export function withElbowRoom(whole: Stretches): Stretches {
  const wider = new Map<Split, Split>()
  for (const split of whole.splits) {
    const { lo, hi } = split.enclosure
    const room = { lo: lo - elbowRoom * ulpOf(lo), hi: hi + elbowRoom * ulpOf(hi) }
    wider.set(split, lo === hi ? split : { ...split, enclosure: room })
  }
  const beside = (at: number, side: 'lo' | 'hi') => {
    const split = whole.splits.find((s) => s.enclosure[side] === at)
    return split ? wider.get(split)!.enclosure[side] : at
  }
  const stretches = whole.stretches
    .map((s) => ({ ...s, from: beside(s.from, 'hi'), to: beside(s.to, 'lo') }))
    .filter((s) => s.from < s.to)
  // Two splits so close that nothing is left between them are one place.
  return { ...whole, splits: mergeSplits([...wider.values()]), stretches }
}

function mergeSplits(splits: Split[]): Split[] {
  const sorted = [...splits].sort((a, b) => a.enclosure.lo - b.enclosure.lo)
  const merged: Split[] = []
  for (const split of sorted) {
    const last = merged.at(-1)
    if (last && split.enclosure.lo <= last.enclosure.hi) {
      merged[merged.length - 1] = {
        enclosure: pointOf(last.enclosure, split.enclosure),
        zeros: new Set([...last.zeros, ...split.zeros]),
      }
    } else merged.push(split)
  }
  return merged
}

/** The exact one of two enclosures of one place, else their hull. */
const pointOf = (a: Interval, b: Interval): Interval =>
  a.lo === a.hi ? a : b.lo === b.hi ? b : I.hull(a, b)

/**
 * The formula that holds around a place where it is smooth: bars, steps and pieces are settled. One
 * without any comes back as it is.
 */
export function settledAt(tree: Tree, variable: string, x: number): Tree {
  const valueOf = (part: Tree) => compileTree(part, { variable }).value(x)
  const visit = (part: Tree): Tree => {
    if (part.kind === 'pieces') {
      const chosen = part.pieces.find(({ when }) => !when || conditionHolds(when, valueOf))
      return chosen ? visit(chosen.body) : quotient(whole(0), whole(0))
    }
    if (part.kind === 'call' && dependsOn(part, variable)) {
      const value = part.args.map(valueOf)
      if (part.name === 'min' || part.name === 'max') {
        const best = part.name === 'min' ? Math.min(...value) : Math.max(...value)
        const chosen = part.args[value.indexOf(best)]
        return chosen ? visit(chosen) : part
      }
      const smooth = maybeEntry(part.name)?.smooth
      if (smooth) return smooth(value[0]!, visit(part.args[0]!)) ?? part
    }
    let changed = false
    const settled = mapChildren(part, (child) => {
      const next = visit(child)
      changed ||= next !== child
      return next
    })
    return changed ? settled : part
  }
  return visit(tree)
}

function conditionHolds(condition: Condition, valueOf: (part: Tree) => number): boolean {
  if (condition.kind !== 'compare') {
    const parts = condition.of.map((c) => conditionHolds(c, valueOf))
    return condition.kind === 'all' ? parts.every(Boolean) : parts.some(Boolean)
  }
  const values = condition.terms.map(valueOf)
  return condition.relations.every((r, i) => holds(r, values[i]!, values[i + 1]!))
}

const pins = new WeakMap<Tree, Map<string, Tree>>()

/**
 * The formula with the parts put to 0 that are exactly 0 at a split, simplified. The poles of a
 * tangent are many, and what vanishes there is the same at each.
 */
export function pinned(tree: Tree, zeros: ReadonlySet<string>): Tree {
  if (zeros.size === 0) return tree
  const key = [...zeros].sort().join('\n')
  let known = pins.get(tree)
  if (!known) pins.set(tree, (known = new Map()))
  let result = known.get(key)
  if (!result) known.set(key, (result = simplify(pinnedAnew(tree, zeros))))
  return result
}

function pinnedAnew(tree: Tree, zeros: ReadonlySet<string>): Tree {
  const visitCondition = (condition: Condition): Condition => {
    if (condition.kind !== 'compare') return { ...condition, of: condition.of.map(visitCondition) }
    const { terms, relations } = condition
    const parts = relations.map((relation, i): Condition => {
      const [left, right] = [terms[i]!, terms[i + 1]!]
      const equal = zeros.has(keyOf(minus(left, right)))
      return {
        kind: 'compare',
        terms: equal ? [whole(0), whole(0)] : [visit(left), visit(right)],
        relations: [relation],
      }
    })
    return parts.length === 1 ? parts[0]! : { kind: 'all', of: parts }
  }
  const visit = (part: Tree): Tree => {
    if (zeros.has(keyOf(part))) return whole(0)
    if (part.kind === 'pieces') {
      return {
        ...part,
        pieces: part.pieces.map(({ body, when }) => ({
          body: visit(body),
          when: when && visitCondition(when),
        })),
      }
    }
    if (part.kind === 'call') {
      const [first] = part.args as [Tree]
      const isZero = (of: Tree) => zeros.has(keyOf(of))
      const entry = maybeEntry(part.name)
      const there = entry?.atBreak?.(first, isZero)
      if (there) return there
      if (entry?.breaksAtWholes) {
        for (const key of zeros) {
          const k = stepOf(key, first)
          if (k !== null) return call(part.name, whole(k))
        }
      }
      if (part.name === 'min' || part.name === 'max') {
        // Two that are equal there are one.
        const kept = part.args.filter(
          (a, i) => !part.args.slice(0, i).some((b) => isZero(minus(b, a))),
        )
        return kept.length === 1 ? visit(kept[0]!) : call(part.name, ...kept.map(visit))
      }
    }
    return mapChildren(part, visit)
  }
  return visit(tree)
}

/** The whole number k for which a key is that of part − k, or null. */
function stepOf(key: string, part: Tree): number | null {
  const found = /(-?\d+)\/1\)$/.exec(key)
  const k = found?.[1] === undefined ? null : -Number(found[1])
  return k !== null && key === keyOf(sum(part, whole(-k))) ? k : null
}

/** The value of a formula at a split, null where it has none there. */
export function valueAtSplit(tree: Tree, variable: string, split: Split): Interval | null {
  const notes = I.noNotes()
  const [value] = compileBoxes(pinned(tree, split.zeros), variable)(split.enclosure, 1, notes)
  if (notes.empty || (notes.partial && split.enclosure.lo === split.enclosure.hi)) return null
  return value!
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
