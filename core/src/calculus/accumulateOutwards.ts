import type { RealFunction } from '../evaluate/compile'
import { accumulate, type Accumulation } from './accumulate'

/** So many times its first stretch an area is followed at the most. */
const farthest = 200

/**
 * ∫ f from `lower` to x, as `accumulate` makes it, for x wherever it is asked about: the stretch grows
 * as places outside it are asked for, up to two hundred times its first width; beyond that there are
 * no values.
 */
export function accumulateOutwards(
  f: RealFunction,
  lower: number,
  { from, to }: { from: number; to: number },
): Pick<Accumulation, 'value' | 'values' | 'derivatives' | 'enclose'> {
  const [least, most] = [from - farthest * (to - from), to + farthest * (to - from)]
  let known = { from, to, area: accumulate(f, lower, from, to) }
  const upTo = (a: number, b: number): Accumulation => {
    if (a >= known.from && b <= known.to) return known.area
    const room = known.to - known.from
    const low = a < known.from ? Math.max(least, Math.min(a, known.from - room)) : known.from
    const high = b > known.to ? Math.min(most, Math.max(b, known.to + room)) : known.to
    if (low !== known.from || high !== known.to) {
      known = { from: low, to: high, area: accumulate(f, lower, low, high) }
    }
    return known.area
  }
  return {
    value: (x) => upTo(x, x).value(x),
    values(xs, out) {
      let [a, b] = [Infinity, -Infinity]
      for (let i = 0; i < xs.length; i++) [a, b] = [Math.min(a, xs[i]!), Math.max(b, xs[i]!)]
      return upTo(a, b).values(xs, out)
    },
    derivatives: (x, order) => upTo(x, x).derivatives(x, order),
    enclose: (lo, hi) => upTo(Math.min(lo, hi), Math.max(lo, hi)).enclose(lo, hi),
  }
}
