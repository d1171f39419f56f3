import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import type { Tree } from '../formula/tree'
import { isAtEnd, ulpOf } from './ends'

/** A place where a formula may stop being smooth or having values. */
export interface Split {
  enclosure: Interval
  /** Parts of the formula that are exactly 0 there, by their keys. */
  zeros: ReadonlySet<string>
  /** The same as formulas. */
  parts?: readonly Tree[]
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

/**
 * A split at an end of the span holds that end in its enclosure: an end is a decimal that doubles
 * need not hold, and so is the place, so the two are never compared as equal doubles.
 */
export function reachingEnds(split: Split, from: number, to: number): Split {
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

export function mergeSplits(splits: Split[]): Split[] {
  const sorted = [...splits].sort((a, b) => a.enclosure.lo - b.enclosure.lo)
  const merged: Split[] = []
  for (const split of sorted) {
    const last = merged.at(-1)
    if (last && split.enclosure.lo <= last.enclosure.hi) {
      merged[merged.length - 1] = {
        enclosure: pointOf(last.enclosure, split.enclosure),
        zeros: new Set([...last.zeros, ...split.zeros]),
        parts: [...(last.parts ?? []), ...(split.parts ?? [])],
      }
    } else merged.push(split)
  }
  return merged
}

/** The exact one of two enclosures of one place, else their hull. */
const pointOf = (a: Interval, b: Interval): Interval =>
  a.lo === a.hi ? a : b.lo === b.hi ? b : I.hull(a, b)
