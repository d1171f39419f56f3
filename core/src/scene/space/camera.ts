import type { Interval } from '../../arithmetic/intervals'
import type { Point3 } from '../../statements/contract'
import type { SpaceView } from '../../vocabulary/members'

/** The part of space that is looked at, in the coordinates of the study. */
export interface Box3 {
  x: Interval
  y: Interval
  z: Interval
}

export interface Projected {
  /** In pixels from the top left corner. */
  x: number
  y: number
  /** How near it is, in half sides of the box: greater is nearer. */
  depth: number
}

/** A view of a box: what lies where on the screen, and what lies under a place of it. */
export interface Camera {
  width: number
  height: number
  project(point: Point3): Projected
  /** The stretch of the line of sight through a pixel inside the box, from near to far; null beside it. */
  sight(x: number, y: number): readonly [Point3, Point3] | null
  /** A point in the box's own measure: from its middle, in half sides. */
  measured(point: Point3): Point3
  /** From the box's own measure to clip space, column by column, as renderers take it. */
  matrix: readonly number[]
  /** The direction to the viewer, in the box's own measure. */
  toViewer: Point3
  /** How long one unit of each axis is, in half sides of the box. */
  scales: Point3
}

/** The height of a box whose scales are fitted, beside its sides. */
const fittedHeight = 0.62
/** How far the viewer stands in perspective, in half diagonals of the box. */
const distance = 3.2
/** Room for the numbers and letters around the box, in pixels; at the most this share of the picture. */
const around = { across: 104, upright: 88 }
const mostAround = 0.4
/** What a box without numbers fills. */
const bareFills = 0.94

/** The measure of a box: from its middle, in half sides. */
interface Measure {
  middles: Point3
  /** Half its sides in this measure. */
  reach: Point3
  scales: Point3
  measured(point: Point3): Point3
}

const measures = new WeakMap<Box3, Map<boolean, Measure>>()

/** The same object for the same box, so that what is made in its measure need not be made again. */
function measureOf(box: Box3, equalScale: boolean): Measure {
  let known = measures.get(box)
  if (!known) measures.set(box, (known = new Map<boolean, Measure>()))
  let measure = known.get(equalScale)
  if (!measure) known.set(equalScale, (measure = newMeasure(box, equalScale)))
  return measure
}

function newMeasure(box: Box3, equalScale: boolean): Measure {
  const sides = [box.x, box.y, box.z]
  const halves = sides.map(({ lo, hi }) => (hi - lo) / 2) as [number, number, number]
  const middles = sides.map(({ lo, hi }) => lo + (hi - lo) / 2) as [number, number, number]
  const longest = Math.max(...halves)
  const scales: Point3 = equalScale
    ? [1 / longest, 1 / longest, 1 / longest]
    : [1 / halves[0], 1 / halves[1], fittedHeight / halves[2]]
  return {
    ...{ middles, scales },
    reach: [halves[0] * scales[0], halves[1] * scales[1], halves[2] * scales[2]],
    measured: (p) => [
      (p[0] - middles[0]) * scales[0],
      (p[1] - middles[1]) * scales[1],
      (p[2] - middles[2]) * scales[2],
    ],
  }
}

const radians = (degrees: number) => (degrees * Math.PI) / 180

/**
 * The camera of a view: the box turned so that the viewer stands at an azimuth, counted from the first
 * axis towards the second, and an elevation over the ground, z upright. A full turn leaves the size as
 * it is. Orthographic, or in perspective.
 */
