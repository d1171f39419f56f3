import fc from 'fast-check'
import { compile, parseFormula, toLatex } from '..'
import { hostileTexts } from '../../reference/hostile'
import { valueAt } from './fixtures/testing'

describe('hostile text is answered and never throws', () => {
  test.each(hostileTexts)('%s', (_what, text) => {
    const parsed = parseFormula(text)
    const messages = parsed.ok ? [] : parsed.problems.map((problem) => problem.message)
    expect(messages.every((message) => message.length > 0 && message.length < 500)).toBe(true)
    expect(parsed.ok || messages.length > 0).toBe(true)
  })

  test('a sum of 9,000 terms is read and evaluated', () => {
    expect(valueAt(Array(9000).fill('x').join(' + '), 2)).toBe(18_000)
  })

  test('random text', () => {
    const alphabet = [...'x2.+-*/^()|,; sincoelgt√²π°\'"=<>_{}ßé\u0000\ud800'.split('')]
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...alphabet), { maxLength: 40 }), (letters) => {
        const text = letters.join('')
        const parsed = parseFormula(text)
        if (parsed.ok) {
          compile(parsed.tree).value(1.5)
          toLatex(parsed.tree)
          return
        }
        for (const { from, to } of parsed.problems) {
          expect(from).toBeGreaterThanOrEqual(0)
          expect(to).toBeLessThanOrEqual(text.length + 1)
        }
      }),
      { numRuns: 1500 },
    )
  })
})
