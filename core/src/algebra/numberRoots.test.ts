import fc from 'fast-check'
import { compile, parseFormula } from '..'
import { toPlain } from '../language/print'
import { withKnownValues } from './knownValues'

function read(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.tree
}

// Worked by hand; the rules of every text on powers and roots (common practice, no source).
test.each([
  ['2*4^(1/2)', '4'],
  ['3/4 - 3(-1)^(4/3)/4', '0'],
  ['8^(2/3)', '4'],
  ['2^(3/2)', '2√2'],
  ['12^(1/2)', '2√3'],
  ['(1/8)^(1/3)', '1/2'],
  ['(4/9)^(3/2)', '8/27'],
  ['27^(-2/3)', '1/9'],
  ['1/(8*2^(3/2))', '√2/32'],
  ['6/sqrt(2)', '3√2'],
  ['sqrt(1/3)', '√3/3'],
  ['50^(1/2)/5', '√2'],
  ['(-8)^(1/3)', '−2'],
  ['(-8)^(2/3)', '4'],
  ['16^(3/4)', '8'],
  ['5^(1/4)', '5^(1/4)'],
  ['(-4)^(1/2)', '(−4)^(1/2)'],
  ['sqrt(3)sqrt(12)', '6'],
])('%s is %s', (text, form) => {
  expect(toPlain(withKnownValues(read(text)))).toBe(form)
})

test('no value changes', () => {
  const whole = fc.integer({ min: 1, max: 5000 })
  fc.assert(
    fc.property(
      ...[whole, whole, fc.integer({ min: -5, max: 5 }), fc.integer({ min: 2, max: 6 })],
      (n, d, p, q) => {
        const tree = read(`(${n}/${d})^(${p}/${q})`)
        const value = compile(tree).value(0)
        expect(Math.abs(compile(withKnownValues(tree)).value(0) / value - 1)).toBeLessThan(1e-12)
      },
    ),
  )
})
