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
import { call, exactly, power, product, quotient, sum, type Tree } from '../../formula/tree'
import { maybeEntry } from '../../functions'
import { byPowers, polynomialCoefficients } from '../expandPolynomials'
import { added, type Coefficients, multiplied, scaled, slopeOf } from '../rationalPolynomials'
import { rationalOf, type Search } from './search'

/** Polynomials beside the root up to this degree, and powers of the root up to this. */
const [highestDegree, highestPower] = [8, 9n]

/**
 * ∫ p(x) √q(x)ⁿ dx with a polynomial p, a square q and an odd n, also below 0: what comes out is
 * r(x) √q^(n+2) + λ ∫ 1/√q with a polynomial r and a number λ, found by equal coefficients; the last
 * integral is an arcsine or a logarithm. Null where the tree is none.
 */
export function ofQuadraticRoot(tree: Tree, { variable }: Search): Tree | null {
  const read = readRoot(tree, variable)
  if (!read) return null
  const { inner, times, exponent } = read
  const q = polynomialCoefficients(inner, variable)
  if (q?.length !== 3 || times.length > highestDegree) return null
  const found = withRoot(times, q, exponent)
  if (!found) return null
  const root = call('sqrt', byPowers(q, variable))
  const outside = product(
    byPowers(found.r, variable),
    rootPower(root, byPowers(q, variable), found.outside),
  )
  if (found.left.n === 0n) return outside
  const inside = product(exactly(found.left), overRoot(q, root, variable))
  return found.r.length === 0 ? inside : sum(outside, inside)
}

/** √qⁿ of an odd n as a root times a power of q. */
function rootPower(root: Tree, q: Tree, n: bigint): Tree {
  if (n === 1n) return root
  if (n === -1n) return quotient(exactly(one), root)
  return n > 0n
    ? product(power(q, exactly(rational((n - 1n) / 2n))), root)
    : quotient(exactly(one), product(power(q, exactly(rational((-n - 1n) / 2n))), root))
}

interface Found {
  /** The polynomial before √q to the power `outside`. */
  r: Coefficients
  outside: bigint
  /** The factor of ∫ 1/√q. */
  left: Rational
}

function withRoot(p: Coefficients, q: Coefficients, n: bigint): Found | null {
  // Powers of the root above −1 are those of the polynomial: √q is q/√q.
  let [above, exponent] = [added(p, []), n]
  while (exponent > -1n) [above, exponent] = [multiplied(above, q), exponent - 2n]
  // (r √q^m)′ = (r′ q + m/2 · r q′) √q^(m − 2) with m = exponent + 2; and 1/√q is q^((m − 3 + 2)/2 …) of it.
  const m = exponent + 2n
  const half = rational(m, 2n)
  const rest = (() => {
    let out: Rational[] = [one]
    for (let k = exponent; k < -1n; k += 2n) out = multiplied(out, q)
    return out
  })()
  const size = Math.max(above.length, rest.length + 1, 2)
  const columns = Array.from({ length: size }, (_, k) => {
    const r = [...new Array<Rational>(k).fill(zero), one]
    return added(multiplied(slopeOf(r), q), scaled(multiplied(r, slopeOf(q)), half))
  })
  const height = Math.max(...columns.map((c) => c.length), rest.length, above.length)
  const rows = Array.from({ length: height }, (_, i) => [
    ...columns.map((c) => c[i] ?? zero),
    rest[i] ?? zero,
  ])
  const solved = solveFree(
    rows,
    Array.from({ length: height }, (_, i) => above[i] ?? zero),
  )
  if (!solved) return null
  return { r: added(solved.slice(0, -1), []), outside: m, left: solved.at(-1)! }
}

/** A solution of the equations with as few unknowns of high degree as there need be. */
function solveFree(rows: readonly Rational[][], right: readonly Rational[]): Rational[] | null {
  const last = rows[0]!.length - 1
  for (let used = 0; used <= last; used++) {
    const kept = rows.map((row) => [...row.slice(0, used), row[last]!])
    const found = solveLinear(kept, right)
    if (found) {
      return [...found.slice(0, -1), ...new Array<Rational>(last - used).fill(zero), found.at(-1)!]
    }
  }
  return null
}

/** ∫ 1/√(c x² + b x + a) dx. */
function overRoot(q: Coefficients, root: Tree, variable: string): Tree {
  const [a, b, c] = q as [Rational, Rational, Rational]
  const inner = byPowers([b, multiplyRational(rational(2n), c)], variable)
  if (c.n < 0n) {
    const gap = addRational(
      multiplyRational(b, b),
      negateRational(multiplyRational(rational(4n), multiplyRational(a, c))),
    )
    const turned = byPowers([negateRational(b), multiplyRational(rational(-2n), c)], variable)
    return quotient(
      call('arcsin', quotient(turned, call('sqrt', exactly(gap)))),
      call('sqrt', exactly(negateRational(c))),
    )
  }
  const lead = call('sqrt', exactly(c))
  const half = quotient(inner, product(exactly(rational(2n)), lead))
  return quotient(call('ln', call('abs', sum(half, root))), lead)
}

/** A product of a polynomial with odd powers of one root, or a quotient of such. */
function readRoot(
  tree: Tree,
  variable: string,
): { inner: Tree; times: Rational[]; exponent: bigint } | null {
  let inner: Tree | null = null
  let [exponent, times] = [0n, [one] as Rational[]]
  const take = (part: Tree, sign: 1n | -1n): boolean => {
    if (part.kind === 'product') return part.factors.every((f) => take(f, sign))
    if (part.kind === 'quotient')
      return take(part.above, sign) && take(part.below, sign === 1n ? -1n : 1n)
    const polynomial = polynomialCoefficients(part, variable)
    if (polynomial) {
      if (sign === 1n) times = multiplied(times, polynomial)
      else if (polynomial.length === 1) times = scaled(times, divideRational(one, polynomial[0]!))
      else return false
      return true
    }
    const root = rootOf(part)
    const coefficients = root && polynomialCoefficients(root.of, variable)
    if (!root || coefficients?.length !== 3) return false
    if (
      inner &&
      inner !== root.of &&
      JSON.stringify(coefficients, big) !==
        JSON.stringify(polynomialCoefficients(inner, variable), big)
    ) {
      return false
    }
    inner = root.of
    exponent += sign * root.times
    return true
  }
  if (!take(tree, 1n) || !inner || exponent % 2n === 0n) return null
  return exponent <= highestPower && exponent >= -highestPower ? { inner, times, exponent } : null
}
const big = (_key: string, value: unknown) => (typeof value === 'bigint' ? String(value) : value)

/** √u³ is u to 3/2: what stands under the root, and how often. */
function rootOf(part: Tree): { of: Tree; times: bigint } | null {
  if (part.kind === 'call' && maybeEntry(part.name)?.root === 2n) {
    return { of: part.args[0]!, times: 1n }
  }
  if (part.kind !== 'power') return null
  const fraction = rationalOf(part.exponent)
  if (fraction?.d === 2n) return { of: part.base, times: fraction.n }
  const root = fraction?.d === 1n ? rootOf(part.base) : null
  return root && { of: root.of, times: root.times * fraction!.n }
}
