import type { RealFunction } from '../evaluate/compile'
import type { Examination } from '../features/examination'
import { extremesOnStrips } from '../features/stripExtremes'
import { compensatedSum } from './quadrature'
import { evenPlaces } from './evenPlaces'
import { heightReader, type ReadHeights } from './readHeights'

export const sumRules = [
  'left',
  'right',
  'midpoint',
  'trapezoid',
  'simpson',
  'lower',
  'upper',
] as const
/** Where in each strip the height is read: a named rule, or a share of the way from its left end. */
export type SumRule = (typeof sumRules)[number] | { position: number }

export interface Strip {
  from: number
  to: number
  /** Where the height is read; the middle for trapezoid and Simpson. */
  sample: number
  /** For trapezoid and Simpson the mean height of the strip. */
  height: number
  /** Signed: below 0 for a strip under the axis. */
  area: number
}

export interface RiemannSum {
  sum: number
  /** Made when they are first read: a sum of many strips is often all that is wanted. */
  readonly strips: Strip[]
}

export interface SumOptions {
  from: number
  to: number
  count: number
  rule: SumRule
  /** How heights are read, where it has been made for this span already. */
  read?: ReadHeights
}

/** Throws RangeError for a count, a position or an end that makes no strips. */
export function checkStrips({ from, to, count, rule }: SumOptions): void {
  if (!Number.isFinite(from) || !Number.isFinite(to)) {
    throw new RangeError(`strips need finite ends: ${from} to ${to}`)
  }
  if (!Number.isInteger(count) || count < 1) {
    throw new RangeError(`a strip count is a whole number of 1 or more: ${count}`)
  }
  if (rule === 'simpson' && count % 2 !== 0) {
    throw new RangeError(`Simpson's rule takes strips in pairs, so an even count: ${count}`)
  }
  if (typeof rule === 'object' && !(rule.position >= 0 && rule.position <= 1)) {
    throw new RangeError(`a position lies between 0 and 1: ${rule.position}`)
  }
  if (typeof rule === 'string' && !sumRules.includes(rule)) {
    throw new RangeError(`unknown height rule: ${String(rule)}`)
  }
}

/** The share of a strip's width at which a rule reads its height, or null where it reads several. */
export function positionOf(rule: SumRule): number | null {
  if (typeof rule === 'object') return rule.position
  const named: Partial<Record<SumRule & string, number>> = { left: 0, right: 1, midpoint: 0.5 }
  return named[rule] ?? null
}

/** The ends of `count` equal strips; the outer ones are the ends of the span exactly. */
export function stripEnds(from: number, to: number, count: number): Float64Array {
  const ends = evenPlaces(from, to, count).fill(new Float64Array(count + 1))
  ends[0] = from
  ends[count] = to
  return ends
}

/**
 * The sum of f over equal strips of [from, to], with each strip. Lower and upper take the true least
 * and greatest value on each strip: ends, turning points and both sides of breaks, from the
 * examination of f. Ends the wrong way round give negative widths. The terms are added with their
 * rounding carried along, so 100,000 strips lose nothing. NaN where f has no value at a place that
 * is read; lower and upper also where f is unbounded. RangeError for a bad count or position.
 */
export function riemannSum(f: RealFunction, options: SumOptions): RiemannSum {
  checkStrips(options)
  const { from, to, count, rule, read = heightReader(f, from, to) } = options
  const ends = stripEnds(from, to, count)
  const position = positionOf(rule)
  if (position !== null) {
    const { samples, heights } = readSamples(read, ends, position)
    return sumOf(ends, heights, samples)
  }
  if (rule === 'lower' || rule === 'upper') return extremeSum(f, ends, rule)
  const ys = readEnds(read, ends)
  return sumOf(ends, meanHeights(ys, rule === 'simpson'))
}

