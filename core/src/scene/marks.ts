import type { Layer, Mark, Sampled } from '../statements/contract'
import { formatNumber, formatPower, formatShort } from '../vocabulary/numbers'
import type { LineLook } from '../vocabulary/members'
import type { Item } from './items'
import { isFilled, markerPath } from './markers'
import { textWidth } from './textWidth'
import { shadeItems, stripItems, topOf } from './stripItems'
import { type Frame, toPixelX, toPixelY } from './frame'
import { round } from './sampleCurve'

/** Half the length of a short tangent, in pixels. */
const shortHalf = 120
/** A run of the slope triangle is drawn between these widths, in pixels. */
const [shortestRun, longestRun] = [28, 180]

/** How a line wants its points drawn. */
type Points = Pick<LineLook, 'marker' | 'markerWidth'>
const usualPoints: Points = {}

/** The function that a mark follows. */
export type Sample = (of: Sampled) => (x: number) => number

/** Turns a mark of a line into what is drawn on its lane. */
export function markItems(
  mark: Mark,
  frame: Frame,
  key: string,
  sample: Sample,
  points: Points = usualPoints,
): Item[] {
  return plainItems(mark, frame, key, sample, points).map((item) => ({
    ...item,
    layer: item.layer ?? mark.layer,
  }))
}

/** An item that lies where its mark does, if nothing else is said. */
type PlainItem = Item extends infer I
  ? I extends Item
    ? Omit<I, 'layer'> & { layer?: Layer }
    : never
  : never

