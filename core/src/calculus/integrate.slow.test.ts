import fc from 'fast-check'
import reference from '../../reference/integrals.json'
import { accumulate, compile, integrate, parseFormula, type RealFunction } from '..'

function read(text: string): RealFunction {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return compile(parsed.tree)
}
const named: Record<string, number> = {
  pi: Math.PI,
  e: Math.E,
  inf: Infinity,
  '-inf': -Infinity,
}
const end = (text: string) => named[text] ?? Number(text)

describe('against mpmath: Kahaner’s 21 integrals and what lessons meet', () => {
  // core/reference/integrals.py names the source of the set.
  test.each(reference.table)(
    '∫ $formula from $from to $to',
    ({ formula, from, to, kind, value }) => {
      const truth = Number(value)
      const found = integrate(read(formula), end(from), end(to))
      const error = Math.abs(found.value - truth)
      expect(found.diverges).toBe(false)
      expect(error).toBeLessThanOrEqual(found.errorBound)
      const asked = { smooth: 1e-9, singular: 1e-7, slow: 1e-3 }[kind]!
      expect(error).toBeLessThanOrEqual(asked * Math.max(1, Math.abs(truth)))
      expect(found.evaluations).toBeLessThan(11_000)
      expect(found.evaluations).toBeGreaterThan(20)
    },
  )
})

describe('closed forms from a table of integrals (common practice, no source)', () => {
  test.each([
    ['x^x', 0, 1, 0.7834305107121344],
    ['ln(x)^2', 0, 1, 2],
    ['1/cosh x', -Infinity, Infinity, Math.PI],
    ['|sin x|', 0, 10, 6 + 1 - Math.cos(10 - 3 * Math.PI)],
    ['floor x', 0, 4, 6],
    ['e^(-1/x)/x^2', 0, 1, Math.exp(-1)],
    ['(x-1)/(x^2-1)', 0, 2, Math.log(3)],
    ['x^2 if x < 1; 0 otherwise', 0, 2, 1 / 3],
    ['sin(x)/sqrt(x)', 0, Infinity, Math.sqrt(Math.PI / 2)],
    ['x^3', 2, -1, -15 / 4],
  ])('∫ %s from %d to %d', (formula, a, b, truth) => {
    const { value, errorBound } = integrate(read(formula), a, b)
    expect(Math.abs(value - truth)).toBeLessThanOrEqual(errorBound + 1e-15)
    expect(value).toBeCloseTo(truth, 9)
  })
})

// Two as sums of their series, the others by mpmath's quad with 150 digits at each place.
describe('where doubles cancel the area keeps its digits', () => {
  test.each([
    ['(e^x - 1 - x)/x^2', 0, 1, '0.5996203229953586597'],
    ['(1 - cos(x))/x^2', 0, 1, '0.48638537623532273234'],
    ['(tan(x) - x)/x^3', 0, 1, '0.39318046829018432524'],
    ['(x - sin(x))/x^3', -1, 1, '0.32785636104321923899'],
    ['(ln(1 + x) - x)/x^2', 0, 1, '-0.38629436111989061883'],
    ['(1 - cos(x))/x^2', 1e-8, 1e-7, '4.4999999999999986125e-8'],
    ['sqrt(x + 1) - sqrt(x)', 1e12, 1e12 + 1000, '4.9999999987487500006e-4'],
    ['(e^(x - 0.1) - 1)/(x - 0.1)', 0.1, 1.1, '1.3179021514544038949'],
  ])('%s from %d to %d', (formula, from, to, value) => {
    const { value: found, errorBound } = integrate(read(formula), from, to)
    const truth = Number(value)
    expect(Math.abs(found - truth)).toBeLessThanOrEqual(errorBound + 1e-16 * Math.abs(truth))
    expect(errorBound).toBeLessThan(1e-12 * Math.abs(truth) + 1e-16)
  })
})

