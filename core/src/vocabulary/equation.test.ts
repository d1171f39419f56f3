import fc from 'fast-check'
import { evaluate } from 'mathjs'
import { lineEquation, pointSlopeEquation, standardEquation } from './equation'

/** The value of one side of an equation, by mathjs. */
const sideAt = (text: string, t: number, y: number) =>
  Number(evaluate(text.replaceAll('−', '-').replace(/(\d)\(/g, '$1*('), { t, y }))
const holdsAt = (equation: string, t: number, y: number, off: number) => {
  const [left, right] = equation.split(' = ') as [string, string]
  return Math.abs(sideAt(left, t, y) - sideAt(right, t, y)) <= off
}

describe('straight lines as people write them', () => {
  // The usual school forms; common practice, no source.
  test.each([
    [{ slope: -3.190965, intercept: 15.7578 }, 'y = −3.191t + 15.758'],
    [{ slope: 1, intercept: 2 }, 'y = t + 2.000'],
    [{ slope: -1, intercept: 0 }, 'y = −t'],
    [{ slope: 0, intercept: 4 }, 'y = 4.000'],
    [{ slope: 0.0001, intercept: -4 }, 'y = −4.000'],
    [{ slope: 2, intercept: -0.0001 }, 'y = 2.000t'],
  ])('slope and height of %j', (line, text) => expect(lineEquation(line, 't', 3)).toBe(text))

  test.each([
    [{ at: 4.2, value: 2.356, slope: -3.191 }, 'y − 2.356 = −3.191(t − 4.2)'],
    [{ at: -1, value: 0, slope: 2 }, 'y = 2.000(t + 1)'],
    [{ at: 0, value: -1, slope: 1 }, 'y + 1.000 = t'],
    [{ at: 3, value: 4, slope: 0 }, 'y = 4.000'],
    [{ at: 3, value: 4, slope: -1 }, 'y − 4.000 = −(t − 3)'],
  ])('point and slope of %j', (line, text) => expect(pointSlopeEquation(line, 't', 3)).toBe(text))

  test.each([
    [{ slope: -3.191, intercept: 15.758 }, '3.191t + y = 15.758'],
    [{ slope: 2, intercept: 5 }, '2.000t − y = −5.000'],
    [{ slope: 1, intercept: -5 }, 't − y = 5.000'],
    [{ slope: 0, intercept: -5 }, 'y = −5.000'],
  ])('letters on one side of %j', (line, text) => expect(standardEquation(line, 't', 3)).toBe(text))

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
          expect(holdsAt(lineEquation({ slope, intercept }, 't', 9), t, y, off)).toBe(true)
          expect(holdsAt(pointSlopeEquation({ at, value, slope }, 't', 9), t, y, off)).toBe(true)
          expect(holdsAt(standardEquation({ slope, intercept }, 't', 9), t, y, off)).toBe(true)
          looked += 1
        }
      }),
      { numRuns: 150 },
    )
    expect(looked).toBeGreaterThan(300)
  })
})
