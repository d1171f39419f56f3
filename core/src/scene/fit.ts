import { quantileSorted } from 'd3-array'
import type { RealFunction } from '../evaluate/compile'
import { drawableHeights } from './frame'

const looks = 600
const margin = 0.08

/**
 * The heights to show so that f is seen over [from, to]: all of it with a margin, and the axis when
 * it is near. Where f runs away at a pole the middle nine tenths of its values decide. Heights that
 * no screen can hold are held within ±10³⁰⁰, and a range too narrow is widened.
 */
export const fitHeights = (
  f: Pick<RealFunction, 'values'>,
  from: number,
  to: number,
): [number, number] => drawableHeights(...heightsOf(f, from, to))

function heightsOf(f: Pick<RealFunction, 'values'>, from: number, to: number): [number, number] {
  const xs = Float64Array.from({ length: looks + 1 }, (_, i) => placeBetween(from, to, i / looks))
  const values = Array.from(f.values(xs)).filter((y) => Number.isFinite(y))
  if (values.length === 0) return [-1, 1]
  values.sort((a, b) => a - b)
  let low = values[0]!
  let high = values.at(-1)!
  const [tenth, lastTenth] = [quantileSorted(values, 0.05)!, quantileSorted(values, 0.95)!]
  const middle = lastTenth - tenth
  if (middle > 0 && high - low > 8 * middle) {
    low = Math.max(low, tenth - middle)
    high = Math.min(high, lastTenth + middle)
  }
  if (high === low) {
    const room = Math.max(1, Math.abs(high) / 2)
    return [Math.min(0, low) - room * margin - (low < 0 ? room : 0), Math.max(0, high) + room]
  }
  const range = Math.min(high - low, Number.MAX_VALUE)
  // The axis comes into view when it costs less than a quarter of the height.
  if (low > 0 && low < range / 3) low = 0
  if (high < 0 && -high < range / 3) high = 0
  return [low - (high - low) * margin, high + (high - low) * margin]
}

/** A share of the way from one end to the other; the way itself may be longer than any double. */
export const placeBetween = (from: number, to: number, share: number) =>
  from * (1 - share) + to * share

/** The stretch of the axis that shows a span with a little room on both sides. */
export const fitSpan = (from: number, to: number): [number, number] => {
  const room = (to / 2 - from / 2) * 0.07
  return [Math.max(-Number.MAX_VALUE, from - room), Math.min(Number.MAX_VALUE, to + room)]
}
