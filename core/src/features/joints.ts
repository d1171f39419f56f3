import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import type { Tree } from '../formula/tree'
import type { OneSided } from './limits/oneSided'
import { alike, outstandingAt, stepOver } from './outstanding'
import { sideLimit } from './limits/sideLimit'
import type { Split } from './split'
import { valueAtSplit } from './pinned'
import { type Budget, mayGrow, type Steps } from './budget'
import type { Break, BreakKind, Cell, Feature, Joint, Mark, Study } from './examination'
import { featureAt, featureWith, splitAt } from './places'

export function* jointsOf(study: Study, budget: Budget): Steps<Joint[]> {
  const { marks, cells } = study
  const joints: Joint[] = []
  for (const [i, mark] of marks.entries()) {
    yield budget.boxes / budget.most
    if (mark.split) budget.joints += 1
    const joint = plainJoint(mark)
    joints.push(
      budget.joints > mostJoints
        ? { ...joint, continuous: false, settled: false }
        : jointAt(study, mark, cells[i]!, cells[i + 1]!, joint, (exact) => mayGrow(budget, exact)),
    )
  }
  return joints
}

export const breaksOf = (
  study: Study,
  splits: readonly Split[],
  joints: readonly Joint[],
): Break[] =>
  [
    ...edgeBreaks(study, splits),
    ...joints.flatMap((joint) => (joint.break ? [joint.break] : [])),
  ].sort((p, q) => p.x - q.x)

/** At more places than this at which its formula breaks it is not told what f does there. */
const mostJoints = 300

const plainJoint = (mark: Mark): Joint => ({
  mark,
  continuous: true,
  slopeStep: 0,
  valueStep: 0,
  critical: null,
  turning: null,
  inflection: null,
  outstanding: null,
  break: null,
  end: null,
  limits: [],
  settled: true,
})

type MayGrow = (exactPlace: boolean) => boolean

function jointAt(
  study: Study,
  mark: Mark,
  left: Cell,
  right: Cell,
  base: Joint,
  may: MayGrow,
): Joint {
  const { enclosure, split } = mark
  if (split) return jointAtSplit(study, mark, left, right, base, may)
  const feature = featureAt(study, { enclosure, proven: mark.proven })
  const flat = vanishesAt(left.slope!, study.variable, enclosure)
  const turns = left.rise.end * right.rise.start < 0
  const bends = left.bend.end * right.bend.start < 0
  return {
    ...base,
    critical: flat ? feature : null,
    turning: turns
      ? { ...feature, kind: left.rise.end > 0 ? 'maximum' : 'minimum', vanishes: true }
      : null,
    inflection: bends ? { ...feature, hasTangent: true, vanishes: true } : null,
  }
}

/** Whether a formula may be 0 on a narrow enclosure that was found as a zero of it or another. */
function vanishesAt(tree: Tree, variable: string, enclosure: Interval): boolean {
  const [value] = compileBoxes(tree, variable)(enclosure, 1, I.noNotes())
  return I.holdsZero(value!)
}

function jointAtSplit(
  study: Study,
  mark: Mark,
  left: Cell,
  right: Cell,
  base: Joint,
  may: MayGrow,
): Joint {
  const { tree, variable } = study
  const split = mark.split!
  const { enclosure } = split
  const value = valueAtSplit(tree, variable, split)
  const x = I.middle(enclosure)
  const limitOf = (cell: Cell, side: -1 | 1, of: 'tree' | 'slope') =>
    cell[of] ? sideLimit(cell[of], variable, split, side, undefined, may) : null
  const [before, after] = [limitOf(left, -1, 'tree'), limitOf(right, 1, 'tree')]
  const found = (kind: BreakKind): Break => ({ x, kind, enclosure: [enclosure.lo, enclosure.hi] })
  const limits = [before, after].filter((l) => l !== null)
  const feature = value && featureWith(x, value, enclosure)
  const outstanding = (where: BreakKind) =>
    feature && outstandingAt(feature, where, { before, after, left, right })
  // On one side there is nothing: the domain ends here.
  if (!before || !after) {
    const only = before ?? after
    return {
      ...base,
      continuous: false,
      limits,
      critical: null,
      end: feature,
      outstanding: only ? outstanding('domain-end') : null,
      break: only ? found('domain-end') : value ? { ...found('domain-end'), isolated: true } : null,
      settled: only?.kind !== 'unsettled',
    }
  }
  if (before.kind === 'none' || after.kind === 'none') {
    return {
      ...base,
      continuous: false,
      limits,
      critical: feature,
      break: found('oscillation'),
      settled: false,
    }
  }
  if (before.kind === 'unsettled' || after.kind === 'unsettled') {
    return { ...base, continuous: false, limits, critical: feature, settled: false }
  }
  if (before.kind === 'infinite' || after.kind === 'infinite') {
    return {
      ...base,
      continuous: false,
      limits,
      critical: feature,
      outstanding: outstanding('pole'),
      break: found('pole'),
    }
  }
  if (!alike(before.range, after.range)) {
    return {
      ...base,
      continuous: false,
      limits,
      valueStep: value ? stepOver(before.range, value, after.range) : 0,
      critical: feature,
      outstanding: outstanding('jump'),
      break: found('jump'),
    }
  }
  if (!value || !alike(value, before.range)) {
    const kind = value ? 'displaced' : 'hole'
    return {
      ...base,
      continuous: false,
      limits,
      critical: feature,
      outstanding: outstanding(kind),
      break: found(kind),
    }
  }
  // Continuous, and nobody asks for more.
  if (!left.slope || !right.slope) return { ...base, limits }
  const slopes = [limitOf(left, -1, 'slope')!, limitOf(right, 1, 'slope')!] as const
  return continuousJoint({ ...base, limits }, { left, right, feature, found, slopes })
}