/** The lower or upper sum over strips whose ends are given; its examination where it is known. */
export function extremeSum(
  f: RealFunction,
  ends: Float64Array,
  rule: 'lower' | 'upper',
  known?: Examination,
): RiemannSum {
  const { xs, values } = extremesOnStrips(f, ends, rule === 'upper' ? 1 : -1, known)
  return sumOf(ends, values, xs)
}

/** The sum of strips of given heights, read at given places or else meant for their middles. */
export function sumOf(
  ends: Float64Array,
  heights: Float64Array,
  samples: Float64Array | null = null,
): RiemannSum {
  let strips: Strip[] | undefined
  return {
    sum: sumOfAreas(ends, heights) + 0,
    get strips() {
      return (strips ??= Array.from(heights, (height, i): Strip => {
        const [a, b] = [ends[i]!, ends[i + 1]!]
        const sample = samples ? samples[i]! : a + (b - a) / 2
        return { from: a, to: b, sample, height, area: height * (b - a) }
      }))
    },
  }
}

/** Heights times widths, added with the rounding carried along as in `compensatedSum`. */
function sumOfAreas(ends: Float64Array, heights: Float64Array): number {
  let total = 0
  let carried = 0
  for (let i = 0; i < heights.length; i++) {
    const term = heights[i]! * (ends[i + 1]! - ends[i]!)
    const next = total + term
    carried += Math.abs(total) >= Math.abs(term) ? total - next + term : term - next + total
    total = next
  }
  return Number.isFinite(total) ? total + carried : total
}

/** The sum alone, without its strips: for trying many counts. Rules as in `riemannSum`. */
export function riemannTotal(f: RealFunction, options: SumOptions): number {
  checkStrips(options)
  const { from, to, count, rule, read = heightReader(f, from, to) } = options
  const position = positionOf(rule)
  if (rule === 'lower' || rule === 'upper') return riemannSum(f, options).sum
  const ends = stripEnds(from, to, count)
  const width = (to - from) / count
  if (position !== null) {
    return compensatedSum(readSamples(read, ends, position).heights) * width
  }
  const ys = readEnds(read, ends)
  const simpson = rule === 'simpson'
  for (let i = 0; i <= count; i++) {
    const outer = i === 0 || i === count
    if (simpson) ys[i] = (ys[i]! * (outer ? 1 : i % 2 === 1 ? 4 : 2)) / 3
    else if (outer) ys[i] = ys[i]! / 2
  }
  return compensatedSum(ys) * width
}

/** Where each strip is read: at a share of its width, as exactly as doubles allow; with what is read. */
function readSamples(read: ReadHeights, ends: Float64Array, position: number) {
  const count = ends.length - 1
  const places = evenPlaces(ends[0]!, ends[count]!, count, position)
  const samples =
    position === 0
      ? ends.slice(0, count)
      : position === 1
        ? ends.slice(1)
        : places.fill(new Float64Array(count))
  return { samples, heights: read(samples, places.exactly) }
}

/** The heights at the ends of strips. */
export const readEnds = (read: ReadHeights, ends: Float64Array) =>
  read(ends, evenPlaces(ends[0]!, ends.at(-1)!, ends.length - 1).exactly)

/** The heights of rectangles with the areas of strips whose tops are slanted or curved. */
function meanHeights(ys: Float64Array, simpson: boolean): Float64Array {
  const heights = new Float64Array(ys.length - 1)
  for (let i = 0; i < heights.length; i++) {
    heights[i] = simpson ? halfParabola(ys, i) : (ys[i]! + ys[i + 1]!) / 2
  }
  return heights
}

/** The mean of the parabola through three ends over one of its two strips. */
function halfParabola(ys: ArrayLike<number>, i: number): number {
  const first = i - (i % 2)
  const [p, q, r] = [ys[first]!, ys[first + 1]!, ys[first + 2]!]
  return i % 2 === 0 ? (5 * p + 8 * q - r) / 12 : (5 * r + 8 * q - p) / 12
}
