import fc from 'fast-check'
import {
  accumulate,
  areaBetween,
  areaUnder,
  averageValue,
  compile,
  countByBound,
  examine,
  fittedOrder,
  integrate,
  measuredStrips,
  overShort,
  parseFormula,
  readingsProblem,
  type RealFunction,
  riemannSum,
  countsKept,
  sumErrorBound,
  type SumRule,
  sumRules,
  usualOrder,
} from '..'
import { riemannTotal } from './riemann'

function read(text: string): RealFunction {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return compile(parsed.tree)
}
const sum = (text: string, from: number, to: number, count: number, rule: SumRule) =>
  riemannSum(read(text), { from, to, count, rule }).sum

describe('worked examples', () => {
  // ∫ x³ − 6x from 0 to 3 with 6 strips, right ends: −3.9375 (Stewart, Calculus, section on the
  // definite integral, from memory); the others worked by hand.
  test.each([
    ['x^3 - 6x', 0, 3, 6, 'right', -3.9375],
    ['x^2', 0, 1, 4, 'left', 7 / 32],
    ['x^2', 0, 1, 4, 'right', 15 / 32],
    ['x^2', 0, 1, 4, 'midpoint', 21 / 64],
    ['x^2', 0, 1, 4, 'trapezoid', 11 / 32],
    ['x^2', 0, 1, 4, 'simpson', 1 / 3],
    ['x^2', -1, 1, 2, 'lower', 0],
    ['x^2', -1, 1, 1, 'upper', 2],
    ['x^2', -1, 1, 1, 'lower', 0],
    ['1/x', 1, 2, 5, 'midpoint', 0.6919078857159353],
    ['1/x', 1, 2, 5, 'trapezoid', 0.6956349206349206],
    ['x', 0, 1, 1, { position: 0.25 }, 0.25],
    ['floor x', 0, 3, 3, 'upper', 6],
    ['floor x', 0, 3, 3, 'lower', 3],
    ['x', 3, 1, 4, 'midpoint', -4],
  ] as [string, number, number, number, SumRule, number][])(
    '%s on [%d, %d], %d strips, %j: %d',
    (formula, from, to, count, rule, expected) => {
      expect(sum(formula, from, to, count, rule)).toBeCloseTo(expected, 12)
    },
  )
  test('each strip says where it stands, what it read and what it holds', () => {
    const { strips } = riemannSum(read('x^2'), { from: 0, to: 2, count: 4, rule: 'right' })
    expect(strips[1]).toEqual({ from: 0.5, to: 1, sample: 1, height: 1, area: 0.5 })
    expect(strips).toHaveLength(4)
    expect(strips.at(-1)!.to).toBe(2)
  })
})

test('what cannot be strips throws, and names what is wrong', () => {
  const f = read('x')
  const make = (count: number, rule: SumRule) => () =>
    riemannSum(f, { from: 0, to: 1, count, rule })
  expect(make(3, 'simpson')).toThrow(/even count: 3/)
  expect(make(0, 'left')).toThrow(RangeError)
  expect(make(2.5, 'left')).toThrow(/2\.5/)
  expect(make(2, { position: 1.5 })).toThrow(/1\.5/)
  expect(make(2, 'middle' as SumRule)).toThrow(/middle/)
})

describe('properties', () => {
  const counts = fc.integer({ min: 1, max: 60 })
  const shape = fc.record({
    a: fc.integer({ min: -4, max: 4 }),
    b: fc.integer({ min: -4, max: 4 }),
    c: fc.integer({ min: 1, max: 5 }),
  })
  const text = ({ a, b, c }: { a: number; b: number; c: number }) =>
    `${a} sin(${c}x) + ${b} x + |x - 1|`
  test('lower ≤ exact ≤ upper, and every position lies between', () => {
    fc.assert(
      fc.property(shape, counts, fc.double({ min: 0, max: 1, noNaN: true }), (s, n, position) => {
        const formula = text(s)
        const { value } = integrate(read(formula), -1, 3)
        const slack = 1e-9 * Math.max(1, Math.abs(value))
        const [low, high] = [sum(formula, -1, 3, n, 'lower'), sum(formula, -1, 3, n, 'upper')]
        const between = sum(formula, -1, 3, n, { position })
        expect(low).toBeLessThanOrEqual(value + slack)
        expect(value).toBeLessThanOrEqual(high + slack)
        expect(low - slack <= between && between <= high + slack).toBe(true)
      }),
      { numRuns: 80, seed: 21 },
    )
  })
  test('the trapezoid sum is the mean of left and right; Simpson mixes midpoint and trapezoid', () => {
    fc.assert(
      fc.property(shape, counts, (s, n) => {
        const formula = text(s)
        const [l, r, t, m] = (['left', 'right', 'trapezoid', 'midpoint'] as const).map((rule) =>
          sum(formula, 0, 3, n, rule),
        ) as [number, number, number, number]
        expect(t).toBeCloseTo((l + r) / 2, 10)
        expect(sum(formula, 0, 3, 2 * n, 'simpson')).toBeCloseTo((2 * m + t) / 3, 10)
      }),
      { numRuns: 60, seed: 22 },
    )
  })
  test('for a falling f the left sum is over and the right one short', () => {
    const f = 'e^(-x) - x/3'
    const { value } = integrate(read(f), 0, 4)
    for (const n of [1, 2, 7, 50, 1000]) {
      expect(sum(f, 0, 4, n, 'left')).toBeGreaterThan(value)
      expect(sum(f, 0, 4, n, 'right')).toBeLessThan(value)
    }
  })
  test('100,000 strips lose nothing to rounding', () => {
    // Σ (i/n)/n for i from 0 to n − 1 is (n − 1)/2n.
    const n = 100_000
    expect(sum('x', 0, 1, n, 'left')).toBeCloseTo((n - 1) / (2 * n), 15)
  })
})

