import fc from 'fast-check'
import { examine, solve } from '..'
import { read, xs } from './fixtures/testing'

test('polynomials from known roots: every root and no other', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: -30, max: 30 }), { minLength: 1, maxLength: 6 }),
      (roots) => {
        const f = read(roots.map((r) => `(x - (${r}/8))`).join(''))
        const found = solve(f, 0, -4, 4)
        expect(found.complete).toBe(true)
        expect(xs(found.solutions)).toEqual([...roots].sort((a, b) => a - b).map((r) => r / 8))
      },
    ),
    { numRuns: 150 },
  )
})

test('products of sines have the zeros of their factors', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }), (a, b) => {
      const found = solve(read(`sin(${a}x) e^x cos(${b}x)`), 0, 0.05, 3)
      const zeros = [
        ...Array.from({ length: 30 }, (_, k) => (k * Math.PI) / a),
        ...Array.from({ length: 30 }, (_, k) => ((k + 0.5) * Math.PI) / b),
      ].filter((x) => x > 0.05 && x < 3)
      const apart = [...new Set(zeros.map((x) => x.toFixed(9)))].map(Number).sort((p, q) => p - q)
      expect(xs(found.solutions)).toEqual(apart.map((x) => expect.closeTo(x, 8)))
    }),
    { numRuns: 60 },
  )
})

describe('sums of sines and cosines, where zeros touch at multiples of π', () => {
  // Worked by hand: each is a product of squares and cubes in the half angle.
  test.each([
    ['sin x + cos(2x)', 0, 6, [Math.PI / 2, (7 * Math.PI) / 6, (11 * Math.PI) / 6]],
    ['2sin x + sin(2x)', 1, 5, [Math.PI]],
    ['cos(3x) + 3cos x', 0, 6, [Math.PI / 2, (3 * Math.PI) / 2]],
    ['1 + sin x', 0, 6, [(3 * Math.PI) / 2]],
    ['3 - 4cos(2x) + cos(4x)', 1, 5, [Math.PI]],
  ] as [string, number, number, number[]][])('%s', (text, from, to, expected) => {
    const { zeros, complete } = examine(read(text), from, to)
    expect(complete).toBe(true)
    expect(xs(zeros)).toEqual(expected.map((x) => expect.closeTo(x, 12)))
  })
})

describe('classical equations', () => {
  // From memory; the first is also OEIS A003957 (Dottie), the second A030178 (Omega constant).
  test.each([
    ['cos x', 'x', 0, 1, [0.7390851332151607]],
    ['x e^x', '1', 0, 1, [0.5671432904097838]],
    ['x - 0.2 sin x', '0.8', 0, 2, [0.9643338876952229]],
    ['x^3 - 2x - 5', '0', 1, 3, [2.0945514815423265]],
    ['e^x', 'x^2', -2, 1, [-0.7034674224983917]],
    ['x^2', '2^x', -1, 5, [-0.7666646959621231, 2, 4]],
  ])('%s = %s', (left, right, from, to, expected) => {
    const found = solve(read(left), read(right), from, to)
    expect(found.complete).toBe(true)
    expect(xs(found.solutions)).toEqual(expected.map((x) => expect.closeTo(x, 13)))
  })

  test('a level that is touched is one solution, a stretch is told as one', () => {
    expect(solve(read('x^2 - 4x'), -4, 0, 5)).toMatchObject({
      complete: true,
      solutions: [{ x: 2, value: -4 }],
    })
    expect(solve(read('x^2 - 4x'), -4.000001, 0, 5).solutions).toEqual([])
    expect(solve(read('max(0, x)'), 0, -2, 2)).toMatchObject({ stretches: [[-2, 0]] })
    expect(solve(read('6 + 4 sin(0.9x) - 0.3x'), 8, 0, 10).solutions.length).toBe(2)
    expect(solve(read('x'), 1, 3, -3).solutions).toMatchObject([{ x: 1 }])
    expect(() => solve(read('x'), 1, 2, 2)).toThrow(RangeError)
    expect(() => solve(read('x'), NaN, 0, 2)).toThrow(RangeError)
    expect(() => examine(read('x'), 0, Infinity)).toThrow('a span needs two different finite ends')
  })
})

describe('roots as factors, by the worked solutions of calculus texts', () => {
  // Stewart, Calculus, on curves such as x^(2/3)(6 - x)^(1/3), from memory; the rest by hand. The
  // inflections of x^(4/5)(x - 4)²: mpmath's findroot on diff(f, x, 2).
  test.each([
    ['x^(2/3)(6-x)^(1/3)', -1, 7, [0, 4, 6], [0, 4], [6]],
    ['x^(1/3)(x-4)', -1.5, 6, [0, 1], [1], [0]],
    ['x^(2/3)(x-5)', -2, 6, [0, 2], [0, 2], [-1]],
    [
      'x^(4/5)(x-4)^2',
      -1,
      5,
      [0, 8 / 7, 4],
      [0, 8 / 7, 4],
      [-0.20401291654580483, 2.4897272022600907],
    ],
    ['sqrt(x)(x-3)', 0, 4, [1], [1], []],
    ['ln(sin x)', 0.1, 3, [Math.PI / 2], [Math.PI / 2], []],
  ])('%s', (formula, from, to, critical, turning, inflections) => {
    const found = examine(read(formula), from, to)
    expect(found.complete).toBe(true)
    expect(xs(found.criticalPoints)).toEqual(critical.map((x) => expect.closeTo(x, 8)))
    expect(xs(found.turningPoints)).toEqual(turning.map((x) => expect.closeTo(x, 8)))
    expect(xs(found.inflections)).toEqual(inflections.map((x) => expect.closeTo(x, 8)))
  })
})
