import type { DrawnFunction } from '../statements/contract'
import { countParts } from '../formula/tree'
import { steadyCurve } from './steadyCurve'
import { canBeDrawn, type Frame, toPixelX, toPixelY } from './frame'

/** One connected stretch of a curve as x, y, x, y, … in pixels. */
export type Stroke = number[]

/** A stretch counts as straight when its middle lies this close to the chord, in pixels. */
const flatness = 0.2
/** Two samples closer than this, in pixels across, are not refined any more. */
const finest = 1 / 64
/** Samples with many digits take their time, and stand further apart, in pixels. */
const steadySpacing = 16
/** A step between finest samples that could be a break rather than a steep climb, in pixels. */
const suspicious = 2
/** How far an enclosure may reach beyond the samples and still be believed, in pixels. */
const believed = 1.5
/** Enclosures are looked at as long as a picture may take; a very long formula gets fewer. */
const [mostLooks, mostPartsLooked] = [4000, 200_000]
/** Values are asked for as long as a picture may take: then what is left is drawn straight. */
const [mostValues, mostPartsValued] = [200_000, 40_000_000]
/** Halvings of a first step: with `finest` this leaves none out but at ends of the domain. */
const deepest = 20
/** Halvings that tell a jump from a steep climb: beyond them doubles end. */
const halvings = 60

/**
 * Samples a curve over [from, to] for drawing: evenly at first, then by halving wherever the middle
 * strays from the chord. Ends of the domain are bisected to the pixel, and the curve is broken at
 * poles and jumps: there the step does not shrink however close the samples come. Heights are held
 * within three frame heights, so that a file never carries coordinates it cannot hold. Taken with
 * care, a stretch is only believed to be straight when the enclosure of f keeps to it, so that
 * nothing between two samples is missed; without, a feature narrower than the first spacing (2
 * pixels) can be, which is for pictures that move. Nothing comes of a frame that cannot be drawn,
 * and the work is bounded: a formula that is long, or broken everywhere, is drawn more coarsely.
 */
export function sampleCurve(
  drawn: DrawnFunction,
  from: number,
  to: number,
  frame: Frame,
  careful = true,
): Stroke[] {
  const low = Math.max(from, frame.x[0])
  const high = Math.min(to, frame.x[1])
  if (!(low < high) || !canBeDrawn(frame.x) || !canBeDrawn(frame.y)) return []
  const scaleX = frame.width / (frame.x[1] - frame.x[0])
  const scaleY = frame.height / (frame.y[1] - frame.y[0])
  // In a picture that moves there is no time for more digits; where there are, enclosures are too wide.
  const steady = careful ? steadyCurve(drawn, [low, high], scaleY) : null
  const f = steady ?? drawn
  const care = careful && !steady
  const across = toPixelX(frame, high) - toPixelX(frame, low)
  const count = Math.max(2, Math.ceil(across / (steady ? steadySpacing : 2))) + 1
  const xs = Float64Array.from({ length: count }, (_, i) =>
    i === count - 1 ? high : low + ((high - low) * i) / (count - 1),
  )
  const ys = f.values(xs)
  const strokes: Stroke[] = []
  let stroke: Stroke = []
  const heldY = (y: number) => {
    const pixel = toPixelY(frame, y)
    return Math.max(-3 * frame.height, Math.min(4 * frame.height, pixel))
  }
  const add = (x: number, y: number) => stroke.push(toPixelX(frame, x), heldY(y))
  const lift = () => {
    if (stroke.length >= 4) strokes.push(stroke)
    stroke = []
  }
  /** Far above or below the frame nothing is seen, so nothing needs to be smooth. */
  const unseen = (a: number, b: number) => {
    const [p, q] = [toPixelY(frame, a), toPixelY(frame, b)]
    return (
      (p < -frame.height && q < -frame.height) || (p > 2 * frame.height && q > 2 * frame.height)
    )
  }

  let looks = 0
  let values = 0
  const parts = countParts(f.tree)
  const valuesAffordable = Math.min(mostValues, mostPartsValued / parts)
  const affordable = Math.min(mostLooks, mostPartsLooked / parts)
  /** Whether f surely stays by the samples between x0 and x1, or strays where nobody sees it. */
  const holds = (x0: number, x1: number, a: number, b: number, c: number) => {
    if (!care || looks >= affordable) return true
    looks += 1
    const [lo, hi] = f.enclose(x0, x1)
    const [low, high] = [Math.min(a, b, c), Math.max(a, b, c)]
    const seenLow = Math.max(lo, frame.y[0])
    const seenHigh = Math.min(hi, frame.y[1])
    return (low - seenLow) * scaleY <= believed && (seenHigh - high) * scaleY <= believed
  }

  /** Draws on from (x0, y0), already drawn, to (x1, y1). */
  const refine = (x0: number, y0: number, x1: number, y1: number, depth: number): void => {
    const defined0 = Number.isFinite(y0)
    const defined1 = Number.isFinite(y1)
    if (!defined0 && !defined1) return
    values += 1
    if (defined0 !== defined1) {
      values += halvings
      const end = domainEnd(f, defined0 ? x0 : x1, defined0 ? x1 : x0)
      const yEnd = f.value(end)
      if (defined0) {
        if (end !== x0) refine(x0, y0, end, yEnd, depth + 1)
        lift()
      } else {
        lift()
        add(end, yEnd)
        if (end !== x1) refine(end, yEnd, x1, y1, depth + 1)
      }
      return
    }
    const width = (x1 - x0) * scaleX
    const rise = Math.abs(y1 - y0) * scaleY
    if (width <= finest || depth > deepest || values > valuesAffordable) {
      values += rise > suspicious ? halvings : 0
      const broken = rise > suspicious && isBreak(f, x0, y0, x1, y1)
      if (broken || (care && looks < affordable && isUnbounded(f, x0, x1))) {
        lift()
        add(x1, y1)
      } else add(x1, y1)
      return
    }
    const middle = (x0 + x1) / 2
    const value = f.value(middle)
    const stray = Math.abs(value - (y0 + y1) / 2) * scaleY
    const steepUnseen = unseen(y0, y1) && Number.isFinite(value) && unseen(y0, value)
    if (
      Number.isFinite(value) &&
      (stray < flatness || steepUnseen) &&
      (depth > 0 || width <= 4 || steady)
    ) {
      // A steep straight step may hide a jump: it is followed down before it is believed.
      if ((rise <= 40 || steepUnseen) && holds(x0, x1, y0, value, y1)) {
        add(middle, value)
        add(x1, y1)
        return
      }
    }
    refine(x0, y0, middle, value, depth + 1)
    refine(middle, value, x1, y1, depth + 1)
  }

  if (Number.isFinite(ys[0])) add(xs[0]!, ys[0]!)
  for (let i = 1; i < count; i++) refine(xs[i - 1]!, ys[i - 1]!, xs[i]!, ys[i]!, 0)
  lift()
  return strokes
}

