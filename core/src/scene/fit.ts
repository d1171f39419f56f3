import { quantileSorted } from 'd3-array'
import type { RealFunction } from '../evaluate/compile'
import { roundStep } from '../features/whatMatters'
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
  ;[low, high] = withAxis([low, high])
  return [low - (high - low) * margin, high + (high - low) * margin]
}

/** The curve's features take at least this share of the height, before its bounds are rounded. */
const leastShare = 0.45
/** Where all of a curve is no higher than this many times its middle, all of it is shown. */
const allShown = 2
/** Features that differ by less than this share of the heights lie at one height. */
const tooFlat = 0.002
/** Heights that differ by less than this share are one height. */
const noise = 1e-9
/** Beyond this many times its middle a curve runs away at a pole. */
const runsAway = 8

/**
 * The heights to show of a curve that goes on to both sides: those of its turning points, inflections
 * and zeros, and its 10th to 90th percentile as far as the features keep a third of the height; far
 * tails are cut, not squeezed. On round bounds unless said otherwise. The features are looked for at evenly spaced places,
 * for a picture; nothing is claimed of them.
 */
export function fitFeatures(
  f: Pick<RealFunction, 'values'>,
  from: number,
  to: number,
  isRound = true,
): [number, number] {
  const xs = Float64Array.from({ length: looks + 1 }, (_, i) => placeBetween(from, to, i / looks))
  const ys = f.values(xs)
  const values = Array.from(ys)
    .filter((y) => Number.isFinite(y))
    .sort((a, b) => a - b)
  if (values.length === 0) return [-1, 1]
  const [low, high] = withAxis(cutTails(values, featureHeights(ys)))
  const isLevel = high - low <= noise * Math.max(Math.abs(low), Math.abs(high))
  if (isLevel && low === 0) return [-1, 1]
  const [bottom, top] = isLevel ? [Math.min(0, low), Math.max(0, low)] : [low, high]
  if (isRound) return drawableHeights(...roundHeights(bottom, top))
  const air = (top - bottom) * margin
  return drawableHeights(bottom - air, top + air)
}

function cutTails(values: number[], found: readonly number[]): [number, number] {
  const [least, greatest] = [values[0]!, values.at(-1)!]
  // Where a curve comes near the axis, that it does is seen only with the axis.
  const nears = (least > 0 && least < greatest / 5) || (greatest < 0 && greatest > least / 5)
  const features = nears ? [...found, 0] : found
  const [q10, q90] = [quantileSorted(values, 0.1)!, quantileSorted(values, 0.9)!]
  const middle = q90 - q10
  const beyond = greatest - least > runsAway * middle ? middle / 2 : middle / 4
  const [low, high] = [Math.max(least, q10 - beyond), Math.min(greatest, q90 + beyond)]
  const [first, last] = [Math.min(...features, high), Math.max(...features, low)]
  const [bottom, top] = [Math.min(low, first), Math.max(high, last)]
  const range = features.length > 1 ? Math.max(...features) - Math.min(...features) : 0
  const most = range > tooFlat * (top - bottom) ? range / leastShare : Infinity
  const whole = greatest - least
  if (whole <= Math.min(most, allShown * (top - bottom))) return [least, greatest]
  if (top - bottom <= most) return [bottom, top]
  // What is left of the height beside the features goes to where the curve goes on.
  const [under, over] = [Math.min(...features) - bottom, top - Math.max(...features)]
  const left = (most - range) / (under + over)
  return [Math.min(...features) - under * left, Math.max(...features) + over * left]
}

/** Heights at which a sampled curve turns, changes its bend, or meets the axis. */
function featureHeights(ys: Float64Array): number[] {
  const found: number[] = []
  /** Near a pole each step is greater than the last, or than those behind it: no feature is there. */
  const calm = (i: number, apart: number) => {
    const step = (k: number) => Math.abs(ys[k + apart]! - ys[k]!)
    const [before, inward, outward, after] = [-2, -1, 0, 1].map((k) => step(i + k * apart))
    const [least, most] = [Math.min(before!, after!), Math.max(before!, after!)]
    return inward! <= 1.5 * before! && outward! <= 1.5 * after! && most <= 100 * least
  }
  for (let i = 2; i < ys.length - 2; i++) {
    const [before, y, after] = [ys[i - 1]!, ys[i]!, ys[i + 1]!]
    if ((y - before) * (y - after) > 0 && calm(i, 1)) found.push(y)
    if (before * y <= 0 && before !== y && calm(i, 1)) found.push(0)
  }
  const size = ys.reduce((most, y) => (Number.isFinite(y) ? Math.max(most, Math.abs(y)) : most), 0)
  const bendAt = (i: number) => ys[i - bendsApart]! - 2 * ys[i]! + ys[i + bendsApart]!
  for (let i = 2 * bendsApart; i < ys.length - 3 * bendsApart; i += bendsApart) {
    const [bend, next] = [bendAt(i), bendAt(i + bendsApart)]
    if (bend * next > 0 || !(Math.min(Math.abs(bend), Math.abs(next)) > bendSeen * size)) continue
    const share = Math.abs(bend) / (Math.abs(bend) + Math.abs(next))
    if (calm(i, bendsApart)) found.push(placeBetween(ys[i]!, ys[i + bendsApart]!, share))
  }
  return found.filter(Number.isFinite)
}

/** Bends are compared over so many looks, and from such a share of the heights on. */
const [bendsApart, bendSeen] = [6, 1e-7]

/** With the axis where that costs less than a quarter of the height. */
function withAxis([low, high]: readonly [number, number]): [number, number] {
  const range = Math.min(high - low, Number.MAX_VALUE)
  if (low > 0 && low < range / 3) return [0, high]
  return high < 0 && -high < range / 3 ? [low, 0] : [low, high]
}

/** Round bounds with air between them and the heights; the axis needs none where it is an end. */
function roundHeights(low: number, high: number): [number, number] {
  const air = (high - low) * 0.06
  const step = roundStep(Math.min(Number.MAX_VALUE, (high - low) * 1.12) / 20)
  const tidy = (n: number) => Number((n * step).toPrecision(12)) + 0
  const [bottom, top] = [Math.floor((low - air) / step), Math.ceil((high + air) / step)]
  return [tidy(bottom), tidy(top)]
}

/** A share of the way from one end to the other; the way itself may be longer than any double. */
export const placeBetween = (from: number, to: number, share: number) =>
  from * (1 - share) + to * share

/** The stretch of the axis that shows a span with a little room on both sides. */
export const fitSpan = (from: number, to: number): [number, number] => {
  const room = (to / 2 - from / 2) * 0.07
  return [Math.max(-Number.MAX_VALUE, from - room), Math.min(Number.MAX_VALUE, to + room)]
}
