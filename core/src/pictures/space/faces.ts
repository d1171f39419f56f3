import type { Point3 } from '../../statements/contract'
import type { Camera } from '../../scene/space/camera'
import type { SurfaceMesh } from '../../surfaces/mesh'
import type { RealSurface } from '../../surfaces/surface'

/** Where the light comes from beside the viewer, in the box's own measure. */
const lamp: Point3 = [-0.35, -0.5, 0.79]

/** How bright a piece of a surface is, from 0 to 1, by how it leans to the light; the same from both sides. */
export function brightness([x, y, z]: Point3): number {
  const size = Math.hypot(x, y, z)
  if (size === 0) return 1
  const lean = (x * lamp[0] + y * lamp[1] + z * lamp[2]) / (size * Math.hypot(...lamp))
  return Math.abs(lean)
}

/** The upright of a triangle, in the box's own measure. */
export function uprightOf(a: Point3, b: Point3, c: Point3, scales: Point3): Point3 {
  const [u, v] = [b, c].map((p) => p.map((value, k) => (value - a[k]!) * scales[k]!)) as [
    [number, number, number],
    [number, number, number],
  ]
  return [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]]
}

/** A colour between two, by the share of the second; both as #rrggbb. */
export function blend(from: string, to: string, share: number): string {
  const parts = [1, 3, 5].map((i) => {
    const [p, q] = [from, to].map((hex) => parseInt(hex.slice(i, i + 2), 16)) as [number, number]
    return Math.round(p + (q - p) * share)
      .toString(16)
      .padStart(2, '0')
  })
  return `#${parts.join('')}`
}

/** How much of its ink a piece of a surface has over the ground, by how bright it is. */
export const inkShare = (bright: number, isDark: boolean) =>
  isDark ? 0.28 + 0.5 * bright : 0.74 - 0.5 * bright

/** A triangle on the screen, with what it takes to put it in order and to colour it. */
export interface Face {
  d: string
  depth: number
  bright: number
}

const round = (v: number) => Math.round(v * 10) / 10

/**
 * The direction that stands upright on a surface at a place, in the box's own measure, by its partial
 * derivatives; null where these have no values.
 */
export function uprightAt(f: RealSurface, x: number, y: number, scales: Point3): Point3 | null {
  const [p, q] = [f.partial(1, 0).value(x, y), f.partial(0, 1).value(x, y)]
  if (!Number.isFinite(p) || !Number.isFinite(q)) return null
  return [(-p * scales[2]) / scales[0], (-q * scales[2]) / scales[1], 1]
}

/** The triangles of a mesh of a surface as a camera sees them. */
export function facesOf(
  { positions, triangles }: SurfaceMesh,
  f: RealSurface,
  camera: Camera,
): Face[] {
  const count = positions.length / 3
  const seen = new Float64Array(positions.length)
  const point = (i: number): Point3 => [
    positions[3 * i]!,
    positions[3 * i + 1]!,
    positions[3 * i + 2]!,
  ]
  for (let i = 0; i < count; i++) {
    const { x, y, depth } = camera.project(point(i))
    seen[3 * i] = round(x)
    seen[3 * i + 1] = round(y)
    seen[3 * i + 2] = depth
  }
  const faces: Face[] = []
  for (let t = 0; t < triangles.length; t += 3) {
    const all = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!] as const
    const corners = all.map(point) as [Point3, Point3, Point3]
    const middle = [0, 1].map((k) => corners.reduce((sum, p) => sum + p[k]!, 0) / 3)
    const upright =
      uprightAt(f, middle[0]!, middle[1]!, camera.scales) ?? uprightOf(...corners, camera.scales)
    faces.push({
      d: `M${all.map((i) => `${seen[3 * i]!} ${seen[3 * i + 1]!}`).join('L')}Z`,
      depth: all.reduce((sum, i) => sum + seen[3 * i + 2]!, 0) / 3,
      bright: brightness(upright),
    })
  }
  return faces
}