/** The last place with a value on the way from one that has one to one that has none. */
function domainEnd(f: DrawnFunction, within: number, without: number): number {
  let [inside, out] = [within, without]
  for (let i = 0; i < halvings; i++) {
    const middle = (inside + out) / 2
    if (middle === inside || middle === out) break
    if (Number.isFinite(f.value(middle))) inside = middle
    else out = middle
  }
  return inside
}

/** Whether f runs away between two neighbouring samples: a pole is never drawn over. */
function isUnbounded(f: DrawnFunction, x0: number, x1: number): boolean {
  const [lo, hi] = f.enclose(x0, x1)
  return lo === -Infinity || hi === Infinity
}

/** Whether the step between two places stays as they close in: a jump or a pole. */
function isBreak(f: DrawnFunction, x0: number, y0: number, x1: number, y1: number): boolean {
  let [a, ya, b, yb] = [x0, y0, x1, y1]
  const first = Math.abs(y1 - y0)
  for (let i = 0; i < halvings; i++) {
    const middle = (a + b) / 2
    if (middle === a || middle === b) break
    const value = f.value(middle)
    if (!Number.isFinite(value)) return true
    if (Math.abs(value - ya) > Math.abs(yb - value)) [b, yb] = [middle, value]
    else [a, ya] = [middle, value]
  }
  // A climb, however steep, has all but vanished by now; a cube root at 0 is down to 1e-6 of it.
  return Math.abs(yb - ya) > first / 100
}

/** A point is left out of a path where the line past it comes this near to it, in pixels. */
const unnoticed = 0.05

/** The path text of strokes, in hundredths of a pixel; points nobody would miss are left out. */
export function strokesToPath(strokes: readonly Stroke[]): string {
  let path = ''
  for (const stroke of strokes.map(thinned)) {
    for (let i = 0; i < stroke.length; i += 2) {
      path += `${i === 0 ? 'M' : 'L'}${round(stroke[i]!)} ${round(stroke[i + 1]!)}`
    }
  }
  return path
}

/**
 * A stroke with fewer points: none of those left out lies further than `unnoticed` above or below
 * the new line. From each point kept, the slopes that pass all later ones closely enough form a
 * wedge; the last point before the wedge closes is kept next. Strokes run from left to right.
 */
function thinned(stroke: Stroke): Stroke {
  const last = stroke.length - 2
  const kept: Stroke = [stroke[0]!, stroke[1]!]
  let [x, y] = [stroke[0]!, stroke[1]!]
  let [low, high] = [-Infinity, Infinity]
  for (let i = 2; i <= last; i += 2) {
    const slopeTo = (by: number) => (stroke[i + 1]! + by - y) / (stroke[i]! - x)
    const slope = slopeTo(0)
    if (!(slope >= low && slope <= high)) {
      x = stroke[i - 2]!
      y = stroke[i - 1]!
      kept.push(x, y)
      low = -Infinity
      high = Infinity
    }
    if (stroke[i]! > x) {
      low = Math.max(low, slopeTo(-unnoticed))
      high = Math.min(high, slopeTo(unnoticed))
    } else {
      // Straight up or down: no slope passes this point and a later one.
      low = Infinity
      high = -Infinity
    }
  }
  kept.push(stroke[last]!, stroke[last + 1]!)
  return kept
}

export const round = (pixel: number) => Math.round(pixel * 100) / 100
