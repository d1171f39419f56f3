import type { Mark } from '../../statements/contract'
import { markerShapes, type MarkerShape } from '../../vocabulary/members'
import type { Side } from '../items'
import { isFilled, markerPath } from '../markers'
import { type Frame, toPixelX, toPixelY } from '../frame'
import { pictogramPath, pictogramSide } from '../pictograms'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'

const isShape = (shape: string): shape is MarkerShape =>
  (markerShapes as readonly string[]).includes(shape)

/** Where the words beside a body may stand, from its middle; half its width is `reach`. */
function sidesOf(reach: number): readonly Side[] {
  const off = reach + 5
  return [
    [off, 4, 'start'],
    [off, -reach, 'start'],
    [0, -off - 5, 'middle'],
    [-off, 4, 'end'],
    [-off, -reach, 'end'],
    [0, off + 14, 'middle'],
    [off, off + 8, 'start'],
    [-off, off + 8, 'end'],
    [0, -off - 24, 'middle'],
    [0, off + 34, 'middle'],
    [off + 20, -off - 8, 'start'],
    [-off - 20, -off - 8, 'end'],
  ]
}

/**
 * A body: a pictogram stands with its foot on its point, a shape lies about it. It is turned along the
 * slope as it is seen in the frame, and `way` -1 turns it round.
 */
export function bodyItems(
  mark: Mark & { kind: 'body' },
  frame: Frame,
  key: string,
  way: 1 | -1,
): PlainItem[] {
  const [x, y] = [round(toPixelX(frame, mark.x)), round(toPixelY(frame, mark.y))]
  const room = mark.size
  const isSeen = x >= -room && x <= frame.width + room && y >= -room && y <= frame.height + room
  if (!isSeen) return []
  const picture = pictogramPath(mark.shape)
  const scale = mark.size / pictogramSide
  const perUnit = [
    frame.width / (frame.x[1] - frame.x[0]),
    frame.height / (frame.y[1] - frame.y[0]),
  ] as const
  const slope = mark.slope === null || Number.isNaN(mark.slope) ? 0 : mark.slope
  const turn = round((Math.atan2(-slope * perUnit[1], perUnit[0]) * 180) / Math.PI)
  // At the upper edge it hangs below its point, where it is seen.
  const hangs = y - mark.size < 0
  const lift = picture ? (mark.size / 2 - 2) * (hangs ? -1 : 1) : 0
  const angle = (turn * Math.PI) / 180
  const middle = {
    cx: round(x + Math.sin(angle) * lift),
    cy: round(y - Math.cos(angle) * lift),
  }
  const shape = isShape(mark.shape) ? mark.shape : 'diamond'
  const body = {
    kind: 'body' as const,
    key,
    ...{ x, y, place: mark.place, free: mark.free, spoken: mark.spoken, ink: 'place' as const },
    ...(picture
      ? {
          d: picture,
          // The foot of a pictogram lies a little above the lower edge of its square.
          transform: `translate(${x} ${y}) rotate(${turn}) scale(${round(scale * way)} ${round(scale)}) translate(-12 ${hangs ? -2.5 : -21.5})`,
          ...{
            filled: false,
            width: round(Math.max(1.4, 1.9 / Math.max(1, scale))),
            reach: mark.size / 2,
          },
        }
      : {
          d: markerPath(shape, 0, 0, mark.size / 2),
          transform: `translate(${x} ${y}) rotate(${turn})`,
          ...{ filled: isFilled(shape), width: 2, reach: mark.size / 2 },
        }),
    ...middle,
  }
  if (mark.label === undefined) return [body]
  const at = { x: middle.cx, y: middle.cy }
  return [
    body,
    {
      kind: 'label',
      key: `${key}.label`,
      layer: 'marks',
      ...at,
      text: mark.label,
      ink: 'place',
      anchor: 'start',
      beside: at,
      movable: true,
      sides: sidesOf(mark.size / 2),
    },
  ]
}
