import { rationalFromNumber } from '../arithmetic/rational'
import { exactly, mapChildren, type Tree } from '../formula/tree'

/** A tree with the values of its sliders put in, each as the decimal it is shown with. */
export function withValues(tree: Tree, values: Readonly<Record<string, number>>): Tree {
  if (tree.kind === 'name') {
    const value = values[tree.name]
    return value !== undefined && Number.isFinite(value)
      ? exactly(rationalFromNumber(value), true)
      : tree
  }
  return mapChildren(tree, (part) => withValues(part, values))
}
