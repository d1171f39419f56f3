import { type Interval, noNotes } from '../arithmetic/intervals'
import type { RealSurface, Rectangle } from './surface'

/** Triangles in the coordinates of the study. */
export interface SurfaceMesh {
  /** x, y, z of each vertex. */
  positions: Float64Array
  /** Three vertices of each triangle. */
  triangles: Uint32Array
}

export interface MeshOptions {
  /** So many cells along each side before any is cut. */
  cells?: number
  /** How often a cell is quartered at the most, where the surface bends, breaks or ends. */
  deepest?: number
  /** What lies above or below is cut off. */
  heights: Interval
}

/** The share of the height by which a cell may bend away from its corners. */
const bendAllowed = 0.004
/** A step of this share of the height between neighbours is looked at: it may be a cliff. */
const stepLooked = 0.08
/** An edge is halved so often to find where the surface breaks. */
const halvings = 30

/** A place of the grid has a number, by which its vertex is found again; one that was cut has none. */
type Point = readonly [x: number, y: number, z: number, place?: number]

/**
 * A surface over a rectangle as triangles: cells are quartered where it bends; it ends where it has no
 * value, by bisection, and is cut where it jumps; no gaps between cells of different sizes. Between
 * the vertices it is as true as they are close: the error of a cell is at most about 1/200 of the
 * heights. An empty mesh where there is no value.
 */
export function surfaceMesh(
  f: RealSurface,
  within: Rectangle,
  { cells = 32, deepest = 3, heights }: MeshOptions,
): SurfaceMesh {
  const fine = 2 ** (deepest + 1)
  const side = cells * fine
  const grid = createGrid(f, within, side, fine)
  const height = heights.hi - heights.lo
  const leaves: { i: number; j: number; size: number }[] = []
  const quarter = (i: number, j: number, size: number, depth: number): void => {
    if (depth < deepest && grid.bends(i, j, size, height)) {
      const half = size / 2
      for (const [di, dj] of corners) quarter(i + di * half, j + dj * half, half, depth + 1)
    } else leaves.push({ i, j, size })
  }
  for (let j = 0; j < side; j += fine) for (let i = 0; i < side; i += fine) quarter(i, j, fine, 0)
  for (const { i, j, size } of leaves) {
    for (const [di, dj] of corners) grid.mark(i + di * size, j + dj * size)
  }
  const out = createOutput(heights)
  const cut = cutter(f, height)
  for (const { i, j, size } of leaves) {
    const middle = grid.point(i + size / 2, j + size / 2)
    const around = ringOf(grid, i, j, size)
    for (let k = 0; k < around.length; k++) {
      for (const piece of cut([middle, around[k]!, around[(k + 1) % around.length]!])) {
        out.add(piece)
      }
    }
  }
  return out.mesh()
}

const corners = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
] as const

function createGrid(f: RealSurface, within: Rectangle, side: number, coarse: number) {
  const known = new Map<number, number>()
  const used = new Set<number>()
  const key = (i: number, j: number) => j * (side + 1) + i
  const place = ({ lo, hi }: Interval, i: number) => (i === side ? hi : lo + ((hi - lo) * i) / side)
  const xs = Float64Array.from({ length: (2 * side) / coarse + 1 }, (_, k) =>
    place(within.x, (k * coarse) / 2),
  )
  const row = new Float64Array(xs.length)
  for (let j = 0; j <= side; j += coarse / 2) {
    f.row(xs, place(within.y, j), row)
    row.forEach((z, k) => known.set(key((k * coarse) / 2, j), z))
  }
  const z = (i: number, j: number) => {
    let value = known.get(key(i, j))
    if (value === undefined) {
      value = f.value(place(within.x, i), place(within.y, j))
      known.set(key(i, j), value)
    }
    return value
  }
  return {
    point: (i: number, j: number): Point => [
      place(within.x, i),
      place(within.y, j),
      z(i, j),
      key(i, j),
    ],
    mark: (i: number, j: number) => used.add(key(i, j)),
    isMarked: (i: number, j: number) => used.has(key(i, j)),
    /** Whether a cell bends away from its corners, or only a part of it has values. */
    bends(i: number, j: number, size: number, height: number): boolean {
      const half = size / 2
      const [a, b, c, d] = corners.map(([di, dj]) => z(i + di * size, j + dj * size)) as [
        number,
        number,
        number,
        number,
      ]
      const [south, east, north, west, middle] = [
        z(i + half, j),
        z(i + size, j + half),
        z(i + half, j + size),
        z(i, j + half),
        z(i + half, j + half),
      ]
      const all = [a, b, c, d, south, east, north, west, middle]
      const missing = all.filter((value) => !Number.isFinite(value)).length
      if (missing > 0) return missing < all.length
      const away = Math.max(
        Math.abs(middle - (a + b + c + d) / 4),
        Math.abs(south - (a + b) / 2),
        Math.abs(east - (b + c) / 2),
        Math.abs(north - (c + d) / 2),
        Math.abs(west - (d + a) / 2),
      )
      return away > bendAllowed * height
    },
  }
}

