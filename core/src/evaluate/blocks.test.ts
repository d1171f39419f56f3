import { all, create } from 'mathjs'
import { compile } from '../algebra/compile'
import { parseFormula } from '../calculus/parseFormula'

const mathjs = create(all!)
const read = (text: string) => {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return compile(parsed.tree)
}
const same = (a: number, b: number) => Object.is(a, b) || (Number.isNaN(a) && Number.isNaN(b))

describe('many values at once, with several operations in one pass', () => {
  // [ours, mathjs]: sums, multiples and functions that go into one pass, each way round.
  test.each([
    ['6 + 4 sin(0.9x) - 0.3x', '6 + 4*sin(0.9*x) - 0.3*x'],
    ['4 cos(2x) + 6', '4*cos(2*x) + 6'],
    ['1 - e^(-x/5)', '1 - exp(-x/5)'],
    ['e^(x/3) + sin(x)/(2 + cos x)', 'exp(x/3) + sin(x)/(2 + cos(x))'],
    ['x - x/(1 + x^2)', 'x - x/(1 + x^2)'],
    ['sin(3x) + 2 sin(3x) cos(3x)', 'sin(3*x) + 2*sin(3*x)*cos(3*x)'],
    ['ln(2x + 40) - 3 ln(x + 40)', 'log(2*x + 40) - 3*log(x + 40)'],
    ['x^3 - 2x^4 + sqrt(x^2 + 1)', 'x^3 - 2*x^4 + sqrt(x^2 + 1)'],
    ['-x/7 + x^3/(x^2 + 3) - x^2/(x^4 + 2)', '-x/7 + x^3/(x^2 + 3) - x^2/(x^4 + 2)'],
  ])('%s', (ours, theirs) => {
    const f = read(ours)
    const code = mathjs.compile(theirs)
    // 301 is no multiple of what goes in one round.
    const xs = Float64Array.from({ length: 301 }, (_, i) => (i - 150) / 10)
    const many = f.values(xs)
    xs.forEach((x, i) => {
      expect(same(many[i]!, f.value(x))).toBe(true)
      const expected = code.evaluate({ x }) as number
      expect(Math.abs(many[i]! - expected)).toBeLessThanOrEqual(
        1e-12 * Math.max(1, Math.abs(expected)),
      )
    })
  })

  test('over 0 there is no value, and over a number that is nearly 0 there is', () => {
    // The product of four such denominators is 0 in doubles though none of them is.
    const xs = [1e-160, 0, 1e-160, -1e-160, 1e-160, 2e-160, 3e-160, 4e-160]
    for (const text of ['1/x', 'x^2 + 1/x', '1 - 1/x', '2 + (x + 1)/x', '2 - x/(0.5 - x)']) {
      const f = read(text)
      const many = f.values(xs)
      xs.forEach((x, i) => expect([text, x, same(many[i]!, f.value(x))]).toEqual([text, x, true]))
    }
    expect(read('1/x').values(xs)[0]).toBe(1e160)
    expect(read('1/x').values(xs)[1]).toBeNaN()
    expect(read('1 + 1/(x - 1)').values([0, 1, 2])).toEqual(Float64Array.of(0, NaN, 2))
    expect(read('3 + ln(2x)').values([0.5, 0, -1, -0])).toEqual(Float64Array.of(3, NaN, NaN, NaN))
  })

  test('a denominator of 0 beside one that is no number, or has no bounds, has no value either', () => {
    for (const text of ['1/sqrt(x)', '2 + 1/sqrt(x)', 'x - 3/ln(x + 1)', '1/x', '1 + 1/x']) {
      const f = read(text)
      for (const xs of [
        [-1, 0, 1, 2],
        [0, -2, 3, 4],
        [5, 0, Infinity, 1],
        [0, NaN, 1, 1e300],
      ]) {
        const many = f.values(xs)
        xs.forEach((x, i) => expect([text, x, same(many[i]!, f.value(x))]).toEqual([text, x, true]))
        expect([text, many[xs.indexOf(0)]]).toEqual([text, NaN])
      }
    }
  })

  test('a negative zero stays one', () => {
    expect([...read('sin(x)').values([-0, 0])]).toEqual([-0, 0])
    expect([...read('-0.5x').values([0, 1])]).toEqual([-0, -0.5])
  })
})
