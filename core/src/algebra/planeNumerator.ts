import {
  addRational,
  divideRational,
  greatestCommonDivisor,
  multiplyRational,
  one,
  type Rational,
  zero,
} from '../arithmetic/rational'
import { literalFraction, type Tree } from '../formula/tree'
import type { PlanePolynomial } from './planePolynomials'

/** Coefficients by the powers of the two variables, as "i j". */
type Terms = ReadonlyMap<string, Rational>
/** Terms times e^exponent, by the exponent as text. */
type Sum = ReadonlyMap<string, { terms: Terms; exponent: Terms }>
interface Fraction {
  above: Sum
  below: Sum
}

/** Formulas of a higher degree in one variable are left to interval methods. */
const highest = 16
/** So many terms at the most, while a formula is multiplied out. */
const mostTerms = 400

/** A formula as the quotient of two polynomials, each by a positive factor, times what is never 0. */
export interface PlaneFraction {
  above: PlanePolynomial
  below: PlanePolynomial
  /** Whether it is their quotient but for the factor: no e to a power that varies stands beside it. */
  isRational: boolean
}

/**
 * A formula of two variables as a quotient of polynomials with whole coefficients, times a power of e
 * that all its terms share: it is 0 exactly where it has a value and `above` is 0. null where it is
 * none, has coefficients that are not rational, or is of too high a degree.
 */
export function planeFraction(
  tree: Tree,
  letters: readonly [string, string],
): PlaneFraction | null {
  const found = fractionOf(tree, letters)
  if (!found) return null
  const parts = [...found.above.values()].filter(({ terms }) => terms.size > 0)
  const below = [...found.below.values()]
  if (parts.length > 1 || below.length !== 1 || below[0]!.terms.size === 0) return null
  const [above, under] = [polynomialOf(parts[0]?.terms ?? new Map()), polynomialOf(below[0]!.terms)]
  if (!above || !under) return null
  const isPlain = [...parts, ...below].every(({ exponent }) => exponent.size === 0)
  return { above, below: under, isRational: isPlain }
}

function polynomialOf(terms: Terms): PlanePolynomial | null {
  const common = [...terms.values()].reduce((l, { d }) => (l * d) / greatestCommonDivisor(l, d), 1n)
  const out: bigint[][] = []
  for (const [key, { n, d }] of terms) {
    const [i, j] = powersOf(key)
    if (i > highest || j > highest) return null
    while (out.length <= j) out.push([])
    const row = out[j]!
    while (row.length <= i) row.push(0n)
    row[i] = n * (common / d)
  }
  return out
}

const powersOf = (key: string) => key.split(' ').map(Number) as [number, number]

const constant = (value: Rational): Terms => new Map(value.n === 0n ? [] : [['0 0', value]])

const plus = (a: Terms, b: Terms): Terms => {
  const sum = new Map(a)
  for (const [key, value] of b) {
    const total = addRational(sum.get(key) ?? zero, value)
    if (total.n === 0n) sum.delete(key)
    else sum.set(key, total)
  }
  return sum
}

const scaled = (a: Terms, by: Rational): Terms =>
  new Map([...a].map(([key, value]) => [key, multiplyRational(value, by)]))

function times(a: Terms, b: Terms): Terms {
  let out: Terms = new Map()
  for (const [p, u] of a) {
    const [i, j] = powersOf(p)
    const row = [...b].map(([q, v]): [string, Rational] => {
      const [k, l] = powersOf(q)
      return [`${i + k} ${j + l}`, multiplyRational(u, v)]
    })
    out = plus(out, new Map(row))
  }
  return out
}

const textOf = (terms: Terms) =>
  [...terms]
    .map(([key, { n, d }]) => `${key} ${n}/${d}`)
    .sort()
    .join(' + ')

const alone = (terms: Terms, exponent: Terms = new Map()): Sum =>
  new Map([[textOf(exponent), { terms, exponent }]])

function addSums(a: Sum, b: Sum): Sum {
  const out = new Map(a)
  for (const [key, { terms, exponent }] of b) {
    const known = out.get(key)
    out.set(key, { terms: known ? plus(known.terms, terms) : terms, exponent })
  }
  return new Map([...out].filter(([, { terms }]) => terms.size > 0))
}

