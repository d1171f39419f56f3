import type { Mark } from '../../statements/contract'
import type { LineLook } from '../../vocabulary/members'
import { isFilled, markerPath } from '../markers'
import { type Frame, toPixelX, toPixelY } from '../frame'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'

/** How a line wants its points drawn. */
export type Points = Pick<LineLook, 'marker' | 'markerWidth' | 'length'>

export const usualPoints: Points = {}

/** Points of a table or of readings, all as one path. */
export function pointItems(
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

export function dotItems(
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
