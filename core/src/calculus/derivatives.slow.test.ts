import fc from 'fast-check'
import { all, create } from 'mathjs'
import {
  compile,
  differentiate,
  parseFormula,
  simplify,
  tangentLine,
  toLatex,
  toPlain,
  toText,
} from '..'
import type { Tree } from '../formula/tree'

const mathjs = create(all!)

function read(text: string, variable = 'x'): Tree {
  const parsed = parseFormula(text, { variable, names: ['a', 'b', 'n'] })
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return parsed.tree
}
const derivative = (text: string, variable = 'x') => differentiate(read(text, variable), variable)
const shown = (text: string, variable = 'x') => toPlain(derivative(text, variable))

describe('derivatives against mathjs', () => {
  // Ours on the left, the same function in mathjs on the right; mathjs differentiates its own.
  test.each([
    ['x^5 - 4x^3 + 2x - 7', 'x^5 - 4x^3 + 2x - 7'],
    ['(x^2 + 1)(x - 3)', '(x^2 + 1)*(x - 3)'],
    ['(x^2 - 1)/(x^2 + 1)', '(x^2 - 1)/(x^2 + 1)'],
    ['sin 2x cos x', 'sin(2x)*cos(x)'],
    ['tan x', 'tan(x)'],
    ['sec x csc x', 'sec(x)*csc(x)'],
    ['cot x', 'cot(x)'],
    ['arcsin(x/4)', 'asin(x/4)'],
    ['arccos(x/4)', 'acos(x/4)'],
    ['arctan(x^2)', 'atan(x^2)'],
    ['e^(-x^2/8)', 'exp(-x^2/8)'],
    ['ln(x^2 + 1)', 'log(x^2 + 1)'],
    ['log x', 'log10(x)'],
    ['log_2(3x)', 'log(3x, 2)'],
    ['sqrt(x^3 + 1)', 'sqrt(x^3 + 1)'],
    ['x^x', 'x^x'],
    ['2^x', '2^x'],
    ['x^2.5', 'x^2.5'],
    ['sinh x tanh x', 'sinh(x)*tanh(x)'],
    ['1/(1 + e^-x)', '1/(1 + exp(-x))'],
    ['(3x - 2)^7', '(3x - 2)^7'],
    ['x/(2x^2)', 'x/(2x^2)'],
    ['6 + 4 sin(0.9x) - 0.3x', '6 + 4*sin(0.9x) - 0.3x'],
  ])('%s', (text, reference) => {
    const ours = compile(derivative(text))
    const byJet = compile(read(text))
    const theirs = mathjs.derivative(reference, 'x')
    for (const x of [0.3, 1.1, 2.7]) {
      const expected = theirs.evaluate({ x }) as number
      const size = Math.max(1, Math.abs(expected))
      expect(Math.abs(ours.value(x) - expected) / size).toBeLessThan(1e-12)
      expect(Math.abs(byJet.derivatives(x, 1)[1]! - expected) / size).toBeLessThan(1e-12)
    }
  })
})

describe('what a teacher would write', () => {
  // Elementary rules as any calculus text tables them; common practice, no one source.
  test.each([
    ['6 + 4 sin(0.9t) - 0.3t', '3.6 cos(0.9t) − 0.3'],
    ['2t^3 - 3t', '6t² − 3'],
    ['3(t+1)(t-2)', '6t − 3'],
    ['t^3/3', 't²'],
    ['1/t', '−1/t²'],
    ['sqrt t', '1/(2√t)'],
    ['sqrt(t^2+1)', 't/√(t² + 1)'],
    ['sin^2 t', '2 sin(t) cos(t)'],
    ['tan t', 'sec(t)²'],
    ['e^(-t/2)', '−e^(−t/2)/2'],
    ['(t^2-1)/(t^2+1)', '4t/(t² + 1)²'],
    ['arcsin t', '1/√(1 − t²)'],
    ['5', '0'],
    ['0.1 * 3t', '0.3'],
    ['a t^2 + b', '2a t'],
    ['t^t', 't^t·(ln(t) + 1)'],
    ['t^n', 'n t^(n − 1)'],
    ['ln t', '1/t if t > 0'],
    ['t if t < 1; 3 - t otherwise', '1 if t < 1; −1 if t > 1'],
    ['t^2 if t < 1; 2t - 1 otherwise', '2t if t < 1; 2 otherwise'],
    [
      't/4 if t < 6; 2.8 - 0.15t if t < 10; (t - 10)^2 otherwise',
      '1/4 if t < 6; −0.15 if 6 < t < 10; 2(t − 10) if t > 10',
    ],
    ['t ln t - t', 'ln(t)'],
    ['ln(t)/t', '(1 − ln(t))/t²'],
    ['ln(t^2 + 1)', '2t/(t² + 1)'],
    ['t sin(1/t)', 'sin(1/t) − cos(1/t)/t'],
    ['t^(1/3)', '1/(3t^(2/3))'],
    ['1/sqrt(t)', '−1/(2t^(3/2))'],
    ['t^2 e^(3t)', '(3t² + 2t) e^(3t)'],
    ['t e^-t', '(1 − t) e^(−t)'],
    ['(t-1)^2(t+2)^3', '(t − 1)(5t + 1)(t + 2)²'],
    ['t(2t+1)^5', '(12t + 1)(2t + 1)⁴'],
    ['t^2 + sin(t)^2 + cos(t)^2', '2t'],
    ['sqrt(t^4)', '2t'],
    ['t if t > 2; 1 if 0 <= t <= 2; -t otherwise', '1 if t > 2; 0 if 0 < t < 2; −1 if t < 0'],
  ])('(%s)′ = %s', (text, expected) => {
    expect(shown(text, 't').replace('^t·(', '^t(')).toBe(expected.replace('^t·(', '^t('))
  })

  test('in LaTeX for the board', () => {
    expect(toLatex(derivative('6 + 4 sin(0.9x) - 0.3x'))).toBe('3.6\\cos(0.9 x) - 0.3')
  })
})

