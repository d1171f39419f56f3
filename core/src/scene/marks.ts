import type { Mark } from '../statements/kind'
import type { Item } from './items'
import { shadeItems, stripItems } from './stripItems'
import { type Frame, round, toPixelX, toPixelY } from './sampleCurve'

/** Half the length of a short tangent, in pixels. */
const shortHalf = 120
/** A run of the slope triangle is drawn between these widths, in pixels. */
const [shortestRun, longestRun] = [28, 180]

/** Turns a mark of a line into what is drawn on its lane. */
export function markItems(mark: Mark, frame: Frame, key: string): Item[] {
  switch (mark.kind) {
    case 'level':
      return levelItems(mark, frame, key)
    case 'points':
      return pointItems(mark, frame, key)
    case 'graph':
      return graphItems(mark, frame, key)
    case 'strips':
      return stripItems(mark, frame, key)
    case 'shade':
      return shadeItems(mark, frame, key)
    default:
  }
  const x = toPixelX(frame, mark.x)
  const y = toPixelY(frame, mark.y)
  switch (mark.kind) {
    case 'dot':
      return dotItems(mark, frame, key, x, y)
    case 'chord':
      return chordItems(mark, frame, key, x, y)
    case 'joint':
      return jointItems(mark, frame, key, x, y)
    case 'stem':
      return stemItems(mark, frame, key, x, y)
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

/** Run and rise of a secant as the two short sides of its triangle. */
function chordItems(
  mark: Mark & { kind: 'chord' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): Item[] {
  const [right, top] = [toPixelX(frame, mark.toX), toPixelY(frame, mark.toY)]
  if (Math.abs(right - x) < 6) return []
  const below = top <= y
  const side = right > x ? 1 : -1
  return [
    {
      kind: 'path',
      key,
      d: `M${round(x)} ${round(y)}H${round(right)}V${round(top)}`,
      ink: 'place',
      width: 1.5,
      dotted: true,
    },
    {
      kind: 'label',
      key: `${key}.run`,
      x: round((x + right) / 2),
      y: round(below ? y + 15 : y - 6),
      text: mark.run,
      ink: 'place',
      anchor: 'middle',
    },
    {
      kind: 'label',
      key: `${key}.rise`,
      x: round(right + 8 * side),
      y: round(Math.max(12, Math.min(frame.height - 6, (y + top) / 2 + 4))),
      text: mark.rise,
      ink: 'place',
      anchor: side > 0 ? 'start' : 'end',
    },
  ]
}

/** The straight way from a point of the curve to a fixed one, with its length. */
function jointItems(
  mark: Mark & { kind: 'joint' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): Item[] {
  const [tx, ty] = [toPixelX(frame, mark.toX), toPixelY(frame, mark.toY)]
  return [
    {
      kind: 'path',
      key,
      d: `M${round(x)} ${round(y)}L${round(tx)} ${round(ty)}`,
      ink: 'place',
      width: 2.5,
    },
    { kind: 'path', key: `${key}.end`, d: ringPath(tx, ty, 5), ink: 'place', width: 2.5 },
    {
      kind: 'label',
      key: `${key}.label`,
      x: round((x + tx) / 2 + 8),
      y: round((y + ty) / 2 - 6),
      text: mark.label,
      ink: 'place',
      anchor: 'start',
    },
  ]
}

/** A short stem from a point down to the axis of its lane. */
function stemItems(
  mark: Mark & { kind: 'stem' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): Item[] {
  if (x < -2 || x > frame.width + 2) return []
  const foot = Math.max(0, Math.min(frame.height, toPixelY(frame, 0)))
  const items: Item[] = [
    {
      kind: 'path',
      key,
      d: `M${round(x)} ${round(y)}V${round(foot)}`,
      ink: 'span',
      width: 1.5,
      dotted: true,
    },
    { kind: 'path', key: `${key}.ring`, d: ringPath(x, y, 4.5), ink: 'span', width: 2.5 },
  ]
  if (mark.label === '') return items
  const at = { x: round(x), y: round(y) }
  return [
    ...items,
    {
      kind: 'label',
      key: `${key}.label`,
      ...at,
      text: mark.label,
      ink: 'span',
      anchor: 'start',
      beside: at,
    },
  ]
}

export const ringPath = (x: number, y: number, r: number) =>
  `M${round(x - r)} ${round(y)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`

/** A level across a span, with its number at the right end. */
function levelItems(mark: Mark & { kind: 'level' }, frame: Frame, key: string): Item[] {
  const y = toPixelY(frame, mark.y)
  if (y < -2 || y > frame.height + 2) return []
  const [left, right] = [toPixelX(frame, mark.from), toPixelX(frame, mark.to)]
  const end = Math.max(20, Math.min(frame.width - 6, right - 6))
  return [
    {
      kind: 'path',
      key,
      d: `M${round(left)} ${round(y)}H${round(right)}`,
      ink: 'span',
      width: 2,
    },
    ...(mark.label === ''
      ? []
      : [
          {
            kind: 'label' as const,
            key: `${key}.label`,
            x: round(end),
            y: round(y < 20 ? y + 16 : y - 6),
            text: mark.label,
            ink: 'span' as const,
            anchor: 'end' as const,
          },
        ]),
  ]
}

/** Points of a table or of readings, all as one path. */
function pointItems(mark: Mark & { kind: 'points' }, frame: Frame, key: string): Item[] {
  const seen = mark.points.flatMap(([px, py]) => {
    const [x, y] = [toPixelX(frame, px), toPixelY(frame, py)]
    const inside = x >= -4 && x <= frame.width + 4 && y >= -4 && y <= frame.height + 4
    return inside ? [ringPath(x, y, seenRadius(mark.points.length))] : []
  })
  return seen.length === 0 ? [] : [{ kind: 'path', key, d: seen.join(''), ink: 'ink', width: 1.5 }]
}
const seenRadius = (count: number) => (count > 120 ? 1.8 : 3)

/** A fitted formula over the places it was fitted to. */
function graphItems(mark: Mark & { kind: 'graph' }, frame: Frame, key: string): Item[] {
  const [from, to] = [Math.max(mark.from, frame.x[0]), Math.min(mark.to, frame.x[1])]
  if (!(from < to)) return []
  const count = Math.max(2, Math.ceil(((to - from) / (frame.x[1] - frame.x[0])) * frame.width) / 2)
  let d = ''
  let drawn = false
  for (let i = 0; i <= count; i++) {
    const x = from + ((to - from) * i) / count
    const y = toPixelY(frame, mark.f(x))
    if (!Number.isFinite(y) || Math.abs(y) > 4 * frame.height) {
      drawn = false
      continue
    }
    d += `${drawn ? 'L' : 'M'}${round(toPixelX(frame, x))} ${round(y)}`
    drawn = true
  }
  return [{ kind: 'path', key, d, ink: 'curve3', width: 2.5 }]
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
