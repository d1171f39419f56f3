import { binaryRational } from '../evaluate/enclosures'
import type { Interval } from '../arithmetic/intervals'
import { greatestCommonDivisor, type Rational } from '../arithmetic/rational'
import type { Tree } from '../formula/tree'

/** Whole coefficients, constant first, without common divisor; [] is the zero polynomial. */
export type Polynomial = readonly bigint[]

export interface RationalFunction {
  above: Polynomial
  below: Polynomial
}

/** Formulas of a higher degree are left to interval methods. */
const highestDegree = 60

const trim = (p: readonly bigint[]): bigint[] => {
  let end = p.length
  while (end > 0 && p[end - 1] === 0n) end -= 1
  return p.slice(0, end)
}
export const degree = (p: Polynomial) => p.length - 1

/** Without common divisor; the sign is kept. */
function primitive(p: readonly bigint[]): bigint[] {
  const kept = trim(p)
  const common = kept.reduce((g, c) => greatestCommonDivisor(g, c < 0n ? -c : c), 0n)
  return common > 1n ? kept.map((c) => c / common) : kept
}

export function addPolynomials(p: Polynomial, q: Polynomial): bigint[] {
  return trim(
    Array.from({ length: Math.max(p.length, q.length) }, (_, i) => (p[i] ?? 0n) + (q[i] ?? 0n)),
  )
}
export function multiplyPolynomials(p: Polynomial, q: Polynomial): bigint[] {
  if (p.length === 0 || q.length === 0) return []
  const out = new Array<bigint>(p.length + q.length - 1).fill(0n)
  p.forEach((a, i) => q.forEach((b, j) => (out[i + j]! += a * b)))
  return out
}
export const differentiatePolynomial = (p: Polynomial): bigint[] =>
  p.slice(1).map((c, i) => c * BigInt(i + 1))

/** The remainder of p by q times a positive whole number, which keeps every sign. */
function remainder(p: Polynomial, q: Polynomial): bigint[] {
  let rest = [...p]
  const lead = q.at(-1)!
  const size = lead < 0n ? -lead : lead
  while (rest.length >= q.length && rest.length > 0) {
    const factor = rest.at(-1)! * (lead < 0n ? -1n : 1n)
    const shift = rest.length - q.length
    rest = trim(rest.map((c, i) => c * size - (i >= shift ? factor * q[i - shift]! : 0n)))
  }
  return primitive(rest)
}

export function commonDivisor(p: Polynomial, q: Polynomial): bigint[] {
  let [a, b] = [primitive(p), primitive(q)]
  while (b.length > 0) [a, b] = [b, remainder(a, b)]
  return a
}

/** p/q where q divides p and the quotient has whole coefficients, as where q is without common divisor. */
export function exactDivision(p: Polynomial, q: Polynomial): bigint[] {
  const rest = [...p]
  const out = new Array<bigint>(Math.max(0, p.length - q.length + 1)).fill(0n)
  for (let i = out.length - 1; i >= 0; i--) {
    out[i] = rest[i + q.length - 1]! / q.at(-1)!
    q.forEach((c, j) => (rest[i + j]! -= out[i]! * c))
  }
  return out
}

/** p/q where q divides p, but for a constant factor. */
function divideExactly(p: Polynomial, q: Polynomial): bigint[] {
  let rest = [...p]
  const out = new Array<bigint>(Math.max(0, p.length - q.length + 1)).fill(0n)
  const lead = q.at(-1)!
  // One scaling in front keeps every step whole.
  const scale = lead ** BigInt(out.length)
  rest = rest.map((c) => c * scale)
  for (let i = out.length - 1; i >= 0; i--) {
    const factor = rest[i + q.length - 1]! / lead
    out[i] = factor
    q.forEach((c, j) => (rest[i + j]! -= factor * c))
  }
  return primitive(scale < 0n ? out.map((c) => -c) : out)
}

/**
 * The tree as a quotient of polynomials in lowest terms, but for a constant factor: its zeros and
 * poles are the tree's. Null where it is no rational function with rational coefficients.
 */
export function toRationalFunction(tree: Tree, variable: string): RationalFunction | null {
  const read = fractionOfPolynomials(tree, variable)
  if (!read) return null
  const common = commonDivisor(read.above, read.below)
  if (common.length <= 1) return { above: primitive(read.above), below: primitive(read.below) }
  return {
    above: divideExactly(read.above, common),
    below: divideExactly(read.below, common),
  }
}

/** Sums and products as they come, not in lowest terms. */
export const addFractions = (a: RationalFunction, b: RationalFunction): RationalFunction => ({
  above: addPolynomials(
    multiplyPolynomials(a.above, b.below),
    multiplyPolynomials(b.above, a.below),
  ),
  below: multiplyPolynomials(a.below, b.below),
})
export const multiplyFractions = (a: RationalFunction, b: RationalFunction): RationalFunction => ({
  above: multiplyPolynomials(a.above, b.above),
  below: multiplyPolynomials(a.below, b.below),
})

/** The same exactly as the tree has it, not in lowest terms. */
export function fractionOfPolynomials(tree: Tree, variable: string): RationalFunction | null {
  const read = readRational(tree, variable)
  return read && read.below.length > 0 ? read : null
}

