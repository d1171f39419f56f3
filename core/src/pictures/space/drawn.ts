import type { Camera, Projected } from '../../scene/space/camera'
import {
  type Fineness,
  meshOf,
  type SpaceLines,
  type SpaceScene,
} from '../../scene/space/spaceScene'
import type { Point3 } from '../../statements/contract'
import type { Drawn } from '../drawing'
import { inkIn } from '../palettes'
import { blend, facesOf, inkShare } from './faces'
import { spaceFront } from './front'
import { letter, round, sans, type SpaceStyle, words } from './style'

const at = ({ x, y }: Projected) => `${round(x)} ${round(y)}`

const stroked = (
  d: string,
  stroke: string,
  width: number,
  dashes: readonly number[] = [],
): Drawn => ({
  ...{ kind: 'path', d, stroke, width, dashes, round: true, fill: null, opacity: 1 },
})

/** The sides of the box that the viewer looks at from inside, and where its numbers stand. */
function sidesOf({ box }: SpaceScene, camera: Camera) {
  const [vx, vy, vz] = camera.toViewer
  return {
    /** The upright sides behind everything. */
    backX: vx > 0 ? box.x.lo : box.x.hi,
    backY: vy > 0 ? box.y.lo : box.y.hi,
    frontX: vx > 0 ? box.x.hi : box.x.lo,
    frontY: vy > 0 ? box.y.hi : box.y.lo,
    floor: vz >= 0 ? box.z.lo : box.z.hi,
  }
}

/** The ground and the two sides behind, with the numbers and letters of the axes. */
export function spaceBack(scene: SpaceScene, camera: Camera, style: SpaceStyle): Drawn[] {
  const { palette, scale } = style
  const { box, ticks, names } = scene
  const { backX, backY, frontX, frontY, floor } = sidesOf(scene, camera)
  const { grid, axis, quiet, ink } = palette.inks
  const on = (p: Point3) => camera.project(p)
  const line = (...points: Point3[]) => `M${points.map((p) => at(on(p))).join('L')}`
  const [xs, ys, zs] = ticks
  const thin = [
    ...xs.map(({ value }) => line([value, box.y.lo, floor], [value, box.y.hi, floor])),
    ...ys.map(({ value }) => line([box.x.lo, value, floor], [box.x.hi, value, floor])),
    ...zs.map(({ value }) =>
      line([frontX, backY, value], [backX, backY, value], [backX, frontY, value]),
    ),
  ]
  const edges = [
    `${line([box.x.lo, box.y.lo, floor], [box.x.hi, box.y.lo, floor], [box.x.hi, box.y.hi, floor], [box.x.lo, box.y.hi, floor])}Z`,
    line([frontX, backY, box.z.lo], [frontX, backY, box.z.hi]),
    line([backX, frontY, box.z.lo], [backX, frontY, box.z.hi]),
    line([backX, backY, box.z.lo], [backX, backY, box.z.hi]),
    line([frontX, backY, box.z.hi], [backX, backY, box.z.hi], [backX, frontY, box.z.hi]),
  ]
  const middle = on([(box.x.lo + box.x.hi) / 2, (box.y.lo + box.y.hi) / 2, floor])
  /** A little outside the ground, away from its middle. */
  const outside = (p: Point3, by: number) => {
    const q = on(p)
    const [dx, dy] = [q.x - middle.x, q.y - middle.y]
    const size = Math.hypot(dx, dy) || 1
    return { x: q.x + (dx / size) * by * scale, y: q.y + (dy / size) * by * scale + 4 * scale }
  }
  const taken: { x: number; y: number }[] = []
  /** Numbers along an edge; at the corner that two edges share the first one stands. */
  const beside = (texts: readonly { p: Point3; text: string }[]) =>
    texts.flatMap(({ p, text }) => {
      const spot = outside(p, 15)
      const isTaken = taken.some((one) => Math.hypot(one.x - spot.x, one.y - spot.y) < 16 * scale)
      taken.push(spot)
      return isTaken ? [] : [words(spot, text, 12 * scale, sans, 'middle', quiet, palette.page)]
    })
  /** An axis whose ends fall together on the screen has no room for numbers. */
  const hasRoom = (p: Point3, q: Point3) => {
    const [a, b] = [on(p), on(q)]
    return Math.hypot(a.x - b.x, a.y - b.y) > 60 * scale
  }
  const xEnds: [Point3, Point3] = [
    [box.x.lo, frontY, floor],
    [box.x.hi, frontY, floor],
  ]
  const yEnds: [Point3, Point3] = [
    [frontX, box.y.lo, floor],
    [frontX, box.y.hi, floor],
  ]
  // The upright axis stands at whichever side corner is farther left.
  const corners: Point3[] = [
    [frontX, backY, box.z.lo],
    [backX, frontY, box.z.lo],
  ]
  const [left] = corners.sort((p, q) => on(p).x - on(q).x)
  const [lx, ly] = left!
  const zEnds: [Point3, Point3] = [
    [lx, ly, box.z.lo],
    [lx, ly, box.z.hi],
  ]
  const half = ([p, q]: [Point3, Point3]): Point3 =>
    p.map((v, k) => (v + q[k]!) / 2) as unknown as Point3
  const name = (ends: [Point3, Point3], text: string, by: number) =>
    hasRoom(...ends)
      ? [words(outside(half(ends), by), text, 17 * scale, letter, 'middle', ink, palette.page)]
      : []
  const upright = on(zEnds[1])
  return [
    stroked(thin.join(''), grid, 1),
    stroked(edges.join(''), axis, 1),
    ...(hasRoom(...xEnds)
      ? beside(xs.map(({ value, text }) => ({ p: [value, frontY, floor] as const, text })))
      : []),
    ...(hasRoom(...yEnds)
      ? beside(ys.map(({ value, text }) => ({ p: [frontX, value, floor] as const, text })))
      : []),
    ...(hasRoom(...zEnds)
      ? zs.map(({ value, text }) => {
          const p = on([lx, ly, value])
          return words(
            { x: p.x - 7 * scale, y: p.y + 4 * scale },
            ...([text, 12 * scale, sans, 'end', quiet, palette.page] as const),
          )
        })
      : []),
    ...name(xEnds, names[0], 36),
    ...name(yEnds, names[1], 36),
    ...(hasRoom(...zEnds)
      ? [
          words(
            { x: upright.x - 6 * scale, y: upright.y - 10 * scale },
            ...([names[2], 17 * scale, letter, 'middle', ink, palette.page] as const),
          ),
        ]
      : []),
  ]
}

