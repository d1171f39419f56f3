import fc from 'fast-check'
import { all, create } from 'mathjs'
import { rational, toNumber } from '../arithmetic/rational'
import { parseFormula } from '../calculus/parseFormula'
import { planeFraction } from './planeNumerator'
import {
  commonPlaneFactor,
  multiplyPlane,
  type PlanePolynomial,
  planeQuotient,
  planeTree,
  planeValue,
  shiftedPlane,
  squareFreePlane,
} from './planePolynomials'
import { toPlain } from '../language/print'

const math = create(all!)

const treeOf = (text: string) => {
  const parsed = parseFormula(text, { variable: 'x', names: ['y'] })
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return parsed.tree
}
const read = (text: string): PlanePolynomial => {
  const found = planeFraction(treeOf(text), ['x', 'y'])
  if (!found) throw new Error(`${text} is none`)
  return found.above
}
const said = (p: PlanePolynomial) => toPlain(planeTree(p, ['x', 'y']))

/** Polynomials of low degree with small coefficients, 0 left out. */
const polynomial: fc.Arbitrary<PlanePolynomial> = fc
  .array(
    fc.record({
      c: fc.integer({ min: -4, max: 4 }).filter((c) => c !== 0),
      i: fc.nat(2),
      j: fc.nat(2),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map((terms) => read(terms.map(({ c, i, j }) => `(${c})*x^${i}*y^${j}`).join(' + ')))
  .filter((p) => p.length > 0)

test.each([
  ['(x + y)^2 / (1 + x^2)', '(x + y)^2', '1 + x^2'],
  ['x/(y - 1) + 1/x', 'x^2 + y - 1', '(y - 1)*x'],
  ['0.5 x y^2 - 1/3', '3*x*y^2 - 2', '6'],
  ['2 x e^(-x^2 - y^2) - 2 x (x^2 + y^2) e^(-x^2) e^(-y^2)', '2*x - 2*x*(x^2 + y^2)', '1'],
  ['(x - 1)^-2', '1', '(x - 1)^2'],
])('%s is a quotient of polynomials, as mathjs has it', (text, above, below) => {
  const found = planeFraction(treeOf(text), ['x', 'y'])!
  const factors = (
    [
      [3n, 4n],
      [-7n, 5n],
      [11n, -4n],
    ] as const
  ).map(([n, m]) => {
    const [x, y] = [rational(n, 2n), rational(m, 3n)]
    const scope = { x: toNumber(x), y: toNumber(y) }
    const ours = [found.above, found.below].map((p) => toNumber(planeValue(p, x, y)))
    const theirs = [above, below].map((p) => math.evaluate(p, scope) as number)
    return ours[0]! / ours[1]! / (theirs[0]! / theirs[1]!)
  })
  // But for one positive factor.
  expect(factors[0]).toBeGreaterThan(0)
  for (const factor of factors) expect(factor / factors[0]!).toBeCloseTo(1, 10)
})

test.each(['sin(x) y', 'e^x + y', '√2 x', 'π x y', '|x|', 'x^y', 'e^x + e^y', 'x^40'])(
  '%s is none',
  (text) => expect(planeFraction(treeOf(text), ['x', 'y'])).toBeNull(),
)

test('what two polynomials share is found whole, and nothing else', () => {
  fc.assert(
    fc.property(polynomial, polynomial, polynomial, (a, b, g) => {
      const [p, q] = [multiplyPlane(a, g), multiplyPlane(b, g)]
      const common = commonPlaneFactor(p, q)
      for (const one of [p, q]) {
        expect(multiplyPlane(planeQuotient(one, common), common)).toEqual(one)
      }
      // All of g is in it, apart from whole numbers.
      const shared = commonPlaneFactor(common, g)
      const whole = commonPlaneFactor(g, g)
      const same = [shared, shared.map((row) => row.map((c) => -c))].map(said)
      expect(same).toContain(said(whole))
      // And what is left shares nothing.
      const rest = commonPlaneFactor(planeQuotient(p, common), planeQuotient(q, common))
      expect(rest.length <= 1 && rest[0]!.length === 1).toBe(true)
    }),
    { numRuns: 300 },
  )
})

test('each factor once', () => {
  for (const [text, once] of [
    ['x^3 y^2', 'x y'],
    ['(x - y)^2 (x + y)', 'x² − y²'],
    ['(x^2 + y^2 - 1)^3', 'x² + y² − 1'],
    ['x^2 + y^2', 'x² + y²'],
    ['(2x - 1)^2', '2x − 1'],
  ] as const) {
    const found = squareFreePlane(read(text))
    expect([said(found), said(found.map((row) => row.map((c) => -c)))]).toContain(once)
  }
})

test('moved to a place it has the same values there', () => {
  const part = fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: 1, max: 10 }))
  fc.assert(
    fc.property(polynomial, part, part, (p, [a, b], [c, d]) => {
      const [x0, y0] = [rational(BigInt(a), BigInt(b)), rational(BigInt(c), BigInt(d))]
      const moved = shiftedPlane(p, x0, y0)
      const at = (u: bigint, v: bigint) => {
        const x = rational(x0.n + u * x0.d, x0.d)
        const y = rational(y0.n + v * y0.d, y0.d)
        return [planeValue(p, x, y), planeValue(moved, rational(u), rational(v))] as const
      }
      // By one positive factor everywhere.
      const [first, second] = [at(1n, 2n), at(-3n, 1n)]
      const cross = first[0].n * second[1].n * first[1].d * second[0].d
      expect(cross).toBe(second[0].n * first[1].n * second[1].d * first[0].d)
      expect(Math.sign(Number(first[0].n))).toBe(Math.sign(Number(first[1].n)))
    }),
  )
})
