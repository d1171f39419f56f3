import type { Evaluation } from '../results/evaluation'
import type { MarkerShape } from '../vocabulary/members'
import { toPixelX } from './frame'
import type { Ink, Item } from './items'
import type { Keeper } from './keeper'
import { isFilled, markerPath } from './markers'

/** Valleys are told apart by colour and by shape, in their order along the axis. */
const looks: readonly (readonly [Ink, MarkerShape])[] = [
  ['curve1', 'disc'],
  ['curve2', 'square'],
  ['curve3', 'triangle'],
  ['curve4', 'diamond'],
  ['curve5', 'ring'],
]
/** How far below the upper edge of the ruler they stand, and half their width, in pixels. */
const [depth, reach] = [5, 3.2]

/** The starts of searches on the ruler, each by the place it ends in, from the ruler's left upper corner. */
export function startItems(
  { lines, off }: Evaluation,
  x: readonly [number, number],
  width: number,
  { keep }: Keeper,
): readonly Item[] {
  const marks = [...lines].flatMap(([id, { marks }]) =>
    off.has(id) ? [] : marks.flatMap((mark) => (mark.kind === 'starts' ? [{ id, mark }] : [])),
  )
  const all = marks.map(({ mark }) => mark.starts)
  return keep('starts', [...all, all.length, x, width], () =>
    marks.flatMap(({ id, mark }): Item[] => {
      const paths = new Map<number, string>()
      for (const { x: start, valley } of mark.starts) {
        const at = toPixelX({ x, width }, start)
        if (at < -reach || at > width + reach) continue
        const shape = valley < 0 ? 'cross' : looks[valley % looks.length]![1]
        paths.set(valley, (paths.get(valley) ?? '') + markerPath(shape, at, depth, reach))
      }
      return [...paths].map(([valley, d]): Item => {
        const [ink, shape] =
          valley < 0 ? (['quiet', 'cross'] as const) : looks[valley % looks.length]!
        return {
          ...{ kind: 'path', key: `${id}.starts.${valley}`, layer: 'marks', d, ink, width: 1 },
          ...(isFilled(shape) ? { fill: 'own' as const } : {}),
        }
      })
    }),
  )
}
