import { type Polynomial, rootsBetween, squareFreeParts } from '../algebra/polynomials'
import type { Interval } from '../arithmetic/intervals'
import {
  addRational,
  divideRational,
  greatestCommonDivisor,
  multiplyRational,
  negateRational,
  one,
  type Rational,
  rational,
  zero,
} from '../arithmetic/rational'
import { literalFraction, type Tree } from '../formula/tree'
import type { RealSurface, Rectangle } from './surface'

/** Coefficients of xⁱyʲ as [i][j]. */
type TwoPolynomial = readonly (readonly Rational[])[]

/** Formulas of a higher degree in one variable are left to interval methods. */
const highest = 8

/**
 * The resultants of two polynomials in two variables, by each of them: a common zero lies over a root
 * of the first and beside a root of the second. null where one of the formulas is no such polynomial
 * with rational coefficients, or of too high a degree; the zero polynomial [] where they share a factor.
 * Source: any text on elimination (Sylvester's determinant); from memory.
 */
export function resultantsOf(g: RealSurface, h: RealSurface): [Polynomial, Polynomial] | null {
  const [p, q] = [g, h].map(({ tree, letters }) => polynomialOf(tree, letters))
  if (!p || !q) return null
  const flipped = [p, q].map(turned) as [TwoPolynomial, TwoPolynomial]
  return [resultant(p, q), resultant(...flipped)]
}

/** How many different places along each side of a rectangle a common zero can have at the most. */
export const rootsOver = (
  [alongX, alongY]: readonly [Polynomial, Polynomial],
  { x, y }: Rectangle,
): [number, number] => [rootCount(alongX, x), rootCount(alongY, y)]

const rootCount = (p: Polynomial, { lo, hi }: Interval) =>
  squareFreeParts(p).reduce((sum, part) => sum + rootsBetween(part.factor, lo, hi).length, 0)

const turned = (p: TwoPolynomial): TwoPolynomial => {
  const height = Math.max(0, ...p.map((row) => row.length))
  return Array.from({ length: height }, (_, j) => p.map((row) => row[j] ?? zero))
}

function polynomialOf(tree: Tree, letters: readonly [string, string]): TwoPolynomial | null {
  const terms = termsOf(tree, letters)
  if (!terms) return null
  const out: Rational[][] = []
  for (const [key, value] of terms) {
    const [i, j] = key.split(' ').map(Number) as [number, number]
    if (i > highest || j > highest) return null
    while (out.length <= i) out.push([])
    const row = out[i]!
    while (row.length <= j) row.push(zero)
    row[j] = value
  }
  return out
}

type Terms = Map<string, Rational>

const plus = (a: Terms, b: Terms): Terms => {
  const sum = new Map(a)
  for (const [key, value] of b) sum.set(key, addRational(sum.get(key) ?? zero, value))
  return sum
}
function times(a: Terms, b: Terms): Terms {
  const out: Terms = new Map()
  for (const [p, u] of a) {
    const [i, j] = p.split(' ').map(Number) as [number, number]
    for (const [q, v] of b) {
      const [k, l] = q.split(' ').map(Number) as [number, number]
      const key = `${i + k} ${j + l}`
      out.set(key, addRational(out.get(key) ?? zero, multiplyRational(u, v)))
    }
  }
  return out
}

const fractionOf = (tree: Tree): Rational | null =>
  tree.kind === 'number' ? tree.exact : literalFraction(tree)

/** A formula as a sum of terms; null where it is no polynomial with rational coefficients. */
function termsOf(tree: Tree, letters: readonly [string, string]): Terms | null {
  const all = (trees: readonly Tree[]) => {
    const found = trees.map((one) => termsOf(one, letters))
    return found.every((one) => one !== null) ? found : null
  }
  switch (tree.kind) {
    case 'number':
      return new Map([['0 0', tree.exact]])
    case 'name': {
      const at = letters.indexOf(tree.name)
      return at < 0 ? null : new Map([[at === 0 ? '1 0' : '0 1', one]])
    }
    case 'sum':
      return all(tree.terms)?.reduce(plus) ?? null
    case 'product':
      return all(tree.factors)?.reduce(times) ?? null
    case 'quotient': {
      const below = fractionOf(tree.below)
      const above = below && below.n !== 0n ? termsOf(tree.above, letters) : null
      return (
        above && new Map([...above].map(([key, value]) => [key, divideRational(value, below!)]))
      )
    }
    case 'power': {
      const n = fractionOf(tree.exponent)
      if (n?.d !== 1n || n.n < 0n || n.n > BigInt(highest * 2)) return null
      const base = termsOf(tree.base, letters)
      let out: Terms | null = base && new Map([['0 0', one]])
      for (let i = 0n; out && base && i < n.n; i++) out = times(out, base)
      return out
    }
    default:
      return null
  }
}

