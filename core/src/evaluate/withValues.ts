import { decimalOfNumber } from '../arithmetic/rational'
import { exactly, mapChildren, namesIn, type Tree } from '../formula/tree'

/**
 * A tree with the values of its sliders put in, each as the decimal it is shown with; the same tree
 * where there are none in it.
 */
export function withValues(tree: Tree, values: Readonly<Record<string, number>>): Tree {
  const isMoved = [...namesIn(tree)].some((name) => values[name] !== undefined)
  return isMoved ? replaced(tree, values) : tree
}

function replaced(tree: Tree, values: Readonly<Record<string, number>>): Tree {
  if (tree.kind !== 'name') return mapChildren(tree, (part) => replaced(part, values))
  const value = values[tree.name]
  return value !== undefined && Number.isFinite(value)
    ? exactly(decimalOfNumber(value), true)
    : tree
}
