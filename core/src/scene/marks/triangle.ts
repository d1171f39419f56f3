import type { Frame } from '../frame'
import type { Side } from '../items'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'

const overRun: Side = [0, -6, 'middle']
const underRun: Side = [0, 16, 'middle']
const besideRise = (outwards: 1 | -1): readonly Side[] => {
  const [near, far] = outwards > 0 ? (['start', 'end'] as const) : (['end', 'start'] as const)
  return [
    [8 * outwards, 4, near],
    [-8 * outwards, 4, far],
    [8 * outwards, -12, near],
    [8 * outwards, 20, near],
    [-8 * outwards, -12, far],
    [-8 * outwards, 20, far],
  ]
}
const besideFlat: readonly Side[] = [
  [8, -6, 'start'],
  [8, 16, 'start'],
]

/**
 * The level and the upright side of a slope triangle from (x, y) to (right, top), in pixels, with the
 * run and the rise in words where there is room for them.
 */
export function triangleOf(
  { x, y, right, top }: { x: number; y: number; right: number; top: number },
  words: { run: string; rise: string },
  frame: Frame,
  key: string,
): PlainItem[] {
  const flat = Math.abs(top - y) < 1
  const falls = top > y || flat
  const seen = (height: number) => Math.max(8, Math.min(frame.height - 8, height))
  const middle = { x: round((x + right) / 2), y: round(y) }
  const upright = { x: round(right), y: round((seen(y) + seen(top)) / 2) }
  const style = { kind: 'label', ink: 'place', anchor: 'middle' } as const
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
      ...style,
      key: `${key}.run`,
      ...middle,
      beside: middle,
      sides: falls ? [overRun, underRun] : [underRun, overRun],
      text: words.run,
    },
    {
      ...style,
      key: `${key}.rise`,
      ...upright,
      beside: upright,
      sides: flat ? besideFlat : besideRise(right > x ? 1 : -1),
      text: words.rise,
    },
  ]
}
