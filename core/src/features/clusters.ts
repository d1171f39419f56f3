import type { BoxCode } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import type { Zero } from './zero'

const mostClusters = 12

/** A cluster takes a few looks with many coefficients each: so many of a short formula. */
export const mostClustersLooked = 200

/** Up to this width, relative to its place, an unsettled stretch is listed as a likely zero. */
const likelyWidth = 1e-6

/** Neighbouring boxes as one. */
export function clusters(boxes: readonly Interval[]): Interval[] {
  const sorted = [...boxes].sort((a, b) => a.lo - b.lo)
  const joined: Interval[] = []
  for (const box of sorted) {
    const last = joined.at(-1)
    // A gap of a box's width between two of them was settled, yet belongs to the same place.
    const gap = last ? box.lo - last.hi : 0
    if (last && gap <= 4 * (box.hi - box.lo)) {
      joined[joined.length - 1] = { lo: last.lo, hi: Math.max(last.hi, box.hi) }
    } else joined.push(box)
  }
  // Scattered leftovers come from rounding around one place: they are told as one stretch.
  return joined.length > mostClusters ? [{ lo: joined[0]!.lo, hi: joined.at(-1)!.hi }] : joined
}

/**
 * What remains where neither value nor slope could be told from 0. An exact double at which g and
 * its first m - 1 derivatives are exactly 0 and the next is not 0 on the cluster is a zero counted m
 * times, and the only one. Otherwise a change of sign shows that there is a zero, and a second
 * derivative that is not 0 that it is the only one.
 */
export function settleCluster(
  code: BoxCode,
  cluster: Interval,
  from: number,
  to: number,
  signAt: (x: number) => number,
): { zeros: Zero[]; proven: boolean } {
  const mid = I.middle(cluster)
  const length = 6
  const around = code(cluster, length, I.noNotes())
  const nonzero = (c: Interval) => c.lo > 0 || c.hi < 0
  const candidates = [
    from,
    to,
    mid,
    Math.round(mid),
    Number(mid.toPrecision(6)),
    Number(mid.toFixed(6)),
    0,
  ]
  for (const x of candidates) {
    if (x < cluster.lo || x > cluster.hi) continue
    const notes = I.noNotes()
    const at = code(I.point(x), length, notes)
    if (notes.partial) continue
    const m = at.findIndex((c) => c.lo !== 0 || c.hi !== 0)
    if (m < 1 || !nonzero(around[m]!)) continue
    if (x <= from || x >= to) return { zeros: [], proven: true }
    return { zeros: [{ enclosure: I.point(x), multiplicity: m, proven: true }], proven: true }
  }
  // A zero at the very end of the stretch is not inside it.
  if (cluster.lo <= from || cluster.hi >= to) return { zeros: [], proven: false }
  const [a, b] = [signAt(cluster.lo), signAt(cluster.hi)]
  if (nonzero(around[2]!) && a * b < 0) {
    return { zeros: [{ enclosure: cluster, multiplicity: 1, proven: true }], proven: true }
  }
  // A wide stretch without a verdict is no place.
  const narrow = I.width(cluster) <= likelyWidth * Math.max(1, Math.abs(mid))
  return {
    zeros: narrow ? [{ enclosure: cluster, multiplicity: null, proven: false }] : [],
    proven: false,
  }
}

/** A zero on the edge of two boxes is found by both. */
export function dedupe(zeros: Zero[]): Zero[] {
  const sorted = [...zeros].sort((a, b) => a.enclosure.lo - b.enclosure.lo)
  return sorted.filter((zero, i) => {
    const before = sorted[i - 1]
    return !before || before.enclosure.hi < zero.enclosure.lo
  })
}
