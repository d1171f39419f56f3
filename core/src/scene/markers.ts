import type { MarkerShape } from '../vocabulary/members'
import { round } from './sampleCurve'

/** The outline of a marker around a point; `reach` is half its width, in pixels. */
export function markerPath(shape: MarkerShape, x: number, y: number, reach: number): string {
  const at = (dx: number, dy: number) => `${round(x + dx * reach)} ${round(y + dy * reach)}`
  switch (shape) {
    case 'diamond':
      return `M${at(0, -1)}L${at(1, 0)}L${at(0, 1)}L${at(-1, 0)}Z`
    case 'square':
      return `M${at(-0.8, -0.8)}L${at(0.8, -0.8)}L${at(0.8, 0.8)}L${at(-0.8, 0.8)}Z`
    case 'triangle':
      return `M${at(0, -1)}L${at(0.95, 0.7)}L${at(-0.95, 0.7)}Z`
    case 'cross':
      return `M${at(-0.8, -0.8)}L${at(0.8, 0.8)}M${at(0.8, -0.8)}L${at(-0.8, 0.8)}`
    case 'ring':
    case 'disc': {
      const r = round(reach)
      return `M${at(-1, 0)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`
    }
    case 'none':
      return ''
  }
}

/** Whether a marker is filled with its colour; the others are outlines. */
export const isFilled = (shape: MarkerShape) => shape !== 'ring' && shape !== 'cross'
