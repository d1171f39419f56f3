import { digitsCases, wrongDigits } from './fixtures/testing'

describe.each([0, 3, 12])('with %i decimals', (decimals) => {
  test('every digit shown is right in all cases of the table', () => {
    const cases = digitsCases(1)
    expect(cases.length).toBeGreaterThanOrEqual(20_000)
    const wrong = cases.flatMap((one) => {
      const found = wrongDigits(one, decimals)
      return found ? [{ ...one, found }] : []
    })
    expect(wrong).toEqual([])
  })
})
