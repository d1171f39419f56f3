import reference from '../../reference/sentences.json'
import { startStudy } from '..'
import { last, made, number, say } from './fixtures/testing'

const table = (result: ReturnType<typeof last>['result'], name: string) =>
  result.tables?.find((t) => t.name === name)?.rows ?? []
const accumulated = (formula: string, lower: number, [from, to]: readonly number[]) =>
  say(
    { ...made(`f(x) = ${formula} on [${from}, ${to}]`), decimals: 9 },
    `accumulate f from ${lower}`,
  )

// The table is made by reference/sentences.py with the version of mpmath that it names.
describe.each(reference.areas)('the area under $formula as a function', (area) => {
  const { formula, lower, span, level, solutions, turning, highest, lowest } = area
  const study = accumulated(formula, lower, span)

  test('takes a level where it does, and no place else', () => {
    const { result } = last(say(study, `where A = ${level}`))
    const found = table(result, 'Solutions').map((r) => r.values.find((v) => v !== null)!)
    expect(found).toEqual(solutions.map((x) => expect.closeTo(x, 9)))
    expect(result.verdict!.complete).toBe(true)
  })

  test('turns where its integrand changes sign, and has its extremes', () => {
    const { result } = last(say(study, 'turning points of A'))
    const rows = table(result, 'Features')
    expect(rows.map((r) => [r.values[1], r.values[2]])).toEqual(
      turning.map((place) => place.map((v) => expect.closeTo(v, 8))),
    )
    expect(result.verdict!.complete).toBe(true)
    expect(number(result, 'highest')).toBeCloseTo(highest, 9)
    expect(number(result, 'lowest')).toBeCloseTo(lowest, 9)
  })
})

describe('an area is a curve like any other', () => {
  test('1 − cos x touches the axis again at 2π, with proof', () => {
    const { result } = last(say(accumulated('sin x', 0, [0, 7]), 'zeros of A'))
    const rows = table(result, 'Features')
    expect(rows.map((r) => r.values[1])).toEqual([0, expect.closeTo(2 * Math.PI, 9)])
    expect(result.verdict!.complete).toBe(true)
  })
  test('it meets another curve', () => {
    // ∫ 2t dt from 0 is x²: it meets 3x − 2 at 1 and 2.
    const study = say(accumulated('2x', 0, [0, 3]), 'let g(x) = 3x - 2')
    const { result } = last(say(study, 'where A = g'))
    expect(table(result, 'Solutions').map((r) => r.values[0])).toEqual([1, 2])
    expect(result.verdict!.complete).toBe(true)
  })
  test('it stands in another formula', () => {
    const study = say(accumulated('2x', 0, [0, 3]), 'let g(x) = A(x) - 4x')
    const { result } = last(say(study, 'turning points of g'))
    expect(number(result, 'lowest')).toBeCloseTo(-4, 12)
    expect(table(result, 'Features')[0]!.values[1]).toBeCloseTo(2, 12)
  })
  test('one without a formula stands in another too, beyond its own span', () => {
    // By mpmath: √π/2·erf(2) = 0.882081390762…
    const study = say(accumulated('e^(-x^2)', 0, [-1, 1]), 'let g(x) = 10 A(2x)')
    const { result } = last(say(study, 'value of g at 1'))
    expect(number(result, 'value')).toBeCloseTo(8.82081390762, 8)
    const slope = last(say(study, 'tangent to g at 1'))
    expect(number(slope.result, 'slope')).toBeCloseTo(20 * Math.exp(-4), 9)
  })
  test('its concavity is that of an area: up where f rises', () => {
    const { result } = last(say(accumulated('x^3 - 3x', 0, [-2, 2]), 'inflections of A'))
    expect(table(result, 'Features').map((r) => r.values[1])).toEqual([-1, 1])
  })
  test.each([
    ['floor x', 1, 'yes', 'no', /tend to 0 from the left and to 1 from the right/],
    ['x^2 if x != 2; 5 if x = 2', 2, 'yes', 'yes', /has the slope 4 there/],
    ['sin(x)/x', 0, 'yes', 'yes', /has the slope 1 there/],
    ['1/sqrt|x|', 0, 'yes', 'no', /it is vertical here/],
  ])('∫ %s at %d: continuous %s, differentiable %s', (formula, x, yes, smooth, why) => {
    const study = accumulated(formula, -1, [-1, 3])
    const { result } = last(say(study, `is A continuous at ${x}`))
    expect(result.readouts.map((r) => r.text)).toEqual([yes, smooth])
    expect(result.conclusions!.map((c) => c.text).join(' ')).toMatch(why)
  })
  test('its limit is its value', () => {
    const { result } = last(say(accumulated('sin(x)/x', 0, [-4, 4]), 'limit of A as x -> pi'))
    // Si(π) = 1.851937051982…: NIST Digital Library of Mathematical Functions, 6.16 (from memory).
    expect(number(result, 'limit')).toBeCloseTo(1.851937051982, 9)
  })
  test.each(['1/x', 'e^x/x'])('where the area under %s runs away, it ends', (formula) => {
    const { result } = last(say(accumulated(formula, -1, [-2, 2]), 'features of A'))
    expect(result.notes).toContain('A takes no lowest value on [−2, 2].')
    expect(table(result, 'Features').map((r) => r.cells[0])).not.toContain('pole')
    expect(result.verdict!.complete).toBe(true)
  })
  test('a change of a slider changes what is said of the area', () => {
    const study = say(startStudy('f(x) = x - k on [0, 4]'), 'accumulate f from 0')
    const told = (k: number) => {
      const moved = { ...study, sliders: study.sliders.map((s) => ({ ...s, value: k })) }
      return number(last(say(moved, 'turning points of A')).result, 'lowest')
    }
    expect([told(1), told(2)]).toEqual([expect.closeTo(-0.5, 12), expect.closeTo(-2, 12)])
  })
})
