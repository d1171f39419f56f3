import type { RealFunction } from '../evaluate/compile'
import type { Accumulation } from './accumulate'
import { compensatedSum } from './quadrature'
import { heightReader, type ReadHeights } from './readHeights'
import { readEnds, type Strip, type SumRule } from './riemann'

/** The top of strips as a function, and where on each it may cross f. */
export interface Sliver {
  strip: number
  from: number
  to: number
  /** Above 0 where the strip is over f, below 0 where it is short of it. */
  area: number
}

export interface OverShort {
  /** The area by which strips stand over f, and by which they fall short; both 0 or more. */
  over: number
  short: number
  slivers: Sliver[]
}

/** The height of a strip's top at a place: level, slanted or curved as its rule has it. */
export function stripTop(
  f: RealFunction,
  strips: readonly Strip[],
  rule: SumRule,
  read: ReadHeights = heightReader(f, strips[0]!.from, strips.at(-1)!.to),
): (strip: number, x: number) => number {
  if (rule !== 'trapezoid' && rule !== 'simpson') return (i) => strips[i]!.height
  const ends = Float64Array.from([...strips.map((s) => s.from), strips.at(-1)!.to])
  const ys = readEnds(read, ends)
  if (rule === 'trapezoid') {
    return (i, x) => {
      const { from, to } = strips[i]!
      return ys[i]! + ((ys[i + 1]! - ys[i]!) * (x - from)) / (to - from)
    }
  }
  return (i, x) => {
    const k = i - (i % 2)
    const width = ends[k + 1]! - ends[k]!
    const t = (x - ends[k + 1]!) / width
    const [p, q, r] = [ys[k]!, ys[k + 1]!, ys[k + 2]!]
    return q + (t * (r - p)) / 2 + (t * t * (p - 2 * q + r)) / 2
  }
}

/** Looks inside a strip that a slanted or curved top, or a wavy f, is followed at. */
const looks = 8
const mostSteps = 60

/**
 * Where strips stand over f and where they fall short of it: over where top − f > 0, short where it
 * is < 0, also below the axis. `turns` are the places at which f is not monotone or breaks, in order;
 * between them a level top crosses f at most once. The areas come from the accumulated area of f,
 * so that over − short is the sum minus the exact area up to rounding. Slivers smaller than rounding
 * are left out.
 */
export function overShort(
  f: RealFunction,
  strips: readonly Strip[],
  rule: SumRule,
  area: Pick<Accumulation, 'value'>,
  turns: readonly number[],
  read?: ReadHeights,
): OverShort {
  const top = stripTop(f, strips, rule, read)
  const level = rule !== 'trapezoid' && rule !== 'simpson'
  const slivers: Sliver[] = []
  /** Beside a place that may be a break the top need not be met, though the height was read there. */
  const isMet = ({ sample, height }: Strip, side: -1 | 1) =>
    !isNearOne(turns, sample) ||
    Math.abs(f.beside(sample, side, 0)[0]! - height) <= 1e-12 * Math.abs(height)
  let next = 0
  // Neighbours share an end: its area is worked out once.
  let [end, atEnd] = [NaN, NaN]
  const areaAt = (x: number) => (x === end ? atEnd : area.value(x))
  const add = (i: number, strip: Strip, a: number, b: number) => {
    if (!(a < b)) return
    const upTo = area.value(b)
    const under = upTo - areaAt(a)
    ;[end, atEnd] = [b, upTo]
    const own = topArea(top, i, a, b, level) - under
    // Below this the difference is rounding of the two areas.
    if (Math.abs(own) <= 4e-16 * (Math.abs(under) + Math.abs(strip.area))) return
    const last = slivers.at(-1)
    if (last?.strip === i && last.to === a && last.area * own > 0) {
      last.to = b
      last.area += own
    } else slivers.push({ strip: i, from: a, to: b, area: own })
  }
  strips.forEach((strip, i) => {
    const [low, high] = strip.from <= strip.to ? [strip.from, strip.to] : [strip.to, strip.from]
    while (next < turns.length && turns[next]! <= low) next += 1
    if (level && !(turns[next]! < high) && !isNearOne(turns, strip.sample)) {
      // f is monotone on the strip: its top meets f where the height was read and nowhere else.
      const { sample } = strip
      if (sample > low && sample < high) {
        add(i, strip, low, sample)
        add(i, strip, sample, high)
      } else add(i, strip, low, high)
      return
    }
    const cuts = [low]
    let k = next
    for (; k < turns.length && turns[k]! < high; k++) cuts.push(turns[k]!)
    if (level && strip.sample > low && strip.sample < high) cuts.push(strip.sample)
    if (!level) for (let j = 1; j < looks; j++) cuts.push(low + ((high - low) * j) / looks)
    cuts.push(high)
    cuts.sort((a, b) => a - b)
    const gap = (x: number) => top(i, x) - f.value(x)
    const edges: number[] = [low]
    for (let j = 1; j < cuts.length; j++) {
      const [a, b] = [cuts[j - 1]!, cuts[j]!]
      if (!(a < b)) continue
      // A level top meets f where its height was read, and on a stretch without turns only there.
      const met =
        level &&
        ((a === strip.sample && isMet(strip, 1)) || (b === strip.sample && isMet(strip, -1)))
      const crossing = met ? null : crossingBetween(gap, a, b)
      if (crossing !== null) edges.push(crossing)
      if (j < cuts.length - 1) edges.push(b)
    }
    edges.push(high)
    for (let j = 1; j < edges.length; j++) add(i, strip, edges[j - 1]!, edges[j]!)
  })
  return {
    over: compensatedSum(slivers.map((s) => Math.max(0, s.area))),
    short: compensatedSum(slivers.map((s) => Math.max(0, -s.area))),
    slivers,
  }
}

/** Whether one of places in order is a place, but for rounding. */
function isNearOne(places: readonly number[], x: number): boolean {
  const slack = 1e-9 * Math.max(1, Math.abs(x))
  let [a, b] = [0, places.length]
  while (a < b) {
    const middle = (a + b) >> 1
    if (places[middle]! < x - slack) a = middle + 1
    else b = middle
  }
  return a < places.length && places[a]! <= x + slack
}

/** The area under a top, which is a polynomial of degree 2 at most: Simpson's rule is exact. */
function topArea(
  top: (strip: number, x: number) => number,
  i: number,
  a: number,
  b: number,
  level: boolean,
): number {
  if (level) return top(i, a) * (b - a)
  return ((top(i, a) + 4 * top(i, (a + b) / 2) + top(i, b)) * (b - a)) / 6
}

/**
 * Where a function changes its sign between two places, just inside them, or null. The Illinois form
 * of false position (M. Dowell, P. Jarratt, BIT 11, 1971, from memory) closes in until the gap is a
 * billionth of those at the ends: the area that is missed is that gap times as small a width.
 */
function crossingBetween(gap: (x: number) => number, a: number, b: number): number | null {
  const near = (b - a) * 1e-9
  let [p, q] = [a + near, b - near]
  let [atP, atQ] = [gap(p), gap(q)]
  if (!(atP * atQ < 0)) return null
  const small = 1e-9 * (Math.abs(atP) + Math.abs(atQ))
  for (let i = 0; i < mostSteps; i++) {
    const x = (p * atQ - q * atP) / (atQ - atP)
    const y = gap(x)
    if (y * atQ < 0) [p, atP] = [q, atQ]
    // An end that stays is brought down, so that it moves next time.
    else atP /= 2
    ;[q, atQ] = [x, y]
    if (!(Math.abs(y) > small) || Math.abs(q - p) < near) break
  }
  return q
}
