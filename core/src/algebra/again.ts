import type { Tree } from '../formula/tree'

/**
 * What the rules of simplifying call when they have made something new. The rules lie below the
 * one that goes through a whole tree, which puts itself in here.
 */
export const again: { simplify: (tree: Tree) => Tree } = { simplify: (tree) => tree }
