import * as I from '../arithmetic/intervals'
import type { RealFunction } from '../evaluate/compile'
import { compileBoxes } from '../evaluate/enclosures'
import { nearestDouble } from '../evaluate/precise'
import { withValues } from '../evaluate/withValues'
import type { Tree } from '../formula/tree'
import { differentiate } from './differentiate'

/** An enclosure of a value that is wider than this share of it says that doubles have cancelled. */
const wide = 1e-9
/** Derivatives beyond this order are left as doubles tell them: their formulas grow too long. */
const highestOrder = 3

/**
 * The value of a formula at a double, where `value` is what doubles give: where their enclosure shows
 * that they have lost more than the last digits, it is worked out with as many digits as it takes. What
 * they do not tell is left as it is.
 */
export const steadyValue = (f: RealFunction, x: number, value = f.value(x)): number =>
  steadyDerivatives(f, x, [value])[0]!

/** The same for f, f′, … in order. */
export function steadyDerivatives(f: RealFunction, x: number, found: readonly number[]): number[] {
  const tree = withValues(f.tree, f.parameters)
  const boxes = compileBoxes(tree, f.variable)(I.point(x), found.length, I.noNotes())
  let factorial = 1
  const derivativeOf = (order: number): Tree =>
    order === 0 ? tree : differentiate(derivativeOf(order - 1), f.variable)
  return found.map((value, order) => {
    factorial *= Math.max(1, order)
    if (order > highestOrder || !Number.isFinite(value)) return value
    const { lo, hi } = I.scale(boxes[order]!, factorial)
    if (hi - lo <= wide * Math.max(Math.abs(lo), Math.abs(hi))) return value
    const exact = nearestDouble(derivativeOf(order), f.variable, x, {})
    return Number.isNaN(exact) ? value : exact
  })
}
