import { parseFormula } from '..'
import { likelyForm, provenForm } from './exactForms'
import { formatCertain } from './numbers'
import { unitOfArea } from './units'

function read(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return parsed.tree
}

describe('exact forms', () => {
  // Worked by hand.
  test.each([
    ['x^2/3 - x', 1, '−2/3'],
    ['1/(x + 2)', 5, '1/7'],
    ['x/3', 0.5, '1/6'],
    ['sqrt(x)', 2, '√2'],
    ['pi x/3', 2, '2π/3'],
    ['0.1x', 1 / 4, null],
    ['x^2', 1.5, null],
    ['sin x', 1, null],
    ['e^x', 1, 'e'],
    ['x^2', 1 / 3, '1/9'],
    ['1/x', 0, null],
    ['ln x', -1, null],
  ])('%s at %d', (text, x, form) => {
    const at = read(x === 1 / 3 ? '1/3' : String(x))
    expect(provenForm(read(text), 'x', at, 3)?.text ?? null).toBe(form)
  })

  test('a place may be a multiple of π itself', () => {
    expect(provenForm(read('2x/3'), 'x', read('pi/4'), 3)).toEqual({ text: 'π/6', proven: true })
  })

  test.each([
    [2 / 3, '2/3'],
    [-56 / 3, '−56/3'],
    [Math.sqrt(6) / 2, '√6/2'],
    [-Math.sqrt(2), '−√2'],
    [(2 * Math.PI) / 3, '2π/3'],
    [Math.PI, 'π'],
    [Math.sqrt(12), '2√3'],
    [Math.E, null],
    [2.5, null],
    [0, null],
    [NaN, null],
    [1.2345678901234, null],
    [Math.sin(1), null],
  ])('the digits of %d are likely %s', (value, form) => {
    const found = likelyForm(value, 3)
    expect(found?.text ?? null).toBe(form)
    if (found) expect(found.proven).toBe(false)
  })

  test('random numbers are taken for no form', () => {
    let seed = 7
    const next = () => (seed = (seed * 16807) % 2147483647) / 2147483647
    const taken = Array.from({ length: 2000 }, () => likelyForm(next() * 20 - 10, 3)).filter(
      Boolean,
    )
    expect(taken).toEqual([])
  })
})

test('only digits that an enclosure settles are shown', () => {
  expect(formatCertain([1.652629, 1.6526292], 3)).toEqual({ text: '1.653', certain: true })
  expect(formatCertain([1.6524, 1.6526], 3)).toEqual({ text: '1.65', certain: false })
  expect(formatCertain([0.9, 1.1], 3)).toEqual({ text: '1', certain: false })
  expect(formatCertain([-0.0000001, 0.0000001], 3)).toEqual({ text: '0.000', certain: true })
})

test.each([
  ['ML/h', 'h', 'ML'],
  ['m', 'm', 'm²'],
  ['m/s', 's', 'm'],
  ['m/s²', 's', 'm/s'],
  ['m s⁻²', 's', 'm/s'],
  ['°C', 'h', '°C·h'],
  ['kg·m^2', 'm', 'kg·m³'],
  ['ML per h', 'h', 'ML'],
  ['', 'h', 'h'],
  ['ML', '', 'ML'],
  ['', '', ''],
  ['1/h', 'h', ''],
])('an area in %s times %s is in “%s”', (unit, axis, area) => {
  expect(unitOfArea(unit, axis)).toBe(area)
})
