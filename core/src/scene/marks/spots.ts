import type { Mark } from '../../statements/contract'
import { type Frame, toPixelX, toPixelY } from '../frame'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'

/** Half the width of a spot, in pixels. */
const spotReach = 5

/** A place on the curve: filled where it is a value, open where the curve only tends to it. */
export function spotItems(mark: Mark & { kind: 'spot' }, frame: Frame, key: string): PlainItem[] {
  const [x, y] = [round(toPixelX(frame, mark.x)), round(toPixelY(frame, mark.y))]
  if (!Number.isFinite(y) || y < -spotReach || y > frame.height + spotReach) return []
  const r = spotReach
  return [
    {
      kind: 'path',
      key,
      d: `M${round(x - r)} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`,
      ink: 'place',
      width: 2,
      fill: mark.filled ? 'own' : 'page',
    },
  ]
}

/** A line that the curve comes near to and does not meet there: upright, level or slanting. */
export function asymptoteItems(
  mark: Mark & { kind: 'asymptote' },
  frame: Frame,
  key: string,
): PlainItem[] {
  const style = { kind: 'path', key, ink: 'quiet', width: 1.5, dash: 'dashed' } as const
  if (mark.x !== undefined) {
    const x = round(toPixelX(frame, mark.x))
    return x < 0 || x > frame.width ? [] : [{ ...style, d: `M${x} 0V${frame.height}` }]
  }
  const [from, to] = frame.x
  const at = (x: number) => round(toPixelY(frame, mark.y + mark.slope * x))
  const [left, right] = [at(from), at(to)]
  if (![left, right].every((y) => Math.abs(y) < 1e5)) return []
  return [{ ...style, d: `M0 ${left}L${frame.width} ${right}` }]
}
