import * as I from '../arithmetic/intervals'
import type { RealFunction } from '../evaluate/compile'
import { compileBoxes } from '../evaluate/enclosures'
import { nearestDouble } from '../evaluate/precise'

/** A value whose enclosure is wider than this share of it has lost digits that an area needs. */
const wide = 1e-12
/** So many places are worked out again at the most: beyond them it would take too long. */
const mostPlaces = 800
/** What is below this adds nothing to an area. */
const nothing = 1e-290
/** Places at which a stretch is asked whether doubles cancel on it. */
const looks = [0.003, 0.13, 0.5, 0.87, 0.997]

/** A hole at an end of a stretch of a length; what is lost beside it counts by the distance from it. */
export interface Hole {
  at: number
  length: number
}

/**
 * A function on a stretch on which doubles cancel: its values are worked out with as many digits as it
 * takes where they would be lost for the area; NaN where even these do not tell one. Each such place
 * costs about a millisecond. The function itself where nothing is lost.
 */
export function steadied(
  f: RealFunction,
  [from, to]: readonly [number, number],
  hole: Hole | null = null,
): RealFunction {
  const boxes = compileBoxes(f.tree, f.variable)
  const places = looks.map((share) => from + share * (to - from))
  // What is small beside the rest of the stretch may lose its digits.
  const scale = Math.max(...places.map((x) => Math.abs(f.value(x)) || 0))
  const isLost = (x: number): boolean => {
    const { lo, hi } = boxes(I.point(x), 1, I.noNotes())[0]!
    const counts = hole ? Math.min(1, (10 * Math.abs(x - hole.at)) / hole.length) : 1
    const own = lo <= 0 && hi >= 0 ? 0 : Math.min(Math.abs(lo), Math.abs(hi))
    return !((hi - lo) * counts <= wide * Math.max(scale, own) + nothing)
  }
  if (!hole && !places.some(isLost)) return f
  let left = mostPlaces
  const value = (x: number): number => {
    if (left <= 0 || !isLost(x)) return f.value(x)
    left -= 1
    return nearestDouble(f.tree, f.variable, x, {})
  }
  return {
    ...f,
    value,
    // Up to the hole itself the enclosure divides out what vanishes there; beside it, it cannot.
    enclose(lo, hi) {
      // Where doubles cancel an enclosure by doubles tells nothing.
      if (!hole) return [NaN, NaN]
      const near = f.enclose(lo, hi)
      const [least, most] = f.enclose(Math.min(lo, hi, hole.at), Math.max(lo, hi, hole.at))
      return [
        Number.isNaN(least) ? near[0] : Math.max(near[0], least),
        Number.isNaN(most) ? near[1] : Math.min(near[1], most),
      ]
    },
    values(xs, out = new Float64Array(xs.length)) {
      for (let i = 0; i < xs.length; i++) out[i] = value(xs[i]!)
      return out
    },
  }
}
