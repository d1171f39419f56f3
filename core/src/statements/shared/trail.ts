import type { DrawnFunction, LaneOf, LineAction, LineContext, Mark } from '../contract'

/** A trail has this many points at the most. */
const longestTrail = 500

/**
 * The points of f at the steps from the beginning of a place's slider up to where it stands, so
 * that a graph grows as the place moves. Nothing where the place is a typed number.
 */
export function trailOf(
  lane: LaneOf,
  f: DrawnFunction,
  place: string,
  x: number,
  context: LineContext,
): Mark[] {
  const range = context.range(place)
  if (!range) return []
  const way = x - range.from
  const count = Math.min(longestTrail, Math.floor(way / range.step + 1e-9))
  if (count < 1) return []
  const xs = Float64Array.from({ length: count + 1 }, (_, i) => range.from + (way * i) / count)
  const ys = f.values(xs)
  const points = Array.from(xs, (at, i): [number, number] => [at, ys[i]!]).filter(([, y]) =>
    Number.isFinite(y),
  )
  return [{ kind: 'points', id: 'trail', layer: 'marks', lane, points }]
}

/** What a moving place has passed stays drawn, so that a graph grows as it moves. */
export const trailAction = (label: string, trail: boolean): LineAction => ({
  id: 'trail',
  label,
  does: 'change',
  change: { trail: !trail },
  pressed: trail,
})
