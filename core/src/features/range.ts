import type { RealFunction } from '../evaluate/compile'
import type { Steps } from './budget'
import type { Extreme } from './examination'
import { examineInSteps } from './examine'

/** One end of a range: where it is taken, that there is none, or that neither is known. */
export type RangeEnd = { x: number; value: number; proven: boolean } | 'none' | 'unknown'
export interface Range {
  low: RangeEnd
  high: RangeEnd
}

/**
 * The least and greatest value of f on [from, to]: proven by an examination where that can be settled,
 * else what a search finds. A search that ends where f has no bound has found nothing: how far it saw
 * is no value of f. It yields the share of the work that is done.
 */
export function* rangeInSteps(f: RealFunction, from: number, to: number): Steps<Range> {
  const found = yield* findRange(f, from, to)
  if (!found.low && !found.high) return { low: 'unknown', high: 'unknown' }
  const known = yield* examineInSteps(f, from, to)
  const end = (
    extreme: Extreme | null,
    isDecided: boolean,
    looked: RangeFound['low'],
  ): RangeEnd => {
    if (known.complete && extreme) return { x: extreme.x, value: extreme.value, proven: true }
    if (isDecided && !extreme) return 'none'
    return looked && isBounded(f, looked.x, from, to) ? { ...looked, proven: false } : 'unknown'
  }
  return {
    low: end(known.lowest, known.extremesDecided.lowest, found.low),
    high: end(known.highest, known.extremesDecided.highest, found.high),
  }
}

/** Whether f is proven to keep within bounds around a place. */
function isBounded(f: RealFunction, x: number, from: number, to: number): boolean {
  const reach = (to - from) / (1 << 16)
  const around = f.enclose(Math.max(from, x - reach), Math.min(to, x + reach))
  return around.every(Number.isFinite)
}

/** The least and greatest value found, and where; null where no value was found. */
export interface RangeFound {
  low: { x: number; value: number } | null
  high: { x: number; value: number } | null
  /** Places looked at. */
  evaluations: number
}

const looksPerChunk = 2048
const refinements = 60
/** The share of a bracket that golden section keeps. */
const golden = (Math.sqrt(5) - 1) / 2

/**
 * Looks for the least and greatest value of f on [from, to]: evenly spaced looks, then golden
 * section around the best of them (Kiefer 1953, from memory). It is a search and no proof: a spike
 * narrower than the spacing can be missed, and where f runs away at a pole the answer is only how
 * far the looks saw; show its numbers as approximate. A generator, so that it can be stopped: it
 * yields the share that is done.
 */
export function* findRange(
  f: Pick<RealFunction, 'value' | 'values'>,
  from: number,
  to: number,
  looks = 1 << 17,
): Generator<number, RangeFound, void> {
  let [low, high] = [-1, -1]
  let [least, greatest] = [Infinity, -Infinity]
  const at = (i: number) => from + ((to - from) * i) / looks
  const xs = new Float64Array(looksPerChunk)
  const ys = new Float64Array(looksPerChunk)
  for (let start = 0; start <= looks; start += looksPerChunk) {
    const count = Math.min(looksPerChunk, looks + 1 - start)
    for (let i = 0; i < looksPerChunk; i++) xs[i] = at(Math.min(looks, start + i))
    f.values(xs, ys)
    for (let i = 0; i < count; i++) {
      const y = ys[i]!
      if (!Number.isFinite(y)) continue
      if (y < least) [least, low] = [y, start + i]
      if (y > greatest) [greatest, high] = [y, start + i]
    }
    yield start / looks
  }
  const settle = (index: number, sign: 1 | -1) => {
    if (index < 0) return null
    const best = { x: at(index), value: f.value(at(index)) }
    let [a, b] = [at(Math.max(0, index - 1)), at(Math.min(looks, index + 1))]
    for (let i = 0; i < refinements; i++) {
      const [p, q] = [b - golden * (b - a), a + golden * (b - a)]
      if (sign * f.value(p) < sign * f.value(q)) b = q
      else a = p
    }
    const x = (a + b) / 2
    const value = f.value(x)
    return sign * value < sign * best.value ? { x, value } : best
  }
  return {
    low: settle(low, 1),
    high: settle(high, -1),
    evaluations: looks + 1 + 4 * refinements,
  }
}
