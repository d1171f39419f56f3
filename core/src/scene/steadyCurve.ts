import { up } from '../arithmetic/intervals'
import { nearValue } from '../evaluate/precise'
import type { DrawnFunction } from '../statements/contract'

/** What doubles lose is seen where it moves a curve by more than this many pixels. */
const seen = 0.25
/** Places at which a curve is asked whether doubles cancel on it. */
const looks = 14
/** Values at which doubles end, or all but. */
const beyond = 1e300
/** So many of them tell whether the curve is denser than doubles. */
const probes = 4

/**
 * A curve whose values, where doubles cancel so much that it is seen, are worked out with as many
 * digits as it takes; null where nothing is seen of that, or where the curve is no formula.
 */
export function steadyCurve(
  f: DrawnFunction,
  [from, to]: readonly [number, number],
  pixelsPerUnit: number,
): DrawnFunction | null {
  const { variable, parameters } = f
  if (variable === undefined || parameters === undefined) return null
  const isLost = (x: number) => {
    const [lo, hi] = f.enclose(x, x)
    // What no double holds is no loss, either: no digits bring it into the picture.
    return (hi - lo) * pixelsPerUnit > seen && lo < beyond && hi > -beyond
  }
  const places = Array.from({ length: looks }, (_, i) => from + ((i + 0.37) / looks) * (to - from))
  // Beside a pole a value is large, and its rounding with it: that is no loss.
  const cancels = (x: number) => {
    const [lo, hi] = f.enclose(x, x)
    return isLost(x) && hi - lo > 1e-9 * Math.min(Math.abs(lo), Math.abs(hi))
  }
  // To the pixel, which asks for fewer digits than the nearest double does.
  const told = (x: number) =>
    nearValue(f.tree, variable, x, parameters, ({ lo, hi }) => {
      const apart = hi.minus(lo).abs().toNumber()
      return apart * pixelsPerUnit < seen / 8 || apart < 1e-15 * lo.abs().toNumber()
    })
  const cancelled = places.filter(cancels)
  if (cancelled.length === 0) return null
  // Where the doubles beside one another have values far apart, as of sin(1/x) at a tiny x, the curve
  // is denser than doubles: digits bring nothing back, and each value would take hundreds of them.
  const isDense = (x: number) => {
    const [here, beside] = [x, up(x)].map(told)
    return Math.abs(beside! - here!) * pixelsPerUnit > seen
  }
  if (cancelled.slice(0, probes).every(isDense)) return null
  const known = new Map<number, number>()
  const value = (x: number): number => {
    let y = known.get(x)
    if (y === undefined) {
      const exact = isLost(x) ? told(x) : NaN
      y = Number.isNaN(exact) ? f.value(x) : exact
      known.set(x, y)
    }
    return y
  }
  return {
    ...f,
    value,
    values: (xs, out = new Float64Array(xs.length)) => {
      for (let i = 0; i < xs.length; i++) out[i] = value(xs[i]!)
      return out
    },
  }
}