/** The vertices around a cell, those of smaller neighbours among them, so that no gap opens. */
function ringOf(grid: ReturnType<typeof createGrid>, i: number, j: number, size: number): Point[] {
  const ring: Point[] = []
  const along = (i0: number, j0: number, i1: number, j1: number): void => {
    const [im, jm] = [(i0 + i1) / 2, (j0 + j1) / 2]
    if (Number.isInteger(im) && Number.isInteger(jm) && grid.isMarked(im, jm)) {
      along(i0, j0, im, jm)
      along(im, jm, i1, j1)
    } else ring.push(grid.point(i0, j0))
  }
  for (const [k, [di, dj]] of corners.entries()) {
    const [ei, ej] = corners[(k + 1) % 4]!
    along(i + di * size, j + dj * size, i + ei * size, j + ej * size)
  }
  return ring
}

/** What lies on the two sides of the place at which an edge is cut; a side without values is null. */
interface Cut {
  first: Point | null
  second: Point | null
}

function cutter(f: RealSurface, height: number) {
  const at = (x: number, y: number): Point => [x, y, f.value(x, y)]
  const isSteep = (a: Point, b: Point) => Math.abs(a[2] - b[2]) > stepLooked * height
  /** Where an edge leaves the domain or jumps; null where it does neither. */
  const cutOf = (a: Point, b: Point): Cut | null => {
    const [hasA, hasB] = [Number.isFinite(a[2]), Number.isFinite(b[2])]
    if (!hasA && !hasB) return { first: null, second: null }
    if (hasA && hasB && !isSteep(a, b)) return null
    let [low, high] = [a, b]
    for (let k = 0; k < halvings; k++) {
      const middle = at((low[0] + high[0]) / 2, (low[1] + high[1]) / 2)
      if (hasA && hasB) {
        if (!Number.isFinite(middle[2])) return { first: low, second: high }
        if (Math.abs(middle[2] - low[2]) > Math.abs(high[2] - middle[2])) high = middle
        else low = middle
        // What is left of a slope shrinks with its edge; a jump stays.
        if (!isSteep(low, high)) return null
      } else if (Number.isFinite(middle[2]) === hasA) low = middle
      else high = middle
    }
    return { first: hasA ? low : null, second: hasB ? high : null }
  }

  /** The pieces of a triangle on which the surface goes on. */
  return (corner: readonly [Point, Point, Point]): Point[][] => {
    if (corner.every((p) => !Number.isFinite(p[2]))) return []
    const cuts = corner.map((p, k) => cutOf(p, corner[(k + 1) % 3]!))
    if (cuts.every((one) => one === null)) return [[...corner]]
    const pieces: Point[][] = []
    let piece: Point[] = []
    // Once around, beginning behind a cut: each stretch between two cuts is a piece.
    const begin = cuts.findIndex((one) => one !== null)
    for (let k = 1; k <= 3; k++) {
      const from = (begin + k) % 3
      if (k === 1) {
        const before = cuts[begin]!.second
        if (before) piece.push(before)
      }
      if (Number.isFinite(corner[from]![2])) piece.push(corner[from]!)
      const next = cuts[from]
      if (!next) continue
      if (next.first) piece.push(next.first)
      if (piece.length >= 3) pieces.push(piece)
      piece = next.second ? [next.second] : []
    }
    return pieces
  }
}

/** Pieces, cut off above and below, as triangles; those that meet at a place of the grid share its vertex. */
function createOutput({ lo, hi }: Interval) {
  const positions: number[] = []
  const triangles: number[] = []
  const known = new Map<number, number>()
  const vertex = ([x, y, z, place]: Point): number => {
    const before = place === undefined ? undefined : known.get(place)
    if (before !== undefined) return before
    const index = positions.length / 3
    if (place !== undefined) known.set(place, index)
    positions.push(x, y, z)
    return index
  }
  return {
    add(piece: readonly Point[]) {
      const isWithin = piece.every((p) => p[2] >= lo && p[2] <= hi)
      const shown = isWithin ? piece : clipped(clipped(piece, lo, 1), hi, -1)
      for (let k = 1; k + 1 < shown.length; k++) {
        triangles.push(vertex(shown[0]!), vertex(shown[k]!), vertex(shown[k + 1]!))
      }
    },
    mesh: (): SurfaceMesh => ({
      positions: Float64Array.from(positions),
      triangles: Uint32Array.from(triangles),
    }),
  }
}

