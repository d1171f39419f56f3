import type { Tree } from '../../formula/tree'
import type { Hint } from '../../language/problems'
import type { RealSurface, Rectangle } from '../../surfaces/surface'
import type { Ends } from '../../surfaces/extremes'
import type { LineContext } from './context'
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

/** What else a line may look at while its surface is made. */
export interface SurfaceContext extends LineContext {
  /** A typed formula of these two letters, with the curves it uses put in. */
  readOver(
    text: string,
    letters: readonly [string, string],
  ): { ok: true; tree: Tree; hints: Hint[] } | { ok: false; problems: LineProblem[] }
  /** The present values of the sliders that a formula uses. */
  valuesIn(tree: Tree): Record<string, number>
}

export type Point3 = readonly [x: number, y: number, z: number]

/**
 * What a line adds to the view of the surfaces, in the coordinates of the study. Marks are data; their
 * names are as those of the marks on lanes.
 */
export type SpaceMark = { id: string } &
  /** A surface over a rectangle. */
  (
    | { kind: 'sheet'; of: RealSurface; within: Rectangle; role: 'surface' | 'polynomial' }
    /** A plane through a point with its slopes along the two axes. */
    | { kind: 'plane'; at: Point3; slopes: readonly [number, number] }
    /** A point, with what it is called; one that is dragged moves the x and y of its line. */
    | { kind: 'spot'; at: Point3; label: string; held: boolean }
    | { kind: 'arrow'; from: Point3; to: Point3; label: string; role: 'gradient' | 'direction' }
    /** A line through points, broken where one has no height. */
    | { kind: 'path'; points: readonly Point3[] }
  )
