import * as I from '../arithmetic/intervals'
import type { OneSided } from './limits/oneSided'
import { sideLimit } from './limits/sideLimit'
import type { Split } from './split'
import { valueAtSplit } from './pinned'
import type { Cell, Extreme, Feature, Joint, Outstanding, Study } from './examination'
import { outstandingAt } from './outstanding'
import { featureWith, splitAt } from './places'

/** The ends of the span at which f has a value. */
export function endFeatures(study: Study, splits: readonly Split[]): Feature[] {
  return [study.from, study.to].flatMap((x) => {
    const split = splitAt(splits, x)
    if (split) {
      const value = valueAtSplit(study.tree, study.variable, split)
      return value ? [featureWith(x, value, I.point(x))] : []
    }
    const direct = study.f.value(x)
    return Number.isFinite(direct) ? [featureWith(x, I.point(direct), I.point(x))] : []
  })
}

/** The ends of the span whose values are the highest or lowest nearby. */
export const outstandingEnds = (
  study: Study,
  ends: readonly Feature[],
  splits: readonly Split[],
): Outstanding[] =>
  ends.flatMap((feature) => {
    const [left, right] = [study.cells[0], study.cells.at(-1)]
    const isFirst = feature.x === study.from
    const [limit] = sideLimits(study, splits, isFirst ? left : right, isFirst ? 1 : -1, feature.x)
    const found =
      limit &&
      outstandingAt(feature, 'end', {
        before: isFirst ? null : limit,
        after: isFirst ? limit : null,
        left: isFirst ? undefined : right,
        right: isFirst ? left : undefined,
      })
    return found ? [found] : []
  })

/** Values that agree to this share of their size are one: their places attain it together. */
const tie = 1e-12

/**
 * The greatest value on the span for sign 1, the least for -1: null where none is attained, which is
 * certain where it is `decided`.
 */
export function extremeOf(
  study: Study,
  candidates: readonly Feature[],
  joints: readonly Joint[],
  splits: readonly Split[],
  sign: 1 | -1,
  open: readonly [number, number][],
): { extreme: Extreme | null; decided: boolean } {
  const undecided = { extreme: null, decided: false }
  const unattained = { extreme: null, decided: true }
  const limits = [...joints.flatMap((j) => j.limits), ...endLimits(study, splits)]
  if (limits.some((limit) => limit.kind === 'infinite' && limit.sign === sign)) return unattained
  if (joints.some((j) => !j.settled)) return undecided
  const level = study.cells
    .filter((c) => c.level)
    .map((c): Feature => {
      const x = c.from + (c.to - c.from) / 2
      return { x, value: study.f.value(x), enclosure: [c.from, c.to], proven: true }
    })
  const all = [...candidates, ...level].filter((c) => Number.isFinite(c.value))
  if (all.length === 0) return { extreme: null, decided: open.length === 0 }
  const best = all.reduce((p, q) => (sign * q.value > sign * p.value ? q : p))
  const slack = tie * Math.max(1, Math.abs(best.value))
  // On a stretch that is not settled f must be proven to stay below, or above.
  const mayPass = open.some(([lo, hi]) => {
    const [least, greatest] = study.f.enclose(lo, hi)
    return !(sign > 0 ? greatest <= best.value + slack : least >= best.value - slack)
  })
  if (mayPass) return undecided
  // A limit beyond every value that is taken: the function comes near and never gets there.
  const passes = limits.some(
    (limit) => limit.kind === 'value' && sign * I.middle(limit.range) > sign * best.value + slack,
  )
  if (passes) return unattained
  const at = all.filter((c) => Math.abs(c.value - best.value) <= slack)
  return { extreme: { x: at[0]!.x, value: best.value, at }, decided: true }
}

/** What f tends to at the ends of the span. */
const endLimits = (study: Study, splits: readonly Split[]): OneSided[] => [
  ...sideLimits(study, splits, study.cells[0], 1, study.from),
  ...sideLimits(study, splits, study.cells.at(-1), -1, study.to),
]

function sideLimits(
  { variable }: Study,
  splits: readonly Split[],
  cell: Cell | undefined,
  side: -1 | 1,
  x: number,
): OneSided[] {
  if (!cell?.tree) return []
  const split = splitAt(splits, x) ?? { enclosure: I.point(x), zeros: new Set<string>() }
  return [sideLimit(cell.tree, variable, split, side)]
}
