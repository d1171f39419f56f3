import type { RealFunction } from '../evaluate/compile'
import { examine } from './examine'
import type { Examination } from './examination'

/** One number a strip: where its extreme is taken, or approached, and the extreme. */
export interface StripExtremes {
  xs: Float64Array
  /** NaN where f is unbounded or has no values on the strip. */
  values: Float64Array
}

const examined = new WeakMap<RealFunction, Examination & { span: readonly [number, number] }>()

/** The examination of a function on a span; the last one is kept, as counts of strips change more often. */
function examinationOf(f: RealFunction, first: number, last: number): Examination {
  const known = examined.get(f)
  if (known && known.span[0] === first && known.span[1] === last) return known
  const found = { ...examine(f, first, last), span: [first, last] as const }
  examined.set(f, found)
  return found
}

/**
 * The greatest (sign 1) or least (sign -1) value of f on each of neighbouring strips, as its
 * supremum or infimum: the ends of the strip, the critical points inside it, and at breaks what f
 * tends to on both sides. `ends` run one way, up or down. Between those places f is monotone, so the
 * list is proven as far as the examination is complete; a stretch that is not settled counts with
 * the bound of f's enclosure there.
 */
export function extremesOnStrips(
  f: RealFunction,
  ends: ArrayLike<number>,
  sign: 1 | -1,
  known?: Examination,
): StripExtremes {
  const count = ends.length - 1
  const [first, last] = [ends[0]!, ends[count]!]
  const [xs, values] = [new Float64Array(count), new Float64Array(count)]
  if (first === last) return { xs: xs.fill(first), values: values.fill(f.value(first)) }
  const rises = first < last
  const ys = f.values(ends)
  const [low, high] = rises ? [0, 1] : [1, 0]
  for (let i = 0; i < count; i++) {
    let y = ys[i + low]!
    let z = ys[i + high]!
    // What f tends to inside, at an end where it has no value.
    if (y !== y) y = f.beside(ends[i + low]!, 1, 0)[0]!
    if (z !== z) z = f.beside(ends[i + high]!, -1, 0)[0]!
    // One that is not a number is kept whatever the other is.
    const isSecond = y === y && (z !== z || sign * z > sign * y)
    xs[i] = ends[isSecond ? i + high : i + low]!
    values[i] = isSecond ? z : y
  }
  for (const place of placesOf(f, known ?? examinationOf(f, first, last), sign)) {
    for (let i = firstReaching(ends, place); i < count; i++) {
      const from = ends[i + low]!
      const to = ends[i + high]!
      if (place.from > to || place.to < from) break
      const { x, value, left, right } = place
      take(i, x, value)
      if (x > from) take(i, x, left)
      if (x < to) take(i, x, right)
    }
  }
  return { xs, values }

  function take(i: number, x: number, value: number | null) {
    if (value === null || values[i] !== values[i]) return
    if (value !== value || sign * value > sign * values[i]!) [xs[i], values[i]] = [x, value]
  }
}

/** Where an extreme may lie between strip ends: a value, and what f tends to on both sides. */
interface Place {
  from: number
  to: number
  x: number
  /** null for nothing to consider; NaN where f is unbounded. */
  value: number | null
  left: number | null
  right: number | null
}

/** All such places, in order. */
function placesOf(f: RealFunction, found: Examination, sign: 1 | -1): Place[] {
  const finite = (y: number) => (Number.isFinite(y) ? y : null)
  const critical = found.criticalPoints.map(({ x, value }): Place => ({
    from: x,
    to: x,
    x,
    value: finite(value),
    left: null,
    right: null,
  }))
  const breaks = found.breaks.map(({ x, kind, enclosure: [from, to] }): Place => {
    const unbounded = kind === 'pole' ? NaN : null
    return {
      from,
      to,
      x,
      value: finite(f.value(x)),
      left: unbounded ?? finite(f.beside(x, -1, 0)[0]!),
      right: unbounded ?? finite(f.beside(x, 1, 0)[0]!),
    }
  })
  const open = found.unresolved.map(([from, to]): Place => {
    const [least, greatest] = f.enclose(from, to)
    const bound = sign > 0 ? greatest : least
    const value = Number.isFinite(bound) ? bound : NaN
    return { from, to, x: (from + to) / 2, value, left: null, right: null }
  })
  return [...critical, ...breaks, ...open].sort((p, q) => p.from - q.from)
}

/** The first strip, in their order, that holds some of a place. */
function firstReaching(ends: ArrayLike<number>, { from, to }: Place): number {
  const rises = ends[0]! < ends[ends.length - 1]!
  let [lo, hi] = [0, ends.length - 1]
  while (lo < hi) {
    const middle = (lo + hi) >> 1
    const leaves = ends[middle + 1]!
    if (rises ? leaves >= from : leaves <= to) hi = middle
    else lo = middle + 1
  }
  return lo
}
