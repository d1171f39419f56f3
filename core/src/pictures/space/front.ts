import { type Camera, isBehind } from '../../scene/space/camera'
import type { SpaceLines, SpaceScene } from '../../scene/space/spaceScene'
import type { Point3 } from '../../statements/contract'
import type { Drawn } from '../drawing'
import { inkIn } from '../palettes'
import { round, type SpaceStyle, strong, words } from './style'

/** An arrow that is shorter on the screen has no words, in pixels. */
const shortest = 36

/** Through a sheet that lets so much light pass everything is seen. */
const clear = 0.8

/** Whether a sheet that is not seen through stands before a point. */
const isHidden = ({ sheets }: SpaceScene, camera: Camera, p: Point3) =>
  sheets.some(({ f, within: { x, y }, opacity }) => {
    const isOver = (u: number, v: number) => u >= x.lo && u <= x.hi && v >= y.lo && v <= y.hi
    const value = (u: number, v: number) => (isOver(u, v) ? f.value(u, v) : NaN)
    return opacity > clear && isBehind(value, camera, p)
  })

/** Points with their words, before everything. */
export function spaceFront(
  scene: SpaceScene,
  camera: Camera,
  { palette, scale }: SpaceStyle,
  { points = true }: { points?: boolean } = {},
): Drawn[] {
  const colour = (of: SpaceLines['ink']) => inkIn(palette, of, undefined) ?? palette.inks.ink
  const spots = scene.spots.flatMap(({ at: p, label, ink, held }): Drawn[] => {
    const { x, y } = camera.project(p)
    const r = (held === null ? 4.5 : 8) * scale
    const d =
      held === null
        ? `M${round(x - r)} ${round(y)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`
        : `M${round(x)} ${round(y - r)}L${round(x + r)} ${round(y)}L${round(x)} ${round(y + r)}L${round(x - r)} ${round(y)}Z`
    // A point behind a surface is a ring, so that it does not seem to lie on the front.
    const isRing = held === null && isHidden(scene, camera, p)
    const [stroke, fill] = isRing ? [colour(ink), palette.page] : [palette.page, colour(ink)]
    const dot: Drawn = {
      ...{ kind: 'path', d, stroke, width: 2 * scale, dashes: [], round: true },
      ...{ fill, opacity: 1 },
    }
    const beside = { x: x + r + 4 * scale, y: y - r * 0.6 }
    return [
      ...(points || held === null ? [dot] : []),
      ...(label === ''
        ? []
        : [words(beside, label, 13 * scale, strong, 'start', colour(ink), palette.page)]),
    ]
  })
  const arrows = scene.arrows.flatMap(({ from, at: p, label, ink }) => {
    const [tail, { x, y }] = [camera.project(from), camera.project(p)]
    const [dx, dy] = [x - tail.x, y - tail.y]
    const length = Math.hypot(dx, dy)
    // Words at a short arrow would stand on its point.
    if (length < shortest * scale) return []
    const beside = { x: x + (dx / length) * 8 * scale, y: y + (dy / length) * 8 * scale }
    const [anchor, by] = dx < 0 ? (['end', -2] as const) : (['start', 2] as const)
    const at = { x: beside.x + by, y: beside.y + (dy > 0 ? 10 : 0) * scale }
    return [words(at, label, 13 * scale, strong, anchor, colour(ink), palette.page)]
  })
  return [...arrows, ...spots]
}
