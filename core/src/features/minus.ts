import { negate, sum, type Tree } from '../formula/tree'

/** a − b as a tree: 0 where the two are equal. */
export const minus = (a: Tree, b: Tree): Tree => sum(a, negate(b))