describe('domains', () => {
  test.each([
    ['ln x', -1],
    ['log x', -2],
    ['ln(x)^2', -1],
    ['sqrt(x)^2', -1],
    ['x ln x', -3],
    ['|x|', 0],
    ['x^(2/3)', 0],
    ['cbrt x', 0],
    ['floor x', 2],
    ['sgn x', 0],
    ['max(x, 2x)', 0],
    ['|x^2 - 1|', 1],
    ['x if x < 1; 3 - x otherwise', 1],
    ['arcsin x', 1.5],
    ['1/x', 0],
  ])('(%s)′ has no value at %d', (text, x) => {
    expect(compile(derivative(text)).value(x)).toBeNaN()
    expect(compile(read(text)).derivatives(x, 1)[1]).toBeNaN()
  })

  test.each([
    ['x^2 if x < 1; 2x - 1 otherwise', 1, 2],
    ['x|x|', 3, 6],
    ['|x|', -2, -1],
    ['x^(1/3)', -8, 1 / 12],
    ['floor x', 2.5, 0],
    ['max(x, x^2)', 3, 6],
    ['x^3 if x < 0; x^2 otherwise', 0, 0],
    ['x|x|', 0, 0],
    ['|x|^3', 0, 0],
    ['|x - 1|^2', 3, 4],
    ['3(x - 2)|x - 2|', 2, 0],
  ])('(%s)′ at %d is %d', (text, x, slope) => {
    expect(compile(derivative(text)).value(x)).toBeCloseTo(slope, 12)
    expect(compile(read(text)).derivatives(x, 1)[1]).toBeCloseTo(slope, 12)
  })

  test('simplifying keeps every hole', () => {
    for (const text of [
      'x/x',
      'sqrt(x)sqrt(x)',
      '0 ln x',
      'ln x - ln x',
      '(x^2-1)/(x-1)',
      'x^2/x',
      '(1/x)^0',
    ]) {
      const [before, after] = [compile(read(text)), compile(simplify(read(text)))]
      for (const x of [-2, 0, 1, 2]) {
        expect({ text, x, hole: Number.isNaN(after.value(x)) }).toEqual({
          text,
          x,
          hole: Number.isNaN(before.value(x)),
        })
      }
    }
    expect(toPlain(simplify(read('sqrt(x^2)')))).toBe('|x|')
  })
})

/** Random smooth formulas, defined and mild on (0, 2). */
const smooth: fc.Arbitrary<string> = fc.letrec<{ all: string }>((tie) => ({
  all: fc.oneof(
    { maxDepth: 3, depthSize: 'small' },
    fc.constantFrom('x', '2', '0.5', 'x', '3'),
    fc
      .tuple(tie('all'), fc.constantFrom('+', '-', '*'), tie('all'))
      .map(([a, op, b]) => `(${a}) ${op} (${b})`),
    tie('all').map((a) => `(${a})^2`),
    fc.tuple(tie('all'), tie('all')).map(([a, b]) => `(${a})/((${b})^2 + 1)`),
    fc
      .tuple(fc.constantFrom('sin', 'cos', 'arctan', 'tanh'), tie('all'))
      .map(([f, a]) => `${f}(${a})`),
    tie('all').map((a) => `ln((${a})^2 + 2)`),
    tie('all').map((a) => `e^(-((${a})^2))`),
  ),
})).all