/** The part of a polygon on one side of a level. */
function clipped(piece: readonly Point[], level: number, side: 1 | -1): Point[] {
  const out: Point[] = []
  piece.forEach((a, k) => {
    const b = piece[(k + 1) % piece.length]!
    const [da, db] = [(a[2] - level) * side, (b[2] - level) * side]
    if (da >= 0) out.push(a)
    if (da >= 0 !== db >= 0) {
      const t = da / (da - db)
      out.push([a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), level])
    }
  })
  return out
}

/** So many values a side tell the heights of a surface. */
const looks = 49
/** So many rectangles a side tell whether it is bounded. */
const bounds = 8
/** Of values that run away only the middle share is shown. */
const shareShown = 0.96

/**
 * The heights that a view of a surface opens on: all that were seen, or where the surface runs away, as
 * at a pole, those of the middle share with some room; null where it has no value at any place looked
 * at.
 */
export function heightsOf(f: RealSurface, within: Rectangle): Interval | null {
  const all: number[] = []
  let [lowest, highest]: [Seen, Seen] = [
    { x: 0, y: 0, z: Infinity },
    { x: 0, y: 0, z: -Infinity },
  ]
  const place = ({ lo, hi }: Interval, i: number) => lo + ((hi - lo) * i) / (looks - 1)
  const xs = Float64Array.from({ length: looks }, (_, i) => place(within.x, i))
  const row = new Float64Array(looks)
  for (let j = 0; j < looks; j++) {
    const y = place(within.y, j)
    f.row(xs, y, row)
    row.forEach((z, i) => {
      if (!Number.isFinite(z)) return
      all.push(z)
      if (z < lowest.z) lowest = { x: xs[i]!, y, z }
      if (z > highest.z) highest = { x: xs[i]!, y, z }
    })
  }
  if (all.length === 0) return null
  const sorted = Float64Array.from(all).sort()
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))]!
  const [least, most] = [sorted[0]!, sorted.at(-1)!]
  const [low, high] = [at((1 - shareShown) / 2), at((1 + shareShown) / 2)]
  const room = (high - low) / 3
  const [from, to] = isBounded(f, within)
    ? [sharpened(f, within, lowest, -1), sharpened(f, within, highest, 1)]
    : [Math.max(least, low - room), Math.min(most, high + room)]
  if (to - from > Math.abs(from) * 1e-12) return { lo: from, hi: to }
  const around = Math.max(1, Math.abs(from))
  return { lo: from - around, hi: to + around }
}

interface Seen {
  x: number
  y: number
  z: number
}

/** The height of the top, or bottom, beside the place of a grid at which the surface was highest, or lowest. */
function sharpened(f: RealSurface, { x, y }: Rectangle, seen: Seen, sign: 1 | -1): number {
  let best = seen
  let reach = 1 / (looks - 1)
  for (let round = 0; round < 12; round++) {
    const { x: cx, y: cy } = best
    for (let i = -2; i <= 2; i++) {
      for (let j = -2; j <= 2; j++) {
        const px = Math.min(x.hi, Math.max(x.lo, cx + ((x.hi - x.lo) * reach * i) / 2))
        const py = Math.min(y.hi, Math.max(y.lo, cy + ((y.hi - y.lo) * reach * j) / 2))
        const z = f.value(px, py)
        if (sign * z > sign * best.z) best = { x: px, y: py, z }
      }
    }
    reach /= 2
  }
  return best.z
}

/** Whether enclosures bound the surface everywhere on the rectangle where it has values. */
function isBounded(f: RealSurface, { x, y }: Rectangle): boolean {
  const part = ({ lo, hi }: Interval, i: number): Interval => ({
    lo: lo + ((hi - lo) * i) / bounds,
    hi: lo + ((hi - lo) * (i + 1)) / bounds,
  })
  for (let i = 0; i < bounds; i++) {
    for (let j = 0; j < bounds; j++) {
      const notes = noNotes()
      const { lo, hi } = f.enclose({ x: part(x, i), y: part(y, j) }, notes)
      if (!notes.empty && !(Number.isFinite(lo) && Number.isFinite(hi))) return false
    }
  }
  return true
}
