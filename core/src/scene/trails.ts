import type { Evaluation } from '../results/evaluation'
import type { Mark } from '../statements/contract'
import { type Frame, toPixelX, toPixelY } from './frame'
import { markerPath } from './markers'
import { graphItems } from './marks/levels'
import type { PlainItem } from './marks/mark'
import { round } from './sampleCurve'

/** Where places have been while the lines of their trails were shown: stretches, each from place to place. */
export type Trails = ReadonlyMap<string, Trail>
export interface Trail {
  runs: readonly (readonly number[])[]
  /** It goes on from its last place. */
  open: boolean
}
export const noTrails: Trails = new Map()

/** A trail keeps so many places; then its oldest stretches go. */
const longest = 4000

/**
 * Trails with what has been passed since: a place that has moved on adds to its stretch, one that has
 * jumped, or was not shown in between, begins a new one. The same trails where nothing has moved.
 */
export function grownTrails(trails: Trails, evaluation: Evaluation, isMoving: boolean): Trails {
  const next = new Map<string, Trail>()
  let changed = false
  for (const [id, { marks }] of evaluation.lines) {
    const mark = marks.find((m) => m.kind === 'trail')
    const before = trails.get(id)
    const after = mark?.kind === 'trail' ? grown(before, mark.x, isMoving) : closed(before)
    if (after !== before) changed = true
    if (after) next.set(id, after)
  }
  return changed || next.size !== trails.size ? next : trails
}

function grown(before: Trail | undefined, x: number, isMoving: boolean): Trail {
  const last = before?.open ? before.runs.at(-1) : undefined
  if (!before || !last) return { runs: [...(before?.runs ?? []), [x]], open: true }
  if (last.at(-1) === x) return before
  const others = before.runs.slice(0, -1)
  if (!isMoving) return { runs: [...others, ...(last.length > 1 ? [last] : []), [x]], open: true }
  return { runs: thinned([...others, [...last, x]]), open: true }
}

const closed = (before: Trail | undefined): Trail | undefined =>
  before?.open ? { ...before, open: false } : before

function thinned(runs: readonly (readonly number[])[]): readonly (readonly number[])[] {
  const count = runs.reduce((sum, run) => sum + run.length, 0)
  if (count <= longest) return runs
  return runs.length > 1 ? runs.slice(1) : [runs[0]!.slice(-longest / 2)]
}

/** A broad trail is so wide, and its dots have this reach, in pixels. */
const [broad, dot] = [14, 3]

/** Tangents that stay behind start so many pixels apart at the least. */
const betweenTangents = 3

/** What a trail has passed, along its curve; `slope` is that of the curve. */
export function trailItems(
  mark: Mark & { kind: 'trail' },
  trail: Trail | undefined,
  f: (x: number) => number,
  slope: (x: number) => number,
  frame: Frame,
  key: string,
): PlainItem[] {
  const { style } = mark
  if (!trail) return []
  if (style === 'tangents') return tangentItems(trail, f, slope, frame, key)
  if (style === 'dots') {
    const seen = new Set<string>()
    const d = trail.runs.flat().flatMap((x) => {
      const [px, py] = [round(toPixelX(frame, x)), round(toPixelY(frame, f(x)))]
      const at = `${px} ${py}`
      const inside = px >= 0 && px <= frame.width && py >= 0 && py <= frame.height
      if (!inside || seen.has(at)) return []
      seen.add(at)
      return [markerPath('disc', px, py, dot)]
    })
    return d.length === 0
      ? []
      : [{ kind: 'path', key, d: d.join(''), ink: 'place', width: 1, fill: 'own' }]
  }
  // Going over a stretch again marks it once.
  const parts = trail.runs
    .map((run): [number, number] => [Math.min(...run), Math.max(...run)])
    .sort(([a], [b]) => a - b)
    .reduce<[number, number][]>((all, [from, to]) => {
      const last = all.at(-1)
      if (last && from <= last[1]) last[1] = Math.max(last[1], to)
      else all.push([from, to])
      return all
    }, [])
  const d = parts
    .flatMap(([from, to]) =>
      graphItems(
        {
          ...{ kind: 'graph', id: '', layer: 'insides', lane: { curve: '', order: 0 } },
          of: { curve: '', order: 0 },
          from,
          to,
        },
        f,
        frame,
        key,
      ),
    )
    .map((item) => (item.kind === 'path' ? item.d : ''))
    .join('')
  return d === ''
    ? []
    : [{ kind: 'path', key, d, ink: 'span', width: broad, dash: 'solid', dimmed: true }]
}

/** The family of lines that a moving tangent has left behind. */
function tangentItems(
  trail: Trail,
  f: (x: number) => number,
  slope: (x: number) => number,
  frame: Frame,
  key: string,
): PlainItem[] {
  const seen = new Set<number>()
  const lines = trail.runs.flat().flatMap((x) => {
    const at = Math.round(toPixelX(frame, x) / betweenTangents)
    const [y, m] = [f(x), slope(x)]
    if (seen.has(at) || !Number.isFinite(y) || !Number.isFinite(m)) return []
    seen.add(at)
    const ends = clipped(frame, x, y, m)
    if (!ends) return []
    const [[left, top], [right, bottom]] = ends
    return [`M${round(left)} ${round(top)}L${round(right)} ${round(bottom)}`]
  })
  return lines.length === 0
    ? []
    : [{ kind: 'path', key, d: lines.join(''), ink: 'place', width: 1, dimmed: true }]
}

type Pixel = readonly [x: number, y: number]
/** Where the line through (x, y) enters and leaves the frame, in pixels; null where it passes it by. */
function clipped(
  frame: Frame,
  x: number,
  y: number,
  slope: number,
): readonly [Pixel, Pixel] | null {
  const { width, height } = frame
  const heightAt = (px: number) =>
    toPixelY(frame, y + slope * (frame.x[0] + (px / width) * (frame.x[1] - frame.x[0]) - x))
  const [left, right] = [heightAt(0), heightAt(width)]
  if (!Number.isFinite(left) || !Number.isFinite(right)) return null
  const rise = right - left
  const shares = [0, 1, ...(rise === 0 ? [] : [-left / rise, (height - left) / rise])]
    .filter((share) => share >= 0 && share <= 1)
    .filter((share) => {
      const py = left + share * rise
      return py >= -0.01 && py <= height + 0.01
    })
  if (shares.length < 2) return null
  const at = (share: number): Pixel => [share * width, left + share * rise]
  return [at(Math.min(...shares)), at(Math.max(...shares))]
}
