import {
  commonDivisor,
  degree,
  differentiatePolynomial,
  toRationalFunction,
} from '../algebra/polynomials'
import { childrenOf, dependsOn, isNumber, literalFraction, type Tree } from '../formula/tree'

/** How far a Taylor series converges, with the reason; null where that is not told. */
export interface Radius {
  radius: number
  because: string
}

const entireCalls = new Set(['sin', 'cos', 'exp', 'sinh', 'cosh'])

/**
 * The radius of convergence of the Taylor series of a formula at a place, where its singularities in the
 * complex plane are known: polynomials and what is built of exp, sin and cos have none, a rational
 * function in lowest terms has those of its denominator, ln and roots of a polynomial its zeros. Source:
 * the theorem that the series of an analytic function converges up to its nearest singularity (Cauchy,
 * 1831; any text on complex analysis). Zeros by the method of E. Durand and I. Kerner (from memory),
 * accuracy about 1e-9 for simple ones.
 */
export function convergenceRadius(tree: Tree, variable: string, at: number): Radius | null {
  const rational = toRationalFunction(tree, variable)
  if (!rational && isEntire(tree, variable)) {
    return { radius: Infinity, because: 'it is built of exp, sin, cos and polynomials alone' }
  }
  if (rational) {
    const below = rational.below.map(Number)
    if (degree(rational.below) === 0) {
      return { radius: Infinity, because: 'it is a polynomial, and its series ends' }
    }
    const nearest = nearestZero(below, at)
    return nearest && { ...nearest, because: `the denominator is 0 ${whereWords(nearest)}` }
  }
  const branch = branchOf(tree, variable)
  const inner = branch && toRationalFunction(branch.inside, variable)
  if (!branch || !inner || degree(inner.below) > 0) return null
  // A root of a square, as of x², may be no branch at all.
  if (branch.root && degree(commonDivisor(inner.above, differentiatePolynomial(inner.above))) > 0) {
    return null
  }
  const nearest = nearestZero(inner.above.map(Number), at)
  return nearest && { ...nearest, because: `${branch.words} is 0 ${whereWords(nearest)}` }
}

/** Whether a formula has no singularity anywhere. */
function isEntire(tree: Tree, variable: string): boolean {
  if (!dependsOn(tree, variable)) return true
  switch (tree.kind) {
    case 'number':
    case 'constant':
    case 'name':
      return true
    case 'sum':
    case 'product':
      return childrenOf(tree).every((part) => isEntire(part, variable))
    case 'quotient':
      return (
        (!dependsOn(tree.below, variable) || isExponential(tree.below, variable)) &&
        isEntire(tree.above, variable)
      )
    case 'power': {
      if (!dependsOn(tree.base, variable)) {
        // e^u and 2^u; a base that is not above 0 has no real powers.
        return isEntire(tree.exponent, variable) && isPositiveBase(tree.base)
      }
      const { exponent } = tree
      const isWhole = isNumber(exponent) && exponent.exact.d === 1n && exponent.exact.n >= 0n
      return isWhole && isEntire(tree.base, variable)
    }
    case 'call':
      return entireCalls.has(tree.name) && childrenOf(tree).every((p) => isEntire(p, variable))
    default:
      return false
  }
}

/** e^u and its like, which are 0 nowhere. */
const isExponential = (tree: Tree, variable: string): boolean =>
  tree.kind === 'power'
    ? !dependsOn(tree.base, variable) && isEntire(tree, variable)
    : tree.kind === 'call' && tree.name === 'exp' && isEntire(tree, variable)

const isPositiveBase = (tree: Tree) =>
  tree.kind === 'constant' || (tree.kind === 'number' && tree.exact.n > 0n)

