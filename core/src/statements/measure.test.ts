import { toldLast } from './fixtures/testing'

const sizeOf = (start: string, words: string) => toldLast(start, words).readouts[0]!.value!

// Worked examples of Stewart, Calculus, and OpenStax, Calculus Volume 2, from memory; the closed
// forms were worked again by hand.
test.each([
  ['f(x) = x^(3/2) for 0 <= x <= 4', 'arc length', (8 / 27) * (10 * Math.sqrt(10) - 1)],
  ['f(x) = cosh x for 0 <= x <= 1', 'length', Math.sinh(1)],
  ['f(x) = ln(cos x) for 0 <= x <= 1', 'length', Math.log(1 / Math.cos(1) + Math.tan(1))],
  // A quarter of a circle: infinite slopes at its end.
  ['f(x) = √(1 - x^2) for 0 <= x <= 1', 'length', Math.PI / 2],
  // A kink does not end a curve.
  ['f(x) = |x| for -1 <= x <= 1', 'length', 2 * Math.SQRT2],
  ['f(x) = √x for 0 <= x <= 4', 'volume of revolution', 8 * Math.PI],
  ['f(x) = √(1 - x^2) for -1 <= x <= 1', 'volume about the x-axis', (4 / 3) * Math.PI],
  ['f(x) = 2x^2 - x^3 for 0 <= x <= 2', 'volume about the y-axis', (16 / 5) * Math.PI],
  ['f(x) = x^3 for 0 <= x <= 2', 'surface area', (Math.PI / 27) * (145 ** 1.5 - 1)],
  ['f(x) = √(4 - x^2) for -1 <= x <= 1', 'surface of revolution', 8 * Math.PI],
])('%s: %s', (start, words, size) => {
  expect(sizeOf(start, words)).toBeCloseTo(size, 9)
})

test('an exact form where one is proven', () => {
  expect(toldLast('f(x) = √x for 0 <= x <= 4', 'volume').readouts[0]!.text).toContain('25.133')
})

test('what is broken has no length, and the way out is told', () => {
  const { problems, readouts } = toldLast('f(x) = floor x for 0 <= x <= 3', 'length')
  expect(readouts).toEqual([])
  expect(problems[0]!.message).toMatch(/broken at x = 1/)
  expect(problems[0]!.fix).toBe('choose a span without the break')
})

test('a length without bound, and a solid without bound, are none', () => {
  const length = toldLast('f(x) = 1/x for 0 <= x <= 1', 'length')
  expect(length.readouts).toEqual([])
  expect(length.problems[0]!.message).toMatch(/broken|without bound/)
  const solid = toldLast('f(x) = 1/x for 0 <= x <= 1', 'volume')
  expect(solid.problems[0]!.message).toMatch(/grows without bound/)
  // ∫ π x^(−2/3) dx over [0, 1] is 3π, though the curve has a pole at the end.
  expect(sizeOf('f(x) = x^(-1/3) for 0 <= x <= 1', 'volume')).toBeCloseTo(3 * Math.PI, 6)
})

test('both sides of the axis do not turn into each other', () => {
  const { problems } = toldLast('f(x) = x^2 + 1 for -1 <= x <= 1', 'volume about the y-axis')
  expect(problems[0]!.fix).toBe('choose a span on one side of x = 0')
})
