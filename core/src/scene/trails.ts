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

/** What a trail has passed, along its curve. */
export function trailItems(
  { style }: Mark & { kind: 'trail' },
  trail: Trail | undefined,
  f: (x: number) => number,
  frame: Frame,
  key: string,
): PlainItem[] {
  if (!trail) return []
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
