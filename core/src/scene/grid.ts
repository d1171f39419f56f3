import { type Frame, toPixelX, toPixelY } from './frame'
import type { Item } from './items'
import type { PlacedTick } from './picture'
import { round } from './sampleCurve'

/** The lines of the grid and both axes, where they lie in the frame and are shown. */
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
  const [down0, across0] = [toPixelY(frame, 0), toPixelX(frame, 0)]
  const axes = [
    ...(down0 >= 0 && down0 <= height ? [`M0 ${round(down0)}H${width}`] : []),
    ...(across0 >= 0 && across0 <= width ? [`M${round(across0)} 0V${height}`] : []),
  ]
  if (showsAxes && axes.length > 0) {
    const d = axes.join('')
    items.push({ kind: 'path', key: 'axis', layer: 'ground', d, ink: 'axis', width: 1 })
  }
  return items
}