export function cameraOf(
  { azimuth, elevation, perspective, equalScale }: SpaceView,
  box: Box3,
  { width, height, bare = false }: { width: number; height: number; bare?: boolean },
): Camera {
  const [a, e] = [radians(azimuth), radians(elevation)]
  const toViewer: Point3 = [Math.cos(e) * Math.cos(a), Math.cos(e) * Math.sin(a), Math.sin(e)]
  const right: Point3 = [-Math.sin(a), Math.cos(a), 0]
  const up: Point3 = [-Math.sin(e) * Math.cos(a), -Math.sin(e) * Math.sin(a), Math.cos(e)]
  const { middles, reach, scales, measured } = measureOf(box, equalScale)
  const across = Math.hypot(reach[0], reach[1])
  const radius = Math.hypot(across, reach[2])
  const upright = Math.abs(Math.sin(e)) * across + Math.cos(e) * reach[2]
  const away = distance * radius
  // What is nearest looks largest; the corners that are nearest are not those that reach farthest out.
  const nearest = perspective ? away / (away - radius / 2) : 1
  const filled = (length: number, room: number) =>
    bare ? length * bareFills : Math.max(length * (1 - mostAround), length - room)
  const k =
    Math.min(filled(width, around.across) / across, filled(height, around.upright) / upright) /
    (2 * nearest)

  const dot = (p: Point3, q: Point3) => p[0] * q[0] + p[1] * q[1] + p[2] * q[2]
  const grows = (depth: number) => (perspective ? away / (away - depth) : 1)

  return {
    width,
    height,
    toViewer,
    scales,
    measured,
    project(point) {
      const p = measured(point)
      const depth = dot(p, toViewer)
      const size = k * grows(depth)
      return { x: width / 2 + size * dot(p, right), y: height / 2 - size * dot(p, up), depth }
    },
    sight(x, y) {
      const [u, v] = [(x - width / 2) / k, (height / 2 - y) / k]
      // At a depth t the line of sight passes u·f(t) to the right and v·f(t) up.
      const at = (t: number): [number, number, number] => {
        const f = perspective ? (away - t) / away : 1
        return [0, 1, 2].map((i) => u * f * right[i]! + v * f * up[i]! + t * toViewer[i]!) as [
          number,
          number,
          number,
        ]
      }
      let [near, far] = [radius * 1.01, -radius * 1.01]
      const [p, q] = [at(far), at(near)]
      for (const i of [0, 1, 2] as const) {
        const [lo, hi] = [-reach[i], reach[i]]
        const run = q[i] - p[i]
        if (Math.abs(run) < 1e-12) {
          if (p[i] < lo - 1e-9 || p[i] > hi + 1e-9) return null
          continue
        }
        const depths = [lo, hi].map(
          (side) => -radius * 1.01 + ((side - p[i]) / run) * 2.02 * radius,
        ) as [number, number]
        far = Math.max(far, Math.min(...depths))
        near = Math.min(near, Math.max(...depths))
      }
      if (!(near > far)) return null
      const back = (t: number): Point3 => {
        const w = at(t)
        return [
          middles[0] + w[0] / scales[0],
          middles[1] + w[1] / scales[1],
          middles[2] + w[2] / scales[2],
        ]
      }
      return [back(near), back(far)]
    },
    matrix: clipMatrix(),
  }

  function clipMatrix(): number[] {
    // Depth in [−1, 1], near at −1; in perspective w is the distance to the viewer.
    const [near, far] = [away - radius * 1.05, away + radius * 1.05]
    const rows: number[][] = perspective
      ? [
          [...scaled(right, (2 * k * away) / width), 0],
          [...scaled(up, (2 * k * away) / height), 0],
          [
            ...scaled(toViewer, -(far + near) / (far - near)),
            ((far + near) / (far - near)) * away - (2 * far * near) / (far - near),
          ],
          [...scaled(toViewer, -1), away],
        ]
      : [
          [...scaled(right, (2 * k) / width), 0],
          [...scaled(up, (2 * k) / height), 0],
          [...scaled(toViewer, -1 / (radius * 1.05)), 0],
          [0, 0, 0, 1],
        ]
    return [0, 1, 2, 3].flatMap((column) => rows.map((row) => row[column]!))
  }
}

const scaled = (p: Point3, by: number): [number, number, number] => [
  p[0] * by,
  p[1] * by,
  p[2] * by,
]

/** How many places of a line of sight are looked at before the surface is taken for missed. */
const looks = 240
const halvings = 50
/** So far beyond its ends a line of sight is followed: a point may lie on the border itself. */
const beyond = 1e-9

/**
 * The place at which a line of sight first meets a surface: where it passes from one side of it to the
 * other; null where it meets none.
 */
export function seenPoint(
  value: (x: number, y: number) => number,
  [near, far]: readonly [Point3, Point3],
): { x: number; y: number } | null {
  const at = (s: number): Point3 => [
    near[0] + s * (far[0] - near[0]),
    near[1] + s * (far[1] - near[1]),
    near[2] + s * (far[2] - near[2]),
  ]
  const above = (s: number) => {
    const p = at(s)
    return p[2] - value(p[0], p[1])
  }
  let [before, side] = [-beyond, above(-beyond)]
  for (let i = 1; i <= looks; i++) {
    const s = i < looks ? i / looks : 1 + beyond
    const next = above(s)
    if (Number.isFinite(side) && Number.isFinite(next) && side > 0 !== next > 0) {
      let [lo, hi] = [before, s]
      for (let k = 0; k < halvings; k++) {
        const middle = (lo + hi) / 2
        if (above(middle) > 0 === side > 0) lo = middle
        else hi = middle
      }
      const [x, y] = at((lo + hi) / 2)
      return { x, y }
    }
    ;[before, side] = [s, next]
  }
  return null
}

/** So much nearer, as a share of the line of sight, is in front and no rounding. */
const inFront = 0.005

/** Whether a surface stands between the viewer and a point. */
export function isBehind(
  value: (x: number, y: number) => number,
  camera: Camera,
  point: Point3,
): boolean {
  const { x, y } = camera.project(point)
  const sight = camera.sight(x, y)
  const met = sight && seenPoint(value, sight)
  if (!met) return false
  const [near, far] = sight
  const [dx, dy] = [far[0] - near[0], far[1] - near[1]]
  // Seen from straight above nothing is behind a height over it.
  if (dx === 0 && dy === 0) return false
  const share = (px: number, py: number) =>
    Math.abs(dx) > Math.abs(dy) ? (px - near[0]) / dx : (py - near[1]) / dy
  return share(met.x, met.y) < share(point[0], point[1]) - inFront
}
