import type { Mark } from '../statements/kind'
import type { Item } from './items'
import { type Frame, round, toPixelX, toPixelY } from './sampleCurve'

/** Half the length of a short tangent, in pixels. */
const shortHalf = 120
/** A run of the slope triangle is drawn between these widths, in pixels. */
const [shortestRun, longestRun] = [28, 180]

/** Turns a mark of a line into what is drawn on its lane. */
export function markItems(mark: Mark, frame: Frame, key: string): Item[] {
  const x = toPixelX(frame, mark.x)
  const y = toPixelY(frame, mark.y)
  switch (mark.kind) {
    case 'dot':
      return dotItems(mark, frame, key, x, y)
    case 'line':
      return [
        {
          kind: 'path',
          key,
          d: linePath(mark, frame, x, y),
          ink: 'place',
          width: 2.5,
        },
      ]
    case 'riseOverRun':
      return triangleItems(mark, frame, key, x, y)
  }
}

const pixelSlope = (slope: number, frame: Frame) =>
  -slope * (frame.height / (frame.y[1] - frame.y[0])) * ((frame.x[1] - frame.x[0]) / frame.width)

function linePath(mark: Mark & { kind: 'line' }, frame: Frame, x: number, y: number): string {
  const steep = pixelSlope(mark.slope, frame)
  const length = Math.hypot(1, steep)
  // A whole line goes on past every edge of the frame.
  const half = mark.extent === 'short' ? shortHalf : 3 * (frame.width + frame.height) + Math.abs(y)
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

function triangleItems(
  mark: Mark & { kind: 'riseOverRun' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): Item[] {
  const run = triangleRun(frame)
  const right = toPixelX(frame, mark.x + run)
  const top = toPixelY(frame, mark.y + mark.slope * run)
  const flat = Math.abs(top - y) < 1
  const falls = top > y
  const held = Math.max(12, Math.min(frame.height - 6, (y + top) / 2 + 4))
  const outside = right + 64 > frame.width
  const runText = run >= 1 ? String(run) : run.toFixed(-Math.round(Math.log10(run)))
  const items: Item[] = [
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
      x: round(outside ? right - 8 : right + 8),
      y: round(flat ? y - 6 : held),
      text: mark.unitLabel(run),
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

function dotItems(
  mark: Mark & { kind: 'dot' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): Item[] {
  const dot: Item = { kind: 'dot', key, x: round(x), y: round(y), ink: 'place', place: mark.place }
  const inFrame = y >= -10 && y <= frame.height + 10
  if (mark.label === undefined || !inFrame) return [dot]
  const at = { x: round(x), y: round(y) }
  const text = mark.label
  return [
    dot,
    { kind: 'label', key: `${key}.label`, ...at, text, ink: 'place', anchor: 'start', beside: at },
  ]
}