function multiplySums(a: Sum, b: Sum): Sum {
  let out: Sum = new Map()
  for (const p of a.values()) {
    for (const q of b.values()) {
      const [terms, exponent] = [times(p.terms, q.terms), plus(p.exponent, q.exponent)]
      out = addSums(out, alone(terms, exponent))
    }
  }
  return out
}

const sizeOf = (sum: Sum) => [...sum.values()].reduce((n, { terms }) => n + terms.size, 0)
const isShort = ({ above, below }: Fraction) => sizeOf(above) + sizeOf(below) <= mostTerms
const areSame = (a: Sum, b: Sum) =>
  a.size === b.size &&
  [...a].every(([key, { terms }]) => {
    const other = b.get(key)
    return other !== undefined && textOf(terms) === textOf(other.terms)
  })

const add = (a: Fraction, b: Fraction): Fraction =>
  areSame(a.below, b.below)
    ? { above: addSums(a.above, b.above), below: a.below }
    : {
        above: addSums(multiplySums(a.above, b.below), multiplySums(b.above, a.below)),
        below: multiplySums(a.below, b.below),
      }
const multiply = (a: Fraction, b: Fraction): Fraction => ({
  above: multiplySums(a.above, b.above),
  below: multiplySums(a.below, b.below),
})

const unit = alone(constant(one))
const withTerms = (terms: Terms): Fraction => ({ above: alone(terms), below: unit })

function fractionOf(tree: Tree, letters: readonly [string, string]): Fraction | null {
  const all = (trees: readonly Tree[], joined: (a: Fraction, b: Fraction) => Fraction) => {
    let out: Fraction | null = null
    for (const one of trees) {
      const next = fractionOf(one, letters)
      if (!next) return null
      out = out ? joined(out, next) : next
      if (!isShort(out)) return null
    }
    return out
  }
  switch (tree.kind) {
    case 'number':
      return withTerms(constant(tree.exact))
    case 'name': {
      const at = letters.indexOf(tree.name)
      return at < 0 ? null : withTerms(new Map([[at === 0 ? '1 0' : '0 1', one]]))
    }
    case 'sum':
      return all(tree.terms, add)
    case 'product':
      return all(tree.factors, multiply)
    case 'quotient': {
      const [above, below] = [tree.above, tree.below].map((part) => fractionOf(part, letters))
      if (!above || !below || sizeOf(below.above) === 0) return null
      return multiply(above, { above: below.below, below: below.above })
    }
    case 'power':
      return tree.base.kind === 'constant' && tree.base.name === 'e'
        ? exponential(tree.exponent, letters)
        : wholePower(tree.base, tree.exponent, letters)
    case 'call':
      return tree.name === 'exp' ? exponential(tree.args[0]!, letters) : null
    default:
      return null
  }
}

/** e to a power that is a polynomial. */
function exponential(exponent: Tree, letters: readonly [string, string]): Fraction | null {
  const found = fractionOf(exponent, letters)
  const [above, below] = found ? [found.above, found.below].map(plainTerms) : []
  if (!above || below?.size !== 1) return null
  const divisor = below.get('0 0')
  if (!divisor) return null
  return {
    above: alone(constant(one), scaled(above, divideRational(one, divisor))),
    below: unit,
  }
}

/** The terms of a sum without powers of e. */
const plainTerms = (sum: Sum): Terms | null =>
  sum.size === 0 ? new Map() : sum.size === 1 ? (sum.get('')?.terms ?? null) : null

function wholePower(
  base: Tree,
  exponent: Tree,
  letters: readonly [string, string],
): Fraction | null {
  const n = exponent.kind === 'number' ? exponent.exact : literalFraction(exponent)
  if (n?.d !== 1n || n.n > BigInt(highest) || n.n < -BigInt(highest)) return null
  const of = fractionOf(base, letters)
  if (!of || (n.n < 0n && sizeOf(of.above) === 0)) return null
  const factor = n.n < 0n ? { above: of.below, below: of.above } : of
  let out: Fraction = { above: unit, below: unit }
  for (let i = 0n; i < (n.n < 0n ? -n.n : n.n); i++) {
    out = multiply(out, factor)
    if (!isShort(out)) return null
  }
  return out
}
