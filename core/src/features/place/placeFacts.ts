import { cancelFreely, simplify } from '../../algebra/simplify'
import type { RealFunction } from '../../evaluate/compile'
import { numberInterval } from '../../evaluate/enclosures'
import { withValues } from '../../evaluate/withValues'
import * as I from '../../arithmetic/intervals'
import { rationalFromDecimal } from '../../arithmetic/rational'
import { exactly, name, negate, quotient, sum, type Tree } from '../../formula/tree'
import { budgetOf, finish } from '../budget'
import { type Const, Constants } from '../limits/constants'
import type { OneSided } from '../limits/oneSided'
import { byContinuity, sideLimit, unsettled } from '../limits/sideLimit'
import { alike } from '../outstanding'
import type { Split } from '../split'
import { insideOf, stretchesOf } from '../splits'
import { settledAt } from '../settled'
import { differentiate } from '../../algebra/differentiate'
import { valueAtPlace } from './valueAt'

/** What a function does on one side of a place. */
export interface SideFacts {
  /** What it tends to; null where it has no values on this side. */
  limit: OneSided | null
  /** The limit and the value are the same. */
  continuous: boolean
  /** What the quotient of differences tends to; null where it is not continuous from this side. */
  slope: OneSided | null
}

/**
 * What a function does at a place, told by its value and its one-sided limits. A displaced point has a
 * value beside the limit of both sides; a hole filled with its limit is nothing at all. `swings` has
 * a value and a limit, and a quotient of differences without one.
 */
export type PlaceKind =
  | 'smooth'
  | 'kink'
  | 'cusp'
  | 'vertical'
  | 'swings'
  | 'hole'
  | 'displaced'
  | 'jump'
  | 'pole'
  | 'oscillation'
  | 'end'
  | 'isolated'
  | 'outside'
  | 'unsettled'

export interface PlaceFacts {
  x: number
  kind: PlaceKind
  /** Null where there is no value. */
  value: Const | null
  left: SideFacts
  right: SideFacts
  /** Where both sides tend to the same, that, whether finite or not. */
  limit: OneSided | null
  /** The slope, where there is one. */
  slope: OneSided | null
}

/**
 * Near enough to leave out what lies elsewhere; further, where a formula runs out of doubles so near,
 * as e^(1/x) does.
 */
const reaches = (x: number) => [1e-3, 0.5].map((share) => share * Math.max(1, Math.abs(x)))

/** The place as a formula: as it was given, or the decimal that its double stands for. */
function exactOf(x: number, given: Tree | null): Tree {
  if (given) return given
  const text = String(x)
  return exactly(rationalFromDecimal(text.includes('e') ? x.toFixed(20) : text))
}

/**
 * Looks at a place with proof: value, one-sided limits and one-sided limits of the quotient of
 * differences, each found by itself (see features/limits). `given` is the place as a formula without
 * the variable, where it is more exact than its double, such as π/2. What is not proven is unsettled.
 */
export function lookAtPlace(f: RealFunction, x: number, given: Tree | null = null): PlaceFacts {
  const tree = withValues(f.tree, f.parameters)
  const [near, far] = reaches(x).map((reach) => lookWithin(tree, f.variable, x, given, reach))
  return near!.left.limit && near!.right.limit ? near! : far!
}

