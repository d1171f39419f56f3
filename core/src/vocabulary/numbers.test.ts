import fc from 'fast-check'
import { formatNumber } from '..'
import { lineEquation } from './equation'
import {
  formatNotZero,
  formatPower,
  formatShort,
  formatStretch,
  sayNumber,
  sayStretch,
} from './numbers'
import { unitOfDerivative } from './units'
import { readNumber } from './values'

describe('numbers for reading', () => {
  test.each([
    [2, 3, '2.000'],
    [-3.190965, 3, '−3.191'],
    [0.0005, 3, '0.001'],
    [1.0005, 3, '1.001'],
    [-0.0004, 3, '0.000'],
    [-0, 2, '0.00'],
    [0.5, 0, '1'],
    [-2.5, 0, '−3'],
    [1e-9, 3, '0.000'],
    [123456.789, 1, '123456.8'],
    [1e21, 2, '1.00E21'],
    [NaN, 3, 'none'],
    [9.9995, 3, '10.000'],
  ])('%d to %d decimals is %s', (value, decimals, text) => {
    expect(formatNumber(value, decimals)).toBe(text)
  })

  test.each([
    ['1e-8', 1e-8],
    ['-2.5e-3', -0.0025],
    ['1e3', 1000],
    ['2e', 2 * Math.E],
    ['e^2', Math.exp(2)],
    ['1 - e', 1 - Math.E],
  ])('%s as a place is %d', (typed, value) => {
    expect(readNumber(typed)).toMatchObject({ ok: true, value })
  })
  test.each([
    [1e-8, 1, '10⁻⁸'],
    [-1.0589e-8, 3, '−1.059·10⁻⁸'],
    [1.6, 1, '1.6'],
    [-1e12, 2, '−10¹²'],
    [0, 3, '0'],
  ])('%d as a power of ten is written with %d decimals as %s', (value, decimals, text) => {
    expect(formatPower(value, decimals)).toBe(text)
  })

  test('rounding is within half a unit of the last place, and never −0', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e9, max: 1e9, noNaN: true }),
        fc.integer({ min: 0, max: 6 }),
        (v, d) => {
          const text = formatNumber(v, d)
          const back = Number(text.replace('−', '-'))
          expect(Math.abs(back - v)).toBeLessThanOrEqual(0.5 * 10 ** -d + 2 ** -52 * Math.abs(v))
          expect(text).not.toMatch(/^−0\.?0*$/)
          expect((text.split('.')[1] ?? '').length).toBe(d)
        },
      ),
    )
  })

  test('a number that is not 0 never reads as 0', () => {
    const texts = [0.00042, -2.4e-8, 1e-7, 0, 5e-324].map((v) => formatNotZero(v, 3))
    expect(texts).toEqual(['0.00042', '−2.4·10⁻⁸', '10⁻⁷', '0.000', '4.941·10⁻³²⁴'])
  })
  test('short form drops padding only', () => {
    expect([2, 4.2, 100, -0.5].map((v) => formatShort(v, 3))).toEqual(['2', '4.2', '100', '−0.5'])
  })
  test('the ends of a short stretch are told apart', () => {
    expect(formatStretch([1, 2.5], 3)).toBe('[1, 2.5]')
    expect(formatStretch([-0.00641, -0.00637], 3)).toBe('[−0.00641, −0.00637]')
    expect(formatStretch([2, 2], 3)).toBe('[2, 2]')
    expect(formatStretch([0, 5e-324], 3)).toBe('[0, 0]')
  })
})

describe('numbers in running text', () => {
  test.each([
    [0.4375, 3, '0.4375'],
    [4, 3, '4'],
    [0.1 + 0.2, 3, '0.3'],
    [-2.5, 0, '−2.5'],
    [1 / 3, 3, '≈ 0.333'],
    [0.4498588075760031, 3, '≈ 0.450'],
    [2.4e-8, 3, '≈ 2.4·10⁻⁸'],
    [Math.PI * 1e11, 3, '≈ 314159265358.979'],
    [0, 3, '0'],
    [-Infinity, 3, '−∞'],
    [-1e21, 3, '−1.000E21'],
    [2 ** 60, 3, '≈ 1.153E18'],
  ])('%d with %d decimals', (value, decimals, text) => {
    expect(sayNumber(value, decimals)).toBe(text)
  })

  test('what carries no ≈ is the number, up to the rounding of doubles', () => {
    fc.assert(
      fc.property(
        fc.double({ noNaN: true }),
        fc.integer({ min: 0, max: 12 }),
        (value, decimals) => {
          const text = sayNumber(value, decimals)
          if (text.startsWith('≈') || !Number.isFinite(value)) return
          const read = Number(text.replace('−', '-'))
          expect(Math.abs(read - value)).toBeLessThanOrEqual(2e-15 * Math.abs(value))
        },
      ),
      { numRuns: 2000 },
    )
  })

  test('a stretch carries one sign for both ends', () => {
    expect(sayStretch([0, 2.5], 3, [true, false])).toBe('[0, 2.5)')
    expect(sayStretch([-Math.sqrt(3), 0], 3, [false, false])).toBe('≈ (−1.732, 0)')
    expect(sayStretch([1, 1 + 1e-6], 3)).toBe('[1, 1.000001]')
  })
})

describe('equations of lines', () => {
  test.each([
    [-3.190965, 15.758, 3, 'y = −3.191t + 15.758'],
    [0, 4, 0, 'y = 4'],
    [0.0001, 4, 2, 'y = 4.00'],
    [1, 2, 0, 'y = t + 2'],
    [-1, -2, 0, 'y = −t − 2'],
    [1, 0, 3, 'y = t'],
    [0, 0, 1, 'y = 0.0'],
    [0.9999, -0.0001, 3, 'y = t'],
    [2.5, -1, 1, 'y = 2.5t − 1.0'],
  ])('slope %d, height %d, %d decimals', (slope, intercept, decimals, text) => {
    const texts = {
      slope: formatNumber(slope, decimals),
      intercept: formatNumber(intercept, decimals),
    }
    expect(lineEquation(texts, 't')).toBe(text)
  })
})

test('units of rates', () => {
  expect(unitOfDerivative('ML/h', 'h', 1)).toBe('ML/h per h')
  expect(unitOfDerivative('ML/h', 'h', 2)).toBe('ML/h per h²')
  expect(unitOfDerivative('', '', 1)).toBe('')
  expect(unitOfDerivative('', 'h', 1)).toBe('per h')
  expect(unitOfDerivative('m', '', 0)).toBe('m')
})

test('a number is read without a variable, and unknown letters are named', () => {
  const a = { name: 'a', value: 3 }
  expect(readNumber('2a + π', [a])).toMatchObject({ ok: true, value: 6 + Math.PI })
  expect(readNumber('k + 1', [a])).toMatchObject({ ok: false, missing: 'k' })
  expect(readNumber('1/0')).toMatchObject({ ok: false, message: '1/0 has no value' })
})
