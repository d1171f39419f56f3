import fc from 'fast-check'
import { evaluate as evaluateWithMathjs } from 'mathjs'
import { say, startStudy, workOut } from '../..'

const told = (formula: string, words: string) => {
  const said = say(startStudy(`f(x) = ${formula}`), words)
  if ('problem' in said) throw new Error(said.problem)
  const line = workOut(said.study).lines.at(-1)!
  return { ...line, texts: line.conclusions.map(({ text }) => text) }
}

// Worked by hand, as calculus texts have them.
describe('a theorem is named only with its conditions checked', () => {
  test('mean value theorem: c is solved for', () => {
    // c = 4/√3
    const { texts, readouts } = told('x^3/3', 'mean value theorem for f on [0, 4]')
    expect(texts).toEqual([
      'f is continuous on [0, 4].',
      'f is differentiable on (0, 4).',
      'So there is a place c in (0, 4) with f′(c) = (f(4) − f(0))/(4 − 0) = 16/3: x = 4√3/3 ≈ 2.309.',
    ])
    expect(readouts.find((r) => r.id === 'c')!.value).toBeCloseTo(4 / Math.sqrt(3), 12)
  })
  test('mean value theorem: each condition that fails is told with its place', () => {
    expect(told('|x - 1|', 'mean value theorem for f on [0, 3]').texts).toEqual([
      'f is continuous on [0, 3].',
      'f is not differentiable on (0, 3): at x = 1 it has a kink.',
      'The theorem says nothing here, and its conclusion is false: nowhere in (0, 3) is f′(c) = (f(3) − f(0))/(3 − 0) = 1/3.',
    ])
    expect(told('1/x', 'mean value theorem for f on [-1, 2]').texts[0]).toBe(
      'f is not continuous on [−1, 2]: at x = 0 it grows without bound.',
    )
    // It may hold without: 1/(3∛x²) is 1 at ±1/√27.
    expect(told('cbrt(x)', 'mean value theorem for f on [-1, 1]').texts.slice(1)).toEqual([
      'f is not differentiable on (−1, 1): at x = 0 it has an upright tangent.',
      'The theorem says nothing here; all the same f′(c) = (f(1) − f(−1))/(1 − (−1)) = 1 at c with x = −√3/9 ≈ −0.192 and √3/9 ≈ 0.192.',
    ])
  })
  test('a straight line takes its average rate everywhere, thirds too', () => {
    expect(told('x/3', 'mean value theorem for f on [0, 1]').texts[2]).toMatch(
      /= 1\/3: every place from 0 to 1\.$/,
    )
  })
  test('Rolle: at π the ends are exactly equal, and a slope that is unbounded at an end is no fault', () => {
    expect(told('sin x', 'rolle for f on [0, pi]').texts.slice(2)).toEqual([
      'Its values at both ends are equal: f(0) = 0 and f(π) = 0.',
      'So there is a place c in (0, π) with f′(c) = 0: x = π/2 ≈ 1.571.',
    ])
    expect(told('sqrt(1 - x^2)', "rolle's theorem for f on [-1, 1]").texts.slice(0, 2)).toEqual([
      'f is continuous on [−1, 1].',
      'f is differentiable on (−1, 1).',
    ])
    expect(told('x^2', 'rolle for f on [0, 1]').texts[2]).toBe(
      'Its values at both ends are not equal: f(0) = 0 and f(1) = 1.',
    )
  })
  test('intermediate value theorem: the level lies between, the function may jump over it', () => {
    const { texts } = told('x^3 + x - 1', 'intermediate value theorem for f on [0, 1]')
    expect(texts).toEqual([
      'f is continuous on [0, 1].',
      '0 lies between the values at the ends: f(0) = −1 and f(1) = 1.',
      // The real root of x³ + x − 1 is 0.6823278 (by Newton's method, by hand).
      'So there is a place c in (0, 1) with f(c) = 0: x ≈ 0.682.',
    ])
    expect(told('floor x', 'ivt for f on [0, 3] with value 1.5').texts[2]).toBe(
      'The theorem says nothing here, and its conclusion is false: nowhere in (0, 3) is f(c) = 1.5.',
    )
    expect(told('x', 'ivt for f on [0, 3] with value 3').texts[2]).toBe(
      'So f takes the value 3: at x = 3.',
    )
    expect(told('x', 'ivt for f on [0, 3] with value 4').texts[1]).toMatch(/^4 does not lie/)
  })
  test('extreme value theorem', () => {
    expect(told('x if x < 1; 0 otherwise', 'extreme value theorem for f on [0, 2]').texts).toEqual([
      'f is not continuous on [0, 2]: at x = 1 it jumps.',
      'The theorem says nothing here: it takes no highest value, and its lowest value is 0, all along [1, 2].',
    ])
  })
  test('fundamental theorem, and what becomes of it at a jump and at a displaced point', () => {
    expect(told('x^3', 'fundamental theorem for f on [0, 2]').texts.slice(1)).toEqual([
      'So A(x), the area under f from 0 to x, has A′(x) = f(x) on (0, 2).',
      'And the area from 0 to 2 is 4: it is F(2) − F(0) for any F with F′ = f, such as F(x) = x⁴/4.',
    ])
    expect(told('sgn x', 'fundamental theorem for f on [-1, 2]').texts[1]).toBe(
      'The theorem says nothing here: A has a kink at x = 0 and no slope there. The area from −1 to 2 is 1.',
    )
    expect(
      told('x if x != 1; 9 if x = 1', 'fundamental theorem for f on [0, 2]').texts[1],
    ).toContain('at x = 1 the slope of A is what f tends to, not its value')
  })
  test('tests by derivatives decide where they apply, and say where not', () => {
    expect(told('x^4 - x^3', 'second derivative test for f on [-1, 2]').texts).toEqual([
      'At x = 0 f′ is 0 and f′′ is 0 as well: the test does not decide. By the first derivative test f has no turning point there.',
      'At x = 0.75 f′ is 0 and f′′ is 2.25 > 0, so f has a local minimum there.',
    ])
    expect(told('|x - 1|', 'second derivative test for f on [0, 3]').texts).toEqual([
      'At x = 1 the test does not apply: f has a kink, so f′ is not 0 there.',
    ])
    expect(told('|x - 1|', 'first derivative test for f on [0, 3]').texts).toEqual([
      'At x = 1 f is continuous and f′ goes − to +, so f has a local minimum there.',
    ])
    expect(
      told('x if x<1; 5 if x=1; 2-x otherwise', 'first derivative test for f on [0, 2]').texts,
    ).toEqual([
      'At x = 1 the test does not apply: f has a value beside its limit, so it is not continuous.',
    ])
    expect(told('2x', 'first derivative test for f on [0, 2]').texts[0]).toMatch(
      /nowhere 0 or missing/,
    )
  })
  test('asked as people ask', () => {
    const sentence = (words: string) => told('x^2', words).sentence
    const expected = 'Mean value theorem for f on [0, 2]'
    expect(sentence('does the mean value theorem apply to f on [0, 2]?')).toBe(expected)
    expect(sentence('MVT for f on [0, 2]')).toBe(expected)
    expect(sentence('fundamental theorem of calculus for f on [0, 2]')).toBe(
      'Fundamental theorem for f on [0, 2]',
    )
  })
})

