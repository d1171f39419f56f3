import fc from 'fast-check'
import { all, create } from 'mathjs'
import { planeFraction } from '../algebra/planeNumerator'
import { rational } from '../arithmetic/rational'
import { parseFormula } from '../calculus/parseFormula'
import { finish } from '../features/budget'
import { endsOf, surfaceExtremes } from './extremes'
import { extremeByValues } from './extremesByValues'
import { lowestTerms } from './lowestTerms'
import { stationaryPoints } from './stationary'
import { planeSurface } from './zeroCurve'
import { compileSurface, type RealSurface, type Rectangle } from './surface'

const math = create(all!)

function surface(text: string): RealSurface {
  const parsed = parseFormula(text, { variable: 'x', names: ['y'] })
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compileSurface(parsed.tree, ['x', 'y'])
}
const square = (r: number): Rectangle => ({ x: { lo: -r, hi: r }, y: { lo: -r, hi: r } })
const searched = (text: string, within = square(2)) => {
  const f = surface(text)
  const points = finish(stationaryPoints(f, within))
  return { points, extremes: finish(surfaceExtremes(f, within, endsOf(within), points)) }
}

// Worked by hand; (y − x²)(y − 2x²) is G. Peano's example of 1884 (from memory): a minimum along every
// line through the origin, and none. The monkey saddle is in any text on surfaces.
test.each([
  ['x^4 + y^4', 'minimum'],
  ['-x^4 - y^4', 'maximum'],
  ['x^4 - y^4', 'saddle'],
  ['x^3 - 3 x y^2', 'saddle'],
  ['x^3 + y^3', 'saddle'],
  ['x^2 + y^4', 'minimum'],
  ['x^2 + y^3', 'saddle'],
  ['x^5 - x y^4', 'saddle'],
  ['(y - x^2)(y - 2x^2)', 'saddle'],
  ['x^4 - x^2 y^2 + y^4', 'minimum'],
  ['x^4 - 3 x^2 y^2 + y^4', 'saddle'],
  ['(x^2 + y^4)/(1 + x^2 y^2)', 'minimum'],
  ['(x^4 + y^4) e^(-x - y)', 'minimum'],
] as const)('where the second derivative test says nothing: %s, %s', (text, kind) => {
  const { points } = searched(text, square(0.4))
  expect(points.points.find(({ x, y }) => x === 0 && y === 0)?.kind).toBe(kind)
  expect(points.complete).toBe(true)
})

test('lowest terms that are 0 along a curve decide nothing', () => {
  for (const text of ['(y - x^2)^2 + x^5', 'x^2 y^2', 'x^2']) {
    const { tree, letters } = surface(text)
    const found = lowestTerms(planeFraction(tree, letters)!, rational(0n), rational(0n))
    expect({ text, sign: found?.sign }).toEqual({ text, sign: 'open' })
  }
})

test('a point of four figures off the middle is judged in its own terms', () => {
  const { points } = searched('(x - 0.3)^4 + (y + 1.25)^2 + 7')
  expect(points.points).toMatchObject([{ x: 0.3, y: -1.25, kind: 'minimum', proven: true }])
})

test('what the lowest terms say holds close by', () => {
  const term = fc.record({
    c: fc.integer({ min: -3, max: 3 }),
    i: fc.nat(4),
    j: fc.nat(4),
  })
  const seen = new Set<string>()
  fc.assert(
    fc.property(fc.array(term, { minLength: 1, maxLength: 5 }), (terms) => {
      const text = terms.map(({ c, i, j }) => `(${c})*x^${i}*y^${j}`).join(' + ')
      const f = surface(text)
      const found = lowestTerms(planeFraction(f.tree, f.letters)!, rational(0n), rational(0n))!
      seen.add(found.sign)
      const theirs = math.parse(text).compile()
      const base = theirs.evaluate({ x: 0, y: 0 }) as number
      const signs = new Set<number>()
      // Powers of two, so that the values are exact.
      for (const p of [4, 8, 16]) {
        for (const q of [4, 6, 12]) {
          for (const [a, b] of [
            [1, 1],
            [-1, 1],
            [1, -1],
            [-1, -1],
            [1, 0],
            [-1, 0],
            [0, 1],
            [0, -1],
          ] as const) {
            const at = { x: a * 2 ** -p, y: b * 2 ** -q }
            signs.add(Math.sign((theirs.evaluate(at) as number) - base))
          }
        }
      }
      if (found.sign === 'positive') expect([...signs]).toEqual([1])
      if (found.sign === 'negative') expect([...signs]).toEqual([-1])
      if (signs.has(1) && signs.has(-1)) expect(['both', 'open']).toContain(found.sign)
    }),
    { numRuns: 200, seed: 20 },
  )
  expect(seen.size).toBeGreaterThan(2)
})