test('the sum alone is that of the strips', () => {
  const f = read('e^(-x/3) + sin(2x)')
  for (const rule of ['left', 'right', 'midpoint', 'trapezoid', 'simpson'] as const) {
    const options = { from: -1, to: 4, count: 14, rule }
    expect(riemannTotal(f, options)).toBeCloseTo(riemannSum(f, options).sum, 13)
  }
})

describe('over and short', () => {
  const apart = (formula: string, from: number, to: number, count: number, rule: SumRule) => {
    const f = read(formula)
    const area = accumulate(f, from, from, to)
    const { criticalPoints, breaks } = examine(f, from, to)
    const turns = [...criticalPoints, ...breaks].map((p) => p.x).sort((a, b) => a - b)
    const made = riemannSum(f, { from, to, count, rule })
    return { ...overShort(f, made.strips, rule, area, turns), sum: made.sum, exact: area.value(to) }
  }
  test('by hand: x on [0, 1] by its middle, one strip, is over and short by 1/8 each', () => {
    const { over, short } = apart('x', 0, 1, 1, 'midpoint')
    expect(over).toBeCloseTo(1 / 8, 12)
    expect(short).toBeCloseTo(1 / 8, 12)
  })
  test('below the axis the same signs hold: −x by its left end is over', () => {
    expect(apart('-x', 0, 1, 4, 'left')).toMatchObject({
      over: expect.closeTo(1 / 8, 12) as number,
      short: 0,
    })
  })
  test('over − short is the sum minus the exact area, for every rule', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.constantFrom<SumRule>(...sumRules, { position: 0.3 }),
        fc.constantFrom('6 + 4 sin(0.9x) - 0.3x', '|x - 3| - 2', 'x^2/9 - cos(2x)', 'floor x'),
        (n, rule, formula) => {
          const count = rule === 'simpson' ? 2 * n : n
          const { over, short, sum, exact } = apart(formula, 0, 7, count, rule)
          expect(over - short).toBeCloseTo(sum - exact, 9)
          expect(Math.min(over, short)).toBeGreaterThanOrEqual(0)
        },
      ),
      { numRuns: 120, seed: 23 },
    )
  })
  test('upper sums are never short, lower sums never over', () => {
    expect(apart('sin(3x) + x/2', 0, 6, 17, 'upper').short).toBeLessThan(1e-12)
    expect(apart('sin(3x) + x/2', 0, 6, 17, 'lower').over).toBeLessThan(1e-12)
  })
})

