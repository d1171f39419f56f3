import { divideRational, type Rational, rational, zero } from '../arithmetic/rational'
import {
  call,
  exactly,
  keyOf,
  power,
  product,
  splitCoefficient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import { squareFreeParts } from './polynomials'
import { added as add, multiplied as multiply, trimmed as trim } from './rationalPolynomials'

/** A polynomial in t = tan(w/2) over (1 + t²)^n: what sums and products of cos kw and sin kw are. */
interface HalfTangent {
  p: Rational[]
  n: number
}

const highestDegree = 48

const onePlusSquare = [rational(1n), zero, rational(1n)]
function raiseTo({ p, n }: HalfTangent, to: number): Rational[] {
  let out = p
  for (let i = n; i < to; i++) out = multiply(out, onePlusSquare)
  return out
}

/** cos kw and sin kw: e^(ikw) is (1 + it)^(2k)/(1 + t²)^k. */
function wave(k: number): { cosine: HalfTangent; sine: HalfTangent } {
  const size = Math.abs(k)
  const parts = [new Array<Rational>(), new Array<Rational>()] as [Rational[], Rational[]]
  let choose = 1n
  for (let j = 0; j <= 2 * size; j++) {
    // i^j is 1, i, −1, −i in turn.
    const sign = j % 4 < 2 ? 1n : -1n
    const [real, imaginary] = parts
    real.push(j % 2 === 0 ? rational(sign * choose) : zero)
    imaginary.push(j % 2 === 1 ? rational(sign * choose) : zero)
    choose = (choose * BigInt(2 * size - j)) / BigInt(j + 1)
  }
  const turned = k < 0 ? parts[1].map((c) => ({ n: -c.n, d: c.d })) : parts[1]
  return { cosine: { p: trim(parts[0]), n: size }, sine: { p: trim(turned), n: size } }
}

/** The angles of all sines and cosines in a tree as multiples of one angle, or null. */
function commonAngle(tree: Tree): { unit: Rational; rest: Tree } | null {
  let rest: Tree | null = null
  const multiples: Rational[] = []
  const visit = (part: Tree): boolean => {
    switch (part.kind) {
      case 'number':
        return true
      case 'sum':
        return part.terms.every(visit)
      case 'product':
        return part.factors.every(visit)
      case 'power':
        return part.exponent.kind === 'number' && visit(part.base)
      case 'call': {
        if (part.name !== 'sin' && part.name !== 'cos') return false
        const [factor, of] = angleOf(part.args[0]!)
        if (rest && keyOf(rest) !== keyOf(of)) return false
        rest = of
        multiples.push(factor)
        return true
      }
      default:
        return false
    }
  }
  if (!visit(tree) || !rest || multiples.length < 2) return null
  // The largest angle of which all are whole multiples: gcd of numerators over lcm of denominators.
  const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? (a < 0n ? -a : a) : gcd(b, a % b))
  const d = multiples.reduce((m, r) => (m / gcd(m, r.d)) * r.d, 1n)
  const n = multiples.reduce((m, r) => gcd(m, r.n * (d / r.d)), 0n)
  return n === 0n ? null : { unit: rational(n, d), rest }
}

/** 2x/3 is 2/3 of x. */
function angleOf(tree: Tree): [Rational, Tree] {
  if (tree.kind === 'quotient' && tree.below.kind === 'number' && tree.below.exact.n !== 0n) {
    const [factor, rest] = splitCoefficient(tree.above)
    return [divideRational(factor.exact, tree.below.exact), rest]
  }
  const [factor, rest] = splitCoefficient(tree)
  return [factor.exact, rest]
}

function read(tree: Tree, unit: Rational): HalfTangent | null {
  switch (tree.kind) {
    case 'number':
      return { p: trim([tree.exact]), n: 0 }
    case 'sum':
    case 'product': {
      const parts = tree.kind === 'sum' ? tree.terms : tree.factors
      let total: HalfTangent | null = null
      for (const part of parts) {
        const next = read(part, unit)
        if (!next) return null
        if (!total) total = next
        else if (tree.kind === 'product') {
          total = { p: multiply(total.p, next.p), n: total.n + next.n }
        } else {
          const n = Math.max(total.n, next.n)
          total = { p: add(raiseTo(total, n), raiseTo(next, n)), n }
        }
        if (2 * total.n > highestDegree) return null
      }
      return total
    }
    case 'power': {
      const base = read(tree.base, unit)
      const exponent = tree.exponent.kind === 'number' ? tree.exponent.exact : null
      if (!base || !exponent || exponent.d !== 1n || exponent.n < 1n || exponent.n > 24n)
        return null
      let out = base
      for (let i = 1n; i < exponent.n; i++) {
        out = { p: multiply(out.p, base.p), n: out.n + base.n }
        if (2 * out.n > highestDegree) return null
      }
      return out
    }
    case 'call': {
      const ratio = divideRational(angleOf(tree.args[0]!)[0], unit)
      const k = Number(ratio.n)
      if (ratio.d !== 1n || Math.abs(k) > highestDegree / 2) return null
      return tree.name === 'cos' ? wave(k).cosine : wave(k).sine
    }
    default:
      return null
  }
}

/**
 * A polynomial in sines and cosines of multiples of one angle as factors that have only simple
 * zeros, each with its power: by t = tan(w/2) it becomes a polynomial in t, whose square-free parts
 * are exact. A zero at w = π, where t has no value, is a factor cos(w/2). Null for anything else.
 */
export function trigFactors(tree: Tree): { tree: Tree; power: number }[] | null {
  const angle = commonAngle(tree)
  const found = angle && read(tree, angle.unit)
  if (!angle || !found) return null
  if (found.p.length === 0) return [{ tree: whole(0), power: 1 }]
  const half = product(exactly(divideRational(angle.unit, rational(2n))), angle.rest)
  const [sine, cosine] = [call('sin', half), call('cos', half)]
  const common = found.p.reduce((m, c) => m * c.d, 1n)
  const coefficients = found.p.map((c) => (c.n * common) / c.d)
  const factors = squareFreeParts(coefficients).map(({ factor, multiplicity }) => {
    const d = factor.length - 1
    const terms = factor.flatMap((c, i) =>
      c === 0n ? [] : [product(whole(c), ...raised(sine, i), ...raised(cosine, d - i))],
    )
    return { tree: sum(...terms), power: multiplicity }
  })
  const missing = 2 * found.n - (found.p.length - 1)
  return missing > 0 ? [...factors, { tree: cosine, power: missing }] : factors
}

const raised = (tree: Tree, n: number): Tree[] =>
  n === 0 ? [] : n === 1 ? [tree] : [power(tree, whole(n))]
