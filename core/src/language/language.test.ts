import fc from 'fast-check'
import { create, all } from 'mathjs'
import { compile, parseDefinition, parseFormula, toLatex } from '..'
import { read, formulaText, sameValue } from './fixtures/testing'
import { valueAt } from './fixtures/testing'

const mathjs = create(all!)

function problemsOf(text: string, names: string[] = []) {
  const parsed = parseFormula(text, { names })
  return parsed.ok ? [] : parsed.problems
}

describe('what people write by hand', () => {
  // The right column is the same formula in the unambiguous notation of mathjs.
  const written: [string, string][] = [
    ['2x^3 - 3x', '2*x^3 - 3*x'],
    ['3(x+1)(x-2)', '3*(x+1)*(x-2)'],
    ['x(x-1)', 'x*(x-1)'],
    ['sin 2x', 'sin(2*x)'],
    ['sin^2 x', 'sin(x)^2'],
    ['sin² x', 'sin(x)^2'],
    ['sin x cos x', 'sin(x)*cos(x)'],
    ['sin 2x cos x', 'sin(2*x)*cos(x)'],
    ['sin x/2', 'sin(x)/2'],
    ['sin x^2', 'sin(x^2)'],
    ['sin^-1 (x/9)', 'asin(x/9)'],
    ['arctan x', 'atan(x)'],
    ['e^-x', 'exp(-x)'],
    ['e^2x', 'exp(2)*x'],
    ['e^(2x)', 'exp(2*x)'],
    ['|x - 3|', 'abs(x-3)'],
    ['||x|-1|', 'abs(abs(x)-1)'],
    ['2|x|x', '2*abs(x)*x'],
    ['√(x+1)', 'sqrt(x+1)'],
    ['√x', 'sqrt(x)'],
    ['x²', 'x^2'],
    ['x⁻¹', '1/x'],
    ['5 − x·2 × x ÷ 4', '5 - x*2*x/4'],
    ['πx', 'pi*x'],
    ['1.5E-3x', '0.0015*x'],
    ['-x^2', '-(x^2)'],
    ['2^3^0.5', '2^(3^0.5)'],
    ['1/2x', '(1/2)*x'],
    ['x/2/3', 'x/2/3'],
    ['2 * -x', '2*(-x)'],
    ['x - -3', 'x+3'],
    ['ln x + log x + log_2(x)', 'log(x)+log10(x)+log2(x)'],
    ['30°', 'pi/6'],
    ['sin(30°)x', '0.5*x'],
    ['min(x, 2, x^2)', 'min(x,2,x^2)'],
    ['xe^x', 'x*exp(x)'],
    ['cosh x - sinh x', 'exp(-x)'],
    ['cbrt x', 'cbrt(x)'],
    ['3[x + {x - 1}]', '3*(x+x-1)'],
    ['sinx', 'sin(x)'],
    ['(x+1)2', '(x+1)*2'],
  ]
  test.each(written)('%s means %s', (text, reference) => {
    for (const x of [0.3, 1.7, 4.2]) {
      expect(valueAt(text, x)).toBeCloseTo(mathjs.evaluate(reference, { x }) as number, 12)
    }
  })

  test('letters in a row are known names multiplied', () => {
    expect(valueAt('2abx', 5, { a: 3, b: 7 })).toBe(210)
    expect(valueAt('a(x+1)', 5, { a: 3 })).toBe(18)
  })

  test('with a slider a, asin x is a times sin x', () => {
    expect(valueAt('asin x', 1, { a: 3 })).toBeCloseTo(3 * Math.sin(1), 14)
    expect(valueAt('asin x', 0.5)).toBeCloseTo(Math.asin(0.5), 14)
    // It may have been meant as the arcsine, and a gap says that it was not.
    const hintsOf = (text: string) => {
      const parsed = parseFormula(text, { names: ['a'] })
      return parsed.ok ? parsed.hints.map((h) => [h.from, h.to, h.replacement]) : null
    }
    expect(hintsOf('2 + asin x')).toEqual([[4, 8, 'arcsin']])
    expect(hintsOf('2 + a sin x')).toEqual([])
    expect(hintsOf('arcsin x')).toEqual([])
  })

  test('a curve is called where a slider multiplies, and carries primes', () => {
    const curves = { f: read('x^3') }
    const at2 = (text: string) => {
      const parsed = parseFormula(text, { curves })
      return parsed.ok ? compile(parsed.tree, { curves }).value(2) : NaN
    }
    expect(at2('f(x+1)')).toBe(27)
    expect(at2("f'(x) + 2")).toBe(14)
    expect(at2('f″(x)')).toBe(12)
    expect(at2('f + 1')).toBe(9)
  })

  test('pieces are the first whose condition holds', () => {
    const text = 'x^2 if x < 1; 3 - x if 1 <= x < 4; 0 otherwise'
    expect([0.5, 1, 3, 4].map((x) => valueAt(text, x))).toEqual([0.25, 2, 0, 0])
    expect(valueAt('x if x > 0 and x < 2 or x = 5', 5)).toBe(5)
    expect(valueAt('x if x > 0', -1)).toBeNaN()
  })

  test.each([
    ['2 + 1e-3', [{ from: 4, to: 8, replacement: '1E-3' }]],
    ['1e-3x', []],
    ['1 e - 3', []],
    ['1E-3', []],
  ])('a power of ten is offered for %s where it may be meant', (typed, hints) => {
    const parsed = parseFormula(typed)
    expect(parsed).toMatchObject({ ok: true, hints })
    if (parsed.ok) expect(parsed.hints).toHaveLength(hints.length)
  })

  test('e^2x is offered as e^(2x)', () => {
    const parsed = parseFormula('3 + e^2x')
    expect(parsed).toMatchObject({
      ok: true,
      hints: [{ message: 'did you mean e^(2x)?', from: 4, to: 8, replacement: 'e^(2x)' }],
    })
  })
})