/** What f does at a place at which it is continuous, by its slopes on both sides. */
function continuousJoint(
  base: Joint,
  place: {
    left: Cell
    right: Cell
    feature: Feature | null
    found(kind: BreakKind): Break
    slopes: readonly [OneSided, OneSided]
  },
): Joint {
  const { left, right, feature, found } = place
  const [slopeBefore, slopeAfter] = place.slopes
  const turns = left.rise.end * right.rise.start < 0
  const bends = left.bend.end * right.bend.start < 0
  const continuous = {
    ...base,
    turning:
      turns && feature
        ? {
            ...feature,
            kind: left.rise.end > 0 ? ('maximum' as const) : ('minimum' as const),
            vanishes: false,
          }
        : null,
  }
  const steep = [slopeBefore, slopeAfter].filter((s) => s.kind === 'infinite')
  if (steep.length > 0) {
    const [p, q] = [slopeBefore, slopeAfter]
    const both = p.kind === 'infinite' && q.kind === 'infinite'
    const kind: BreakKind = !both ? 'kink' : p.sign === q.sign ? 'vertical' : 'cusp'
    const step = slopeSign(q) - slopeSign(p)
    return {
      ...continuous,
      slopeStep: kind === 'vertical' ? 0 : step,
      critical: feature,
      break: found(kind),
      inflection:
        bends && feature ? { ...feature, hasTangent: kind === 'vertical', vanishes: false } : null,
    }
  }
  if (slopeBefore.kind !== 'value' || slopeAfter.kind !== 'value') {
    return { ...continuous, critical: feature, settled: false }
  }
  const smooth = alike(slopeBefore.range, slopeAfter.range)
  const step = smooth ? 0 : I.middle(slopeAfter.range) - I.middle(slopeBefore.range)
  return {
    ...continuous,
    turning: continuous.turning && { ...continuous.turning, vanishes: smooth },
    slopeStep: Math.sign(step),
    critical: !smooth || I.holdsZero(widened(slopeBefore.range)) ? feature : null,
    break: smooth ? null : found('kink'),
    inflection: bends && feature ? { ...feature, hasTangent: smooth, vanishes: false } : null,
  }
}

const slopeSign = (limit: OneSided) =>
  limit.kind === 'infinite'
    ? limit.sign * Infinity
    : limit.kind === 'value'
      ? I.middle(limit.range)
      : NaN

/** A slope that is 0 but for rounding is 0. */
const widened = ({ lo, hi }: Interval): Interval => ({ lo: lo - 1e-13, hi: hi + 1e-13 })

/** An end of the span at which f has no value although it is defined beside it. */
function edgeBreaks(study: Study, splits: readonly Split[]): Break[] {
  const { from, to, cells } = study
  return [
    { x: from, cell: cells[0] },
    { x: to, cell: cells.at(-1) },
  ].flatMap(({ x, cell }): Break[] => {
    const split = splitAt(splits, x)
    if (!split || !cell?.tree) return []
    const side = x === from ? 1 : -1
    const limit = sideLimit(cell.tree, study.variable, split, side)
    const enclosure: [number, number] = [split.enclosure.lo, split.enclosure.hi]
    if (limit.kind === 'none') return [{ x, kind: 'oscillation', enclosure }]
    const value = valueAtSplit(study.tree, study.variable, split)
    if (value && limit.kind === 'value') {
      return alike(value, limit.range) ? [] : [{ x, kind: 'jump', enclosure }]
    }
    // What lies beyond the span tells a pole or a hole from an end of the domain.
    const beyond = study.f.value(x - side * 1e-6 * Math.max(1, Math.abs(x)))
    if (!Number.isFinite(beyond)) return [{ x, kind: 'domain-end', enclosure }]
    const kinds = { infinite: 'pole', value: 'hole', unsettled: 'domain-end' } as const
    return [{ x, kind: kinds[limit.kind], enclosure }]
  })
}
