import {
  greatestCommonDivisor,
  multiplyRational,
  one,
  type Rational,
  rational,
} from '../arithmetic/rational'
import { exactly, isOne, name, power, product, sum, type Tree, whole } from '../formula/tree'
import {
  addPolynomials,
  commonDivisor,
  degree,
  differentiatePolynomial,
  exactDivision,
  multiplyPolynomials,
  type Polynomial,
} from './polynomials'

/**
 * A polynomial in two variables with whole coefficients: by powers of the second variable, the
 * constant first, each coefficient a polynomial of the first. [] is the zero polynomial.
 */
export type PlanePolynomial = readonly Polynomial[]

const trim = (p: readonly Polynomial[]): Polynomial[] => {
  let end = p.length
  while (end > 0 && p[end - 1]!.length === 0) end -= 1
  return p.slice(0, end)
}

const negated = (p: Polynomial): bigint[] => p.map((c) => -c)

export const addPlane = (p: PlanePolynomial, q: PlanePolynomial): PlanePolynomial =>
  trim(
    Array.from({ length: Math.max(p.length, q.length) }, (_, j) =>
      addPolynomials(p[j] ?? [], q[j] ?? []),
    ),
  )

export const scalePlane = (p: PlanePolynomial, by: Polynomial): PlanePolynomial =>
  trim(p.map((row) => multiplyPolynomials(row, by)))

export function multiplyPlane(p: PlanePolynomial, q: PlanePolynomial): PlanePolynomial {
  const out: Polynomial[] = Array.from({ length: Math.max(0, p.length + q.length - 1) }, () => [])
  p.forEach((a, j) =>
    q.forEach((b, k) => (out[j + k] = addPolynomials(out[j + k]!, multiplyPolynomials(a, b)))),
  )
  return trim(out)
}

/** With the variables exchanged. */
export const turnedPlane = (p: PlanePolynomial): PlanePolynomial => {
  const longest = Math.max(0, ...p.map((row) => row.length))
  return trim(
    Array.from({ length: longest }, (_, i) => {
      const row = p.map((coefficients) => coefficients[i] ?? 0n)
      while (row.at(-1) === 0n) row.pop()
      return row
    }),
  )
}

export const alongFirst = (p: PlanePolynomial): PlanePolynomial =>
  trim(p.map(differentiatePolynomial))
export const alongSecond = (p: PlanePolynomial): PlanePolynomial =>
  trim(p.slice(1).map((row, j) => row.map((c) => c * BigInt(j + 1))))

/** The polynomial of the first variable that divides all coefficients: lines on which the first variable is held. */
export const contentOf = (p: PlanePolynomial): Polynomial =>
  p.reduce<Polynomial>((common, row) => commonDivisor(common, row), [])

export const isConstantPlane = (p: PlanePolynomial) => p.length <= 1 && (p[0]?.length ?? 0) <= 1

/** p divided by q, which is without common divisor and is known to divide it. */
export function planeQuotient(p: PlanePolynomial, q: PlanePolynomial): PlanePolynomial {
  const out: Polynomial[] = []
  let rest = [...p]
  while (rest.length >= q.length && rest.length > 0) {
    const shift = rest.length - q.length
    const factor = exactDivision(rest.at(-1)!, q.at(-1)!)
    out[shift] = factor
    rest = trim(
      rest.map((row, j) =>
        j >= shift ? addPolynomials(row, negated(multiplyPolynomials(factor, q[j - shift]!))) : row,
      ),
    )
  }
  return trim(Array.from(out, (row) => row ?? []))
}

const withoutContent = (p: PlanePolynomial): PlanePolynomial => {
  const content = contentOf(p)
  if (content.length <= 1) return p
  return p.map((row) => exactDivision(row, content))
}

/** Without a whole number that divides every coefficient; the sign is kept. */
function primitive(p: PlanePolynomial): PlanePolynomial {
  const size = (c: bigint) => (c < 0n ? -c : c)
  const common = p.reduce(
    (all, row) => row.reduce((g, c) => greatestCommonDivisor(g, size(c)), all),
    0n,
  )
  return common > 1n ? p.map((row) => row.map((c) => c / common)) : p
}

/**
 * The greatest common factor of two polynomials, without common divisor of its coefficients: by
 * pseudo-remainders in the second variable, their contents taken out. Of 0 and q it is q.
 * Source: D. E. Knuth, The Art of Computer Programming, vol. 2, section 4.6.1 (from memory).
 */