describe('domains are real', () => {
  test.each([
    ['1/x', 0, NaN],
    ['ln x', 0, NaN],
    ['ln x', -1, NaN],
    ['sqrt x', -1, NaN],
    ['x^0', 0, 1],
    ['x^-1', 0, NaN],
    ['x^(1/3)', -8, -2],
    ['x^(2/3)', -8, 4],
    ['x^(2/6)', -8, -2],
    ['x^(-1/3)', -8, -0.5],
    ['x^(1/2)', -4, NaN],
    ['x^0.2', -1, NaN],
    ['log_1(x)', 2, NaN],
  ])('%s at %d is %d', (text, x, expected) => {
    const value = valueAt(text, x)
    if (Number.isNaN(expected)) expect(value).toBeNaN()
    else expect(value).toBeCloseTo(expected, 14)
  })
})

describe('what cannot be read says where and how to mend it', () => {
  test.each([
    ['', /no formula/, 0],
    ['2 +', /missing/, 2],
    ['(x + 1', /not closed/, 0],
    ['x + 1)', /no opening parenthesis/, 5],
    ['|x', /bar is not closed/, 0],
    ['2 3', /side by side/, 2],
    ['x2', /x2 could mean three things/, 0],
    ['sin', /needs something/, 0],
    ['sin^-2 x', /two things/, 0],
    ['x = 3', /no = or </, 2],
    ['min x', /parentheses/, 4],
    ['x if', /missing/, 2],
    ['x $ 2', /no meaning/, 2],
    ["a'", /a has no value/, 0],
    ['1E400', /too long or too large/, 0],
  ])('%s', (text, message, from) => {
    const [first] = problemsOf(text)
    expect(first?.message).toMatch(message)
    expect(first?.from).toBe(from)
  })

  test('an unknown letter names itself, its place and what is missing', () => {
    expect(problemsOf('3 + kx')).toEqual([
      {
        message: 'k has no value yet',
        from: 4,
        to: 5,
        fix: expect.stringContaining('give it one') as string,
        missing: 'k',
      },
    ])
  })

  test('a misspelt function is recognised', () => {
    expect(problemsOf('sqr(x)')[0]).toMatchObject({ replacement: 'sqrt', from: 0, to: 3 })
  })

  test('all unknown names are listed, not just the first', () => {
    expect(problemsOf('k + mx').map((p) => p.missing)).toEqual(['k', 'm'])
  })
})

