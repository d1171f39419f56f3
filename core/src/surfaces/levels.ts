import type { Interval } from '../arithmetic/intervals'
import type { RealSurface, Rectangle } from './surface'

export interface LevelLine {
  level: number
  /** x, y of the two ends of each piece, one after the other. */
  pieces: Float64Array
}

/** So many cells a side are looked through for a level. */
const cells = 96

/**
 * Where a surface has given heights: pieces of lines through the cells of a grid, each crossing put
 * where the surface has the level by the secant; none through a cell without all its values, or over a
 * step that is no slope. Features smaller than a cell may be missed.
 */
export function levelLines(
  f: RealSurface,
  within: Rectangle,
  levels: readonly number[],
  heights: Interval,
): LevelLine[] {
  const count = cells + 1
  const place = ({ lo, hi }: Interval, i: number) => lo + ((hi - lo) * i) / cells
  const xs = Float64Array.from({ length: count }, (_, i) => place(within.x, i))
  const rows = Array.from({ length: count }, (_, j) => {
    const row = new Float64Array(count)
    f.row(xs, place(within.y, j), row)
    return row
  })
  const cliff = (heights.hi - heights.lo) * 0.5
  return levels.map((level) => {
    const pieces: number[] = []
    for (let j = 0; j < cells; j++) {
      for (let i = 0; i < cells; i++) {
        const z = [rows[j]![i]!, rows[j]![i + 1]!, rows[j + 1]![i + 1]!, rows[j + 1]![i]!]
        if (!z.every(Number.isFinite)) continue
        if (Math.max(...z) - Math.min(...z) > cliff) continue
        const cut = crossings(z, level)
        for (let k = 0; k + 1 < cut.length; k += 2) {
          for (const [u, v] of [cut[k]!, cut[k + 1]!]) {
            pieces.push(place(within.x, i + u), place(within.y, j + v))
          }
        }
      }
    }
    return { level, pieces: Float64Array.from(pieces) }
  })
}

/** Where the sides of a cell cross a level, two by two as they belong together. */
function crossings(z: readonly number[], level: number): [u: number, v: number][] {
  const [a, b, c, d] = z.map((value) => value - level) as [number, number, number, number]
  const share = (p: number, q: number) => p / (p - q)
  const south: [number, number] | null = a < 0 !== b < 0 ? [share(a, b), 0] : null
  const east: [number, number] | null = b < 0 !== c < 0 ? [1, share(b, c)] : null
  const north: [number, number] | null = d < 0 !== c < 0 ? [share(d, c), 1] : null
  const west: [number, number] | null = a < 0 !== d < 0 ? [0, share(a, d)] : null
  if (south && east && north && west) {
    // A saddle: the sign in the middle says which sides belong together.
    const joined = a + b + c + d < 0 === a < 0
    return joined ? [south, east, west, north] : [south, west, east, north]
  }
  return [south, east, north, west].filter((one) => one !== null)
}