const degreeOf = (p: TwoPolynomial) => p.length - 1
const heightOf = (p: TwoPolynomial) => Math.max(0, ...p.map((row) => row.length - 1))

/** Res(p, q) by the second variable, as a polynomial of the first: worked out at places, and put together. */
function resultant(p: TwoPolynomial, q: TwoPolynomial): Polynomial {
  const [m, n] = [heightOf(p), heightOf(q)]
  const most = degreeOf(p) * n + degreeOf(q) * m
  const places = Array.from({ length: most + 1 }, (_, i) =>
    rational(BigInt(i % 2 === 0 ? i / 2 : -(i + 1) / 2)),
  )
  const values = places.map((x) => determinant(sylvester(at(p, x, m), at(q, x, n))))
  return whole(interpolated(places, values))
}

/** The coefficients of a polynomial of the second variable at a place of the first, the highest first. */
const at = (p: TwoPolynomial, x: Rational, height: number): Rational[] =>
  Array.from({ length: height + 1 }, (_, j) =>
    [...p]
      .reverse()
      .reduce((sum, row) => addRational(multiplyRational(sum, x), row[j] ?? zero), zero),
  ).reverse()

function sylvester(p: readonly Rational[], q: readonly Rational[]): Rational[][] {
  const [m, n] = [p.length - 1, q.length - 1]
  const rows = (of: readonly Rational[], count: number) =>
    Array.from({ length: count }, (_, i) =>
      Array.from({ length: m + n }, (_, k) => of[k - i] ?? zero),
    )
  return [...rows(p, n), ...rows(q, m)]
}

function determinant(rows: Rational[][]): Rational {
  const matrix = rows.map((row) => [...row])
  let result = one
  for (let k = 0; k < matrix.length; k++) {
    const pivot = matrix.findIndex((row, i) => i >= k && row[k]!.n !== 0n)
    if (pivot < 0) return zero
    if (pivot !== k) {
      ;[matrix[k], matrix[pivot]] = [matrix[pivot]!, matrix[k]!]
      result = negateRational(result)
    }
    const head = matrix[k]!
    result = multiplyRational(result, head[k]!)
    for (const row of matrix.slice(k + 1)) {
      if (row[k]!.n === 0n) continue
      const factor = negateRational(divideRational(row[k]!, head[k]!))
      for (let c = k; c < row.length; c++) {
        row[c] = addRational(row[c]!, multiplyRational(factor, head[c]!))
      }
    }
  }
  return result
}

/** The polynomial through points, by divided differences. */
function interpolated(xs: readonly Rational[], ys: readonly Rational[]): Rational[] {
  const differences = [...ys]
  const minus = (a: Rational, b: Rational) => addRational(a, negateRational(b))
  for (let k = 1; k < xs.length; k++) {
    for (let i = xs.length - 1; i >= k; i--) {
      const rise = minus(differences[i]!, differences[i - 1]!)
      differences[i] = divideRational(rise, minus(xs[i]!, xs[i - k]!))
    }
  }
  let out: Rational[] = []
  for (let i = xs.length - 1; i >= 0; i--) {
    const moved = [zero, ...out]
    out = moved.map((c, k) => minus(c, multiplyRational(xs[i]!, out[k] ?? zero)))
    out[0] = addRational(out[0] ?? zero, differences[i]!)
  }
  return out
}

/** With whole coefficients, by a positive factor. */
function whole(p: readonly Rational[]): Polynomial {
  const common = p.reduce((l, { d }) => (l * d) / greatestCommonDivisor(l, d), 1n)
  const out = p.map(({ n, d }) => n * (common / d))
  while (out.length > 0 && out.at(-1) === 0n) out.pop()
  return out
}
