import fc from 'fast-check'
import { fitPolynomial, fitShape } from '..'

const places = Array.from({ length: 21 }, (_, i) => i)
const polynomial = (coefficients: readonly number[]) => (x: number) =>
  coefficients.reduceRight((value, c) => value * x + c, 0)

describe('Wampler’s problems', () => {
  // NIST StRD, linear regression, sets Wampler1 to Wampler3; definitions and data from memory.
  test.each([
    ['Wampler1', [1, 1, 1, 1, 1, 1]],
    ['Wampler2', [1, 0.1, 0.01, 0.001, 0.0001, 0.00001]],
  ])('%s: every coefficient to 1e-7', (_, certified) => {
    const { coefficients, rSquared } = fitPolynomial(places, places.map(polynomial(certified)), 5)
    coefficients.forEach((c, k) => {
      expect(Math.abs(c / certified[k]! - 1)).toBeLessThan(1e-7)
    })
    expect(rSquared).toBeCloseTo(1, 12)
  })
  test('Wampler3: readings that stray, and the certified R² 0.999995559025820', () => {
    const readings = [
      760, -2042, 2111, -1684, 3888, 1858, 11379, 17560, 39287, 64382, 113159, 175108, 273291,
      400186, 581243, 811568, 1121004, 1506550, 2002767, 2611612, 3369180,
    ]
    const { coefficients, rSquared, residuals } = fitPolynomial(places, readings, 5)
    for (const c of coefficients) expect(Math.abs(c - 1)).toBeLessThan(1e-7)
    expect(rSquared).toBeCloseTo(0.99999555902582, 12)
    expect(Math.abs(residuals.reduce((a, b) => a + b))).toBeLessThan(1e-6)
  })
})

test('a polynomial of its degree is found again, and residuals are left over', () => {
  const coefficient = fc.double({ min: -5, max: 5, noNaN: true })
  fc.assert(
    fc.property(fc.array(coefficient, { minLength: 1, maxLength: 5 }), (made) => {
      const xs = Array.from({ length: 12 }, (_, i) => -2 + i / 3)
      const ys = xs.map(polynomial(made))
      const { coefficients, residuals } = fitPolynomial(xs, ys, made.length - 1)
      coefficients.forEach((c, k) => expect(c).toBeCloseTo(made[k]!, 9))
      residuals.forEach((r) => expect(Math.abs(r)).toBeLessThan(1e-10))
    }),
    { numRuns: 100, seed: 31 },
  )
})

test('the line through readings, by the formulas of any statistics text (common practice)', () => {
  const [xs, ys] = [
    [1, 2, 4, 7],
    [3, 5, 4, 9],
  ]
  const mean = (all: number[]) => all.reduce((a, b) => a + b) / all.length
  const [mx, my] = [mean(xs), mean(ys)]
  const slope =
    xs.reduce((s, x, i) => s + (x - mx) * (ys[i]! - my), 0) /
    xs.reduce((s, x) => s + (x - mx) ** 2, 0)
  const { coefficients } = fitPolynomial(xs, ys, 1)
  expect(coefficients[1]).toBeCloseTo(slope, 12)
  expect(coefficients[0]).toBeCloseTo(my - slope * mx, 12)
})

test('what cannot be fitted throws, and says what is wrong', () => {
  expect(() => fitPolynomial([1, 1], [2, 3], 1)).toThrow(/2 different places, and there are 1/)
  expect(() => fitPolynomial([1, NaN, 3], [2, 3, 4], 1)).toThrow(/reading 2/)
  expect(() => fitPolynomial([1, 2], [2, 3], 1.5)).toThrow(/1\.5/)
  expect(() => fitShape([1, 2, 3], [1, -2, 3], 'exponential')).toThrow(/keeps its sign/)
  expect(() => fitShape([0, 2, 3], [1, 2, 3], 'power')).toThrow(/above 0/)
})

describe('shapes that are no polynomials', () => {
  const xs = Array.from({ length: 20 }, (_, i) => 0.5 + i / 2)
  test('an exponential', () => {
    const { parameters, rSquared, doubt } = fitShape(
      xs,
      xs.map((x) => 3 * Math.exp(-0.4 * x)),
      'exponential',
    )
    expect(parameters[0]).toBeCloseTo(3, 9)
    expect(parameters[1]).toBeCloseTo(-0.4, 9)
    expect(rSquared).toBeCloseTo(1, 9)
    expect(doubt).toBeNull()
  })
  test('a power', () => {
    const { parameters } = fitShape(
      xs,
      xs.map((x) => 2 * x ** 1.7),
      'power',
    )
    expect(parameters[0]).toBeCloseTo(2, 9)
    expect(parameters[1]).toBeCloseTo(1.7, 9)
  })
  test('a wave, its frequency found without a hint', () => {
    const { parameters, doubt } = fitShape(
      xs,
      xs.map((x) => 6 + 4 * Math.sin(0.9 * x + 0.5)),
      'sine',
    )
    const [a, b, c, d] = parameters as [number, number, number, number]
    for (const x of xs)
      expect(a * Math.sin(b * x + c) + d).toBeCloseTo(6 + 4 * Math.sin(0.9 * x + 0.5), 8)
    expect(Math.abs(b)).toBeCloseTo(0.9, 8)
    expect(doubt).toBeNull()
  })
  test('a fit that is not to be trusted says so', () => {
    const scattered = xs.map((_, i) => 5 + ((i * 7919) % 11))
    expect(fitShape(xs, scattered, 'power').doubt).toMatch(/do not follow/)
    const short = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6]
    expect(
      fitShape(
        short,
        short.map((x) => Math.sin(x)),
        'sine',
      ).doubt,
    ).toMatch(/less than half a wave/)
  })
})
