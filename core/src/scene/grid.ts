import { type Frame, toPixelY } from './frame'
import type { Item } from './items'
import type { PlacedTick } from './picture'
import { round } from './sampleCurve'

/** The lines of the grid and the axis at the height 0, where they are shown. */
export function gridItems(
  frame: Frame,
  ticks: readonly PlacedTick[],
  laneTicks: readonly PlacedTick[],
  showsGrid: boolean,
  showsAxes: boolean,
): Item[] {
  const { width, height } = frame
  const across = laneTicks.map(({ at }) => `M0 ${at}H${width}`).join('')
  const down = ticks.map(({ at }) => `M${at} 0V${height}`).join('')
  const items: Item[] = showsGrid
    ? [{ kind: 'path', key: 'grid', layer: 'ground', d: across + down, ink: 'grid', width: 1 }]
    : []
  const zero = toPixelY(frame, 0)
  if (showsAxes && zero >= 0 && zero <= height) {
    items.push({
      kind: 'path',
      key: 'axis',
      layer: 'ground',
      d: `M0 ${round(zero)}H${width}`,
      ink: 'axis',
      width: 1,
    })
  }
  return items
}
