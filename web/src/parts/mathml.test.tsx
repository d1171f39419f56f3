import { parseFormula, toLatex } from '@yperkine/core'
import fc from 'fast-check'
import { latexToMathml } from './mathml'

const latexOf = (text: string) => {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return toLatex(parsed.tree)
}
const elementsOf = (xml: string) => new DOMParser().parseFromString(xml, 'application/xml')

test('a formula is laid out: fraction over power', async () => {
  const page = elementsOf(await latexToMathml(latexOf('x^2/3')))
  const fraction = page.querySelector('mfrac')!
  expect(fraction.children).toHaveLength(2)
  expect(fraction.querySelector('msup')!.textContent).toBe('x2')
  expect(fraction.children[1]!.textContent).toBe('3')
})

test('what is copied is well formed, whatever the formula', async () => {
  const part = fc.constantFrom('x', 'sin x', 'sqrt(x + 1)', '|x - 3|', 'e^x', 'floor(x)', '2/x')
  const formula = fc
    .tuple(part, fc.constantFrom('+', '-', '*', '/', '^'), part)
    .map(([a, sign, b]) => `(${a}) ${sign} (${b} if x < 1; ${a} otherwise)`)
  await fc.assert(
    fc.asyncProperty(formula, async (text) => {
      const page = elementsOf(await latexToMathml(latexOf(text)))
      expect(page.querySelector('parsererror')).toBeNull()
      expect(page.documentElement.localName).toBe('math')
      expect(page.querySelector('merror, mtext[mathcolor]')).toBeNull()
      for (const pair of page.querySelectorAll('mfrac, msup')) {
        expect(pair.children).toHaveLength(2)
      }
    }),
    { numRuns: 60 },
  )
})
