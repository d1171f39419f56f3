import type { Evaluation } from '../results/evaluation'
import { drawnIn } from '../study/edits/laneCurves'
import { formatNumber, formatShort, numberToFormula } from '../vocabulary/numbers'
import { type Frame, toPixelX, toPixelY } from './frame'
import { laneTitle } from './laneTitle'
import { looksOf } from './looks'
import type { Scene } from './picture'

/** What a curve says under the pointer. */
export interface CurveReading {
  curve: string
  order: number
  /** The value of the variable as typed text, such as 3.2: as fine as a pixel is worth. */
  place: string
  /** Where the point stands on its lane, in pixels. */
  at: { x: number; y: number }
  /** q′(3.2) ≈ 1.234 */
  text: string
}

/** A pointer this near the curve rests on it, in pixels. */
const reach = 14

/**
 * The point of a curve of a lane that lies under the pointer, of the nearest where there are several, or null where the pointer is further
 * from the curve than a finger's width or the curve has no value there.
 */
export function readCurveAt(
  evaluation: Evaluation,
  scene: Scene,
  laneId: string,
  pointer: { x: number; y: number },
): CurveReading | null {
  const lane = scene.lanes.find((l) => l.id === laneId)
  const own = evaluation.study.lanes.find((l) => l.id === laneId)
  if (!lane || !own || scene.width <= 0) return null
  const frame: Frame = { x: scene.x, y: lane.y, width: scene.width, height: lane.height }
  const perPixel = (scene.x[1] - scene.x[0]) / scene.width
  const decimals = Math.max(0, Math.min(12, Math.ceil(-Math.log10(perPixel))))
  const x = Number((scene.x[0] + pointer.x * perPixel).toFixed(decimals))
  const lookOf = looksOf(evaluation.study.lines, evaluation.off)
  const readings = drawnIn(own).flatMap(({ curve: name, order }) => {
    if (lookOf(name, order)?.hidden) return []
    const looked = evaluation.curves.get(name)
    if (!looked?.ok) return []
    const { curve } = looked
    if (x < curve.reach.from || x > curve.reach.to) return []
    const [value = NaN, slope = NaN] = curve.drawn(order).derivatives(x, 1)
    if (!Number.isFinite(value)) return []
    const at = { x: toPixelX(frame, x), y: toPixelY(frame, value) }
    const steep = Math.abs(slope) * perPixel * (lane.height / (lane.y[1] - lane.y[0]))
    // The distance to a steep curve is far less than the height between.
    const distance = Math.abs(pointer.y - at.y) / Math.hypot(1, Number.isFinite(steep) ? steep : 0)
    if (distance > reach || at.y < 0 || at.y > lane.height) return []
    return [{ curve: name, order, at, value, distance }]
  })
  const nearest = readings.sort((a, b) => a.distance - b.distance)[0]
  if (!nearest) return null
  const { curve, order, at, value } = nearest
  const shown = formatNumber(value, evaluation.study.decimals)
  const text = `${laneTitle(nearest)}(${formatShort(x, decimals)}) ≈ ${shown}`
  return { curve, order, place: numberToFormula(x), at, text }
}
