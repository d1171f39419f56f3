import {
  call,
  type FunctionName,
  isNumber,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { differentiate } from '../differentiate'
import { byPowers, polynomialCoefficients } from '../expandPolynomials'
import { cancelFreely, simplify } from '../simplify'
import { bare, type Search, straight } from './search'

/** A polynomial of a higher degree in front of e^x or sin x is left alone. */
export const highestDegree = 12

/** What gets simpler by being differentiated. */
const simplerBelow: readonly FunctionName[] = [
  ...(['ln', 'arctan', 'arcsin', 'arccos', 'arccot'] as const),
  ...(['arsinh', 'arcosh', 'artanh'] as const),
]

/** ∫ p g = P g − ∫ P g′ for a logarithm or an arc g, or a power of one, with P an antiderivative of p. */
export function byDifferentiating(tree: Tree, search: Search): Tree | null {
  const factors = factorsOfQuotient(tree)
  for (const g of factors) {
    const { base, exponent } = g.kind === 'power' ? g : { base: g, exponent: whole(1) as Tree }
    const fits = isNumber(exponent) && exponent.exact.d === 1n && exponent.exact.n > 0n
    if (base.kind !== 'call' || !simplerBelow.includes(base.name) || !fits) continue
    const others = factors.filter((f) => f !== g)
    const raised = search.integrate(simplify(product(whole(1), ...others)), search)
    if (!raised) continue
    const slope = simplify(bare(differentiate(g, search.variable)))
    const rest = search.integrate(cancelFreely(simplify(product(raised, slope))), search)
    if (rest) return sum(product(raised, g), negate(rest))
  }
  return null
}

/** The factors of a formula, what it is divided by as one of them. */
function factorsOfQuotient(tree: Tree): readonly Tree[] {
  if (tree.kind === 'product') return tree.factors
  return tree.kind === 'quotient'
    ? [...factorsOfQuotient(tree.above), quotient(whole(1), tree.below)]
    : [tree]
}

/** Two parts that are integrated as often as the polynomial beside them is differentiated. */
export function polynomialTimes(factors: readonly Tree[], search: Search): Tree | null {
  const others = factors.filter((f) => !polynomialCoefficients(f, search.variable))
  const [g] = others
  if (!g || others.length > 1) return null
  let p: Tree = product(whole(1), ...factors.filter((f) => f !== g))
  const degree = (polynomialCoefficients(p, search.variable)?.length ?? Infinity) - 1
  if (degree > highestDegree || degree < 1) return null
  const terms: Tree[] = []
  let part: Tree = g
  for (let k = 0; k <= degree; k++) {
    const next = search.integrate(simplify(part), search)
    if (!next) return null
    part = next
    terms.push(k % 2 === 0 ? product(p, part) : negate(product(p, part)))
    p = simplify(differentiate(p, search.variable))
  }
  return sum(whole(0), ...terms)
}

/**
 * ∫ p(x) e^u sin v dx with straight u and v: e^u (A sin v + B cos v) with polynomials A and B, whose
 * coefficients follow one by one from the highest: A′ + aA − cB and B′ + aB + cA are what stands
 * before sin v and cos v. Null for another product.
 */
export function exponentialWave(factors: readonly Tree[], search: Search): Tree | null {
  const { variable } = search
  const exponents: Tree[] = []
  let wave: (Tree & { kind: 'call' }) | null = null
  let polynomial: Tree = whole(1)
  for (const factor of factors) {
    const isE =
      factor.kind === 'power' && factor.base.kind === 'constant' && factor.base.name === 'e'
    if (isE) exponents.push(factor.exponent)
    else if (factor.kind === 'call' && factor.name === 'exp') exponents.push(factor.args[0]!)
    else if (factor.kind === 'call' && (factor.name === 'sin' || factor.name === 'cos') && !wave) {
      wave = factor
    } else if (polynomialCoefficients(factor, variable)) polynomial = product(polynomial, factor)
    else return null
  }
  if (!wave || exponents.length === 0) return null
  const u = simplify(sum(whole(0), ...exponents))
  const v = wave.args[0]!
  const [a, c] = [straight(u, search), straight(v, search)]
  const p = polynomialCoefficients(polynomial, variable)
  if (!a || !c || !p || p.length > highestDegree) return null
  const round = sum(power(a, whole(2)), power(c, whole(2)))
  const [beforeSine, beforeCosine]: [Tree[], Tree[]] = [[], []]
  for (let k = p.length - 1; k >= 0; k--) {
    const front = byPowers([p[k]!], variable)
    const less = (tree: Tree | undefined) => (tree ? negate(product(whole(k + 1), tree)) : whole(0))
    const s = sum(wave.name === 'sin' ? front : whole(0), less(beforeSine[k + 1]))
    const t = sum(wave.name === 'cos' ? front : whole(0), less(beforeCosine[k + 1]))
    beforeSine[k] = simplify(quotient(sum(product(a, s), product(c, t)), round))
    beforeCosine[k] = simplify(quotient(sum(product(a, t), negate(product(c, s))), round))
  }
  const raised = (coefficients: readonly Tree[]) =>
    sum(
      whole(0),
      ...coefficients.map((one, k) =>
        product(one, power({ kind: 'name', name: variable }, whole(k))),
      ),
    )
  const together = sum(
    product(raised(beforeSine), call('sin', v)),
    product(raised(beforeCosine), call('cos', v)),
  )
  return product(power({ kind: 'constant', name: 'e' }, u), simplify(together))
}