function readRational(tree: Tree, variable: string): RationalFunction | null {
  const joined = (
    parts: readonly Tree[],
    join: (a: RationalFunction, b: RationalFunction) => RationalFunction,
  ): RationalFunction | null => {
    let total: RationalFunction | null = null
    for (const part of parts) {
      const next = readRational(part, variable)
      if (!next) return null
      total = total ? join(total, next) : next
      if (total.above.length + total.below.length > 2 * highestDegree) return null
    }
    return total
  }
  switch (tree.kind) {
    case 'number':
      return { above: trim([tree.exact.n]), below: [tree.exact.d] }
    case 'name':
      return tree.name === variable ? { above: [0n, 1n], below: [1n] } : null
    case 'sum':
      return joined(tree.terms, addFractions)
    case 'product':
      return joined(tree.factors, multiplyFractions)
    case 'quotient': {
      const [a, b] = [readRational(tree.above, variable), readRational(tree.below, variable)]
      if (!a || !b || b.above.length === 0) return null
      return {
        above: multiplyPolynomials(a.above, b.below),
        below: multiplyPolynomials(a.below, b.above),
      }
    }
    case 'power': {
      if (tree.exponent.kind !== 'number' || tree.exponent.exact.d !== 1n) return null
      const base = readRational(tree.base, variable)
      const n = Number(tree.exponent.exact.n)
      if (
        !base ||
        Math.abs(n) * Math.max(base.above.length, base.below.length) > highestDegree * 2
      ) {
        return null
      }
      const raise = (p: Polynomial) => {
        let out: bigint[] = [1n]
        for (let i = 0; i < Math.abs(n); i++) out = multiplyPolynomials(out, p)
        return out
      }
      const [above, below] = n < 0 ? [base.below, base.above] : [base.above, base.below]
      return below.length === 0 ? null : { above: raise(above), below: raise(below) }
    }
    default:
      return null
  }
}

export interface SquareFreePart {
  factor: Polynomial
  multiplicity: number
}

/** p as a product of powers of square-free polynomials (Yun 1976, from memory). */
export function squareFreeParts(p: Polynomial): SquareFreePart[] {
  const parts: SquareFreePart[] = []
  const rest = primitive(p)
  let repeated = commonDivisor(rest, differentiatePolynomial(rest))
  let single = repeated.length > 1 ? divideExactly(rest, repeated) : rest
  for (let multiplicity = 1; single.length > 1; multiplicity++) {
    const shared = repeated.length > 1 ? commonDivisor(single, repeated) : [1n]
    const factor = shared.length > 1 ? divideExactly(single, shared) : single
    if (factor.length > 1) parts.push({ factor, multiplicity })
    if (shared.length <= 1) break
    repeated = divideExactly(repeated, shared)
    single = shared
  }
  return parts
}

/** The sign of p at a fraction, exactly. */
function signAt(p: Polynomial, x: Rational): number {
  let total = 0n
  let power = 1n
  // Horner on n/d with everything multiplied by d^degree.
  for (let i = p.length - 1; i >= 0; i--) {
    total = total * x.n + p[i]! * power
    power *= x.d
  }
  return total > 0n ? 1 : total < 0n ? -1 : 0
}
export const signAtDouble = (p: Polynomial, x: number) => signAt(p, binaryRational(x))

/** Sturm's chain: the signs it changes between two places count the roots between them. */
function sturmChain(p: Polynomial): Polynomial[] {
  const chain: Polynomial[] = [p, primitive(differentiatePolynomial(p))]
  for (;;) {
    const rest = remainder(chain.at(-2)!, chain.at(-1)!)
    if (rest.length === 0) return chain
    chain.push(rest.map((c) => -c))
  }
}
function changesAt(chain: readonly Polynomial[], x: number): number {
  const at = binaryRational(x)
  let last = 0
  let changes = 0
  for (const p of chain) {
    const sign = signAt(p, at)
    if (sign === 0) continue
    if (last !== 0 && sign !== last) changes += 1
    last = sign
  }
  return changes
}

/**
 * Every real root of a square-free polynomial on [from, to], in order: exactly where it is a double,
 * else between two neighbouring doubles. Isolation by Sturm's theorem, all signs exact.
 */
export function rootsBetween(p: Polynomial, from: number, to: number): Interval[] {
  if (p.length <= 1) return []
  const chain = sturmChain(p)
  const slope = differentiatePolynomial(p)
  const roots: Interval[] = []
  if (signAtDouble(p, from) === 0) roots.push({ lo: from, hi: from })
  const visit = (lo: number, hi: number, atLo: number, atHi: number): void => {
    // Roots in (lo, hi].
    const count = atLo - atHi
    if (count === 0) return
    const m = lo + (hi - lo) / 2
    if (count > 1 && m > lo && m < hi) {
      const atM = changesAt(chain, m)
      visit(lo, m, atLo, atM)
      visit(m, hi, atM, atHi)
      return
    }
    roots.push(narrow(p, slope, lo, hi))
  }
  visit(from, to, changesAt(chain, from), changesAt(chain, to))
  return roots
}

/** The one root in (lo, hi], to neighbouring doubles. */
function narrow(p: Polynomial, slope: Polynomial, lo: number, hi: number): Interval {
  if (signAtDouble(p, hi) === 0) return { lo: hi, hi }
  // Just right of a root at lo the sign is that of the slope.
  const left = signAtDouble(p, lo) || signAtDouble(slope, lo)
  let [a, b] = [lo, hi]
  for (let i = 0; i < 1100; i++) {
    const m = a + (b - a) / 2
    if (!(m > a && m < b)) break
    const sign = signAtDouble(p, m)
    if (sign === 0) return { lo: m, hi: m }
    if (sign === left) a = m
    else b = m
    if (b - a <= 2e-16 * Math.max(Math.abs(a), Math.abs(b))) break
  }
  return { lo: a, hi: b }
}
