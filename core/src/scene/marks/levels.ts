import type { Mark } from '../../statements/contract'
import { type Frame, toPixelX, toPixelY } from '../frame'
import type { Side } from '../items'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'

/** Shares of the way back from the right end of a level at which its number may stand. */
const alongLevel = [0, 0.15, 0.3, 0.45, 0.6, 0.75]

/** A level across a span, with its number near the right end. */
export function levelItems(mark: Mark & { kind: 'level' }, frame: Frame, key: string): PlainItem[] {
  const y = toPixelY(frame, mark.y)
  if (y < -2 || y > frame.height + 2) return []
  const [left, right] = [toPixelX(frame, mark.from), toPixelX(frame, mark.to)]
  const [from, to] = [Math.max(6, left), Math.min(frame.width - 6, right - 6)]
  const end = { x: round(to), y: round(y) }
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
            ...end,
            beside: end,
            sides: alongLevel.flatMap((share): Side[] => [
              [round((from - to) * share), -6, 'end'],
              [round((from - to) * share), 16, 'end'],
            ]),
            text: mark.label,
            ink: 'span' as const,
            anchor: 'end' as const,
          },
        ]),
  ]
}

/** A fitted formula over the places it was fitted to. */
export function graphItems(
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
  const { mix, opacity, pale } = mark
  return [
    {
      ...{ kind: 'path', key, d, ink: 'curve3', width: pale ? 1.25 : mix ? 1.5 : 2.5 },
      ...(mix ? { mix } : {}),
      ...(opacity === undefined ? {} : { opacity }),
      ...(pale ? { opacity: 0.55 } : {}),
    },
  ]
}
