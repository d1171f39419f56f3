import type { Evaluation } from '../../results/evaluation'
import type { Point3 } from '../../statements/contract'
import type { Ink } from '../items'
import { cameraOf } from './camera'
import { spaceOf } from './spaceScene'

/** So many cells a side are drawn. */
const cells = 13

/**
 * The surfaces of a study drawn small: cells with their borders, the farthest first, each hiding what
 * lies behind it. None where the study shows no surface.
 */
export function spaceThumbnail(
  evaluation: Evaluation,
  width: number,
  height: number,
): { d: string; ink: Ink }[] {
  const scene = spaceOf(evaluation)
  if (!scene) return []
  const { box } = scene
  const camera = cameraOf(evaluation.study.space, box, { width, height, bare: true })
  const round = (v: number) => Math.round(v * 10) / 10
  const faces = scene.sheets
    .filter(({ role }) => role === 'surface')
    .flatMap(({ f, within: { x, y }, ink }) => {
      const at = (i: number, j: number): Point3 => {
        const [u, v] = [x.lo + ((x.hi - x.lo) * i) / cells, y.lo + ((y.hi - y.lo) * j) / cells]
        return [u, v, Math.min(box.z.hi, Math.max(box.z.lo, f.value(u, v)))]
      }
      return Array.from({ length: cells * cells }, (_, k) => {
        const [i, j] = [k % cells, Math.floor(k / cells)]
        const corners = [at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)]
        if (!corners.every((p) => Number.isFinite(p[2]))) return null
        const seen = corners.map((p) => camera.project(p))
        const depth = seen.reduce((sum, p) => sum + p.depth, 0)
        const d = `M${seen.map((p) => `${round(p.x)} ${round(p.y)}`).join('L')}Z`
        return { d, depth, ink }
      }).filter((face) => face !== null)
    })
  return faces.sort((a, b) => a.depth - b.depth).map(({ d, ink }) => ({ d, ink }))
}
