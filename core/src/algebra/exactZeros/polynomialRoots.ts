import { divideRational, negateRational, type Rational, rational } from '../../arithmetic/rational'
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
import { withRootsOut } from '../numberRoots'
import { type Polynomial, squareFreeParts } from '../polynomials'
import { factorsOver } from '../rationalFactors'
import type { Coefficients } from '../rationalPolynomials'

/**
 * The real zeros of a polynomial with whole coefficients that are fractions, or roots of fractions: of
 * its rational factors those of degree 1 and 2, those with one power of the variable, and those that
 * are of degree 2 in such a power. Others are left out, so the list need not be whole.
 */
export const polynomialRoots = (p: Polynomial): Tree[] =>
  squareFreeParts(p).flatMap(({ factor }) => (factorsOver(factor) ?? []).flatMap(rootsOf))

function rootsOf(p: Coefficients): Tree[] {
  if (p.length === 2) return [exactly(negateRational(divideRational(p[0]!, p[1]!)))]
  // p is q(xᵏ) with the largest such k.
  const step = p.reduce((g, c, i) => (c.n === 0n || i === 0 ? g : gcd(g, i)), 0)
  const inner = p.filter((_, i) => i % step === 0)
  if (inner.length === 3) return quadraticRoots(inner).flatMap((r) => rootsOfOrder(r, step))
  if (inner.length === 2) {
    return rootsOfOrder(exactly(negateRational(divideRational(inner[0]!, inner[1]!))), step)
  }
  return []
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))

/** (−b ± √(b² − 4ac))/(2a) with all that can be taken out of the root taken out. */
function quadraticRoots([c, b, a]: Coefficients): Tree[] {
  const common = [a!, b!, c!].reduce((m, r) => m * r.d, 1n)
  const [A, B, C] = [a!, b!, c!].map((r) => (r.n * common) / r.d) as [bigint, bigint, bigint]
  const gap = B * B - 4n * A * C
  if (gap < 0n) return []
  const root = withRootsOut(call('sqrt', whole(gap)))
  const [factor, rest] = root.kind === 'product' ? partsOf(root.factors) : [1n, root]
  if (rest.kind === 'number') return []
  // What −b, the factor before the root and 2a share goes.
  const shared = [B, factor, 2n * A].map((n) => (n < 0n ? -n : n)).reduce(gcdOf)
  const below = (2n * A) / shared
  const size = below < 0n ? -below : below
  return ([1n, -1n] as const).map((sign) => {
    const part = product(whole((sign * factor) / shared), rest)
    const turned = below < 0n ? -1n : 1n
    const constant = (-B * turned) / shared
    const above = constant === 0n ? tidy(part) : sum(whole(constant), tidy(part))
    return size === 1n ? above : quotient(above, whole(size))
  })
}

const gcdOf = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcdOf(b, a % b))
const partsOf = (factors: readonly Tree[]): [bigint, Tree] => {
  const [first, second] = factors
  return first?.kind === 'number' && second ? [first.exact.n, second] : [1n, product(...factors)]
}
const tidy = (tree: Tree): Tree => {
  if (tree.kind !== 'product' || tree.factors[0]?.kind !== 'number') return tree
  const { n } = tree.factors[0].exact
  const rest = product(...tree.factors.slice(1))
  return n === 1n ? rest : n === -1n ? negate(rest) : tree
}

/** The real numbers whose k-th power is a given one. */
export function rootsOfOrder(radicand: Tree, k: number): Tree[] {
  if (k === 1) return [radicand]
  const root =
    k === 2
      ? call('sqrt', radicand)
      : k === 3
        ? call('cbrt', radicand)
        : power(radicand, quotient(whole(1), whole(k)))
  const plain = radicand.kind === 'number' ? withRootsOut(rationalRoot(radicand.exact, k)) : root
  return k % 2 === 0 ? [plain, negate(plain)] : [plain]
}

const rationalRoot = (r: Rational, k: number): Tree =>
  power(exactly(r), exactly(rational(1n, BigInt(k))))
