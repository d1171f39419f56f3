import { differentiate } from '../../algebra/differentiate'
import { accumulate } from '../../calculus/accumulate'
import { compileTree } from '../../evaluate/compile'
import type { Tree } from '../../formula/tree'
import type { CurveResult } from '../contract'

/** A curve by a formula that was worked out and not typed, without names other than the variable. */
export function curveOfTree(
  name: string,
  tree: Tree,
  letter: string,
  base: Pick<CurveResult, 'unit' | 'from' | 'to' | 'reach' | 'window' | 'stale'>,
): CurveResult {
  const { unit, from, to, reach, window, stale } = base
  const f = compileTree(tree, { variable: letter })
  const known = [{ tree, f }]
  const derivative = (order: number) => {
    while (known.length <= order) {
      const next = differentiate(known.at(-1)!.tree, letter)
      known.push({ tree: next, f: compileTree(next, { variable: letter }) })
    }
    return known[order]!
  }
  return {
    ...{ unit, from, to, reach, window, stale },
    name,
    tree,
    f,
    problems: [],
    hints: [],
    formula: true,
    derivative,
    drawn: (order) =>
      order >= 0 ? derivative(order).f : { ...accumulate(f, from, from, to), tree },
  }
}
