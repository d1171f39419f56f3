import { asQuotient } from '../../algebra/asQuotient'
import { substitute } from '../../algebra/curves'
import { withKnownValues } from '../../algebra/knownValues'
import { lowestTerms } from '../../algebra/lowestTerms'
import * as I from '../../arithmetic/intervals'
import type { Interval } from '../../arithmetic/intervals'
import { compileBoxes } from '../../evaluate/enclosures'
import { dependsOn, keyOf, type Tree } from '../../formula/tree'
import { pinned } from '../pinned'
import type { Split } from '../split'
import { beside } from './approach'
import { limitByGrowth } from './byGrowth'
import { growsTo, type OneSided, tendsTo } from './oneSided'

/** A jet this long tells the order of a zero up to 7. */
const jetLength = 8

/**
 * The limit of a formula at a place from one side, on which it is smooth and defined close by.
 * Continuity first; for a quotient whose parts both vanish their Taylor coefficients (l'Hôpital's
 * rule in the form of series); then growth. Every verdict is proven and comes with its reason; values
 * that are followed decide nothing.
 */
export function sideLimit(
  tree: Tree,
  variable: string,
  at: Split,
  side: -1 | 1,
  /** The place as a formula without the variable, where it is given so. */
  place?: Tree,
  /** Asked before growth is worked out. */
  mayExpand: (exactPlace: boolean) => boolean = () => true,
): OneSided {
  if (tree.kind === 'area' && tree.at.kind === 'name') {
    const sign = tree.area.runsAway(I.middle(at.enclosure), side)
    if (sign) return growsTo(sign, 'the area runs away there')
  }
  const direct = byContinuity(tree, variable, at)
  if (direct) return direct
  const lowered = lowestTerms(tree, variable)
  const lower = lowered && compileBoxes(lowered, variable)(at.enclosure, 1, I.noNotes())[0]!
  if (lower && isNarrow(lower)) {
    const form = place && withKnownValues(substitute(lowered, variable, place))
    const exact = form && !dependsOn(form, variable) ? form : undefined
    return tendsTo(lower, 'what vanishes above and below is divided out', exact)
  }
  const quotient = () => ofQuotient(tree, variable, at, side)
  const growth = () => {
    const approach = beside(at, variable, side, place)
    return mayExpand(approach.t !== null) ? limitByGrowth(lowered ?? tree, approach) : null
  }
  // Growth gives numbers their form where the place has one; quotients are looked at faster.
  return (place ? (growth() ?? quotient()) : (quotient() ?? growth())) ?? unsettled
}

/** The limit of a formula that is continuous at the place: its value; null where that is not sure. */
export function byContinuity(tree: Tree, variable: string, at: Split): OneSided | null {
  const notes = I.noNotes()
  const [direct] = compileBoxes(pinned(tree, at.zeros), variable)(at.enclosure, 1, notes)
  return !notes.partial && !notes.empty && !notes.jumps && isNarrow(direct!)
    ? tendsTo(direct!, 'the formula that holds beside it is continuous')
    : null
}

/** Nothing is told where nothing is proven. */
export const unsettled: OneSided = {
  kind: 'unsettled',
  reason: 'neither growth nor series decide there',
}

const isNarrow = ({ lo, hi }: Interval) =>
  Number.isFinite(lo) && Number.isFinite(hi) && hi - lo <= 1e-6 * Math.max(1, Math.abs(lo))

/** The first Taylor coefficient that is not 0, and its place in the row; null where none is sure. */
function leading(
  tree: Tree,
  variable: string,
  { enclosure, zeros }: Split,
): { order: number; coefficient: Interval } | null {
  const notes = I.noNotes()
  const jet = compileBoxes(tree, variable)(enclosure, jetLength, notes)
  if (notes.empty || notes.partial || notes.kinks || notes.jumps) return null
  const order = jet.findIndex((c) => !I.holdsZero(c))
  if (order < 0) return null
  // Everything before it must be known to be 0: exactly, or because it is what vanishes there.
  const isKnown = (c: Interval, k: number) =>
    (c.lo === 0 && c.hi === 0) || (k === 0 && zeros.has(keyOf(tree)))
  return jet.slice(0, order).every(isKnown) ? { order, coefficient: jet[order]! } : null
}

function ofQuotient(tree: Tree, variable: string, at: Split, side: -1 | 1): OneSided | null {
  const parts = asQuotient(tree)
  return parts && sideLimitOfQuotient(parts, variable, at, side)
}

function sideLimitOfQuotient(
  parts: { above: Tree; below: Tree },
  variable: string,
  at: Split,
  side: -1 | 1 = 1,
): OneSided | null {
  const [above, below] = [leading(parts.above, variable, at), leading(parts.below, variable, at)]
  if (!above || !below) return null
  const ratio = I.divide(above.coefficient, below.coefficient)
  const order = above.order - below.order
  if (order > 0) return tendsTo(I.zeroInterval, 'above it vanishes to a higher order than below')
  if (order === 0) {
    const reason =
      below.order === 0
        ? 'above and below are continuous'
        : `above and below vanish alike, to order ${below.order}`
    return tendsTo(ratio, reason)
  }
  const sign = I.signOf(ratio) * (side < 0 && order % 2 !== 0 ? -1 : 1)
  return sign === 0
    ? null
    : growsTo(sign as -1 | 1, 'below it vanishes to a higher order than above')
}
