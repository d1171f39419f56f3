import type { Interval } from '../../arithmetic/intervals'
import type { Evaluation } from '../../results/evaluation'
import { kindOf, type Statement, surfaceOf } from '../../statements'
import type { Point3, SpaceMark } from '../../statements/contract'
import { levelLines } from '../../surfaces/levels'
import { heightsOf, type SurfaceMesh, surfaceMesh } from '../../surfaces/mesh'
import type { RealSurface, Rectangle } from '../../surfaces/surface'
import type { Ink } from '../items'
import { curveInk, inkOf } from '../looks'
import { axisTicks, type Tick } from '../ticks'
import type { Box3 } from './camera'

/** Lines through space, each piece by its two ends; `level` is the height of a level line. */
export interface SpaceLines {
  points: readonly (readonly [Point3, Point3])[]
  ink: Ink
  width: number
  role: 'grid' | 'level' | 'section' | 'arrow' | 'edge'
  key: string
}

export interface SpaceSheet {
  key: string
  line: string
  ink: Ink
  /** What is seen through it, from 0 to 1. */
  opacity: number
  f: RealSurface
  within: Rectangle
  role: 'surface' | 'polynomial'
}

export interface SpacePlane {
  key: string
  ink: Ink
  corners: readonly Point3[]
}

export interface SpaceSpot {
  key: string
  line: string
  at: Point3
  label: string
  ink: Ink
  /** It can be dragged on this surface. */
  held: string | null
}

/** What stands in the view of the surfaces, however it is turned, in the coordinates of the study. */
export interface SpaceScene {
  box: Box3
  /** The names of the three axes. */
  names: readonly [string, string, string]
  ticks: readonly [readonly Tick[], readonly Tick[], readonly Tick[]]
  sheets: readonly SpaceSheet[]
  planes: readonly SpacePlane[]
  lines: readonly SpaceLines[]
  spots: readonly SpaceSpot[]
  arrows: readonly { key: string; from: Point3; at: Point3; label: string; ink: Ink }[]
  /** What is seen, in a sentence or two. */
  summary: string
}

const perAxis = 5
const gridLooks = 72
/** The half side of a tangent plane beside those of the box. */
const planeReach = 0.42

/** The view of the surfaces of a study as its results say; null where it shows none. */
export function spaceOf(evaluation: Evaluation): SpaceScene | null {
  const { study } = evaluation
  const marks = study.lines.flatMap((line): Marked[] => {
    if (evaluation.off.has(line.id) || line.look?.hidden) return []
    return (evaluation.lines.get(line.id)?.space ?? []).map((mark) => ({ line, mark }))
  })
  const surfaces = marks.filter(({ mark }) => mark.kind === 'sheet' && mark.role === 'surface')
  if (surfaces.length === 0) return null
  const box = boxOf(surfaces, study.space.heights)
  const first = surfaceOf(surfaces[0]!.line)!
  const names = [...first.letters, surfaces.length === 1 ? first.name : 'z'] as const
  const sides = [box.x, box.y, box.z] as const
  const ticks = sides.map(({ lo, hi }) => axisTicks(lo, hi, perAxis * 60, 60)) as [
    Tick[],
    Tick[],
    Tick[],
  ]
  const sheets = sheetsOf(marks, evaluation)
  const lines = [
    ...sheets
      .filter(({ role }) => role === 'surface')
      .flatMap((sheet) => gridOn(sheet, box, ticks)),
    ...(study.space.levels
      ? sheets.filter(({ role }) => role === 'surface').flatMap((s) => levelsOn(s, box, ticks[2]))
      : []),
    ...marks.flatMap((one) => pathOf(one, box, evaluation)),
  ]
  const spots = spotsOf(marks)
  const seen = surfaces.map(({ line }) => surfaceOf(line)!.name).join(', ')
  return {
    box,
    names,
    ticks,
    sheets,
    planes: marks.flatMap((one) => planeOf(one, box)),
    lines,
    spots,
    arrows: marks.flatMap(({ line, mark }) =>
      mark.kind === 'arrow'
        ? [
            {
              key: `${line.id}.${mark.id}`,
              ...{ from: mark.from, at: mark.to, label: mark.label, ink: arrowInk(line) },
            },
          ]
        : [],
    ),
    summary: `The surface ${seen} over ${spanText(box.x)} and ${spanText(box.y)}, heights ${spanText(box.z)}.`,
  }
}

