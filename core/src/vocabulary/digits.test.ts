import { digitsCases, wrongDigits } from './fixtures/testing'

test('every digit shown is right, where doubles cancel and where they do not', () => {
  const cases = digitsCases(40)
  expect(cases.length).toBeGreaterThan(480)
  const wrong = cases.flatMap((one, i) => {
    const found = wrongDigits(one, [3, 0, 6, 12][i % 4]!)
    return found ? [{ ...one, found }] : []
  })
  expect(wrong).toEqual([])
})