export function commonPlaneFactor(p: PlanePolynomial, q: PlanePolynomial): PlanePolynomial {
  if (p.length === 0) return primitive(q)
  if (q.length === 0) return primitive(p)
  const content = commonDivisor(contentOf(p), contentOf(q))
  let [a, b] = [p, q].map((one) => primitive(withoutContent(one))) as [
    PlanePolynomial,
    PlanePolynomial,
  ]
  while (b.length > 1) [a, b] = [b, primitive(withoutContent(pseudoRemainder(a, b)))]
  const common = b.length === 0 ? a : [[1n]]
  return primitive(scalePlane(common, content))
}

function pseudoRemainder(p: PlanePolynomial, q: PlanePolynomial): PlanePolynomial {
  const lead = q.at(-1)!
  let rest = p
  while (rest.length >= q.length) {
    const shift = rest.length - q.length
    const factor = rest.at(-1)!
    rest = trim(
      rest.map((row, j) => {
        const own = multiplyPolynomials(row, lead)
        return j >= shift
          ? addPolynomials(own, negated(multiplyPolynomials(factor, q[j - shift]!)))
          : own
      }),
    )
  }
  return rest
}

/** Each of its factors once: it has the same zeros. */
export function squareFreePlane(p: PlanePolynomial): PlanePolynomial {
  const repeated = commonPlaneFactor(p, commonPlaneFactor(alongFirst(p), alongSecond(p)))
  return isConstantPlane(repeated) ? p : planeQuotient(primitive(p), repeated)
}

/** p(x₀ + u, y₀ + v) as a polynomial of u and v, by a positive factor. */
export function shiftedPlane(p: PlanePolynomial, x0: Rational, y0: Rational): PlanePolynomial {
  const inX = (row: Polynomial): Polynomial => shifted(row, x0, degreeOf(p))
  const moved = turnedPlane(p.map(inX))
  return primitive(turnedPlane(moved.map((row) => shifted(row, y0, p.length - 1))))
}

const degreeOf = (p: PlanePolynomial) => Math.max(0, ...p.map(degree))

/** dⁿ · p(n/d + u) for the place n/d: whole coefficients, `most` the degree that is counted with. */
function shifted(p: Polynomial, { n, d }: Rational, most: number): Polynomial {
  let out: Polynomial = []
  let scale = 1n
  for (let i = 0; i <= most; i++) {
    // Horner's rule from the highest coefficient on, each step with one more factor d.
    const c = p[most - i] ?? 0n
    out = addPolynomials(multiplyPolynomials(out, [n, d]), c === 0n ? [] : [c * scale])
    scale *= d
  }
  return out
}

/** The value at a place with rational coordinates. */
export function planeValue(p: PlanePolynomial, x: Rational, y: Rational): Rational {
  const inX = (row: Polynomial) =>
    row.reduceRight((sum, c) => rational(sum.n * x.n + c * sum.d * x.d, sum.d * x.d), rational(0n))
  return p.map(inX).reduceRight((sum, c) => {
    const [n, d] = [sum.n * y.n, sum.d * y.d]
    return rational(n * c.d + c.n * d, d * c.d)
  }, rational(0n))
}

/** Its terms in the order in which they are written: the higher powers first. */
const written = (p: PlanePolynomial) =>
  p
    .flatMap((row, j) => row.map((c, i) => ({ c, i, j })))
    .filter(({ c }) => c !== 0n)
    .sort((a, b) => b.i + b.j - (a.i + a.j) || b.i - a.i)

/** The same zeros with a coefficient above 0 in front. */
export const withLeadAbove = (p: PlanePolynomial): PlanePolynomial =>
  (written(p)[0]?.c ?? 0n) < 0n ? p.map(negated) : p

/** As a formula, times a fraction: the higher powers first, the first variable before the second. */
export function planeTree(
  p: PlanePolynomial,
  [first, second]: readonly [string, string],
  factor: Rational = one,
): Tree {
  const raised = (letter: string, n: number) =>
    n === 0 ? [] : n === 1 ? [name(letter)] : [power(name(letter), whole(n))]
  const trees = written(p).map(({ c, i, j }) => {
    const letters = [...raised(first, i), ...raised(second, j)]
    const coefficient = exactly(multiplyRational(rational(c), factor))
    return letters.length === 0
      ? coefficient
      : product(...(isOne(coefficient) ? [] : [coefficient]), ...letters)
  })
  return trees.length === 0 ? whole(0) : sum(...trees)
}
