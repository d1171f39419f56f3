import fc from 'fast-check'
import reference from '../../reference/values.json'
import { compile, parseFormula, type RealFunction } from '..'

function read(text: string): RealFunction {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return compile(parsed.tree)
}

/** Everything the language has, alone and put together. */
const formulas = [
  ...[
    'sin x',
    'cos x',
    'tan x',
    'sec x',
    'csc x',
    'cot x',
    'arcsin(x/4)',
    'arccos(x/4)',
    'arctan x',
  ],
  ...['arcsec x', 'arccsc x', 'arccot x', 'sinh x', 'cosh x', 'tanh x', 'exp x', 'ln x', 'log x'],
  ...[
    'log_3(x)',
    'sqrt x',
    'cbrt x',
    '|x|',
    'sgn x',
    'floor x',
    'ceil x',
    'min(x, x^2)',
    'max(1, x, -x)',
  ],
  ...[
    'x^3',
    'x^4',
    'x^-1',
    'x^-2',
    'x^2.5',
    'x^-0.5',
    'x^(1/3)',
    'x^(2/3)',
    'x^(-1/3)',
    'x^(3/2)',
    'x^x',
    '2^x',
  ],
  ...['x^2 if x < 1; 3 - x if 1 <= x < 2; 0 otherwise', 'x if x != 1', '1/x if x > 0 or x < -1'],
  ...['6 + 4 sin(0.9x) - 0.3x', '(x^2 - 1)/(x - 1)', 'x e^(-x^2)', 'sin(1/x)', 'sqrt(1 - x^2)'],
  ...['ln(x^2 + 1)/(2 + cos x)', '|x^2 - 1| sin x', 'x^2 floor(x)', 'tan(x)^2', 'e^(-1/x^2)'],
]

test.each(formulas)('of 100,000 values of %s none leaves its enclosure', (text) => {
  const f = read(text)
  const perBox = 250
  const ys = new Float64Array(perBox)
  let seen = 0
  fc.assert(
    fc.property(
      fc.double({ min: -4, max: 4, noNaN: true }),
      fc.oneof(
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 1e-6, noNaN: true }),
      ),
      fc.integer({ min: 1, max: 2 ** 30 }),
      (from, length, seed) => {
        const [lo, hi] = f.enclose(from, from + length)
        let state = seed
        const xs = Float64Array.from({ length: perBox }, (_, i) => {
          state = (state * 48271) % 2147483647
          const share = i < 2 ? i : state / 2147483647
          return Math.min(from + length, from + share * length)
        })
        f.values(xs, ys)
        for (let i = 0; i < perBox; i++) {
          const value = ys[i]!
          seen += 1
          if (!Number.isFinite(value) || (value >= lo && value <= hi)) continue
          // The value itself is rounded: a few units in its last place are its own.
          const x = xs[i]!
          const slack = 4e-15 * (Math.abs(value) + Math.abs(x * f.derivatives(x, 1)[1]! || 0))
          const held = value >= lo - slack && value <= hi + slack
          expect({ x, value, lo, hi, held }).toMatchObject({ held: true })
        }
      },
    ),
    { numRuns: 400 },
  )
  expect(seen).toBeGreaterThanOrEqual(100_000)
})

test('a box between neighbouring doubles at a kink holds the values at both ends', () => {
  expect(read('|x|').enclose(-5e-324, 0)).toEqual([0, 5e-324])
  const [lo, hi] = read('|x - 1|').enclose(1 - 2 ** -53, 1)
  expect(lo).toBeLessThanOrEqual(0)
  expect(hi).toBeGreaterThanOrEqual(2 ** -53)
})

test('at a point the value of mpmath lies inside, and the enclosure is narrow', () => {
  for (const { formula, x, derivatives } of reference.table) {
    // Only decimals that are doubles stand for themselves.
    if (!/^-?\d+(\.(0|25|5|75|125))?$/.test(x)) continue
    const [value, slope] = derivatives.map(Number) as [number, number]
    const [lo, hi] = read(formula).enclose(Number(x), Number(x))
    const ulp = 1.2e-16 * Math.abs(value)
    expect({
      formula,
      x,
      value,
      lo,
      hi,
      held: lo <= value + ulp && value - ulp <= hi,
    }).toMatchObject({
      held: true,
    })
    const size = Math.abs(value) + Math.abs(Number(x) * slope) + 1e-3
    expect({ formula, x, narrow: hi - lo < 2e-13 * size }).toEqual({ formula, x, narrow: true })
  }
})

test.each([
  ['6 + 4 sin(0.9x) - 0.3x'],
  ['x^3 - 3x'],
  ['x e^(-x)'],
  ['(x^2 - 1)/(x^2 + 1)'],
  ['ln(x^2 + 1)'],
  ['sqrt(x + 4) cos x'],
  ['arctan(3x) - x/2'],
])('on boxes of 0.001 the enclosure of %s is at most ten times the true range', (text) => {
  const f = read(text)
  for (let x = -3; x < 3; x += 0.0371) {
    const [lo, hi] = f.enclose(x, x + 0.001)
    const ys = Array.from({ length: 201 }, (_, i) => f.value(x + (0.001 * i) / 200))
    const range = Math.max(...ys) - Math.min(...ys)
    expect(hi - lo).toBeLessThanOrEqual(10 * range + 1e-14)
  }
})

test('what has no value has no enclosure, and an unbounded range is unbounded', () => {
  expect(read('ln x').enclose(-2, -1)).toEqual([NaN, NaN])
  expect(read('sqrt x').enclose(-2, -1)).toEqual([NaN, NaN])
  expect(read('1/x').enclose(-1, 2)).toEqual([-Infinity, Infinity])
  expect(read('1/x').enclose(0, 2)).toEqual([0.5, Infinity])
  expect(read('1/x^2').enclose(-1, 2)[1]).toBe(Infinity)
  expect(read('1/x^2').enclose(-1, 2)[0]).toBeGreaterThanOrEqual(0)
  expect(read('ln x').enclose(-1, 1)).toEqual([-Infinity, 0])
  expect(read('x^2').enclose(-1, 2)).toEqual([0, 4])
  expect(read('|x - 1|').enclose(0, 3)).toEqual([0, 2])
  expect(read('floor x').enclose(0.5, 2.5)).toEqual([0, 2])
  expect(read('x^2 - 2x').enclose(3, 1)[0]).toBeLessThanOrEqual(-1)
  const withoutValue = parseFormula('a x', { names: ['a'] })
  if (!withoutValue.ok) throw new Error('unreadable')
  expect(compile(withoutValue.tree).enclose(0, 1)).toEqual([NaN, NaN])
  const f = compile(withoutValue.tree, { parameters: { a: 2 } })
  expect(f.enclose(0, 1)).toEqual([0, 2])
  expect(f.withParameters({ a: -3 }).enclose(0, 1)).toEqual([-3, 0])
})
