import type { DrawnFunction } from '../statements/contract'
import type { Finding } from './findings'
import { fitHeights } from './fit'
import type { Ink, Item } from './items'
import { markerPath } from './markers'
import { type Frame, toPixelX, toPixelY } from './frame'
import { round, sampleCurve, type Stroke, strokesToPath } from './sampleCurve'
import { axisTicks } from './ticks'

/** A stretch of a lane drawn once more at its own scale, in a corner of the lane. */
export interface Inset {
  from: number
  to: number
  left: number
  top: number
  width: number
  height: number
  /** What is drawn, in pixels from the inset's own corner. */
  items: readonly Item[]
}

/** The inset takes this much of the lane at the most, and keeps off its edges, in pixels. */
const [mostWidth, mostHeight] = [270, 170]
const shareOfLane = { width: 0.38, height: 0.6 }
const edge = 10
/** Room at the head of a lane, where its range and what does not show are told, in pixels. */
const headRoom = 58
const tickRoom = 18
/** The frame around the stretch in the lane is drawn at least so wide and high, in pixels. */
const leastMarked = 8

/** The inset over [from, to], in the corner where it covers least of the curve. */
export function makeInset(
  [from, to]: readonly [number, number],
  f: DrawnFunction,
  domain: readonly [number, number],
  frame: Frame,
  strokes: readonly Stroke[],
  finding: Finding | undefined,
  ink: Ink,
): Inset {
  const width = Math.round(Math.min(mostWidth, frame.width * shareOfLane.width))
  const height = Math.round(Math.min(mostHeight, frame.height * shareOfLane.height))
  const [left, top] = freeCorner(frame, strokes, width, height)
  const seen = [Math.max(from, domain[0]), Math.min(to, domain[1])] as const
  const y = seen[0] < seen[1] ? fitHeights(f, ...seen) : ([-1, 1] as [number, number])
  const own: Frame = { x: [from, to], y, width, height: height - tickRoom }
  const [lower, upper] = [toPixelY(own, 0), own.height]
  const ticks = axisTicks(from, to, width, 64, true).filter(({ value }) => {
    const at = toPixelX(own, value)
    return at > 16 && at < width - 16
  })
  const heights = axisTicks(y[0], y[1], own.height, 44).filter(({ value }) => {
    const at = toPixelY(own, value)
    return at > 18 && at < own.height - 2
  })
  const curve = sampleCurve(f, domain[0], domain[1], own, true)
  const points = (finding?.stale === false ? finding.examination.turningPoints : []).filter(
    (p) => p.x >= from && p.x <= to,
  )
  const items: Item[] = [
    {
      kind: 'path',
      layer: 'ground' as const,
      key: 'grid',
      d: [
        ...ticks.map(({ value }) => `M${round(toPixelX(own, value))} 0V${upper}`),
        ...heights.map(({ value }) => `M0 ${round(toPixelY(own, value))}H${width}`),
      ].join(''),
      ink: 'grid',
      width: 1,
    },
    {
      kind: 'path',
      layer: 'ground' as const,
      key: 'foot',
      d: `M0 ${upper}H${width}`,
      ink: 'axis',
      width: 1,
    },
    ...(lower >= 0 && lower <= upper
      ? [
          {
            kind: 'path' as const,
            layer: 'ground' as const,
            key: 'axis',
            d: `M0 ${round(lower)}H${width}`,
            ink: 'axis' as const,
            width: 1,
          },
        ]
      : []),
    ...ticks.map(({ value, text }): Item => ({
      kind: 'label',
      layer: 'ground' as const,
      key: `tick.${text}`,
      x: round(toPixelX(own, value)),
      y: height - 5,
      text,
      ink: 'ink',
      anchor: 'middle',
    })),
    ...heights.map(({ value, text }): Item => ({
      kind: 'label',
      layer: 'ground' as const,
      key: `height.${text}`,
      x: 5,
      y: round(toPixelY(own, value) - 4),
      text,
      ink: 'ink',
      anchor: 'start',
    })),
    {
      kind: 'path',
      layer: 'ground' as const,
      key: 'curve',
      d: strokesToPath(curve),
      ink,
      width: 2.5,
      order: 0,
    },
    ...points.map((p, i): Item => ({
      kind: 'path',
      layer: 'ground' as const,
      key: `turn${i}`,
      d: markerPath('ring', toPixelX(own, p.x), toPixelY(own, p.value), 4),
      ink,
      width: 2,
    })),
  ]
  return { from, to, left, top, width, height, items }
}

/** The corner that covers the least of the curve; on the right where that is the same. */
function freeCorner(
  frame: Frame,
  strokes: readonly Stroke[],
  width: number,
  height: number,
): [left: number, top: number] {
  const [right, bottom] = [frame.width - width - edge, frame.height - height - edge]
  const head = Math.min(headRoom, Math.max(edge, bottom))
  const corners: [number, number][] = [
    [right, head],
    [right, bottom],
    [edge + 40, head],
    [edge + 40, bottom],
  ]
  const covered = corners.map(([left, top]) => {
    let count = 0
    for (const stroke of strokes) {
      for (let i = 0; i < stroke.length; i += 2) {
        const [x, y] = [stroke[i]!, stroke[i + 1]!]
        if (x > left && x < left + width && y > top && y < top + height) count += 1
      }
    }
    return count
  })
  return corners[covered.indexOf(Math.min(...covered))]!
}

/** Marks on the lane which stretch the inset shows, and ties the two together. */
export function insetFrame(inset: Inset, frame: Frame, f: DrawnFunction): Item[] {
  const [low, high] = fitHeights(f, inset.from, inset.to)
  const side = (a: number, b: number, most: number): [number, number] => {
    const middle = (a + b) / 2
    const half = Math.max(leastMarked, Math.abs(b - a)) / 2
    return [Math.max(0, middle - half), Math.min(most, middle + half)]
  }
  const [x0, x1] = side(toPixelX(frame, inset.from), toPixelX(frame, inset.to), frame.width)
  const [y0, y1] = side(toPixelY(frame, high), toPixelY(frame, low), frame.height)
  if (!(x0 < x1)) return []
  // From the side of the stretch that faces the inset to the inset's nearer side.
  const onRight = inset.left > x1
  const [start, end] = onRight ? [x1, inset.left] : [x0, inset.left + inset.width]
  const tie =
    onRight || inset.left + inset.width < x0
      ? `M${round(start)} ${round(y0)}L${end} ${inset.top}M${round(start)} ${round(y1)}L${end} ${inset.top + inset.height}`
      : ''
  return [
    {
      kind: 'path',
      layer: 'ground' as const,
      key: 'inset',
      d: `M${round(x0)} ${round(y0)}H${round(x1)}V${round(y1)}H${round(x0)}Z${tie}`,
      ink: 'quiet',
      width: 1,
      dotted: true,
    },
  ]
}
