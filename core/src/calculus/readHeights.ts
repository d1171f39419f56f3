import { decimalOfNumber } from '../arithmetic/rational'
import * as I from '../arithmetic/intervals'
import type { RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { budgetOf, finish } from '../features/budget'
import { Constants } from '../features/limits/constants'
import { valueAtPlace } from '../features/place/valueAt'
import { stretchesOf } from '../features/splits'
import { exactly, type Tree } from '../formula/tree'

/** Reads f at places in order; `exact` tells what a place is as a formula, where that is known. */
export type ReadHeights = (xs: Float64Array, exact: (i: number) => Tree | null) => Float64Array

/** Within so many units in the last place a sample may lie on a break. */
const reach = 8
const splitBudget = 2000

/**
 * Reads heights of f on a span as its formula has them: where a sample may lie on a break, doubles
 * could land on either side of it (100 · 0.29 is less than 29 in doubles), so there f is worked out
 * with the exact place: `ends` are those of the span as they were typed. NaN where it has no value, or where
 * that cannot be told. Samples elsewhere are read as they are.
 */
export function heightReader(
  f: RealFunction,
  from: number,
  to: number,
  ends: readonly [Tree | null, Tree | null] = [null, null],
): ReadHeights {
  const tree = withValues(f.tree, f.parameters)
  const [low, high] = from < to ? [from, to] : [to, from]
  const margin = 1e-12 * Math.max(1, Math.abs(low), Math.abs(high))
  const { splits } = finish(
    stretchesOf(tree, f.variable, low - margin, high + margin, budgetOf(splitBudget)),
  )
  const breaks = splits.map(({ enclosure }) => enclosure)
  const constants = new Constants({ variable: '', enclosure: I.point(0), zeros: new Set() })
  return (xs, exact) => {
    const ys = f.values(xs)
    for (const { lo, hi } of breaks) {
      const slack = reach * 2 ** -52 * Math.max(Math.abs(lo), Math.abs(hi))
      const [first, behind] = bounds(xs, lo - slack, hi + slack)
      for (let i = first; i < behind; i++) {
        const x = xs[i]!
        const typed = x === from ? ends[0] : x === to ? ends[1] : null
        const place = typed ?? exact(i) ?? exactly(decimalOfNumber(x))
        const found = valueAtPlace(tree, f.variable, place, constants)
        const isKnown = found !== null && found !== 'unsure' && I.width(found.range) < 1e-6
        ys[i] = isKnown ? I.middle(found.range) : NaN
      }
    }
    return ys
  }
}

/** Which of places that run one way lie between two numbers: from one index up to another. */
function bounds(xs: Float64Array, lo: number, hi: number): [from: number, to: number] {
  const rises = xs.length < 2 || xs[0]! <= xs.at(-1)!
  const first = (reached: (x: number) => boolean) => {
    let [a, b] = [0, xs.length]
    while (a < b) {
      const middle = (a + b) >> 1
      if (reached(xs[middle]!)) b = middle
      else a = middle + 1
    }
    return a
  }
  return rises
    ? [first((x) => x >= lo), first((x) => x > hi)]
    : [first((x) => x <= hi), first((x) => x < lo)]
}
