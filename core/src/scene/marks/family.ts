import type { Mark, Mix } from '../../statements/contract'
import { type Frame, toPixelX, toPixelY } from '../frame'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'

const keyOf = (mix: Mix) =>
  'share' in mix
    ? `${mix.between.join('.')}.${mix.share.toFixed(3)}`
    : `${mix.hue}.${mix.lightness}`

/** Very many lines: one path for each colour, so that a thousand move as one does. */
export function familyItems(
  { lines, reach, between, opacity }: Mark & { kind: 'family' },
  frame: Frame,
  key: string,
): PlainItem[] {
  const [x0, x1] = frame.x
  const [y0, y1] = frame.y
  const paths = new Map<string, { mix: Mix; d: string }>()
  const names = new Map<Mix, string>()
  const nameOf = (mix: Mix) => {
    const known = names.get(mix) ?? keyOf(mix)
    names.set(mix, known)
    return known
  }
  for (const { x, y, slope, run, mix } of lines) {
    const ends = endsOf(
      x,
      y,
      slope,
      between
        ? [Math.min(x, x + run), Math.max(x, x + run)]
        : reach === null
          ? null
          : [x - reach / 2, x + reach / 2],
    )
    if (!ends) continue
    const [from, to] = ends
    const d = `M${round(toPixelX(frame, from[0]))} ${round(toPixelY(frame, from[1]))}L${round(toPixelX(frame, to[0]))} ${round(toPixelY(frame, to[1]))}`
    const name = nameOf(mix)
    const path = paths.get(name)
    if (path) path.d += d
    else paths.set(name, { mix, d })
  }
  return [...paths].map(([name, { mix, d }]): PlainItem => ({
    ...{ kind: 'path', key: `${key}.${name}`, d, ink: 'place', width: 1, mix, opacity },
  }))

  /** Where a line enters and leaves what is seen, or null where it does not pass it. */
  function endsOf(
    x: number,
    y: number,
    slope: number,
    span: readonly [number, number] | null,
  ): [readonly [number, number], readonly [number, number]] | null {
    const margin = (y1 - y0) * 0.02
    const [low, high] = [y0 - margin, y1 + margin]
    if (!Number.isFinite(slope)) {
      if (x < x0 || x > x1) return null
      const half = span ? (span[1] - span[0]) / 2 : Infinity
      return [
        [x, Math.max(low, y - half)],
        [x, Math.min(high, y + half)],
      ]
    }
    let [a, b] = [Math.max(x0, span ? span[0] : -Infinity), Math.min(x1, span ? span[1] : Infinity)]
    if (slope !== 0) {
      const [p, q] = [x + (low - y) / slope, x + (high - y) / slope]
      a = Math.max(a, Math.min(p, q))
      b = Math.min(b, Math.max(p, q))
    } else if (y < low || y > high) return null
    return a < b
      ? [
          [a, y + slope * (a - x)],
          [b, y + slope * (b - x)],
        ]
      : null
  }
}

/** A line through points, broken where it leaves what can be drawn. */
export function pathItems(
  { points }: Mark & { kind: 'path' },
  frame: Frame,
  key: string,
): PlainItem[] {
  let d = ''
  let drawn = false
  for (const [x, y] of points) {
    const [px, py] = [toPixelX(frame, x), toPixelY(frame, y)]
    if (!(Math.abs(px) < 4 * frame.width && Math.abs(py) < 4 * frame.height)) {
      drawn = false
      continue
    }
    d += `${drawn ? 'L' : 'M'}${round(px)} ${round(py)}`
    drawn = true
  }
  return d === '' ? [] : [{ kind: 'path', key, d, ink: 'ink', width: 2 }]
}