/** A logarithm, a root or a broken power of something: it branches where that is 0. */
function branchOf(
  tree: Tree,
  variable: string,
): { inside: Tree; words: string; root?: true } | null {
  if (tree.kind === 'product' || tree.kind === 'sum') {
    // Constant factors, and what has no singularity added, move none.
    const parts = childrenOf(tree)
    const others = parts.filter((part) =>
      tree.kind === 'sum' ? !isEntire(part, variable) : dependsOn(part, variable),
    )
    return others.length === 1 ? branchOf(others[0]!, variable) : null
  }
  if (tree.kind === 'quotient' && !dependsOn(tree.below, variable)) {
    return branchOf(tree.above, variable)
  }
  if (tree.kind === 'call') {
    const [inside] = tree.args
    if (tree.name === 'ln' || tree.name === 'log') {
      return { inside: inside!, words: 'the argument of the logarithm' }
    }
    if (tree.name === 'sqrt' || tree.name === 'cbrt') {
      return { inside: inside!, words: 'what stands under the root', root: true }
    }
    return null
  }
  if (tree.kind === 'power' && dependsOn(tree.base, variable)) {
    const exponent = literalFraction(tree.exponent)
    return exponent ? { inside: tree.base, words: 'the base of the power', root: true } : null
  }
  return null
}

interface Zero {
  radius: number
  re: number
  im: number
}

const whereWords = ({ re, im }: Zero) => {
  const show = (v: number) => String(Number(v.toFixed(3)) + 0).replace('-', '−')
  const real = Math.abs(re) < 1e-9 ? '' : show(re)
  if (Math.abs(im) < 1e-7 * Math.max(1, Math.abs(re))) return `at ${real || '0'}`
  const size = show(Math.abs(im))
  return `at ${real}${real === '' ? '' : ' '}±${real === '' ? '' : ' '}${size === '1' ? '' : size}i`
}

/** The zero of a polynomial with the given coefficients, constant first, that lies nearest to a place. */
function nearestZero(coefficients: readonly number[], at: number): Zero | null {
  const zeros = complexZeros(coefficients)
  if (!zeros || zeros.length === 0) return null
  return zeros
    .map(({ re, im }) => ({ re, im, radius: Math.hypot(re - at, im) }))
    .reduce((best, one) => (one.radius < best.radius ? one : best))
}

const mostRounds = 500

/** All complex zeros; null where the iteration does not come to rest, or a coefficient is too large. */
function complexZeros(coefficients: readonly number[]): { re: number; im: number }[] | null {
  const n = coefficients.length - 1
  const lead = coefficients[n]!
  const monic = coefficients.map((c) => c / lead)
  if (n < 1 || n > 30 || monic.some((c) => !Number.isFinite(c))) return null
  const size = 1 + Math.max(...monic.slice(0, n).map(Math.abs))
  const zeros = Array.from({ length: n }, (_, k) => {
    const angle = (2 * Math.PI * k) / n + 0.4
    return { re: size * 0.7 * Math.cos(angle), im: size * 0.7 * Math.sin(angle) }
  })
  for (let round = 0; round < mostRounds; round++) {
    let moved = 0
    for (const [i, z] of zeros.entries()) {
      let [re, im] = [1, 0]
      for (let k = n - 1; k >= 0; k--) {
        ;[re, im] = [re * z.re - im * z.im + monic[k]!, re * z.im + im * z.re]
      }
      let [dre, dim] = [1, 0]
      for (const [j, other] of zeros.entries()) {
        if (j === i) continue
        const [a, b] = [z.re - other.re, z.im - other.im]
        ;[dre, dim] = [dre * a - dim * b, dre * b + dim * a]
      }
      const norm = dre * dre + dim * dim
      if (norm === 0) continue
      const [sre, sim] = [(re * dre + im * dim) / norm, (im * dre - re * dim) / norm]
      z.re -= sre
      z.im -= sim
      moved = Math.max(moved, Math.hypot(sre, sim))
    }
    if (moved < 1e-14 * size) return zeros
  }
  // A multiple zero is only closed in on; its neighbours lie about it.
  return zeros.every(({ re, im }) => Number.isFinite(re) && Number.isFinite(im)) ? zeros : null
}
