import fc from 'fast-check'
import { compile, examine, integrate, parseFormula, riemannSum } from '..'
import { accumulate } from './accumulate'
import { overShort } from './overShort'
import type { SumRule } from './riemann'

function f(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compile(parsed.tree)
}
function apart(text: string, from: number, to: number, count: number, rule: SumRule) {
  const g = f(text)
  const found = examine(g, from, to)
  const turns = [...found.criticalPoints, ...found.breaks].map((p) => p.x).sort((a, b) => a - b)
  const { strips, sum } = riemannSum(g, { from, to, count, rule })
  const exact = integrate(g, from, to).value
  return { ...overShort(g, strips, rule, accumulate(g, from, from, to), turns), strips, sum, exact }
}

describe('over and short in closed form', () => {
  // For x² on [0, 1] in n strips, by hand from the sums of k and k².
  const n = 7
  const squares = (n - 1) * n * (2 * n - 1)
  test('left heights of x² only fall short', () => {
    const { over, short } = apart('x^2', 0, 1, n, 'left')
    expect(over).toBe(0)
    expect(short).toBeCloseTo(1 / 3 - squares / (6 * n ** 3), 14)
  })
  test('right heights of x² only stand over', () => {
    const { over, short } = apart('x^2', 0, 1, n, 'right')
    expect(short).toBe(0)
    expect(over).toBeCloseTo((n * (n + 1) * (2 * n + 1)) / (6 * n ** 3) - 1 / 3, 14)
  })
  test('slanted tops over x² stand over by 1/(6n²)', () => {
    const { over, short } = apart('x^2', 0, 1, n, 'trapezoid')
    expect(short).toBe(0)
    expect(over).toBeCloseTo(1 / (6 * n ** 2), 14)
  })
  test('middle heights of x do both, in equal parts: n triangles of (w/2)²/2', () => {
    const { over, short } = apart('x', 0, 1, n, 'midpoint')
    expect(over).toBeCloseTo(n * (1 / (2 * n)) ** 2 * 0.5, 14)
    expect(short).toBeCloseTo(over, 14)
  })
  test('one strip over a whole wave of sin at height 0: 2 short, then 2 over', () => {
    const { over, short, slivers } = apart('sin x', 0, 2 * Math.PI, 1, 'left')
    expect(over).toBeCloseTo(2, 13)
    expect(short).toBeCloseTo(2, 13)
    expect(slivers.map((s) => Math.sign(s.area))).toEqual([-1, 1])
    expect(slivers[0]!.to).toBeCloseTo(Math.PI, 9)
  })
  test('below the axis over is still where the strip stands higher', () => {
    // Left heights of -x² on [0, 1] are too high everywhere.
    const { over, short } = apart('-x^2', 0, 1, n, 'left')
    expect(short).toBe(0)
    expect(over).toBeGreaterThan(0)
  })
  test('a parabola over a cubic crosses it, and both parts cancel', () => {
    const { over, short } = apart('x^3', 0, 2, 4, 'simpson')
    expect(over).toBeGreaterThan(0)
    expect(over - short).toBeCloseTo(0, 14)
  })
})

describe('what holds for every rule', () => {
  const functions = ['6 + 4 sin(0.9x) - 0.3x', 'x^3 - 2x', 'e^(-x) cos(5x)', '|x - 1|', 'floor x']
  const rules: SumRule[] = ['left', 'right', 'midpoint', 'trapezoid', 'simpson', { position: 0.3 }]

  test('over minus short is the sum minus the area, and slivers lie in their strips in order', () => {
    let looked = 0
    fc.assert(
      fc.property(
        fc.constantFrom(...functions),
        fc.constantFrom(...rules),
        fc.integer({ min: 1, max: 40 }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: 0.5, max: 6, noNaN: true }),
        (text, rule, half, from, length) => {
          const [a, b] = [Number(from.toFixed(3)), Number((from + length).toFixed(3))]
          const count = rule === 'simpson' ? 2 * half : half
          const { over, short, slivers, strips, sum, exact } = apart(text, a, b, count, rule)
          const size = 1 + Math.abs(sum) + over + short
          expect(Math.abs(over - short - (sum - exact))).toBeLessThan(1e-11 * size)
          expect(over).toBeGreaterThanOrEqual(0)
          expect(short).toBeGreaterThanOrEqual(0)
          let last = -Infinity
          for (const { strip, from: left, to: right } of slivers) {
            expect(left).toBeGreaterThanOrEqual(last - 1e-9)
            expect(left).toBeGreaterThanOrEqual(strips[strip]!.from - 1e-9)
            expect(right).toBeLessThanOrEqual(strips[strip]!.to + 1e-9)
            expect(right).toBeGreaterThan(left)
            last = right
            looked += 1
          }
        },
      ),
      { numRuns: 60 },
    )
    expect(looked).toBeGreaterThan(300)
  })

  test('over and short both shrink as strips are halved', () => {
    const all = [4, 8, 16, 32, 64].map((n) => apart('6 + 4 sin(0.9x) - 0.3x', 1, 7, n, 'left'))
    for (let i = 1; i < all.length; i++) {
      expect(all[i]!.over).toBeLessThan(all[i - 1]!.over)
      expect(all[i]!.short).toBeLessThan(all[i - 1]!.short)
    }
    // To first order each halving halves them (Burden, Faires, Numerical Analysis, ch. 4; from memory).
    expect(all[3]!.over / all[4]!.over).toBeCloseTo(2, 1)
  })
})
