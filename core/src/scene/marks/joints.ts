import type { Mark } from '../../statements/contract'
import { isFilled, markerPath } from '../markers'
import { textWidth } from '../textWidth'
import { type Frame, toPixelX, toPixelY } from '../frame'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'
import type { Points } from './points'

/** Run and rise of a secant as the two short sides of its triangle. */
export function chordItems(
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
export function jointItems(
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
export function stemItems(
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
    },
  ]
}
