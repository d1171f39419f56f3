import { decimalOfNumber } from '../arithmetic/rational'
import { type Interval } from '../arithmetic/intervals'
import type { Steps } from '../features/budget'
import { examineInSteps } from '../features/examine'
import { exactly, type Tree } from '../formula/tree'
import type { StationaryPoints } from './stationary'
import type { RealSurface, Rectangle } from './surface'

/** A place at which a surface may be highest or lowest on a rectangle. */
export interface Candidate {
  x: number
  y: number
  z: number
  /** Surely holds the height there. */
  height: Interval
  where: 'inside' | 'edge' | 'corner'
}

export interface SurfaceExtremes {
  /** Critical points, those of the four edges, and the corners, each once. */
  candidates: Candidate[]
  /** The candidates with the greatest and with the least height; those whose heights no digits tell apart all. */
  highest: Candidate[]
  lowest: Candidate[]
  /** Nothing outside the candidates can be higher or lower. */
  complete: boolean
}

/** The ends of the sides, as they were typed where that is known. */
export interface Ends {
  x: readonly [Tree, Tree]
  y: readonly [Tree, Tree]
}

export const endsOf = ({ x, y }: Rectangle): Ends => {
  const tree = (value: number) => exactly(decimalOfNumber(value))
  return { x: [tree(x.lo), tree(x.hi)], y: [tree(y.lo), tree(y.hi)] }
}

/**
 * The absolute extremes of a surface on a closed rectangle: its critical points inside, those along
 * each edge (the surface there is a function of one variable, which is examined as such) and the
 * corners are compared. Source of the procedure: any calculus text (closed interval method in two
 * variables); common practice.
 */
export function* surfaceExtremes(
  f: RealSurface,
  within: Rectangle,
  ends: Ends,
  inside: StationaryPoints,
): Steps<SurfaceExtremes> {
  const candidates: Candidate[] = []
  let complete = inside.complete && !inside.rough
  const add = (one: Candidate) => {
    const isKnown = candidates.some(
      ({ x, y }) => near(x, one.x, within.x) && near(y, one.y, within.y),
    )
    if (!isKnown && Number.isFinite(one.z)) candidates.push(one)
  }
  const sides = [
    { held: 1, at: ends.y[0], value: within.y.lo },
    { held: 0, at: ends.x[1], value: within.x.hi },
    { held: 1, at: ends.y[1], value: within.y.hi },
    { held: 0, at: ends.x[0], value: within.x.lo },
  ] as const
  for (const { held, at, value } of sides) {
    const along = held === 1 ? within.x : within.y
    const edge = f.section(held, at, f.letters[held === 1 ? 0 : 1])
    const facts = yield* examineInSteps(edge, along.lo, along.hi)
    if (!facts.complete || facts.breaks.length > 0) complete = false
    for (const { x: t, enclosure } of facts.candidates) {
      const [lo, hi] = edge.enclose(...enclosure)
      const z = edge.value(t)
      const isEnd = t === along.lo || t === along.hi
      const where = isEnd ? 'corner' : 'edge'
      const [x, y] = held === 1 ? [t, value] : [value, t]
      add({ x, y, z, height: { lo, hi }, where })
    }
    for (const t of [along.lo, along.hi]) if (Number.isNaN(edge.value(t))) complete = false
  }
  for (const { x, y, at } of inside.points) {
    const height = f.enclose(at)
    add({ x, y, z: f.value(x, y), height, where: 'inside' })
  }
  const top = Math.max(...candidates.map(({ height }) => height.lo))
  const bottom = Math.min(...candidates.map(({ height }) => height.hi))
  return {
    candidates,
    highest: candidates.filter(({ height }) => height.hi >= top),
    lowest: candidates.filter(({ height }) => height.lo <= bottom),
    complete,
  }
}

const near = (a: number, b: number, side: Interval) => Math.abs(a - b) <= 1e-9 * (side.hi - side.lo)