/** Lines lie a little before the faces they are on, and what is marked before the grid. */
const before = { grid: 0.045, level: 0.047, section: 0.06, arrow: 0.08, edge: 0.02 } as const

/** Surfaces, planes and the lines on them, the farthest first. */
export function spaceBody(
  scene: SpaceScene,
  camera: Camera,
  { palette, isDark, scale }: SpaceStyle,
  fineness: Fineness,
): Drawn[] {
  const all: { depth: number; drawn: Drawn }[] = []
  const colour = (of: SpaceLines['ink']) => inkIn(palette, of, undefined) ?? palette.inks.ink
  const isHidden = hiddenIn(scene, camera)
  /** What no surface hides lies before them all, however it is put in order with their faces. */
  const placed = (middle: Point3, depth: number) => (isHidden(middle) ? depth - far : depth + far)
  for (const sheet of scene.sheets) {
    const ink = colour(sheet.ink)
    const mesh = meshOf(sheet, scene.box, fineness)
    for (const { d, depth, bright } of facesOf(mesh, sheet.f, camera)) {
      const fill = blend(palette.page, ink, inkShare(bright, isDark))
      // Its own stroke closes the seam to the next one; through it two would be seen.
      const stroke = sheet.opacity === 1 ? fill : null
      all.push({
        depth,
        drawn: {
          ...{ kind: 'path', d, stroke, width: 0.7, dashes: [], round: false, fill },
          opacity: sheet.opacity,
        },
      })
    }
  }
  for (const { ink, corners } of scene.planes) {
    for (const { d, depth, middle } of piecesOf(corners, camera, cuts[fineness])) {
      all.push({
        depth: placed(middle, depth),
        drawn: {
          ...{ kind: 'path', d, stroke: null, width: 0, dashes: [], round: true },
          ...{ fill: colour(ink), opacity: 0.38 },
        },
      })
    }
  }
  for (const { points, ink, width, role } of [...scene.lines, ...edgesOf(scene, cuts[fineness])]) {
    const isGrid = role === 'grid'
    const stroke = isGrid ? blend(colour(ink), palette.page, isDark ? 0.1 : 0.15) : colour(ink)
    const pieces = fineness === 'moving' ? inPairs(points) : points
    for (const [p, q] of pieces) {
      const [a, b] = [camera.project(p), camera.project(q)]
      const depth = (a.depth + b.depth) / 2 + before[role]
      all.push({
        depth: role === 'edge' || role === 'arrow' ? placed(between(p, q, 0.5), depth) : depth,
        drawn: stroked(`M${at(a)}L${at(b)}`, stroke, width * (isGrid ? 0.7 : 1) * scale),
      })
    }
  }
  return joined(all.sort((a, b) => a.depth - b.depth).map(({ drawn }) => drawn))
}