describe('divergence is said, and where', () => {
  test.each([
    ['1/x', -1, 1, 0],
    ['1/x', 0, 1, 0],
    ['1/x^2', -1, 1, 0],
    ['tan x', 0, 2, Math.PI / 2],
    ['1/(x-1)', 0, 3, 1],
    ['1/(x ln x)', 1, 2, 1],
    ['1/(e^x-1)', 0, 1, 0],
    ['1/x', 1, Infinity, Infinity],
    ['1/(x ln x)', 2, Infinity, Infinity],
    ['1/sqrt x', 1, Infinity, Infinity],
    ['sin x', 0, Infinity, Infinity],
    ['x', 0, Infinity, Infinity],
    ['x^3', -Infinity, Infinity, -Infinity],
    ['e^(1/x)', 0, 1, 0],
  ])('%s from %d to %d', (formula, a, b, at) => {
    const found = integrate(read(formula), a, b)
    expect(found.diverges).toBe(true)
    expect(Number.isFinite(found.value)).toBe(false)
    if (Number.isFinite(at)) expect(found.divergesAt).toBeCloseTo(at, 9)
    else expect(found.divergesAt).toBe(at)
  })
  test.each([
    ['1/sqrt x', 0, 1],
    ['ln x', 0, 1],
    ['1/x^0.9', 0, 1],
    ['1/x^1.5', 1, Infinity],
    ['1/(x ln(x)^2)', 2, Infinity],
    ['sin(x)/x', 1, Infinity],
  ])('%s from %d to %d does not', (formula, a, b) => {
    expect(integrate(read(formula), a, b).diverges).toBe(false)
  })
  test('a stretch without values is named, and no number is given', () => {
    expect(integrate(read('sqrt x'), -1, 4)).toMatchObject({
      value: NaN,
      undefinedOn: [-1, 0],
      diverges: false,
    })
  })
})

describe('what oscillates', () => {
  test('beside an end keeps its area, however short the stretch', () => {
    // d·sin(1/d) − Ci(1/d) by mpmath 1.3.
    const found = integrate(read('sin(1/x)'), 0, 1e-4)
    expect(found.diverges).toBe(false)
    expect(Math.abs(found.value + 9.52216434000147e-9)).toBeLessThanOrEqual(found.errorBound)
    expect(found.errorBound).toBeLessThan(1e-15)
    for (const [formula, end, most] of [
      ['sin(1/x)', 1e-8, 1e-8],
      ['x^2 sin(1/x)', 1e-10, 1e-30],
    ] as const) {
      const short = integrate(read(formula), -end, 0)
      expect(short.diverges).toBe(false)
      expect(Math.abs(short.value)).toBeLessThanOrEqual(most)
      expect(short.errorBound).toBeLessThanOrEqual(most)
    }
  })
  test('far out is told by the power with which it falls', () => {
    // π/2 − Si(10⁴) by mpmath 1.3.
    const tail = integrate(read('sin(x)/x'), 1e4, Infinity)
    expect(tail.value).toBeCloseTo(-0.0000952185910652965, 14)
    expect(integrate(read('sin(x)'), 1e4, Infinity).diverges).toBe(true)
    expect(integrate(read('x^0.1 sin(x)'), 10, Infinity).diverges).toBe(true)
  })
})

describe('properties', () => {
  const f = read('3 sin(2x) + x^2/4 - e^(-x/3)')
  const g = read('|x - 1| + cos(3x)')
  const place = fc.double({ min: -6, max: 6, noNaN: true })
  test('∫ from a to b and on to c is ∫ from a to c, whichever way they lie', () => {
    fc.assert(
      fc.property(place, place, place, (a, b, c) => {
        const [ab, bc, ac] = [integrate(g, a, b), integrate(g, b, c), integrate(g, a, c)]
        const slack = ab.errorBound + bc.errorBound + ac.errorBound
        expect(Math.abs(ab.value + bc.value - ac.value)).toBeLessThanOrEqual(slack)
      }),
      { numRuns: 60, seed: 7 },
    )
  })
  test('∫ of 2f + 3g is 2∫f + 3∫g', () => {
    const both = read('2(3 sin(2x) + x^2/4 - e^(-x/3)) + 3(|x - 1| + cos(3x))')
    fc.assert(
      fc.property(place, place, (a, b) => {
        const sum = 2 * integrate(f, a, b).value + 3 * integrate(g, a, b).value
        expect(integrate(both, a, b).value).toBeCloseTo(sum, 9)
      }),
      { numRuns: 40, seed: 8 },
    )
  })
  test('equal ends give 0, turned ends the opposite', () => {
    expect(integrate(f, 2, 2)).toMatchObject({ value: 0, errorBound: 0, evaluations: 0 })
    expect(integrate(f, 3, 1).value).toBe(-integrate(f, 1, 3).value)
  })
  test('a spike a thousandth wide is not passed by, wherever it stands', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.95, noNaN: true }), (c) => {
        const at = c.toFixed(6)
        const { value } = integrate(read(`e^(-1000000(x - ${at})^2)`), 0, 1)
        expect(value).toBeCloseTo(Math.sqrt(Math.PI) / 1000, 12)
      }),
      { numRuns: 60, seed: 9 },
    )
  })
})