// By hand: ∇f = 0 exactly where the formula in the third column is 0, and at the points named besides.
test.each([
  ['x^2 y^2', 'x*y', []],
  ['(x - y)^2', 'x - y', []],
  ['(x - y)^3', 'x - y', []],
  ['(x^2 + y^2 - 1)^2', 'x^2 + y^2 - 1', [[0, 0]]],
  ['(x^2 + y^2) e^(-x^2 - y^2)', 'x^2 + y^2 - 1', [[0, 0]]],
  ['x^2/(1 + y^2)', 'x', []],
  ['x^2 y', 'x', []],
  ['e^(-(x - 2y)^2)', 'x - 2*y', []],
  // A factor that is 0 at one point alone, on a line of such points.
  ['x^2 (x^2 + y^2)^2', 'x', []],
  // Only one of the two factors is 0 on the rectangle.
  ['x^2 (y - 9)^2', 'x', []],
  // The shared factor is 0 at one point alone, or nowhere.
  ['(x^2 + y^2)^2', null, [[0, 0]]],
  ['(x^2 + y^2 + 1)^2', null, [[0, 0]]],
  ['(x^2 + 1)^3', null, null],
] as const)('critical points of %s fill a curve or not', (text, curve, beside) => {
  const { points } = searched(text)
  expect(points.complete).toBe(true)
  // A worker sends it to the page.
  expect(structuredClone(points)).toEqual(points)
  if (beside) expect(points.points.map(({ x, y }) => [x, y])).toEqual(beside)
  if (beside === null) return
  if (curve === null) {
    expect(points.curve).toBeNull()
    return
  }
  const found = points.curve
  if (!found || found === 'everywhere') throw new Error('a curve is expected')
  expect(found.isThere).toBe(true)
  const theirs = math.parse(curve).compile()
  // The same zeros: the quotient of the two formulas does not vary in sign, and both are 0 together.
  const off = surface(text)
  const drawn = planeSurface(found.polynomial, ['x', 'y'])
  for (let i = 0; i <= 40; i++) {
    for (let j = 0; j <= 40; j++) {
      const [x, y] = [-2 + i / 10, -2 + j / 10]
      const isZero = Math.abs(theirs.evaluate({ x, y }) as number) < 1e-12
      const ours = Math.abs(drawn.value(x, y)) < 1e-12
      if (isZero) {
        expect({ x, y, ours }).toEqual({ x, y, ours: true })
        expect(Math.abs(off.partial(1, 0).value(x, y))).toBeLessThan(1e-9)
        expect(Math.abs(off.partial(0, 1).value(x, y))).toBeLessThan(1e-9)
      }
    }
  }
})

test('a closed curve inside is not missed among the candidates, and a constant is one everywhere', () => {
  // By hand: on the circle x² + y² = 1 the value is 0, the least; in its middle 1, at the corners 49.
  const ring = searched('(x^2 + y^2 - 1)^2').extremes
  expect(ring.complete).toBe(true)
  expect(ring.lowest.every(({ z, onCurve }) => z === 0 && onCurve)).toBe(true)
  expect(ring.highest).toMatchObject([{ z: 49 }, { z: 49 }, { z: 49 }, { z: 49 }])
  // A small circle far from the border, on a surface whose border is higher.
  const small = searched('((x - 0.3)^2 + y^2 - 0.01)^2').extremes
  expect(small.lowest.every(({ z, onCurve }) => Math.abs(z) < 1e-15 && onCurve)).toBe(true)
  expect(small.lowest.length).toBeGreaterThan(0)
  const level = searched('0 x + 3')
  expect(level.points).toMatchObject({ curve: 'everywhere', complete: true })
  expect(level.extremes.highest[0]?.z).toBe(3)
})