test('symbolic rule, Taylor arithmetic and central difference agree', () => {
  fc.assert(
    fc.property(smooth, fc.double({ min: 0.1, max: 1.9, noNaN: true }), (text, x) => {
      const tree = read(text)
      const f = compile(tree)
      const symbolic = compile(differentiate(tree, 'x')).value(x)
      const [value, jet] = f.derivatives(x, 1)
      const size = Math.max(1, Math.abs(jet!))
      expect(Math.abs(symbolic - jet!) / size).toBeLessThan(1e-9)
      expect(value).toBeCloseTo(f.value(x), 9)
      const h = 1e-4
      const central = (f.value(x + h) - f.value(x - h)) / (2 * h)
      const [, , , third = 0] = f.derivatives(x, 3)
      const allowed = 1e-6 * (size + Math.abs(third)) + (1e-11 * Math.abs(value!)) / h
      // The fifth derivative can outgrow the estimate; a wild formula is no test of the rule.
      if (Math.abs(third) < 1e3) expect(Math.abs(central - jet!)).toBeLessThan(allowed * 10)
    }),
    { numRuns: 500 },
  )
})

test('printed derivatives read back as equal functions', () => {
  fc.assert(
    fc.property(smooth, (text) => {
      const tree = derivative(text)
      const [f, g] = [compile(tree), compile(read(toText(tree)))]
      for (const x of [0.2, 0.9, 1.6]) {
        const [a, b] = [f.value(x), g.value(x)]
        expect(Math.abs(a - b)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(a)))
      }
    }),
    { numRuns: 300 },
  )
})

describe('derivatives of higher order by Taylor arithmetic', () => {
  // Taylor coefficients at 0 of the classical series (from memory).
  test.each([
    ['sin x', [0, 1, 0, -1, 0, 1, 0]],
    ['e^x', [1, 1, 1, 1, 1, 1, 1]],
    ['1/(1-x)', [1, 1, 2, 6, 24, 120, 720]],
    ['ln(1+x)', [0, 1, -1, 2, -6, 24, -120]],
    ['arctan x', [0, 1, 0, -2, 0, 24, 0]],
    ['tan x', [0, 1, 0, 2, 0, 16, 0]],
    ['sqrt(1+x)', [1, 1 / 2, -1 / 4, 3 / 8, -15 / 16, 105 / 32, -945 / 64]],
    ['tanh x', [0, 1, 0, -2, 0, 16, 0]],
    ['arcsin x', [0, 1, 0, 1, 0, 9, 0]],
  ])('%s at 0', (text, expected) => {
    compile(read(text))
      .derivatives(0, 6)
      .forEach((d, k) => expect(d).toBeCloseTo(expected[k]!, 9))
  })
})

describe('where the two sides are looked at on their own', () => {
  // Worked by hand from the definition of the derivative.
  test.each([
    ['x|x|', 0, [0, 0, NaN]],
    ['x^2 |x|', 0, [0, 0, 0, NaN]],
    ['|x|^3', 0, [0, 0, 0, NaN]],
    ['|x|', 0, [0, NaN]],
    ['|x^2|', 0, [0, 0, 2]],
    ['|x|^2', 0, [0, 0, 2, 0]],
    ['|sin x|', 0, [0, NaN]],
    ['x sgn x', 0, [0, NaN]],
    ['x^2 floor(x)', 0, [0, 0, NaN]],
    ['x floor x', 0, [0, NaN]],
    ['sqrt(x^4)', 0, [0, 0, 2, 0]],
    ['cbrt(x^3)', 0, [0, 1, 0]],
    ['(x^3)^(1/3)', 0, [0, 1, 0]],
    ['cbrt x', 0, [0, NaN]],
    ['x^(5/3)', 0, [0, 0, NaN]],
    ['x^(4/3)', 0, [0, 0, NaN]],
    ['x^2.5', 0, [0, NaN]],
    ['sqrt(1 - x^2)', 1, [0, NaN]],
    ['max(x^2, x^3)', 0, [0, 0, 2, 0]],
    ['min(x^2, x^4)', 0, [0, 0, 0, 0, 24]],
    ['max(-x^2, x^3)', 0, [0, 0, 0, 6]],
    ['e^|x| - |x|', 0, [1, 0, 1, NaN]],
    ['x if x < 1; 2 - x if x > 1; 1 otherwise', 1, [1, NaN]],
    ['x^2 if x <= 1; 2x - 1 if x > 1', 1, [1, 2, NaN]],
    ['x if x < 1', 1, [NaN, NaN]],
    ['floor(x^2)', 0, [0, 0, 0]],
  ] as [string, number, number[]][])('%s at %d', (text, x, expected) => {
    const f = compile(read(text))
    expect(f.derivatives(x, expected.length - 1)).toEqual(
      expected.map((d) => (Number.isNaN(d) ? NaN : expect.closeTo(d, 9))),
    )
  })
})

describe('tangents', () => {
  test('touch with the slope of the curve', () => {
    const { at, value, slope, intercept } = tangentLine(compile(read('x^2')), 3)
    expect([at, value, slope, intercept]).toEqual([3, 9, 6, -9])
  })
  test('are missing at a kink and outside the domain', () => {
    expect(tangentLine(compile(read('|x|')), 0).slope).toBeNaN()
    expect(tangentLine(compile(read('ln x')), -1).value).toBeNaN()
  })
})
