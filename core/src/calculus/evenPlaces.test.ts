import fc from 'fast-check'
import { compile, parseFormula } from '..'
import { rationalFromDecimal, toNumber } from '../arithmetic/rational'
import { evenPlaces } from './evenPlaces'
import { riemannSum, riemannTotal } from './riemann'

function read(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compile(parsed.tree)
}

test('each place is the double nearest to the exact one, by arithmetic with fractions', () => {
  const decimal = fc.tuple(fc.integer({ min: -500, max: 500 }), fc.constantFrom(1, 10, 100))
  fc.assert(
    fc.property(
      decimal,
      decimal,
      fc.integer({ min: 1, max: 200 }),
      fc.constantFrom(0, 0.25, 0.5, 1),
      (p, q, count, position) => {
        const [from, to] = [p[0] / p[1], q[0] / q[1]]
        const { at, exactly } = evenPlaces(from, to, count, position)
        const [a, b, s] = [from, to, position].map((v) => rationalFromDecimal(String(v)))
        for (let i = 0; i < count; i++) {
          // a + (b − a)(i + s)/count, with whole numbers above and below.
          const [n, d] = [b!.n * a!.d - a!.n * b!.d, a!.d * b!.d]
          const above = a!.n * d * s!.d * BigInt(count) + n * a!.d * (BigInt(i) * s!.d + s!.n)
          const exact = { n: above, d: a!.d * d * s!.d * BigInt(count) }
          expect(at(i)).toBe(toNumber(exact) + 0)
          const found = exactly(i)!
          if (found.kind !== 'number') throw new Error('no fraction')
          expect(found.exact.n * exact.d).toBe(exact.n * found.exact.d)
        }
      },
    ),
  )
})

// By hand, with the value at 0 exactly.
test.each([
  ['floor(x)', -1, 1, 3, -2 / 3],
  ['sgn(x)', -1, 1, 5, 0],
  ['floor(10x)', 0, 0.6, 6, 1.5],
])('%s on [%d, %d] with %d strips read in the middle is %d', (text, from, to, count, sum) => {
  const options = { from, to, count, rule: 'midpoint' as const }
  expect(riemannSum(read(text), options).sum).toBeCloseTo(sum, 12)
  expect(riemannTotal(read(text), options)).toBeCloseTo(sum, 12)
})

test.each(['ln|x|', '1/x', '1/x^2'])('%s has no value at 0: no sum is told', (text) => {
  const options = { from: -1, to: 1, count: 5, rule: 'midpoint' as const }
  expect(riemannSum(read(text), options).sum).toBeNaN()
  expect(riemannTotal(read(text), options)).toBeNaN()
})
test('ceil(10x) over [0, 0.6] by 12 strips, read at the right, steps where the decimals do', () => {
  // Right ends 0.05 to 0.6: ceil(0.5) = 1, ceil(1) = 1, … two of each from 1 to 6, times 0.05.
  const sum = 2 * (1 + 2 + 3 + 4 + 5 + 6) * 0.05
  const options = { from: 0, to: 0.6, count: 12, rule: 'right' as const }
  expect(riemannSum(read('ceil(10x)'), options).sum).toBeCloseTo(sum, 12)
})