describe('accumulation', () => {
  test.each([
    ['6 + 4 sin(0.9x) - 0.3x', 0, 0, 10],
    ['1/sqrt x', 1, 0, 4],
    ['ln x', 0, 0, 3],
    ['|x - 1|', 2, -2, 3],
    ['floor x', 0, 0, 5],
    ['sqrt(1 - x^2)', -1, -1, 1],
    ['sin(50x)', 0, 0, 10],
    ['x if x < 1; 3 otherwise', 0, 0, 2],
    ['e^(-1000000(x - 0.5123)^2)', 0, 0, 1],
    ['x^2', -3, 0, 2],
  ])('of %s from %d agrees with the integral all over [%d, %d]', (formula, lower, from, to) => {
    const f = read(formula)
    const area = accumulate(f, lower, from, to)
    const xs = Float64Array.from({ length: 23 }, (_, i) => from + ((to - from) * i) / 22)
    const found = area.values(xs)
    xs.forEach((x, i) => {
      const { value, errorBound } = integrate(f, lower, x)
      const slack = area.errorBound + errorBound + 1e-14
      expect(Math.abs(found[i]! - value)).toBeLessThanOrEqual(slack)
      expect(Math.abs(found[i]! - value)).toBeLessThan(1e-9)
    })
  })
  // By mpmath 1.3, quad and ci at 25 digits.
  test.each([
    ['sin(1/x)', 9, 2.589369516910393],
    ['cos(1/x)/x', 9, 2.046074573733658],
    ['sin(x^4)', 9, 0.340543152044646],
    ['ln|sin x|', 9, -4.886463497688846],
    ['1/sqrt|x - 7|', 9, 7.92744663833413],
    ['|x - 1|^0.1', 9, 9.37788345684339],
    ['e^(1/x)', 9, 12.82311148255749],
    ['x^x', 1, 0.4108156482543906],
  ])('of %s over a span that makes it hard, at %d', (formula, x, expected) => {
    const area = accumulate(read(formula), 0.5, -10, 10)
    expect(Math.abs(area.value(x) - expected)).toBeLessThanOrEqual(area.errorBound + 1e-14)
    expect(area.value(x)).toBeCloseTo(expected, 10)
  })
  test('a lower end where f begins is one, and a stretch without values ends the area', () => {
    const f = read('sqrt(x^2 - 1)')
    const area = accumulate(f, 1, -4, 4)
    // ½(x√(x² − 1) − ln(x + √(x² − 1)))
    const at3 = (3 * Math.sqrt(8) - Math.log(3 + Math.sqrt(8))) / 2
    expect(area.value(3)).toBeCloseTo(at3, 12)
    expect(area.value(-3)).toBeNaN()
    expect(accumulate(f, -3, -4, 4).value(-1)).toBeCloseTo(at3, 12)
    expect(accumulate(f, -3, -4, 4).value(2)).toBeNaN()
  })
  test('each pole of the tangent ends it', () => {
    const area = accumulate(read('tan x'), 0, -10, 10)
    expect(area.value(1.5)).toBeCloseTo(-Math.log(Math.cos(1.5)), 11)
    expect(area.value(1.6)).toBeNaN()
    expect(area.value(-2)).toBeNaN()
  })
  test('its slope is f, and its rise over a small step agrees', () => {
    const f = read('3 sin(2x) + x^2/4')
    const area = accumulate(f, 0, -5, 5)
    fc.assert(
      fc.property(fc.double({ min: -4.9, max: 4.9, noNaN: true }), (x) => {
        expect(area.derivatives(x, 1)[1]).toBe(f.value(x))
        const h = 1e-4
        const rise = (area.value(x + h) - area.value(x - h)) / (2 * h)
        expect(Math.abs(rise - f.value(x))).toBeLessThan(1e-7)
      }),
      { numRuns: 100, seed: 10 },
    )
  })
  test('it ends where the area runs away, and says where', () => {
    const area = accumulate(read('1/x'), 1, -2, 3)
    expect(area.value(2)).toBeCloseTo(Math.log(2), 12)
    expect(area.value(-1)).toBeNaN()
    expect(area.divergesAt).toBeCloseTo(0, 9)
  })
  test('its enclosure holds it', () => {
    const area = accumulate(read('cos(3x) - x/5'), 0, 0, 6)
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 5.9, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, width, share) => {
          const [lo, hi] = area.enclose(a, a + width)
          const y = area.value(a + share * width)
          expect(lo <= y && y <= hi).toBe(true)
        },
      ),
      { numRuns: 300, seed: 11 },
    )
  })
})
