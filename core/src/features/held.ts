import { compileBoxes } from '../evaluate/enclosures'
import * as I from '../arithmetic/intervals'
import type { RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { zeroFactors } from './zeroFactors'

/** Whether a double holds a value: it is told as 0 below 5·10⁻³²⁴ and as infinite above 1.8·10³⁰⁸. */
export type Held = 'held' | 'tooSmall' | 'tooLarge'

/**
 * What a value of a formula at a place has come to: a 0 is too small to hold where no factor of the
 * formula is 0 there, proven by enclosures, and an infinite one too large where the formula has a
 * value there. What is not proven is taken as held.
 */
export function heldAt(f: RealFunction, x: number): Held {
  const value = f.value(x)
  if (Number.isNaN(value) || (Number.isFinite(value) && value !== 0)) return 'held'
  const tree = withValues(f.tree, f.parameters)
  const notes = I.noNotes()
  compileBoxes(tree, f.variable)(I.point(x), 1, notes)
  if (notes.empty || notes.partial) return 'held'
  if (value !== 0) return 'tooLarge'
  const apart = zeroFactors(tree, f.variable).every(({ tree: factor }) => {
    const [box] = compileBoxes(factor, f.variable)(I.point(x), 1, I.noNotes())
    return !I.holdsZero(box!)
  })
  return apart ? 'tooSmall' : 'held'
}