describe('errors and their orders', () => {
  test.each(['left', 'right', 'midpoint', 'trapezoid', 'simpson'] as const)(
    'the error of %s stays within its bound and falls with its order',
    (rule) => {
      const f = read('e^(x/2) + sin x')
      const { value } = integrate(f, 0, 3)
      const counts = [8, 16, 32, 64, 128]
      const errors = counts.map((count) => {
        const error = Math.abs(riemannSum(f, { from: 0, to: 3, count, rule }).sum - value)
        const bound = sumErrorBound(f, { from: 0, to: 3, count, rule })!
        expect(error).toBeLessThanOrEqual(bound)
        // A bound ten times too wide would say little.
        expect(bound).toBeLessThan(40 * error)
        return error
      })
      expect(fittedOrder(counts, errors)).toBeCloseTo(usualOrder(rule)!, 1)
    },
  )
  test('the trapezoid rule has order 1.5 on √x, and no bound: its slope at 0 is infinite', () => {
    const f = read('sqrt x')
    const counts = [64, 128, 256, 512]
    const errors = counts.map(
      (count) => riemannSum(f, { from: 0, to: 1, count, rule: 'trapezoid' }).sum - 2 / 3,
    )
    expect(fittedOrder(counts, errors)).toBeCloseTo(1.5, 1)
    expect(sumErrorBound(f, { from: 0, to: 1, count: 8, rule: 'trapezoid' })).toBeNull()
  })
  test('no bound across a kink either', () => {
    expect(
      sumErrorBound(read('|x - 1|'), { from: 0, to: 3, count: 8, rule: 'midpoint' }),
    ).toBeNull()
    expect(sumErrorBound(read('x^2'), { from: 0, to: 3, count: 8, rule: 'upper' })).toBeNull()
  })
  test('how many strips: ∫ 1/x from 1 to 2 within 0.0001', () => {
    // Stewart, Calculus, section on approximate integration (from memory): by the bound the
    // trapezoid rule needs n > 40.8, the midpoint rule n = 29, Simpson's rule n = 8.
    const f = read('1/x')
    const options = { from: 1, to: 2, area: Math.log(2), tolerance: 0.0001 }
    expect(countByBound(f, { ...options, rule: 'trapezoid' })).toBe(41)
    expect(countByBound(f, { ...options, rule: 'midpoint' })).toBe(29)
    expect(countByBound(f, { ...options, rule: 'simpson' })).toBe(8)
    for (const rule of ['trapezoid', 'midpoint', 'simpson'] as const) {
      const sure = countByBound(f, { ...options, rule })!
      const kept = countsKept(f, { ...options, rule, sure })!
      expect(kept.from).toBeLessThanOrEqual(sure)
      expect(kept).toMatchObject({ proven: true, early: null })
      const errorOf = (count: number) =>
        Math.abs(riemannSum(f, { from: 1, to: 2, count, rule }).sum - Math.log(2))
      expect(errorOf(kept.from)).toBeLessThan(0.0001)
      expect(errorOf(kept.from - (rule === 'simpson' ? 2 : 1))).toBeGreaterThanOrEqual(0.0001)
    }
  })
})

describe('areas', () => {
  test('signed and total: sin x over [0, 2π] is 0 and 4', () => {
    const { signed, total, complete, parts } = areaUnder(read('sin x'), 0, 2 * Math.PI)
    expect(signed).toBeCloseTo(0, 12)
    expect(total).toBeCloseTo(4, 12)
    expect(complete).toBe(true)
    expect(parts).toHaveLength(2)
  })
  test('a sign that changes by a jump is a cut as well', () => {
    // By hand: 1 below the axis and 2 above it.
    const { signed, total, parts, complete } = areaUnder(read('-1 if x < 0; 2 otherwise'), -1, 1)
    expect([signed, total, complete]).toEqual([1, 3, true])
    expect(parts).toEqual([
      { from: -1, to: 0, area: -1, side: -1 },
      { from: 0, to: 1, area: 2, side: 1 },
    ])
    // Neither the join at 1 nor the zero at 0 changes the sign: 1/2 + 1/2 + 2.
    const joined = areaUnder(read('|x| if x < 1; 1 otherwise'), -1, 3)
    expect(joined.parts.map((p) => p.from)).toEqual([-1])
    expect(joined.joints).toEqual([{ x: 0, how: 'touches' }])
    expect(joined.total).toBeCloseTo(3, 12)
  })
  test('between x and x² over [−1, 2]: cut at 0 and 1', () => {
    // By hand: 5/6 + 1/6 + 5/6.
    const { total, parts } = areaBetween(read('x'), read('x^2'), -1, 2)
    expect(parts.map((p) => p.from)).toEqual([-1, 0, 1])
    expect(total).toBeCloseTo(11 / 6, 12)
  })
  test('the mean of 1 + x² over [−1, 2] is 2', () => {
    // Stewart, Calculus, section on the average value, from memory.
    expect(averageValue(read('1 + x^2'), -1, 2).value).toBeCloseTo(2, 12)
  })
})

describe('readings with unequal widths', () => {
  test('left, right and trapezoid by hand', () => {
    const sums = (['left', 'right', 'trapezoid'] as const).map((rule) => {
      const made = measuredStrips([0, 1, 4], [2, 5, 1], rule)
      return made.ok && made.strips.reduce((total, { area }) => total + area, 0)
    })
    expect(sums).toEqual([17, 8, 12.5])
  })
  test('what is wrong with a list is named', () => {
    expect(readingsProblem([0, 2, 1], [1, 1, 1])).toMatch(/reading 3 at 1 does not lie after 2/)
    expect(readingsProblem([0, NaN], [1, 1])).toMatch(/reading 2/)
    expect(readingsProblem([0], [1])).toMatch(/two readings/)
    expect(() => measuredStrips([0, 0], [1, 2], 'left')).toThrow(RangeError)
  })
})
