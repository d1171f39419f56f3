import fc from 'fast-check'
import { compile } from '../algebra/compile'
import { parseFormula } from '../calculus/parseFormula'
import { whatMatters } from './whatMatters'

const windowOf = (formula: string) => {
  const parsed = parseFormula(formula, { variable: 'x', names: [] })
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return whatMatters(compile(parsed.tree, { variable: 'x' }))
}

/** A number of at most two figures, which is what a bound is read as at a glance. */
const isRound = (x: number) => x === 0 || Number(x.toPrecision(2)) === x

/** What lies near the middle, worked out by hand or with SciPy 1.11 (brentq) to three decimals. */
const seen: readonly [formula: string, places: readonly number[]][] = [
  ['x^3 - 3x', [-Math.sqrt(3), -1, 0, 1, Math.sqrt(3)]],
  ['e^x', [0]],
  ['x^4 - 5x^2 + 4', [-2, -1.581, -1, 0, 1, 1.581, 2]],
  ['x e^(-x)', [0, 1, 2]],
  ['ln x', [0, 1]],
  ['1/x', [0]],
  ['tan x', [-Math.PI, -Math.PI / 2, 0, Math.PI / 2, Math.PI]],
  ['100 + x^3/1000', [-46.416, 0]],
  ['sqrt(7x - 3)', [0, 3 / 7]],
  ['9 - (x - 30)^2/250', [-17.434, 0, 30, 77.434]],
  ['(2x^2 + 3)/(x^2 - 9)', [-3, 0, 3]],
  ['x/(1 + x^2)', [-1.732, -1, 0, 1, 1.732]],
  ['x^2 e^(-x)', [0, 0.586, 2, 3.414]],
  ['|x - 4| - 1', [0, 3, 4, 5]],
  ['(x^2 - 1)/(x - 1)', [-1, 0, 1]],
  ['x^x', [0, 1 / Math.E]],
  ['5 - x', [0, 5]],
  ['1000 - 0.5x', [0, 2000]],
  ['x^2 - 0.0001', [-0.01, 0, 0.01]],
]
test.each(seen)(
  '%s: what happens lies inside, with air beside it, on round bounds',
  (formula, places) => {
    const [from, to] = windowOf(formula)
    expect([from, to].map(isRound)).toEqual([true, true])
    for (const x of places) {
      expect(x - from).toBeGreaterThan(0.02 * (to - from))
      expect(to - x).toBeGreaterThan(0.02 * (to - from))
    }
    // Nor is it lost in a frame that is far too wide.
    const all = Math.max(...places) - Math.min(...places)
    expect(to - from).toBeLessThanOrEqual(Math.max(11, 6 * all))
  },
)

test.each([
  ['e^x', [-5, 5]],
  ['4', [-5, 5]],
  ['ln x', [-1, 10]],
  ['sqrt(x - 30)', [29, 40]],
  ['sqrt(9 - x^2)', [-3.5, 3.5]],
])(
  '%s, with nothing to see, is about 10 wide about 0 or from where it begins',
  (formula, window) => {
    expect(windowOf(formula)).toEqual(window)
  },
)

test.each([
  ['sin x', 2 * Math.PI],
  ['tan x', Math.PI],
  ['sin(100x)', Math.PI / 50],
  ['x - floor x', 1],
  ['x mod 3', 3],
  ['floor(sin x)', 2 * Math.PI],
  ['sin(x) + sin(2x)', 2 * Math.PI],
])('of %s, which repeats itself without end, about three periods are shown', (formula, period) => {
  const [from, to] = windowOf(formula)
  expect((to - from) / period).toBeGreaterThan(2.85)
  expect((to - from) / period).toBeLessThan(3.6)
  expect(from).toBeCloseTo(-to, 12)
})

test('waves that crowd about 0, and waves that never repeat, still open on a few of them', () => {
  const [a, b] = windowOf('sin(1/x)')
  expect(b - a).toBeGreaterThan(2 / Math.PI)
  expect(b - a).toBeLessThan(5)
  const [c, d] = windowOf('sin(x^2)')
  expect(d - c).toBeLessThan(10)
})

test('wherever the roots of a cubic lie, they lie inside, and fill enough of the frame', () => {
  const root = fc.integer({ min: -60, max: 60 })
  fc.assert(
    fc.property(root, root, root, (p, q, r) => {
      const [from, to] = windowOf(`(x - (${p}))(x - (${q}))(x - (${r}))`)
      const [least, middle, most] = [p, q, r].sort((a, b) => a - b) as [number, number, number]
      // Two that all but coincide may be shown without a third that lies far from them.
      const near = Math.min(middle - least, most - middle)
      fc.pre(near === 0 || near > (most - least) / 10)
      expect(from).toBeLessThan(least)
      expect(to).toBeGreaterThan(most)
      if (most - least > 5) expect(to - from).toBeLessThan(4 * (most - least) + Math.abs(least))
    }),
    { numRuns: 60 },
  )
})

test('a function may be of any size', () => {
  expect(windowOf('10^200 (x^3 - 3x)')).toEqual(windowOf('x^3 - 3x'))
  expect(windowOf('10^(-200) (x^3 - 3x)')).toEqual(windowOf('x^3 - 3x'))
  for (const formula of ['0', '1/0', 'sqrt(-1 - x^2)', 'x^20', '10^308 x', 'x!']) {
    const [from, to] = windowOf(formula)
    expect(from).toBeLessThan(to)
  }
})
