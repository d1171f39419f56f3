import { createEvaluator } from '../results/evaluate'
import type { Study } from '../study/schema'
import { fitHeights } from './fit'
import { type Frame, toPixelY } from './frame'
import { sampleCurve, strokesToPath } from './sampleCurve'

/** A small drawing of a study's first curve, with the height of its axis where that is in view. */
export function thumbnail(
  study: Study,
  width: number,
  height: number,
): { path: string; axis: number | null } {
  const first = [...createEvaluator({ results: false, sentences: false })(study).curves.values()][0]
  if (!first?.ok) return { path: '', axis: null }
  const { f, from, to } = first.curve
  const frame: Frame = { x: [from, to], y: fitHeights(f, from, to), width, height }
  const zero = toPixelY(frame, 0)
  return {
    path: strokesToPath(sampleCurve(f, from, to, frame)),
    axis: zero >= 0 && zero <= height ? zero : null,
  }
}