/** Whether a study has surfaces to look at. */
export const hasSpace = ({ study, lines, off }: Evaluation): boolean =>
  study.lines.some(
    ({ id, look }) =>
      !off.has(id) &&
      !look?.hidden &&
      lines.get(id)?.space?.some((mark) => mark.kind === 'sheet' && mark.role === 'surface'),
  )

interface Marked {
  line: Statement
  mark: SpaceMark
}

const spanText = ({ lo, hi }: Interval) =>
  `${Number(lo.toPrecision(4))} to ${Number(hi.toPrecision(4))}`.replaceAll('-', '−')

const heightsKnown = new WeakMap<RealSurface, Interval | null>()
function knownHeights(f: RealSurface, within: Rectangle): Interval | null {
  let known = heightsKnown.get(f)
  if (known === undefined) heightsKnown.set(f, (known = heightsOf(f, within)))
  return known
}

function boxOf(surfaces: readonly Marked[], set: readonly [number, number] | null): Box3 {
  let [x, y, z]: (Interval | null)[] = [null, null, null]
  const hull = (a: Interval | null | undefined, b: Interval): Interval =>
    a ? { lo: Math.min(a.lo, b.lo), hi: Math.max(a.hi, b.hi) } : b
  for (const { mark } of surfaces) {
    if (mark.kind !== 'sheet') continue
    x = hull(x, mark.within.x)
    y = hull(y, mark.within.y)
    const heights = knownHeights(mark.of, mark.within)
    if (heights) z = hull(z, heights)
  }
  return kept({ x: x!, y: y!, z: set ? { lo: set[0], hi: set[1] } : (z ?? { lo: -1, hi: 1 }) })
}

const boxes = new Map<string, Box3>()
const mostBoxes = 40
/** The same object for the same box: what hangs on it is not made again while a point moves. */
function kept(box: Box3): Box3 {
  const key = [box.x, box.y, box.z].map(({ lo, hi }) => `${lo} ${hi}`).join()
  const known = boxes.get(key)
  if (known) return known
  if (boxes.size >= mostBoxes) boxes.clear()
  boxes.set(key, box)
  return box
}

function sheetsOf(marks: readonly Marked[], { study }: Evaluation): SpaceSheet[] {
  let index = 0
  return marks.flatMap(({ line, mark }): SpaceSheet[] => {
    if (mark.kind !== 'sheet') return []
    const ink = inkOf(line.look) ?? sheetInks[index % sheetInks.length]!
    index += 1
    const opacity = mark.role === 'polynomial' ? 0.55 : 1 - study.space.clear
    const { of: f, within, role } = mark
    return [{ key: `${line.id}.${mark.id}`, line: line.id, ink, opacity, f, within, role }]
  })
}

/** How closely surfaces are drawn: by a renderer that has time, on paper, and while they turn. */
export type Fineness = 'fine' | 'still' | 'moving'

/** Surfaces begin with another colour than curves: the first section of one has that of a first curve. */
const sheetInks: readonly Ink[] = ['curve2', 'curve4', 'curve3', 'curve5', 'curve1']

const meshes = new WeakMap<RealSurface, Map<string, SurfaceMesh>>()

/** The triangles of a sheet inside the heights of the box; made once for each fineness. */
export function meshOf({ f, within }: SpaceSheet, { z }: Box3, fineness: Fineness): SurfaceMesh {
  const key = `${fineness} ${z.lo} ${z.hi}`
  let known = meshes.get(f)
  if (!known) meshes.set(f, (known = new Map<string, SurfaceMesh>()))
  let mesh = known.get(key)
  if (!mesh) {
    const [cells, deepest] = ({ fine: [44, 2], still: [22, 1], moving: [13, 0] } as const)[fineness]
    mesh = surfaceMesh(f, within, { cells, deepest, heights: z })
    if (known.size > 6) known.clear()
    known.set(key, mesh)
  }
  return mesh
}

