import type { Mark } from '../../statements/contract'
import { formatNumber, formatPower, formatShort } from '../../vocabulary/numbers'
import { type Frame, toPixelX, toPixelY } from '../frame'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'
import { triangleOf } from './triangle'

/** A short line reaches at least so far to either side, in pixels. */
const leastHalf = 60

/** A run of the slope triangle is drawn between these widths, in pixels. */
const [shortestRun, longestRun] = [28, 180]
/** Its rise takes no more than this share of the height. */
const mostRise = 0.45

const pixelSlope = (slope: number, frame: Frame) =>
  -slope * (frame.height / (frame.y[1] - frame.y[0])) * ((frame.x[1] - frame.x[0]) / frame.width)

export function linePath(
  mark: Mark & { kind: 'line' },
  frame: Frame,
  x: number,
  y: number,
  whole?: number,
): string {
  const steep = pixelSlope(mark.slope, frame)
  const length = Math.hypot(1, steep)
  // A whole line goes on past every edge of the frame.
  const isUpright = !Number.isFinite(steep)
  const half =
    mark.extent === 'short' && !isUpright
      ? whole !== undefined
        ? whole / 2
        : Math.max(leastHalf, triangleWidth(frame, mark.slope) * length)
      : 3 * (frame.width + frame.height) + Math.abs(y)
  if (isUpright) {
    const up = mark.extent === 'short' ? (whole ?? 4 * leastHalf) / 2 : half
    return `M${round(x)} ${round(y - up)}V${round(y + up)}`
  }
  const dx = half / length
  return `M${round(x - dx)} ${round(y - steep * dx)}L${round(x + dx)} ${round(y + steep * dx)}`
}

/** 1, or the power of ten next to it with which the triangle can be seen and fits: an easy run. */
export function triangleRun(frame: Frame, slope: number): number {
  const perUnit = frame.width / (frame.x[1] - frame.x[0])
  const rise = Math.abs(slope) * (frame.height / (frame.y[1] - frame.y[0]))
  let run = 1
  while (run * perUnit > longestRun) run /= 10
  while (run * perUnit < shortestRun) run *= 10
  while (run * rise > mostRise * frame.height && run * perUnit > 1) run /= 10
  return run
}

const triangleWidth = (frame: Frame, slope: number) =>
  (triangleRun(frame, slope) * frame.width) / (frame.x[1] - frame.x[0])

export function triangleItems(
  mark: Mark & { kind: 'riseOverRun' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): PlainItem[] {
  const run = triangleRun(frame, mark.slope)
  const right = toPixelX(frame, mark.x + run)
  const top = toPixelY(frame, mark.y + mark.slope * run)
  const runText = run < 1e-12 || run > 1e12 ? formatPower(run) : formatShort(run, 12)
  const rise = mark.slope * run
  const riseText =
    run === 1 ? mark.rise : mark.exact ? formatShort(rise, 12) : formatNumber(rise, mark.decimals)
  const words = { run: runText, rise: riseText }
  return triangleOf({ x, y, right, top }, words, frame, key)
}
