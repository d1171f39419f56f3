import fc from 'fast-check'
import { chanceFrom, productOfPowers } from '../../fuzz/formulas'
import { compile, integrate, parseFormula, toPlain } from '..'
import { closedForm } from '../vocabulary/exactForms'
import { exactArea } from '../vocabulary/exactArea'
import { antiderivative } from './antiderivative'

function read(text: string, variable = 'x') {
  const parsed = parseFormula(text, { variable })
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return parsed.tree
}
const end = (text: string) => {
  const exact = read(text, '')
  return { value: compile(exact, { variable: '' }).value(0), exact }
}
function areaOf(formula: string, from: string, to: string, decimals = 3) {
  const f = compile(read(formula))
  const [a, b] = [end(from), end(to)]
  return exactArea(f, a, b, integrate(f, a.value, b.value), decimals)
}

/** Formulas with a rule, and a place where they are defined. */
const ruled = [
  ...['3x^2 - 4x + 1', '1/x', '1/x^2', 'sqrt(2x + 1)', 'cbrt x', 'x^(1/3)', '(2x + 1)^(3/2)'],
  ...['e^(2x)', '2^x', 'e^(-x/5)', '3/e^x', 'exp(3x - 1)', 'sin(2x + 1)', 'cos(x/3)', 'tan x'],
  ...['1/cos^2(2x)', 'sin^2 x', 'cos^2(3x)', 'sinh x', 'cosh(2x)', 'ln x', 'ln(2x + 3)', 'x ln x'],
  ...['1/(1 + x^2)', '5/(4 + 9x^2)', '1/sqrt(4 - x^2)', '1/(2x + 1)', '3/(x - 7)', '1/(3 sqrt x)'],
  ...['x e^x', 'x^2 sin(2x)', '(x^3 - x) cos x', 'x^2 e^(-x)', '(x^2 + 1)/x', '(x + 1)/sqrt x'],
  ...['6 + 4 sin(0.9x) - 0.3x', '|2x - 1|'],
  ...['x/(x^2 + 1)', 'x sqrt(x^2 + 1)', 'x e^(x^2)', 'sin x cos x', 'sin(x)^3 cos x', 'ln(x)/x'],
  ...[
    'x^2 sqrt x',
    '(x + 2) sqrt x',
    'x sqrt(2x + 1)',
    'x cbrt(x + 2)',
    '(3 - x)^2 (2x + 1)^(1/3)',
  ],
  ...['x x^1.5', 'x sqrt(x) cbrt(8)', '(x^2 + 1) (x + 1)^(-1/2)'],
  ...['cos(x) e^(sin x)', 'x^2/(x^3 + 2)^2', 'x/sqrt(9 - x^2)', 'e^x/(1 + e^x)'],
]

describe('antiderivatives', () => {
  test.each(ruled)('the derivative of that of %s is the formula again', (formula) => {
    const tree = read(formula)
    const found = antiderivative(tree, 'x')!
    const [f, g] = [compile(tree), compile(found)]
    for (const x of [0.2, 0.61, 1.3, 1.9]) {
      // Against quotients of values, so that the rules of differentiation are not their own witness.
      const h = 1e-3
      const slope =
        (8 * (g.value(x + h) - g.value(x - h)) - (g.value(x + 2 * h) - g.value(x - 2 * h))) /
        (12 * h)
      expect(slope / f.value(x)).toBeCloseTo(1, 7)
    }
  })
  test.each(['e^(-x^2)', 'sin(x^2)', 'sqrt(1 + x^3)', '1/(x^3 + x + 1)', 'x^x', 'sin(x)/x'])(
    'there is none for %s in the table',
    (formula) => {
      expect(antiderivative(read(formula), 'x')).toBeNull()
    },
  )
})

test('products of powers, roots, exponentials and logarithms never send the rules round in circles', () => {
  let found = 0
  for (let seed = 1; seed <= 400; seed++) {
    const formula = productOfPowers(chanceFrom(seed))
    const tree = read(formula)
    const sum = antiderivative(tree, 'x')
    if (!sum) continue
    found += 1
    const [f, g] = [compile(tree), compile(sum)]
    const h = 1e-3
    const slope = (g.value(1.3 + h) - g.value(1.3 - h)) / (2 * h)
    if (Number.isFinite(slope)) expect([formula, slope / f.value(1.3)]).toEqual([formula, near1])
  }
  expect(found).toBeGreaterThan(60)
})
const near1 = expect.closeTo(1, 3) as number

