import type { RealFunction } from '../evaluate/compile'
import { examine } from './examine'
import type { Examination } from './examination'

export interface StripExtreme {
  /** Where it is taken, or approached. */
  x: number
  /** NaN where f is unbounded or has no values on the strip. */
  value: number
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
): StripExtreme[] {
  const count = ends.length - 1
  const [first, last] = [ends[0]!, ends[count]!]
  if (first === last) {
    return Array.from({ length: count }, () => ({ x: first, value: f.value(first) }))
  }
  const rises = first < last
  const found = known ?? examine(f, first, last)
  const places = placesOf(f, found, sign)
  const strips: StripExtreme[] = []
  const ys = f.values(ends)
  let next = 0
  for (let i = 0; i < count; i++) {
    const at = rises ? i : count - 1 - i
    const [a, b] = rises ? [at, at + 1] : [at + 1, at]
    const [from, to] = [ends[a]!, ends[b]!]
    while (next < places.length && places[next]!.to < from) next += 1
    const candidates = [endValue(f, from, ys[a]!, 1), endValue(f, to, ys[b]!, -1)]
    for (let k = next; k < places.length && places[k]!.from <= to; k++) {
      const { x, value, left, right } = places[k]!
      if (places[k]!.to < from) continue
      const seen = [value, ...(x > from ? [left] : []), ...(x < to ? [right] : [])]
      for (const v of seen) if (v !== null) candidates.push({ x, value: v })
    }
    strips[at] = best(candidates, sign)
  }
  return strips
}

/** The value at an end of a strip, or what f tends to inside where it has none there. */
const endValue = (f: RealFunction, x: number, y: number, side: -1 | 1): StripExtreme => ({
  x,
  value: Number.isNaN(y) ? f.beside(x, side, 0)[0]! : y,
})

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

function best(candidates: readonly StripExtreme[], sign: 1 | -1): StripExtreme {
  let found = candidates[0]!
  for (const c of candidates) {
    if (Number.isNaN(c.value)) return { x: c.x, value: NaN }
    if (sign * c.value > sign * found.value) found = c
  }
  return found
}