const grids = new WeakMap<RealSurface, { box: Box3; points: SpaceLines['points'] }>()

/** The surface over the round values of its ground. */
function gridOn(sheet: SpaceSheet, box: Box3, ticks: SpaceScene['ticks']): SpaceLines[] {
  const { f, ink, key } = sheet
  let known = grids.get(f)
  if (known?.box !== box) grids.set(f, (known = { box, points: gridPoints(sheet, box, ticks) }))
  return [{ points: known.points, ink, width: 1, role: 'grid', key: `${key}.grid` }]
}

function gridPoints(
  { f, within }: SpaceSheet,
  box: Box3,
  ticks: SpaceScene['ticks'],
): SpaceLines['points'] {
  const points: [Point3, Point3][] = []
  const along = (at: (t: number) => Point3) => {
    let before: Point3 | null = null
    for (let i = 0; i <= gridLooks; i++) {
      const p = at(i / gridLooks)
      const isSeen = p[2] >= box.z.lo && p[2] <= box.z.hi
      if (before && isSeen && isSmooth(f, before, p, box)) points.push([before, p])
      before = isSeen ? p : null
    }
  }
  const on = ({ lo, hi }: Interval, t: number) => lo + (hi - lo) * t
  for (const { value } of ticks[0]) {
    if (value < within.x.lo || value > within.x.hi) continue
    along((t) => [value, on(within.y, t), f.value(value, on(within.y, t))])
  }
  for (const { value } of ticks[1]) {
    if (value < within.y.lo || value > within.y.hi) continue
    along((t) => [on(within.x, t), value, f.value(on(within.x, t), value)])
  }
  return points
}

