import { type Rational } from '../../arithmetic/rational'
import {
  dependsOn,
  isNumber,
  isZero,
  literalFraction,
  mapChildren,
  type Tree,
} from '../../formula/tree'
import { differentiate } from '../differentiate'
import { simplify } from '../simplify'

/** One question for an antiderivative, with what keeps its rules from calling each other without end. */
export interface Search {
  readonly variable: string
  /** What is being integrated at the moment, but for a constant factor, by its key. */
  readonly open: Set<string>
  readonly steps: { left: number }
  /** Asks all rules again, for a part or for another formula. */
  readonly integrate: (tree: Tree, search: Search) => Tree | null
}

/** What inner functions are called while they stand for a letter; no formula has such names. */
const letters = ['u*', 'v*', 'w*'] as const

/** The letter of a substitution within a search, or null where enough stand within each other. */
export function nextLetter({ variable }: Search): string | null {
  const at = letters.indexOf(variable as (typeof letters)[number])
  return letters[at + 1] ?? null
}

/** An exponent that is a number; a quotient of whole numbers means the real root. */
export const rationalOf = (exponent: Tree): Rational | null =>
  isNumber(exponent) ? exponent.exact : literalFraction(exponent)

/** The slope of a straight argument as a formula without the variable, or null. */
export function straight(tree: Tree, { variable }: Search): Tree | null {
  const slope = simplify(bare(differentiate(tree, variable)))
  return dependsOn(slope, variable) || isZero(slope) ? null : slope
}

/** 1/x for "1/x if x > 0": where f has a value, what it needs for one holds. */
export const bare = (tree: Tree): Tree =>
  tree.kind === 'pieces' && tree.pieces.length === 1
    ? bare(tree.pieces[0]!.body)
    : mapChildren(tree, bare)

/** The factors of a product, those without the variable first gathered apart. */
export function factorsApart(tree: Tree, { variable }: Search): { fixed: Tree[]; moving: Tree[] } {
  const factors = tree.kind === 'product' ? tree.factors : [tree]
  return {
    fixed: factors.filter((f) => !dependsOn(f, variable)),
    moving: factors.filter((f) => dependsOn(f, variable)),
  }
}
