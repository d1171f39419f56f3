import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { type BoxCode, compileBoxes, encloseRange } from '../evaluate/enclosures'
import { withValues } from '../evaluate/withValues'
import type { RealFunction } from '../evaluate/compile'

/** What is proven of f − P, where P is the Taylor polynomial of f at a place. */
export interface Remainder {
  /**
   * `bound` is surely no less than |f − P| anywhere on the span, Infinity where nothing is proven; `form` is
   * the order of the derivative that it comes from, null where f − P was enclosed by itself.
   */
  boundOn(from: number, to: number): { bound: number; form: number | null }
  /**
   * The longest stretch about the place, within the span, on which |f − P| is proven to stay at or under
   * a bound; null where it is not even at the place. Short of the true one by a millionth of the span or
   * so, never beyond it.
   */
  stretchUnder(bound: number, from: number, to: number): [number, number] | null
}

/** So many pieces a side is cut into. */
const pieces = 64
const mostSteps = 4000
/** So many terms behind the last are looked at for being 0. */
const ahead = 3

/**
 * The remainder by Lagrange's form: f − P is c·(x − a)ⁿ⁺¹ with c = f⁽ⁿ⁺¹⁾/(n + 1)! somewhere between
 * the place and x, and all values c may have there are enclosed by interval Taylor arithmetic (R. E.
 * Moore, Interval Analysis, 1966, from memory); where f − P can be enclosed more narrowly by itself, that
 * is taken. Nothing is proven across a break of f or of one of its derivatives.
 */
export function taylorRemainder(f: RealFunction, at: number, degree: number): Remainder {
  const code = compileBoxes(withValues(f.tree, f.parameters), f.variable)
  const jet = code(I.point(at), degree + 1 + ahead, I.noNotes())
  const coefficients = jet.slice(0, degree + 1)
  // Where the next terms are 0, as every second one of the cosine is, it is the polynomial of a higher order.
  let order = degree
  while (order < degree + ahead && jet[order + 1]?.lo === 0 && jet[order + 1]?.hi === 0) order += 1
  const lagrange = lagrangeOn(code, order)
  const direct = (box: Interval): number => {
    const run = I.subtract(box, I.point(at))
    const value = coefficients.reduceRight(
      (sum, c) => I.add(I.multiply(sum, run), c),
      I.zeroInterval,
    )
    const away = I.magnitudes(I.subtract(encloseRange(code, box.lo, box.hi), value)).hi
    return Number.isNaN(away) ? Infinity : away
  }
  /** The bound on a box, with all that c may be from the place up to it. */
  const on = (box: Interval, most: number): readonly [byForm: number, direct: number] => {
    const reach = Math.max(Math.abs(box.lo - at), Math.abs(box.hi - at))
    const power = I.wholePower(I.interval(0, I.up(reach)), order + 1)
    const byForm = most === 0 ? 0 : I.multiply(I.point(most), power).hi
    return [Number.isNaN(byForm) ? Infinity : byForm, direct(box)] as const
  }
  return {
    boundOn(from, to) {
      let [bound, form]: [number, number | null] = [0, order + 1]
      for (const end of [from, to]) {
        let most = 0
        if (end === at) continue
        for (let i = 0; i < pieces; i++) {
          const [p, q] = [at + ((end - at) * i) / pieces, at + ((end - at) * (i + 1)) / pieces]
          const box = I.interval(Math.min(p, q), Math.max(p, q))
          most = Math.max(most, lagrange(joined(box, at)))
          if (box.hi < from || box.lo > to) continue
          const [byForm, byItself] = on(box, most)
          if (byItself < byForm) form = null
          bound = Math.max(bound, Math.min(byForm, byItself))
        }
      }
      return { bound, form }
    },
    stretchUnder(bound, from, to) {
      if (!(Math.min(...on(I.point(at), lagrange(I.point(at)))) <= bound)) return null
      const walk = (end: number): number => {
        const way = Math.sign(end - at)
        const whole = Math.abs(end - at)
        let [x, most, step] = [at, 0, whole / pieces]
        for (let i = 0; i < mostSteps && x !== end && step > 1e-7 * whole; i++) {
          const next = Math.abs(end - x) <= step ? end : x + way * step
          const box = I.interval(Math.min(x, next), Math.max(x, next))
          const nextMost = Math.max(most, lagrange(joined(box, at)))
          if (Math.min(...on(box, nextMost)) <= bound) {
            ;[x, most, step] = [next, nextMost, step * 1.5]
          } else step /= 2
        }
        return x
      }
      return [walk(from), walk(to)]
    },
  }
}

/** A box with a little of the one before it: a break that lies between two boxes lies in one of these. */
const joined = ({ lo, hi }: Interval, at: number): Interval =>
  lo >= at ? I.interval(I.down(lo), hi) : I.interval(lo, I.up(hi))

/** The most that |f⁽ⁿ⁺¹⁾|/(n + 1)! can be on a box; Infinity where f may break there. */
const lagrangeOn =
  (code: BoxCode, degree: number) =>
  (box: Interval): number => {
    const notes = I.noNotes()
    const c = code(box, degree + 2, notes)[degree + 1]
    if (!c || notes.partial || notes.empty || notes.jumps || notes.kinks) return Infinity
    const { hi } = I.magnitudes(c)
    return Number.isNaN(hi) ? Infinity : hi
  }