test('what no digits tell apart is not said to be equal to the last one', () => {
  // sin² is 0 at −π, 0 and π: the first and the last are not known exactly.
  const { extremes } = searched('sin(x)^2 + y^2', square(4))
  expect(extremes.lowest.find(({ x }) => x === 0)).toMatchObject({ z: 0, isFraction: true })
  expect(extremes.lowest.filter(({ x }) => x !== 0).every(({ isFraction }) => !isFraction)).toBe(
    true,
  )
})

// By hand. On the last two the value is taken along whole lines.
test.each([
  ['|x| + |y|', 0, [[0, 0]], 4],
  ['√(x^2 + y^2)', 0, [[0, 0]], null],
  [
    '|x| - |y|',
    -2,
    [
      [0, -2],
      [0, 2],
    ],
    2,
  ],
  ['|x - y| + x^2', 0, [[0, 0]], 8],
  ['|x - 0.1| + |y - 0.3| + 0.7', 0.7, [[0.1, 0.3]], null],
  ['cbrt(x^2 + y^2)', 0, [[0, 0]], 2],
  ['|x y|', 0, null, 4],
  ['max(x, y)', -2, [[-2, -2]], 2],
] as const)('folds hide no extreme: %s', (text, least, places, greatest) => {
  const { points, extremes } = searched(text)
  expect(points.rough).toBe(true)
  expect(extremes.complete).toBe(true)
  expect(extremes.lowest[0]!.z).toBe(least)
  if (greatest !== null) expect(extremes.highest[0]!.z).toBe(greatest)
  expect(extremes.many.lowest).toBe(places === null)
  if (places) expect(extremes.lowest.map(({ x, y }) => [x, y])).toEqual(places)
})

test('where a surface jumps or lacks values its extremes are not told', () => {
  for (const text of ['floor(x) + y^2', '√(1 - x^2 - y^2)', '1/(|x| + |y|)']) {
    expect({ text, complete: searched(text).extremes.complete }).toEqual({ text, complete: false })
  }
})

test('random folds: nothing on a grid lies beyond what is told, and it is taken where it is told', () => {
  const part = fc.record({
    a: fc.integer({ min: -3, max: 3 }),
    b: fc.integer({ min: -3, max: 3 }),
    c: fc.integer({ min: -2, max: 2 }),
    k: fc.constantFrom(-1, 1, 2),
  })
  let told = 0
  fc.assert(
    fc.property(fc.array(part, { minLength: 1, maxLength: 3 }), (parts) => {
      const text = parts
        .map(({ a, b, c, k }) => `(${k})*abs((${a})*x + (${b})*y + (${c}))`)
        .join(' + ')
      const [low, high] = ([1, -1] as const).map((sign) =>
        finish(extremeByValues(surface(text), square(2), sign)),
      )
      if (!low || !high) return
      told += 1
      const theirs = math.parse(text).compile()
      const at = (x: number, y: number) => theirs.evaluate({ x, y }) as number
      const grid = Array.from({ length: 441 }, (_, i) =>
        at(-2 + (i % 21) / 5, -2 + Math.floor(i / 21) / 5),
      )
      expect(Math.min(...grid)).toBeGreaterThanOrEqual(low.places[0]!.z - 1e-9)
      expect(Math.max(...grid)).toBeLessThanOrEqual(high.places[0]!.z + 1e-9)
      for (const { x, y, z } of [...low.places, ...high.places]) {
        expect(at(x, y)).toBeCloseTo(z, 8)
      }
    }),
    { numRuns: 20, seed: 3 },
  )
  expect(told).toBeGreaterThan(10)
})
