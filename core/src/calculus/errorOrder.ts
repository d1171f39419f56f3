import { differentiate } from '../algebra/differentiate'
import { cancelFreely, simplify } from '../algebra/simplify'
import * as I from '../arithmetic/intervals'
import type { RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { budgetOf, finish } from '../features/budget'
import { sideLimit } from '../features/limits/sideLimit'
import type { Split, Stretches } from '../features/split'
import { stretchesOf } from '../features/splits'

/** Derivatives up to this one matter to the rules: Simpson's has order 4. */
const highest = 4

/** A place at which a derivative is missing that the errors of rules hang on. */
export interface RoughPlace {
  x: number
  /** The lowest order of a derivative that jumps or is unbounded there; 0 for f itself. */
  order: number
  /** A displaced point is one height that is read wrongly, where it is read at all. */
  how: 'jumps' | 'unbounded' | 'displaced'
}

/**
 * Where f is not smooth enough on a span for the usual orders of errors, the roughest places first.
 * A derivative of order k that jumps inside leaves an error of order k + 1; one of order k that is
 * unbounded, with those below it continuous, one between k and k + 1: f is there like x^α with α
 * between k − 1 and k, and the error falls like n^−(α + 1) (I. Navot, J. Math. and Phys. 40, 1961,
 * from memory).
 */
export function roughPlaces(f: RealFunction, from: number, to: number): RoughPlace[] {
  const look = lookerOf(f, from, to)
  const inside = look.breaks.flatMap((x): RoughPlace[] => {
    const [left, right] = [look.beside(x, -1), look.beside(x, 1)]
    const order = left.findIndex((v, k) => !areAlike(v, right[k]!))
    if (order >= 0) return [{ x, order, how: howMissing(left[order]!, right[order]!) }]
    return areAlike(f.value(x), left[0]!) ? [] : [{ x, order: 0, how: 'displaced' }]
  })
  const ends = [look.beside(from, 1), look.beside(to, -1)].flatMap((found, i): RoughPlace[] => {
    const order = found.findIndex((v) => !Number.isFinite(v))
    const x = i === 0 ? from : to
    if (order >= 0) return [{ x, order, how: 'unbounded' }]
    const value = f.value(x)
    return Number.isNaN(value) || areAlike(value, found[0]!)
      ? []
      : [{ x, order: 0, how: 'displaced' }]
  })
  return [...inside, ...ends].sort((p, q) => orderLeft(p) - orderLeft(q))
}

const howMissing = (left: number, right: number) =>
  Number.isFinite(left) && Number.isFinite(right) ? 'jumps' : 'unbounded'

/** The least order of an error that a place may leave. */
export const orderLeft = ({ order, how }: RoughPlace) => (how === 'unbounded' ? order : order + 1)

const areAlike = (a: number, b: number) =>
  Number.isFinite(a) && Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a))

/** Which derivatives are equal at both ends: what is missing from the main part of an error. */
export function equalAtEnds(f: RealFunction, from: number, to: number): boolean[] {
  const look = lookerOf(f, from, to)
  const [a, b] = [look.beside(from, 1), look.beside(to, -1)]
  return a.map((v, k) => areAlike(v, b[k]!))
}

/**
 * The values of f and its derivatives from one side of places, with the limits where the formulas
 * have no value themselves, such as x ln x at 0: ±Infinity where one is unbounded, NaN where it is
 * not known.
 */
function lookerOf(f: RealFunction, from: number, to: number) {
  const stretches = cutFor(f, from, to)
  const { splits } = stretches
  const splitAt = (x: number): Split =>
    splits.find((s) => s.enclosure.lo <= x && x <= s.enclosure.hi) ?? {
      enclosure: I.point(x),
      zeros: new Set<string>(),
    }
  const limitsFrom = (x: number, side: -1 | 1, found: number[]): number[] => {
    const split = splitAt(x)
    const part = stretches.stretches.find((s) => (side > 0 ? s.to > x : s.from < x && s.to >= x))
    let tree = part?.tree
    return found.map((v, k) => {
      if (k > 0 && tree) tree = simplify(cancelFreely(differentiate(tree, f.variable)))
      if (Number.isFinite(v) || !tree) return v
      const limit = sideLimit(tree, f.variable, split, side)
      if (limit.kind === 'value') return I.middle(limit.range)
      return limit.kind === 'infinite' ? limit.sign * Infinity : NaN
    })
  }
  return {
    breaks: insideOf(stretches, from, to),
    beside(x: number, side: -1 | 1): number[] {
      const found = f.beside(x, side, highest)
      return found.every(Number.isFinite) ? found : limitsFrom(x, side, found)
    },
  }
}

const cutFor = (f: RealFunction, from: number, to: number): Stretches =>
  finish(stretchesOf(withValues(f.tree, f.parameters), f.variable, from, to, budgetOf(2000)))

/** Where the formula is cut inside a span: bars, steps, pieces, roots, denominators. */
export const breaksIn = (f: RealFunction, from: number, to: number): number[] =>
  insideOf(cutFor(f, from, to), from, to)

function insideOf({ splits }: Stretches, from: number, to: number): number[] {
  const places = splits.map(({ enclosure }) => I.middle(enclosure))
  const slack = 1e-12 * Math.max(1, Math.abs(from), Math.abs(to))
  return [...new Set(places)].filter((x) => x > from + slack && x < to - slack)
}
