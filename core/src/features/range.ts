import type { RealFunction } from '../evaluate/compile'

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
