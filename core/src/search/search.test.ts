import fc from 'fast-check'
import reference from '../../reference/minima.json'
import {
  compile,
  minimize,
  minimizeGlobally,
  minimizeInSteps,
  parseFormula,
  type RealFunction,
} from '..'

function read(text: string): RealFunction {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return compile(parsed.tree)
}

describe('the lowest valley, on the problems of Hansen, Jaumard and Lu', () => {
  // core/reference/minima.py names the source; the values are SciPy's.
  test.each(reference.table)('problem $problem: $formula', ({ formula, from, to, value }) => {
    for (const seed of [1, 2, 3]) {
      const found = minimizeGlobally(read(formula), { from, to, seed })
      expect(found.value).toBeLessThanOrEqual(value + 1e-8)
      expect(found.x).toBeGreaterThanOrEqual(from)
      expect(found.x).toBeLessThanOrEqual(to)
      expect(found.log).toHaveLength(found.evaluations)
    }
  })
})

test('the same seed takes the same walk, another one another', () => {
  const f = read('sin x + sin(10x/3)')
  const walk = (seed: number) =>
    minimizeGlobally(f, { from: 2.7, to: 7.5, seed }).log.map((p) => p.x)
  expect(walk(5)).toEqual(walk(5))
  expect(walk(5)).not.toEqual(walk(6))
})

describe('local searches', () => {
  const valleys = read('(x^2 - 4)^2 + x')
  test.each([
    ['simplex', { method: 'simplex', start: 3 }],
    ['golden', { method: 'golden', from: 0, to: 4 }],
    ['newton', { method: 'newton', start: 3 }],
  ] as const)('%s finds the valley downhill from its start', (_, options) => {
    const { x, value, log, evaluations, iterations, settled } = minimize(valleys, options)
    // A root of 4x(x² − 4) + 1 near 2, by numpy.roots.
    expect(x).toBeCloseTo(1.9679854, 6)
    expect(value).toBeCloseTo(valleys.value(x), 12)
    expect(log).toHaveLength(evaluations)
    expect(iterations).toBeGreaterThan(2)
    expect(settled).toBe(true)
    for (const probe of log) expect(probe.value).toBe(valleys.value(probe.x))
  })
  test('one search finds one valley: from the other side the other one', () => {
    expect(minimize(valleys, { start: -3 }).x).toBeCloseTo(-2.03, 2)
    expect(minimize(valleys, { start: 3 }).x).toBeCloseTo(1.97, 2)
  })
  test('a long first step in a flat tail jumps across a spike into another valley', () => {
    // A spike at 0 between a shallow valley on the left and a deep one on the right.
    const f = read('x^2/50 + 5 e^(-x^2/0.02) - 3 e^(-(x - 2)^2/0.5) - e^(-(x + 2)^2/0.5)')
    expect(minimize(f, { start: -2.6, step: 0.1 }).x).toBeLessThan(0)
    expect(minimize(f, { start: -2.6, step: 4.5 }).x).toBeGreaterThan(0)
  })
  test('Newton’s digits double: few looks to the last digit', () => {
    const { x, evaluations } = minimize(read('e^x - 2x'), { method: 'newton', start: 0 })
    expect(x).toBeCloseTo(Math.LN2, 9)
    expect(evaluations).toBeLessThan(15)
  })
  test('the lowest place at an end of the span is found by golden section', () => {
    expect(minimize(read('x'), { method: 'golden', from: 1, to: 3 }).x).toBe(1)
  })
  test('where f has no value it never rests', () => {
    const { x } = minimize(read('ln(x) + 1/x'), { start: 3, step: -2.9 })
    expect(x).toBeCloseTo(1, 4)
  })
  test('a search can be watched probe by probe and stopped', () => {
    const walk = minimizeInSteps(valleys, { start: 3 })
    const seen = [walk.next().value, walk.next().value, walk.next().value]
    expect(seen.map((p) => p.x).slice(0, 2)).toEqual([3, 3.3])
  })
  test('from anywhere a bowl’s bottom is found', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: -50, max: 50, noNaN: true }),
        (start, bottom) => {
          const f = read(`(x - (${bottom.toFixed(6)}))^2 + 1`)
          expect(Math.abs(minimize(f, { start }).x - bottom)).toBeLessThan(1e-5)
        },
      ),
      { numRuns: 60, seed: 41 },
    )
  })
  test('a start that is no number, and a search that is none, are named', () => {
    expect(() => minimize(valleys, { start: NaN })).toThrow(/NaN/)
    expect(() => minimize(valleys, { method: 'guess' as 'golden', from: 0, to: 1 })).toThrow(
      /guess/,
    )
  })
})
