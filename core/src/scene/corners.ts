import { type Box, isClear, noObstacles } from './obstacles'
import type { Stroke } from './sampleCurve'

export type Corner = 'top right' | 'top left' | 'bottom right' | 'bottom left'

const corners: readonly Corner[] = ['top right', 'top left', 'bottom right', 'bottom left']

/** From the edges of the lane, and beside the numbers of its ticks, in pixels. */
const [edge, besideTicks] = [6, 44]

/** The room of something so wide and high in a corner of a lane; `foot` is kept free below it. */
export function boxInCorner(
  corner: Corner,
  { width, height }: { width: number; height: number },
  size: { width: number; height: number },
  foot = 0,
): Box {
  const isTop = corner.startsWith('top')
  const isLeft = corner.endsWith('left')
  const left = isLeft ? besideTicks : width - edge - size.width
  const top = isTop ? edge : height - foot - edge - size.height
  return { left, right: left + size.width, top, bottom: top + size.height }
}

/** A corner of a lane that no curve passes and where nothing else stands; null where there is none. */
export function freeCorner(
  lane: { width: number; height: number },
  size: { width: number; height: number },
  strokes: readonly Stroke[],
  boxes: readonly Box[] = [],
  foot = 0,
): Corner | null {
  if (size.width + besideTicks > lane.width || size.height + foot > lane.height / 2) return null
  const found = corners.find((corner) =>
    isClear(boxInCorner(corner, lane, size, foot), { ...noObstacles, strokes, boxes }),
  )
  return found ?? null
}