function lookWithin(
  tree: Tree,
  variable: string,
  x: number,
  given: Tree | null,
  reach: number,
): PlaceFacts {
  const around = finish(stretchesOf(tree, variable, x - reach, x + reach, budgetOf(1500)))
  const split: Split = around.splits.find((s) => s.enclosure.lo <= x && x <= s.enclosure.hi) ?? {
    enclosure: I.point(x),
    zeros: new Set<string>(),
  }
  const place = exactOf(x, given)
  const enclosure = place.kind === 'number' ? numberInterval(place.exact) : split.enclosure
  const constants = new Constants({ variable, enclosure, zeros: split.zeros })
  const found = valueAtPlace(tree, variable, place, constants)
  const value = found === 'unsure' ? null : found
  const side = (way: -1 | 1): SideFacts => {
    const stretch = around.stretches.find((s) =>
      way < 0 ? s.from < x && s.to >= split.enclosure.lo : s.to > x && s.from <= split.enclosure.hi,
    )
    if (!stretch?.tree) return { limit: null, continuous: false, slope: null }
    const own = valueAtPlace(stretch.tree, variable, place, constants)
    const limit = withForm(sideLimit(stretch.tree, variable, split, way, place), own)
    const continuous = limit.kind === 'value' && value !== null && alike(limit.range, value.range)
    if (!continuous) return { limit, continuous, slope: null }
    // Continuous from this side, and with slopes that tend to something: by the mean value theorem
    // the quotient of differences tends to the same. Slopes without a limit decide nothing.
    const slopes = simplify(cancelFreely(differentiate(stretch.tree, variable)))
    const smooth = byContinuity(slopes, variable, split)
    if (smooth) {
      const slope = withForm(smooth, valueAtPlace(slopes, variable, place, constants))
      return { limit, continuous, slope }
    }
    const byMeanValue = (): OneSided => {
      const near = settledAt(slopes, variable, insideOf(stretch))
      const tends = sideLimit(simplify(near), variable, split, way, place)
      return tends.kind === 'none' ? unsettled : tends
    }
    // Beside the place what stands above and below may be divided by freely.
    const rise = simplify(sum(stretch.tree, negate(value.tree)))
    const run = simplify(sum(name(variable), negate(place)))
    const rate = simplify(cancelFreely(quotient(rise, run)))
    const found = sideLimit(rate, variable, split, way, place)
    return { limit, continuous, slope: found.kind === 'unsettled' ? byMeanValue() : found }
  }
  const facts = { x, value, left: side(-1), right: side(1) }
  const kind = kindOf(facts)
  const open = found === 'unsure' && kind !== 'pole'
  return {
    ...facts,
    kind: open ? 'unsettled' : kind,
    limit: commonLimit(facts),
    slope: commonSlope(facts),
  }
}

/** A limit with the form of the value that the formula of its side has at the place itself. */
function withForm(limit: OneSided, own: Const | null | 'unsure'): OneSided {
  if (limit.kind !== 'value' || limit.exact || !own || own === 'unsure') return limit
  return alike(limit.range, own.range) ? { ...limit, exact: own.tree } : limit
}

type Sides = Pick<PlaceFacts, 'value' | 'left' | 'right'>

function kindOf({ value, left, right }: Sides): PlaceKind {
  const [p, q] = [left.limit, right.limit]
  if (!p && !q) return value ? 'isolated' : 'outside'
  if (p?.kind === 'infinite' || q?.kind === 'infinite') return 'pole'
  if (p?.kind === 'none' || q?.kind === 'none') return 'oscillation'
  if (p?.kind === 'unsettled' || q?.kind === 'unsettled') return 'unsettled'
  if (!p || !q) return 'end'
  if (!alike(p.range, q.range)) return 'jump'
  if (!value) return 'hole'
  if (!left.continuous) return 'displaced'
  return bySlopes(left.slope!, right.slope!)
}

function bySlopes(p: OneSided, q: OneSided): PlaceKind {
  if (p.kind === 'unsettled' || q.kind === 'unsettled') return 'unsettled'
  if (p.kind === 'none' || q.kind === 'none') return 'swings'
  if (p.kind === 'infinite' && q.kind === 'infinite') {
    return p.sign === q.sign ? 'vertical' : 'cusp'
  }
  if (p.kind === 'infinite' || q.kind === 'infinite') return 'kink'
  return alike(p.range, q.range) ? 'smooth' : 'kink'
}

function common(p: OneSided | null, q: OneSided | null): OneSided | null {
  if (!p || !q) return null
  if (p.kind === 'unsettled' || q.kind === 'unsettled') return unsettled
  if (p.kind === 'value' && q.kind === 'value') return alike(p.range, q.range) ? closer(p, q) : null
  if (p.kind === 'infinite' && q.kind === 'infinite') return p.sign === q.sign ? p : null
  return null
}
const commonLimit = ({ left, right }: Sides) => common(left.limit, right.limit)
const commonSlope = ({ left, right }: Sides) => common(left.slope, right.slope)

/** Of two enclosures of one number the one with a form, else the narrower. */
function closer<V extends OneSided & { kind: 'value' }>(p: V, q: V): V {
  if (p.exact !== undefined) return p
  return q.exact !== undefined || I.width(q.range) < I.width(p.range) ? q : p
}