describe('LaTeX pasted from a document', () => {
  // The right column is the same formula in the notation of mathjs.
  test.each([
    ['\\frac{1}{2}x', '0.5*x'],
    ['\\frac12 x', '0.5*x'],
    ['\\dfrac{x^{2}-1}{x+3}', '(x^2-1)/(x+3)'],
    ['\\sin^2 x + 2\\cos^{2}\\left(x\\right)', 'sin(x)^2 + 2*cos(x)^2'],
    ['\\sin^{-1}\\frac{x}{9}', 'asin(x/9)'],
    ['\\sqrt{x+1}+\\sqrt 2', 'sqrt(x+1)+sqrt(2)'],
    ['\\sqrt[3]{x} + \\sqrt[4]{x}', 'cbrt(x) + x^0.25'],
    ['\\left|x-3\\right| + \\lvert x \\rvert', 'abs(x-3)+abs(x)'],
    ['3\\cdot x \\times 2 \\div 4', '3*x*2/4'],
    ['x\\,\\mathrm{e}^{-x/2}', 'x*exp(-x/2)'],
    ['\\log_{2} x + \\log_5(x) + \\ln x', 'log2(x)+log(x,5)+log(x)'],
    ['\\sin 30^{\\circ} + 2\\pi', '0.5+2*pi'],
    ['$\\tfrac{\\sin x}{x}$', 'sin(x)/x'],
    ['\\lfloor x \\rfloor + \\operatorname{sgn}(x)', 'floor(x)+sign(x)'],
    ['x^{\\frac{1}{3}}', 'cbrt(x)'],
    ['½x + x⁄4', 'x/2+x/4'],
    [
      '\\begin{cases} x^2 & x < 1 \\\\ 3-x & \\text{if } 1 \\le x < 4 \\\\ 7 & \\text{otherwise} \\end{cases}',
      'x < 1 ? x^2 : x < 4 ? 3-x : 7',
    ],
    [
      '\\begin{cases} x^2, & \\text{for } x\\leq 1,\\\\ 2x & x\\gt 1 \\\\ \\end{cases}',
      'x <= 1 ? x^2 : 2x',
    ],
  ])('%s', (text, reference) => {
    for (const x of [0.3, 1.7, 4.2]) {
      expect(valueAt(text, x)).toBeCloseTo(mathjs.evaluate(reference, { x }) as number, 12)
    }
  })

  test('a strange command is named where it stands', () => {
    expect(problemsOf('2x + \\oint x')).toMatchObject([
      { message: '\\oint is not understood here', from: 5, to: 10 },
    ])
    for (const text of ['\\frac', '\\frac{1}{', '\\sqrt[3]', '\\', '\\begin{cases}', '\\text{'])
      expect(problemsOf(text).length).toBeGreaterThan(0)
  })

  test('names with subscripts and a pasted left side', () => {
    expect(valueAt('\\theta_1 x', 3, { 'θ₁': 2 })).toBe(6)
    expect(parseDefinition('$f\\left(x\\right) = x^2$')).toMatchObject({ name: 'f', variable: 'x' })
    expect(parseDefinition('q_{2}(t) = t')).toMatchObject({ name: 'q₂', variable: 't' })
  })

  test('what we print as LaTeX reads back as an equal function', () => {
    fc.assert(
      fc.property(formulaText, (text) => {
        const tree = read(text)
        const latex = toLatex(tree)
        const [f, g] = [compile(tree), compile(read(latex))]
        for (const x of [-2.3, -0.4, 0, 0.7, 1, 3.9]) {
          expect({ x, same: sameValue(f.value(x), g.value(x)), latex }).toMatchObject({
            same: true,
          })
        }
      }),
      { numRuns: 1000 },
    )
  })
})