test('c of a cubic is where its slope is the average rate (mathjs)', () => {
  const whole = fc.integer({ min: -5, max: 5 })
  fc.assert(
    fc.property(whole, whole, whole, fc.integer({ min: 1, max: 4 }), (p, q, a, width) => {
      const formula = `x^3 + (${p}) x^2 + (${q}) x`
      const b = a + width
      const f = (x: number) => evaluateWithMathjs(formula, { x }) as number
      const slope = (f(b) - f(a)) / width
      const { texts, readouts } = told(
        `${formula} for -20 <= x <= 20`,
        `mean value theorem for f on [${a}, ${b}]`,
      )
      expect(texts.slice(0, 2).every((t) => !t.includes(' not '))).toBe(true)
      const found = readouts.find((r) => r.id === 'c')!
      const places = found.text
        .replaceAll('−', '-')
        .split(/, | and /)
        .map((text) => Number(text.replace(/^.*≈ /, '')))
      expect(places.length).toBeGreaterThan(0)
      for (const c of places) {
        expect(c).toBeGreaterThanOrEqual(a - 5e-4)
        expect(c).toBeLessThanOrEqual(b + 5e-4)
        // To the digits that are shown: |f″| is at most 6·9 + 10 there.
        expect(Math.abs(3 * c * c + 2 * p * c + q - slope)).toBeLessThan(64 * 6e-4)
      }
    }),
    { numRuns: 40 },
  )
}, 30_000)
