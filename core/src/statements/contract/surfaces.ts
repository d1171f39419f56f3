import type { Tree } from '../../formula/tree'
import type { Hint } from '../../language/problems'
import type { RealSurface, Rectangle } from '../../surfaces/surface'
import type { Ends } from '../../surfaces/extremes'
import type { LineProblem } from './results'

/** A surface of the study, ready for use: a height over each point of a rectangle. */
export interface SurfaceResult {
  name: string
  /** The letters of the two variables. */
  letters: readonly [string, string]
  /** As typed. */
  tree: Tree
  f: RealSurface
  within: Rectangle
  /** The ends of the rectangle as formulas without names. */
  ends: Ends
  /** Set while the typed formula cannot be read and the last readable one stands in. */
  stale: boolean
  problems: LineProblem[]
  hints: Hint[]
}
export type SurfaceLookup =
  { ok: true; surface: SurfaceResult } | { ok: false; problem: LineProblem }