function plainItems(
  mark: Mark,
  frame: Frame,
  key: string,
  sample: Sample,
  points: Points,
): PlainItem[] {
  switch (mark.kind) {
    case 'level':
      return levelItems(mark, frame, key)
    case 'points':
      return pointItems(mark, frame, key, points)
    case 'graph':
      return graphItems(mark, sample(mark.of), frame, key)
    case 'strips':
      return stripItems({ ...mark, f: sample(mark.of), curved: topOf(mark) }, frame, key)
    case 'shade':
      return shadeItems(
        { ...mark, f: sample(mark.of), g: mark.against ? sample(mark.against) : null },
        frame,
        key,
      )
    default:
  }
  const x = toPixelX(frame, mark.x)
  const y = toPixelY(frame, mark.y)
  switch (mark.kind) {
    case 'dot':
      return dotItems(mark, frame, key, x, y, points)
    case 'chord':
      return chordItems(mark, frame, key, x, y)
    case 'joint':
      return jointItems(mark, frame, key, x, y)
    case 'stem':
      return stemItems(mark, frame, key, x, y, points)
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

function triangleItems(
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

/** Run and rise of a secant as the two short sides of its triangle. */
function chordItems(
  mark: Mark & { kind: 'chord' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): PlainItem[] {
  const [right, top] = [toPixelX(frame, mark.toX), toPixelY(frame, mark.toY)]
  if (Math.abs(right - x) < 6) return []
  const below = top <= y
  // Outside the triangle, or inside where the frame ends too soon for the label.
  const outside = right > x ? 1 : -1
  const room = outside > 0 ? frame.width - right : right
  const side = room < textWidth(mark.rise) + 12 ? -outside : outside
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
): PlainItem[] {
  const [tx, ty] = [toPixelX(frame, mark.toX), toPixelY(frame, mark.toY)]
  return [
    {
      kind: 'path',
      key,
      d: `M${round(x)} ${round(y)}L${round(tx)} ${round(ty)}`,
      ink: 'place',
      width: 2.5,
    },
    { kind: 'path', key: `${key}.end`, d: markerPath('ring', tx, ty, 5), ink: 'place', width: 2.5 },
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
  { marker = 'ring', markerWidth = 9 }: Points,
): PlainItem[] {
  if (x < -2 || x > frame.width + 2) return []
  const foot = Math.max(0, Math.min(frame.height, toPixelY(frame, 0)))
  const items: PlainItem[] = [
    {
      kind: 'path',
      key,
      d: `M${round(x)} ${round(y)}V${round(foot)}`,
      ink: 'span',
      width: 1.5,
      dotted: true,
    },
    {
      kind: 'path',
      key: `${key}.ring`,
      d: markerPath(marker, x, y, markerWidth / 2),
      ink: 'span',
      width: 2.5,
      ...(isFilled(marker) ? { fill: 'own' as const } : {}),
    },
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
      mayGo: true,
    },
  ]
}

/** A level across a span, with its number at the right end. */
function levelItems(mark: Mark & { kind: 'level' }, frame: Frame, key: string): PlainItem[] {
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
function pointItems(
  mark: Mark & { kind: 'points' },
  frame: Frame,
  key: string,
  { marker = 'ring', markerWidth }: Points,
): PlainItem[] {
  const reach = markerWidth === undefined ? usualReach(mark.points.length) : markerWidth / 2
  const seen = mark.points.flatMap(([px, py]) => {
    const [x, y] = [toPixelX(frame, px), toPixelY(frame, py)]
    const inside = x >= -4 && x <= frame.width + 4 && y >= -4 && y <= frame.height + 4
    return inside ? [markerPath(marker, x, y, reach)] : []
  })
  if (seen.length === 0) return []
  const filled = isFilled(marker) ? { fill: 'own' as const } : {}
  return [{ kind: 'path', key, d: seen.join(''), ink: 'ink', width: 1.5, ...filled }]
}
const usualReach = (count: number) => (count > 120 ? 1.8 : 3)

/** A fitted formula over the places it was fitted to. */
function graphItems(
  mark: Mark & { kind: 'graph' },
  f: (x: number) => number,
  frame: Frame,
  key: string,
): PlainItem[] {
  const [from, to] = [Math.max(mark.from, frame.x[0]), Math.min(mark.to, frame.x[1])]
  if (!(from < to)) return []
  const pixels = ((to - from) / (frame.x[1] - frame.x[0])) * frame.width
  const count = Math.max(2, Math.ceil(pixels / 2))
  let d = ''
  let drawn = false
  for (let i = 0; i <= count; i++) {
    const x = from + ((to - from) * i) / count
    const y = toPixelY(frame, f(x))
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
  { marker, markerWidth }: Points,
): PlainItem[] {
  const dot: PlainItem = {
    kind: 'dot',
    key,
    x: round(x),
    y: round(y),
    ink: 'place',
    place: mark.place,
    shape: marker ?? 'diamond',
    reach: (markerWidth ?? usualDotWidth) / 2,
    chosen: marker !== undefined || markerWidth !== undefined,
  }
  const inFrame = y >= -10 && y <= frame.height + 10
  if (mark.label === undefined || !inFrame) return [dot]
  const at = { x: round(x), y: round(y) }
  const text = mark.label
  return [
    dot,
    {
      kind: 'label',
      key: `${key}.label`,
      layer: 'marks',
      ...at,
      text,
      ink: 'place',
      anchor: 'start',
      beside: at,
    },
  ]
}
const usualDotWidth = 16

/** Where the words someone has put to a line belong: beside its point, on it, or above its middle. */
export function captionSpot(
  mark: Mark,
  frame: Frame,
  sample: Sample,
): { x: number; y: number; beside: boolean } | null {
  const at = (x: number, y: number, beside = false) => {
    const [px, py] = [toPixelX(frame, x), toPixelY(frame, y)]
    const seen = px >= 0 && px <= frame.width && py >= 0 && py <= frame.height
    return seen ? { x: round(px), y: round(py), beside } : null
  }
  switch (mark.kind) {
    case 'dot':
    case 'stem':
      return at(mark.x, mark.y, true)
    case 'line':
    case 'riseOverRun':
    case 'chord':
      return at(mark.x, mark.y, true)
    case 'joint':
      return at(mark.toX, mark.toY, true)
    case 'level':
      return at((Math.max(mark.from, frame.x[0]) + Math.min(mark.to, frame.x[1])) / 2, mark.y)
    case 'points': {
      const point = mark.points[Math.floor(mark.points.length / 2)]
      return point ? at(...point, true) : null
    }
    case 'graph':
    case 'shade': {
      const x = (Math.max(mark.from, frame.x[0]) + Math.min(mark.to, frame.x[1])) / 2
      return at(x, sample(mark.of)(x))
    }
    case 'strips': {
      const strip = mark.strips[Math.floor(mark.strips.length / 2)]
      return strip ? at((strip.from + strip.to) / 2, strip.height) : null
    }
  }
}