describe('areas in exact form', () => {
  // Worked examples of the fundamental theorem as first courses have them: OpenStax, Calculus
  // Volume 1, sections 5.3, 5.5 to 5.7 (from memory), and by hand.
  test.each([
    ['1/x', '1', '3', 'ln(3)'],
    ['1/x', '-3', '-1', '−ln(3)'],
    ['sin x', '0', '1', '1 − cos(1)'],
    ['sin x', '0', 'π/4', '1 − √2/2'],
    ['e^x', '0', '1', 'e − 1'],
    ['sqrt x', '0', '2', '4√2/3'],
    ['1/(1 + x^2)', '0', '1', 'π/4'],
    ['1/(1 + x^2)', '1', 'sqrt 3', 'π/12'],
    ['1/sqrt(4 - x^2)', '0', '1', 'π/6'],
    ['sin^2 x', '0', 'π', 'π/2'],
    ['x^2 sin x', '0', 'π', 'π² − 4'],
    ['x^2 - 4x + 3', '0', '5', '20/3'],
    ['1/x^2', '1', '3', '2/3'],
    ['5e^(-x/5)', '0', '10', '25 − 25e⁻²'],
    ['x/(x^2 + 1)', '0', '1', 'ln(2)/2'],
    ['x e^(x^2)', '0', '1', 'e/2 − 1/2'],
    ['x^2 sqrt x', '0', '1', '2/7'],
    ['x sqrt(2x + 1)', '0', '4', '298/15'],
    ['|x - 1|', '0', '2/3', '4/9'],
    ['cos(x) e^(sin x)', '0', 'π/2', 'e − 1'],
    ['ln(x)/x', '1', '3', 'ln(3)²/2'],
  ])('of %s from %s to %s is %s', (formula, from, to, text) => {
    expect(areaOf(formula, from, to)).toEqual({ text, proven: true })
  })
  test.each([
    ['a whole number', 'sin x', '0', 'π'],
    ['a short decimal', 'x', '0', '1'],
    ['a curve without a rule', 'e^(-x^2)', '0', '1'],
    ['a pole between the ends', '1/x', '-1', '2'],
    ['a pole whose two sides would cancel', '1/(x - 1)^3', '0', '2'],
  ])('%s has none', (_what, formula, from, to) => {
    expect(areaOf(formula, from, to)).toBeNull()
  })
  test('what is told is the number, for any ends', () => {
    const formulas = ['1/(x + 9)', 'x e^(x/4)', '2 sin(x/2) - x', 'sqrt(x + 9)', '1/(4 + x^2)']
    fc.assert(
      fc.property(
        fc.constantFrom(...formulas),
        fc.integer({ min: -8, max: 7 }),
        fc.integer({ min: 1, max: 8 }),
        (formula, from, width) => {
          const form = areaOf(formula, `${from}`, `${from + width}`)
          if (!form) return
          const value = compile(read(form.text.replaceAll('−', '-'), ''), { variable: '' }).value(0)
          const f = compile(read(formula))
          expect(value).toBeCloseTo(integrate(f, from, from + width).value, 9)
        },
      ),
    )
  })
})

describe('values of sines and cosines that every table has', () => {
  test.each([
    ['sin(π/6) + π', '1/2 + π'],
    ['cos(3π/4)', '−√2/2'],
    ['sin(7π/3)', '√3/2'],
    ['tan(π/6)', '√3/3'],
    ['tan(-π/3)', '−√3'],
    ['arctan 1', 'π/4'],
    ['arcsin(-1/2)', '−π/6'],
    ['ln(e^3)/2', '3/2'],
  ])('%s is %s', (formula, text) => {
    const calls = ['sin', 'cos', 'tan', 'ln', 'sqrt'] as const
    expect(closedForm(read(formula, ''), 0, calls)!.text).toBe(text)
  })
  test('agree with the numbers at every twelfth of π', () => {
    for (let k = -30; k <= 30; k++) {
      for (const name of ['sin', 'cos', 'tan'] as const) {
        // At odd multiples of π/2 the tangent has no value.
        if (name === 'tan' && Math.abs(k) % 12 === 6) continue
        const tree = read(`${name}(${k}π/12) + ln 2`, '')
        const form = closedForm(tree, 0, ['sin', 'cos', 'tan', 'ln', 'sqrt'])
        if (!form) continue
        const value = compile(read(form.text.replaceAll('−', '-'), ''), { variable: '' }).value(0)
        expect([name, k, value]).toEqual([
          name,
          k,
          expect.closeTo(Math[name]((k * Math.PI) / 12) + Math.LN2, 12),
        ])
      }
    }
  })
  test('no form stands for a place where the tangent has none', () => {
    expect(toPlain(read('tan(π/2)', ''))).toBe('tan(π/2)')
    expect(closedForm(read('tan(π/2)', ''), 3, ['sqrt'])).toBeNull()
  })
})
