import type { Mark } from '../../statements/contract'
import { isFilled, markerPath } from '../markers'
import { type Frame, toPixelX, toPixelY } from '../frame'
import type { Side } from '../items'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'
import type { Points } from './points'
import { triangleOf } from './triangle'

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
  return triangleOf({ x, y, right, top }, { run: mark.run, rise: mark.rise }, frame, key)
}

const besideJoint: readonly Side[] = [
  [8, -6, 'start'],
  [-8, -6, 'end'],
  [8, 18, 'start'],
  [-8, 18, 'end'],
]

/** The straight way from a point of the curve to a fixed one, with its length. */
export function jointItems(
  mark: Mark & { kind: 'joint' },
  frame: Frame,
  key: string,
  x: number,
  y: number,
): PlainItem[] {
  const [tx, ty] = [toPixelX(frame, mark.toX), toPixelY(frame, mark.toY)]
  const middle = { x: round((x + tx) / 2), y: round((y + ty) / 2) }
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
      ...middle,
      beside: middle,
      sides: besideJoint,
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
