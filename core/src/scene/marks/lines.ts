import type { Mark } from '../../statements/contract'
import { formatNumber, formatPower, formatShort } from '../../vocabulary/numbers'
import { type Frame, toPixelX, toPixelY } from '../frame'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'

/** Half the length of a short tangent, in pixels. */
const shortHalf = 120

/** A run of the slope triangle is drawn between these widths, in pixels. */
const [shortestRun, longestRun] = [28, 180]

const pixelSlope = (slope: number, frame: Frame) =>
  -slope * (frame.height / (frame.y[1] - frame.y[0])) * ((frame.x[1] - frame.x[0]) / frame.width)

export function linePath(
  mark: Mark & { kind: 'line' },
  frame: Frame,
  x: number,
  y: number,
): string {
  const steep = pixelSlope(mark.slope, frame)
  const length = Math.hypot(1, steep)
  // A whole line goes on past every edge of the frame.
  const half = mark.extent === 'short' ? shortHalf : 3 * (frame.width + frame.height) + Math.abs(y)
  if (!Number.isFinite(steep)) return `M${round(x)} ${round(y - half)}V${round(y + half)}`
  const dx = half / length
  return `M${round(x - dx)} ${round(y - steep * dx)}L${round(x + dx)} ${round(y + steep * dx)}`
}

/** 1, or the power of ten next to it that can be seen: the triangle keeps an easy run. */
export function triangleRun(frame: Frame): number {
  const perUnit = frame.width / (frame.x[1] - frame.x[0])
  let run = 1
  while (run * perUnit > longestRun) run /= 10
  while (run * perUnit < shortestRun) run *= 10
  return run
}

export function triangleItems(
  mark: Mark & { kind: 'riseOverRun' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): PlainItem[] {
  const run = triangleRun(frame)
  const right = toPixelX(frame, mark.x + run)
  const top = toPixelY(frame, mark.y + mark.slope * run)
  const flat = Math.abs(top - y) < 1
  const falls = top > y
  const held = Math.max(12, Math.min(frame.height - 6, (y + top) / 2 + 4))
  const outside = right + 64 > frame.width
  const runText = run < 1e-12 || run > 1e12 ? formatPower(run) : formatShort(run, 12)
  const items: PlainItem[] = [
    {
      kind: 'label',
      key: `${key}.run`,
      x: round((x + right) / 2),
      y: round(falls || flat ? y - 6 : y + 15),
      text: runText,
      ink: 'place',
      anchor: 'middle',
    },
    {
      kind: 'label',
      key: `${key}.rise`,
      x: round(outside ? Math.min(right, frame.width) - 8 : right + 8),
      y: round(flat ? y - 6 : held),
      text: formatNumber(mark.slope * run, mark.decimals),
      ink: 'place',
      anchor: outside ? 'end' : 'start',
    },
  ]
  return [
    {
      kind: 'path',
      key,
      d: `M${round(x)} ${round(y)}H${round(right)}V${round(top)}`,
      ink: 'place',
      width: 1.5,
      dotted: true,
    },
    ...items,
  ]
}