/** Half as many pieces: two that follow each other are one. */
function inPairs(points: SpaceLines['points']): SpaceLines['points'] {
  const out: (readonly [Point3, Point3])[] = []
  for (let i = 0; i < points.length; i++) {
    const [piece, next] = [points[i]!, points[i + 1]]
    if (next?.[0] === piece[1]) {
      out.push([piece[0], next[1]])
      i += 1
    } else out.push(piece)
  }
  return out
}

/** Lines of one kind that follow each other are one path. */
function joined(all: readonly Drawn[]): Drawn[] {
  const out: Drawn[] = []
  for (const item of all) {
    const last = out.at(-1)
    const isAlike =
      item.kind === 'path' &&
      last?.kind === 'path' &&
      item.fill === null &&
      last.fill === null &&
      item.stroke === last.stroke &&
      item.width === last.width
    if (isAlike) out[out.length - 1] = { ...last, d: last.d + item.d }
    else out.push(item)
  }
  return out
}

/** Farther than anything lies apart. */
const far = 100
/** So many places of a line of sight are looked at. */
const sights = 60

/** Whether a surface lies between a place and the viewer. */
function hiddenIn(scene: SpaceScene, camera: Camera): (place: Point3) => boolean {
  const solid = scene.sheets.filter(({ opacity }) => opacity === 1)
  return (place) => {
    const { x, y } = camera.project(place)
    const near = camera.sight(x, y)?.[0]
    if (!near) return false
    return solid.some(({ f }) => {
      let side = 0
      for (let i = 1; i <= sights; i++) {
        const p = between(place, near, i / sights)
        const over = Math.sign(p[2] - f.value(p[0], p[1]))
        if (side !== 0 && over === -side) return true
        // Where there is no surface nothing is passed through.
        side = Number.isNaN(over) ? 0 : over || side
      }
      return false
    })
  }
}

/** The border of each plane as lines. */
export const edgesOf = ({ planes }: SpaceScene, count: number): SpaceLines[] =>
  planes.map(({ key, ink, corners }) => ({
    ...{ key: `${key}.edge`, ink, width: 1.5, role: 'edge' },
    points: corners.flatMap((p, k) => cutInto(p, corners[(k + 1) % corners.length]!, count)),
  }))

/** So many pieces a side a plane is cut into, so that it is put in order with what it passes through. */
const cuts = { fine: 36, still: 28, moving: 8 } as const

const cutInto = (p: Point3, q: Point3, count: number): [Point3, Point3][] =>
  Array.from({ length: count }, (_, i) => [
    between(p, q, i / count),
    between(p, q, (i + 1) / count),
  ])

const between = (p: Point3, q: Point3, t: number) =>
  p.map((v, k) => v + (q[k]! - v) * t) as unknown as Point3

/** A flat piece cut into small ones: a fan of triangles, each in rows. */
function piecesOf(corners: readonly Point3[], camera: Camera, count: number) {
  const pieces: { d: string; depth: number; middle: Point3 }[] = []
  const quad = (points: readonly Point3[]) => {
    const seen = points.map((p) => camera.project(p))
    const depth = seen.reduce((sum, p) => sum + p.depth, 0) / seen.length
    const middle = between(points[0]!, points[2]!, 0.5)
    pieces.push({ d: `M${seen.map(at).join('L')}Z`, depth, middle })
  }
  for (let k = 1; k + 1 < corners.length; k++) {
    const [a, b, c] = [corners[0]!, corners[k]!, corners[k + 1]!]
    for (let i = 0; i < count; i++) {
      const [s, t] = [i / count, (i + 1) / count]
      const [p, q] = [between(a, b, s), between(a, c, s)]
      const [u, v] = [between(a, b, t), between(a, c, t)]
      for (let j = 0; j <= i; j++) {
        const share = (n: number, of: number) => (of === 0 ? 0 : n / of)
        const corner = [
          between(p, q, share(j, i)),
          between(u, v, j / (i + 1)),
          between(u, v, (j + 1) / (i + 1)),
          between(p, q, share(Math.min(j + 1, i), i)),
        ]
        quad(j === i ? corner.slice(0, 3) : corner)
      }
    }
  }
  return pieces
}

/** The whole view, the farthest first. */
export const spaceDrawn = (
  scene: SpaceScene,
  camera: Camera,
  style: SpaceStyle,
  fineness: Fineness,
): Drawn[] => [
  ...spaceBack(scene, camera, style),
  ...spaceBody(scene, camera, style, fineness),
  ...spaceFront(scene, camera, style),
]
