import {
  addRational,
  divideRational,
  multiplyRational,
  negateRational,
  one,
  type Rational,
  rational,
  zero,
} from '../../arithmetic/rational'
import { solveLinear } from '../../arithmetic/linearSystem'
import {
  call,
  exactly,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../../formula/tree'
import { byPowers } from '../expandPolynomials'
import { withRootsOut } from '../numberRoots'
import { fractionOfPolynomials, squareFreeParts } from '../polynomials'
import { factorsOver } from '../rationalFactors'
import {
  added,
  type Coefficients,
  divided,
  multiplied,
  raised,
  scaled,
} from '../rationalPolynomials'
import type { Search } from './search'

/** Fractions of a higher degree are left alone. */
const highestDegree = 16

/**
 * The antiderivative of a quotient of polynomials with rational coefficients: division, partial
 * fractions over the rational numbers, and completed squares. Null where the tree is none, or where
 * its denominator has a factor of a degree above 2 that the rational numbers do not split.
 */
export function ofFraction(tree: Tree, { variable }: Search): Tree | null {
  const read = fractionOfPolynomials(tree, variable)
  if (!read || read.below.length < 2 || read.below.length > highestDegree) return null
  const [above, below] = [read.above, read.below].map((p) => p.map((c) => rational(c))) as [
    Rational[],
    Rational[],
  ]
  const { whole: polynomial, rest } = divided(above, below)
  const factors: { factor: Coefficients; multiplicity: number }[] = []
  for (const { factor, multiplicity } of squareFreeParts(read.below)) {
    const split = factorsOver(factor)
    if (!split || split.some((p) => p.length > 3)) return null
    factors.push(...split.map((p) => ({ factor: monic(p), multiplicity })))
  }
  const terms = partialFractions(rest, below, factors)
  if (!terms) return null
  const raisedOnce = polynomial.map((c, k) => divideRational(c, rational(BigInt(k + 1))))
  return sum(
    byPowers([zero, ...raisedOnce], variable),
    ...terms.map((term) => ofTerm(term, variable)),
  )
}

const monic = (p: Coefficients) => scaled(p, divideRational(one, p.at(-1)!))

interface PartialFraction {
  above: Coefficients
  factor: Coefficients
  exponent: number
}

/** rest/below as a sum of c/(x − r)^k and (b x + c)/(x² + p x + q)^k, by equal coefficients. */
function partialFractions(
  rest: Coefficients,
  below: Coefficients,
  factors: readonly { factor: Coefficients; multiplicity: number }[],
): PartialFraction[] | null {
  if (rest.length === 0) return []
  const lead = below.at(-1)!
  const unknowns = factors.flatMap(({ factor, multiplicity }) =>
    Array.from({ length: multiplicity }, (_, k) => k + 1).flatMap((exponent) =>
      Array.from({ length: factor.length - 1 }, (_, degree) => {
        const others = factors.reduce<Rational[]>(
          (p, one) =>
            multiplied(
              p,
              raised(
                one.factor,
                one.factor === factor ? multiplicity - exponent : one.multiplicity,
              ),
            ),
          [...new Array<Rational>(degree).fill(zero), lead],
        )
        return { factor, exponent, degree, others }
      }),
    ),
  )
  const rows = Array.from({ length: below.length - 1 }, (_, power) =>
    unknowns.map(({ others }) => others[power] ?? zero),
  )
  const found = solveLinear(
    rows,
    rows.map((_, power) => rest[power] ?? zero),
  )
  if (!found) return null
  const terms: PartialFraction[] = []
  unknowns.forEach(({ factor, exponent, degree }, i) => {
    const part = [...new Array<Rational>(degree).fill(zero), found[i]!]
    const known = terms.find((t) => t.factor === factor && t.exponent === exponent)
    if (known) known.above = added(known.above, part)
    else terms.push({ above: added(part, []), factor, exponent })
  })
  return terms.filter((t) => t.above.length > 0)
}

function ofTerm({ above, factor, exponent }: PartialFraction, variable: string): Tree {
  if (factor.length === 2) {
    const base = byPowers(factor, variable)
    const front = exactly(above[0]!)
    if (exponent === 1) return product(front, call('ln', call('abs', base)))
    const next = exponent - 1
    return negate(quotient(front, product(whole(next), power(base, whole(next)))))
  }
  const [c, b] = [above[0] ?? zero, above[1] ?? zero]
  const [, p] = factor as [Rational, Rational, Rational]
  const q = byPowers(factor, variable)
  const half = divideRational(b, rational(2n))
  const left = addRational(c, negateRational(multiplyRational(half, p)))
  // Without real zeros it is above 0 throughout.
  const isPositive = gapOf(factor).n > 0n
  const bySlope =
    exponent === 1
      ? product(exactly(half), call('ln', isPositive ? q : call('abs', q)))
      : negate(quotient(exactly(half), product(whole(exponent - 1), power(q, whole(exponent - 1)))))
  if (left.n === 0n) return bySlope
  if (half.n === 0n) return product(exactly(left), overSquare(factor, exponent, variable))
  return sum(bySlope, product(exactly(left), overSquare(factor, exponent, variable)))
}

/** 4q − p² of x² + p x + q: above 0 where it has no real zero. */
const gapOf = ([q, p]: Coefficients): Rational =>
  addRational(multiplyRational(rational(4n), q!), negateRational(multiplyRational(p!, p!)))

/** ∫ 1/(x² + p x + q)^k dx, by the recurrence that differentiates (2x + p)/(x² + p x + q)^(k − 1). */
function overSquare(factor: Coefficients, exponent: number, variable: string): Tree {
  const [, p] = factor as [Rational, Rational, Rational]
  const gap = gapOf(factor)
  const inner = byPowers([p, rational(2n)], variable)
  if (exponent > 1) {
    const k = BigInt(exponent - 1)
    const under = multiplyRational(rational(k), gap)
    const part = quotient(
      inner,
      product(exactly(under), power(byPowers(factor, variable), whole(k))),
    )
    const share = divideRational(rational(2n * (2n * k - 1n)), under)
    return sum(part, product(exactly(share), overSquare(factor, exponent - 1, variable)))
  }
  const width = call('sqrt', exactly(gap.n > 0n ? gap : negateRational(gap)))
  if (gap.n > 0n) {
    const root = withRootsOut(width)
    if (root.kind === 'number') {
      const inside = byPowers(
        [p, rational(2n)].map((c) => divideRational(c, root.exact)),
        variable,
      )
      return product(quotient(whole(2), root), call('arctan', inside))
    }
    return product(quotient(whole(2), width), call('arctan', quotient(inner, width)))
  }
  const ratio = quotient(sum(inner, negate(width)), sum(inner, width))
  return quotient(call('ln', call('abs', ratio)), width)
}