/** Whether a line may go on between two neighbours: half of a slope's step is taken half way, of a jump's none or all. */
function isSmooth(f: RealSurface, a: Point3, b: Point3, { z }: Box3): boolean {
  const step = Math.abs(b[2] - a[2])
  if (step < (z.hi - z.lo) * 0.08) return true
  const middle = f.value((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
  return Math.max(Math.abs(middle - a[2]), Math.abs(b[2] - middle)) < step * 0.9
}

const levelsKnown = new WeakMap<RealSurface, { key: string; lines: SpaceLines[] }>()
/** So many level lines stand between two numbers of the upright axis. */
const between = 2

function levelsOn({ f, within, key }: SpaceSheet, box: Box3, ticks: readonly Tick[]): SpaceLines[] {
  const values = ticks.map(({ value }) => value)
  const step = values.length > 1 ? (values[1]! - values[0]!) / between : (box.z.hi - box.z.lo) / 8
  const start = (values[0] ?? box.z.lo) - step * between
  const levels = Array.from({ length: 60 }, (_, i) => start + i * step).filter(
    (level) => level > box.z.lo && level < box.z.hi,
  )
  const name = `${levels.join()} ${box.z.lo} ${box.z.hi}`
  const known = levelsKnown.get(f)
  if (known?.key === name) return known.lines
  const lines = levelLines(f, within, levels, box.z).map(({ level, pieces }): SpaceLines => {
    const points: [Point3, Point3][] = []
    for (let i = 0; i < pieces.length; i += 4) {
      points.push([
        [pieces[i]!, pieces[i + 1]!, level],
        [pieces[i + 2]!, pieces[i + 3]!, level],
      ])
    }
    return { points, ink: 'ink', width: 1.2, role: 'level', key: `${key}.level ${level}` }
  })
  levelsKnown.set(f, { key: name, lines })
  return lines
}

const arrowInk = (line: Statement): Ink => inkOf(line.look) ?? 'place'

function pathOf({ line, mark }: Marked, box: Box3, { curves }: Evaluation): SpaceLines[] {
  const key = `${line.id}.${mark.id}`
  if (mark.kind === 'arrow') {
    const points = arrowOf(mark.from, mark.to, box)
    return [{ points, ink: arrowInk(line), width: 2.5, role: 'arrow', key }]
  }
  if (mark.kind !== 'path') return []
  const stands = kindOf(line).drawn?.stands?.(line)
  const index = stands ? [...curves.keys()].indexOf(stands.curve) : 0
  const points: [Point3, Point3][] = []
  mark.points.forEach((p, i) => {
    const before = mark.points[i - 1]
    const isSeen = [before, p].every((q) => q !== undefined && q[2] >= box.z.lo && q[2] <= box.z.hi)
    if (isSeen) points.push([before!, p])
  })
  return [{ points, ink: inkOf(line.look) ?? curveInk(index), width: 3, role: 'section', key }]
}

/** A shaft with two barbs, in the plane of the arrow and the upright. */
function arrowOf(from: Point3, to: Point3, box: Box3): [Point3, Point3][] {
  const size = [box.x, box.y, box.z].map(({ lo, hi }) => hi - lo) as [number, number, number]
  const run = to.map((v, k) => (v - from[k]!) / size[k]!) as [number, number, number]
  const length = Math.hypot(...run)
  if (length === 0) return []
  const unit = run.map((v) => v / length) as [number, number, number]
  const level = Math.hypot(unit[0], unit[1])
  const side: Point3 = level === 0 ? [1, 0, 0] : [-unit[1] / level, unit[0] / level, 0]
  const barb = Math.min(0.035, length * 0.4)
  const back = (turn: 1 | -1): Point3 =>
    to.map((v, k) => v + size[k]! * barb * (-unit[k]! + turn * 0.6 * side[k]!)) as unknown as Point3
  return [
    [from, to],
    [to, back(1)],
    [to, back(-1)],
  ]
}

function planeOf({ line, mark }: Marked, box: Box3): SpacePlane[] {
  if (mark.kind !== 'plane') return []
  const [x, y, z] = mark.at
  const [p, q] = mark.slopes
  const [rx, ry] = [box.x, box.y].map(({ lo, hi }) => ((hi - lo) / 2) * planeReach) as [
    number,
    number,
  ]
  const side = ({ lo, hi }: Interval, v: number) => Math.min(hi, Math.max(lo, v))
  const [x0, x1] = [side(box.x, x - rx), side(box.x, x + rx)]
  const [y0, y1] = [side(box.y, y - ry), side(box.y, y + ry)]
  const on = (u: number, v: number): Point3 => [u, v, z + p * (u - x) + q * (v - y)]
  const whole = [on(x0, y0), on(x1, y0), on(x1, y1), on(x0, y1)]
  const corners = cutAt(cutAt(whole, box.z.lo, 1), box.z.hi, -1)
  if (corners.length < 3) return []
  return [{ key: `${line.id}.${mark.id}`, ink: inkOf(line.look) ?? 'place', corners }]
}

/** The part of a flat piece above or below a height. */
function cutAt(piece: readonly Point3[], level: number, side: 1 | -1): Point3[] {
  return piece.flatMap((a, k): Point3[] => {
    const b = piece[(k + 1) % piece.length]!
    const [da, db] = [(a[2] - level) * side, (b[2] - level) * side]
    const t = da / (da - db)
    const cut: Point3 = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), level]
    return [...(da >= 0 ? [a] : []), ...(da >= 0 !== db >= 0 ? [cut] : [])]
  })
}

/** Points, each once: of lines on the same place the first one that can be dragged stands for all. */
function spotsOf(marks: readonly Marked[]): SpaceSpot[] {
  const all: SpaceSpot[] = []
  for (const { line, mark } of marks) {
    if (mark.kind !== 'spot') continue
    const same = all.find(({ at }) => at.every((v, k) => v === mark.at[k]))
    if (same && (same.held !== null || !mark.held)) {
      if (same.label === '') same.label = mark.label
      continue
    }
    const held = mark.held && 'of' in line && typeof line.of === 'string' ? line.of : null
    all.push({
      key: `${line.id}.${mark.id}`,
      line: line.id,
      at: mark.at,
      label: mark.label,
      ink: inkOf(line.look) ?? (mark.held ? 'place' : 'ink'),
      held,
    })
  }
  return all
}
