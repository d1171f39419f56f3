import * as I from '../arithmetic/intervals'
import type { OneSided } from './limits/oneSided'
import { sideLimit } from './limits/sideLimit'
import type { Split } from './split'
import { valueAtSplit } from './pinned'
import type { Cell, Extreme, Feature, Joint, Study } from './examination'
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

/** Values that agree to this share of their size are one: their places attain it together. */
const tie = 1e-12

export function extremeOf(
  study: Study,
  candidates: readonly Feature[],
  joints: readonly Joint[],
  splits: readonly Split[],
  sign: 1 | -1,
  open: readonly [number, number][],
): Extreme | null {
  if (joints.some((j) => !j.settled)) return null
  const level = study.cells
    .filter((c) => c.level)
    .map((c): Feature => {
      const x = c.from + (c.to - c.from) / 2
      return { x, value: study.f.value(x), enclosure: [c.from, c.to], proven: true }
    })
  const all = [...candidates, ...level].filter((c) => Number.isFinite(c.value))
  if (all.length === 0) return null
  const best = all.reduce((p, q) => (sign * q.value > sign * p.value ? q : p))
  const slack = tie * Math.max(1, Math.abs(best.value))
  // On a stretch that is not settled f must be proven to stay below, or above.
  const mayPass = open.some(([lo, hi]) => {
    const [least, greatest] = study.f.enclose(lo, hi)
    return !(sign > 0 ? greatest <= best.value + slack : least >= best.value - slack)
  })
  if (mayPass) return null
  // A limit beyond every value that is taken: the function comes near and never gets there.
  const unattained = [...joints.flatMap((j) => j.limits), ...endLimits(study, splits)].some(
    (limit) =>
      limit.kind === 'infinite'
        ? limit.sign === sign
        : limit.kind === 'value' && sign * I.middle(limit.range) > sign * best.value + slack,
  )
  if (unattained) return null
  const at = all.filter((c) => Math.abs(c.value - best.value) <= slack)
  return { x: at[0]!.x, value: best.value, at }
}

/** What f tends to at the ends of the span. */
function endLimits(study: Study, splits: readonly Split[]): OneSided[] {
  const { cells, variable, from, to } = study
  const [first, last] = [cells[0], cells.at(-1)]
  const limit = (cell: Cell | undefined, side: -1 | 1, x: number): OneSided[] => {
    if (!cell?.tree) return []
    const split = splitAt(splits, x) ?? { enclosure: I.point(x), zeros: new Set<string>() }
    return [sideLimit(cell.tree, variable, split, side)]
  }
  return [...limit(first, 1, from), ...limit(last, -1, to)]
}
