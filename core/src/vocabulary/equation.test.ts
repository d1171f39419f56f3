import fc from 'fast-check'
import { evaluate } from 'mathjs'
import { formatNumber } from './numbers'
import { lineEquation, pointSlopeEquation, standardEquation } from './equation'

/** The value of one side of an equation, by mathjs. */
const sideAt = (text: string, t: number, y: number) =>
  Number(evaluate(text.replaceAll('−', '-').replace(/(\d)\(/g, '$1*('), { t, y }))
const holdsAt = (equation: string, t: number, y: number, off: number) => {
  const [left, right] = equation.split(' = ') as [string, string]
  return Math.abs(sideAt(left, t, y) - sideAt(right, t, y)) <= off
}

/** The numbers of a line as they are read. */
const line = (slope: string, intercept: string, at = '0', value = intercept) => ({
  at,
  value,
  slope,
  intercept,
})

describe('straight lines as people write them', () => {
  // The usual school forms; common practice, no source.
  test.each([
    [line('−3.191', '15.758'), 'y = −3.191t + 15.758'],
    [line('1', '2'), 'y = t + 2'],
    [line('−1', '0'), 'y = −t'],
    [line('0', '4'), 'y = 4'],
    [line('0.000', '−4'), 'y = −4'],
    [line('1.000', '0.000'), 'y = t'],
    [line('4', '−7'), 'y = 4t − 7'],
    [line('2.4·10⁻⁸', '1'), 'y = 2.4·10⁻⁸ t + 1'],
  ])('slope and height of %j', (texts, text) => expect(lineEquation(texts, 't')).toBe(text))

  test.each([
    [line('−3.191', '15.758', '4.2', '2.356'), 'y − 2.356 = −3.191(t − 4.2)'],
    [line('2', '2', '−1', '0'), 'y = 2(t + 1)'],
    [line('1', '−1'), 'y + 1 = t'],
    [line('0', '4', '3'), 'y = 4'],
    [line('−1', '7', '3', '4'), 'y − 4 = −(t − 3)'],
  ])('point and slope of %j', (texts, text) => expect(pointSlopeEquation(texts, 't')).toBe(text))

  test.each([
    [line('−3.191', '15.758'), '3.191t + y = 15.758'],
    [line('2', '5'), '2t − y = −5'],
    [line('1', '−5'), 't − y = 5'],
    [line('0', '−5'), 'y = −5'],
  ])('letters on one side of %j', (texts, text) => expect(standardEquation(texts, 't')).toBe(text))

  const numbers = fc.integer({ min: -99_999, max: 99_999 }).map((n) => n / 1000)
  test('every form holds on the line it stands for, read by another program', () => {
    let looked = 0
    fc.assert(
      fc.property(numbers, numbers, numbers, (slope, at, value) => {
        const intercept = value - slope * at
        for (const t of [-2, 0, 3]) {
          const y = slope * t + intercept
          // Coefficients are rounded to 9 decimals: what is off is that times how far t goes.
          const off = 1e-7 * (1 + Math.abs(slope) + Math.abs(intercept))
          const read = (n: number) => formatNumber(n, 9)
          const texts = line(read(slope), read(intercept), read(at), read(value))
          expect(holdsAt(lineEquation(texts, 't'), t, y, off)).toBe(true)
          expect(holdsAt(pointSlopeEquation(texts, 't'), t, y, off)).toBe(true)
          expect(holdsAt(standardEquation(texts, 't'), t, y, off)).toBe(true)
          looked += 1
        }
      }),
      { numRuns: 150 },
    )
    expect(looked).toBeGreaterThan(300)
  })
})
