import type { RealSurface, Rectangle } from '../../surfaces/surface'

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
