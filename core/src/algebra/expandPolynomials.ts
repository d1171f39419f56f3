import { divideRational, type Rational, rational, zero } from '../arithmetic/rational'
import { exactly, mapChildren, name, power, product, sum, type Tree, whole } from '../formula/tree'
import { added, multiplied, trimmed as trim } from './rationalPolynomials'
import { simplify } from './simplify'

const highestDegree = 40

/**
 * Writes every part that is a polynomial with rational coefficients by powers, and simplifies: what
 * cancels does so exactly, as in 1 - (1 - u)², which is 2u - u² and keeps its digits near u = 0.
 */
export function expandPolynomials(tree: Tree, variable: string): Tree {
  const visit = (part: Tree): Tree => {
    if (part.kind === 'sum' || part.kind === 'product' || part.kind === 'power') {
      const coefficients = polynomialCoefficients(part, variable)
      if (coefficients) return byPowers(coefficients, variable)
    }
    return mapChildren(part, visit)
  }
  return simplify(visit(tree))
}

/** A polynomial as a formula, constant first. */
export function byPowers(coefficients: readonly Rational[], variable: string): Tree {
  const x = name(variable)
  const terms = coefficients.flatMap((c, k): Tree[] => {
    if (c.n === 0n) return []
    const part = k === 0 ? null : k === 1 ? x : power(x, whole(k))
    return [part ? product(exactly(c), part) : exactly(c)]
  })
  return terms.length === 0 ? whole(0) : sum(...terms)
}

/** The coefficients of a polynomial with rational coefficients, constant first, or null. */
export function polynomialCoefficients(tree: Tree, variable: string): Rational[] | null {
  switch (tree.kind) {
    case 'number':
      return trim([tree.exact])
    case 'name':
      return tree.name === variable ? [zero, rational(1n)] : null
    case 'sum': {
      let total: Rational[] = []
      for (const term of tree.terms) {
        const next = polynomialCoefficients(term, variable)
        if (!next) return null
        total = added(total, next)
      }
      return trim(total)
    }
    case 'product': {
      let total: Rational[] = [rational(1n)]
      for (const factor of tree.factors) {
        const next = polynomialCoefficients(factor, variable)
        if (!next || total.length + next.length > highestDegree) return null
        total = multiplied(total, next)
      }
      return total
    }
    case 'quotient': {
      const [above, below] = [
        polynomialCoefficients(tree.above, variable),
        polynomialCoefficients(tree.below, variable),
      ]
      if (!above || below?.length !== 1) return null
      return above.map((c) => divideRational(c, below[0]!))
    }
    case 'power': {
      const { base, exponent } = tree
      if (exponent.kind !== 'number' || exponent.exact.d !== 1n || exponent.exact.n < 0n)
        return null
      const n = Number(exponent.exact.n)
      const inner = polynomialCoefficients(base, variable)
      if (!inner || n * inner.length > highestDegree) return null
      let total: Rational[] = [rational(1n)]
      for (let i = 0; i < n; i++) total = multiplied(total, inner)
      return total
    }
    default:
      return null
  }
}
