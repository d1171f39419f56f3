import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { dependsOn, isZero, type Tree } from '../formula/tree'
import { rootsBetween, squareFreeParts, toRationalFunction } from '../algebra/polynomials'
import { type Budget, type Steps, boxCost } from './budget'
import type { Zero, ZeroSearch } from './zero'
import { zeroFactors } from './zeroFactors'
import { isAtEnd } from './ends'
import { searchBoxes } from './boxes'

/** More zeros than this are not listed one by one: what lies closest together stays unresolved. */
const mostZeros = 1000

/**
 * The zeros of a formula in the open stretch (from, to), where it must be smooth and defined. With
 * proof: factors that are polynomials go by exact arithmetic (see polynomials.ts); for others a box
 * whose enclosure excludes 0 holds none, one where the derivative excludes 0 holds at most one and
 * the signs at its ends decide. Zeros are enclosed to a few units in the last place. What cannot be
 * settled (two zeros that touch and are no exact doubles, or what is left when the budget is spent or
 * `most` zeros have been found, the easiest first) is listed in `unresolved`. Source: Moore,
 * Kearfott, Cloud, Introduction to Interval Analysis, SIAM 2009, chapter 8 (from memory).
 */
export function* zerosWithin(
  tree: Tree,
  variable: string,
  from: number,
  to: number,
  budget: Budget,
  most = mostZeros,
): Steps<ZeroSearch> {
  const none: ZeroSearch = { zeros: [], unresolved: [], vanishes: false }
  if (isZero(tree)) return { ...none, vanishes: true }
  const found: Zero[] = []
  const unresolved: Interval[] = []
  for (const { tree: factor, power: times, others = [] } of zeroFactors(tree, variable)) {
    if (!dependsOn(factor, variable)) {
      if (isZero(factor)) return { ...none, vanishes: true }
      continue
    }
    const rational = toRationalFunction(factor, variable)
    if (rational) {
      if (rational.above.length === 0) return { ...none, vanishes: true }
      for (const part of squareFreeParts(rational.above)) {
        for (const enclosure of rootsBetween(part.factor, from, to)) {
          if (isAtEnd(enclosure, from) || isAtEnd(enclosure, to)) continue
          found.push({ enclosure, multiplicity: part.multiplicity * times, proven: true })
        }
      }
      continue
    }
    const searched = yield* searchBoxes(
      [factor, ...others].map((t) => compileBoxes(t, variable)),
      boxCost(factor),
      from,
      to,
      budget,
      most,
    )
    for (const zero of searched.zeros) {
      found.push({
        ...zero,
        multiplicity: zero.multiplicity === null ? null : zero.multiplicity * times,
      })
    }
    unresolved.push(...searched.unresolved)
  }
  return { zeros: mergeZeros(found), unresolved, vanishes: false }
}

/** Two factors may vanish at one place: their zeros are one there. */
function mergeZeros(zeros: Zero[]): Zero[] {
  const sorted = [...zeros].sort((a, b) => a.enclosure.lo - b.enclosure.lo)
  const merged: Zero[] = []
  for (const zero of sorted) {
    const last = merged.at(-1)
    if (!last || last.enclosure.hi < zero.enclosure.lo) {
      merged.push(zero)
      continue
    }
    const isPoint = ({ lo, hi }: Interval) => lo === hi
    const exact = isPoint(last.enclosure) && isPoint(zero.enclosure)
    const sameFactor = last.multiplicity === null || zero.multiplicity === null
    merged[merged.length - 1] = {
      enclosure: I.meet(last.enclosure, zero.enclosure),
      multiplicity: sameFactor ? null : last.multiplicity! + zero.multiplicity!,
      proven: last.proven && zero.proven && exact,
    }
  }
  return merged
}
