import { differentiate } from '../../algebra/differentiate'
import { mapChildren, type Tree } from '../../formula/tree'
import type { SurfaceResult } from '../contract'

/**
 * The partial derivative by one of the letters as it is read: sliders by their names, and within each
 * product the letters in their order, 2xy whichever of them the other one was held for.
 */
export const partialRead = ({ tree, letters }: SurfaceResult, letter: string): Tree =>
  inOrder(differentiate(tree, letter), letters)

/** The same products with the powers of letters among their factors in the order of the letters. */
function inOrder(tree: Tree, letters: readonly string[]): Tree {
  const whole = mapChildren(tree, (part) => inOrder(part, letters))
  if (whole.kind !== 'product') return whole
  const rank = (factor: Tree) => {
    const base = factor.kind === 'power' ? factor.base : factor
    return base.kind === 'name' ? letters.indexOf(base.name) : -1
  }
  const sorted = whole.factors
    .filter((factor) => rank(factor) >= 0)
    .sort((a, b) => rank(a) - rank(b))
  return {
    kind: 'product',
    factors: whole.factors.map((factor) => (rank(factor) < 0 ? factor : sorted.shift()!)),
  }
}
