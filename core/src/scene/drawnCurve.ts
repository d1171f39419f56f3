import type { LineLook } from '../vocabulary/members'
import { heightAt } from './curveNames'
import type { Item } from './items'
import { curveInk, withLook } from './looks'
import { isFilled, markerPath } from './markers'
import type { PlacedTick } from './picture'
import { type Stroke, strokesToPath } from './sampleCurve'

/** How wide the points along a curve usually are, in pixels. */
const pointWidth = 10

/**
 * A curve as its line wants it drawn; `index` is its place among all curves, which gives its colour.
 * Points along it, where someone wants them, stand at the numbers of the axis: they tell curves apart
 * without colours.
 */
export function drawnCurve(
  key: string,
  strokes: readonly Stroke[],
  { index, order, dimmed }: { index: number; order: number; dimmed: boolean },
  look: LineLook | undefined,
  ticks: readonly PlacedTick[],
): Item[] {
  const ink = curveInk(index)
  const curve: Item = {
    ...{ kind: 'path', key, layer: 'ground', ink, width: 3, order, dimmed },
    d: look?.hidden ? '' : strokesToPath(strokes),
  }
  const shape = look?.marker
  if (!shape || shape === 'none' || look.hidden) return [withLook(curve, look)]
  const reach = (look.markerWidth ?? pointWidth) / 2
  const d = ticks
    .flatMap(({ at }) => {
      const y = heightAt(strokes, at)
      return y === null ? [] : [markerPath(shape, at, y, reach)]
    })
    .join('')
  const points: Item = {
    ...{ kind: 'path', key: `${key}.points`, layer: 'ground', d, ink, width: 1.75, dimmed },
    ...(isFilled(shape) ? { fill: 'own' as const } : {}),
  }
  const { dash: _, width: __, ...rest } = look
  return [withLook(curve, look), ...(d === '' ? [] : [withLook(points, rest)])]
}
