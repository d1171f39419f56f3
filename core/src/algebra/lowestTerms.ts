import { rational, toNumber } from '../arithmetic/rational'
import { exactly, isNumber, product, quotient, type Tree, whole } from '../formula/tree'
import { substitute } from './curves'
import { byPowers } from './expandPolynomials'
import { degree, type Polynomial, toRationalFunction } from './polynomials'
import { simplify } from './simplify'

/** Places at which the constant factor is looked for; one is no zero and no pole. */
const places = [1, 2, 3, 5, 7, 11, -1, -2, -3, -5, -7]

const valueAt = (p: Polynomial, x: bigint) => p.reduceRight((sum, c) => sum * x + c, 0n)
const asTree = (p: Polynomial, variable: string) =>
  byPowers(
    p.map((c) => rational(c)),
    variable,
  )

/**
 * A quotient of polynomials with what both have in common divided out, so that it is the same wherever
 * both have values; null for other formulas, and where nothing is in common.
 */
export function lowestTerms(tree: Tree, variable: string): Tree | null {
  if (tree.kind !== 'quotient' && tree.kind !== 'product') return null
  const { above, below } = toRationalFunction(tree, variable) ?? {}
  if (!above || !below || above.length === 0 || degree(below) > 40) return null
  for (const x of places) {
    const [top, bottom] = [valueAt(above, BigInt(x)), valueAt(below, BigInt(x))]
    const value = simplify(substitute(tree, variable, whole(x)))
    if (top === 0n || bottom === 0n || !isNumber(value)) continue
    const factor = rational(value.exact.n * bottom, value.exact.d * top)
    if (!Number.isFinite(toNumber(factor))) return null
    return simplify(
      product(exactly(factor), quotient(asTree(above, variable), asTree(below, variable))),
    )
  }
  return null
}
