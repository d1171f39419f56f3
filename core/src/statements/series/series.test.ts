import reference from '../../../reference/taylor.json'
import { convergenceRadius } from '../../calculus/convergence'
import { taylorRemainder } from '../../calculus/remainder'
import { compile, parseFormula, workOut } from '../..'
import { studyOf } from '../fixtures/testing'

function told(start: string, ...words: string[]) {
  const study = studyOf(start, ...words)
  const line = workOut(study).lines.at(-1)!
  const readout = (label: string) => line.readouts.find((r) => r.label === label)
  return {
    ...line,
    readout,
    rows: line.tables[0]?.rows ?? [],
    said: line.conclusions.map((c) => c.text),
  }
}
function read(formula: string) {
  const parsed = parseFormula(formula)
  if (!parsed.ok) throw new Error(formula)
  return compile(parsed.tree)
}

describe('coefficients and errors are those of mpmath', () => {
  // core/reference/taylor.py: mpmath with 60 digits.
  test.each(reference.table)('$formula at $at', ({ formula, at, coefficients, errors }) => {
    const { tables } = told(
      `f(x) = ${formula} for -1.5 <= x <= 4`,
      `taylor polynomial of f at ${at}, order 12`,
    )
    expect(tables[0]!.rows).toHaveLength(13)
    const f = read(formula)
    const x = Number(at)
    let factorial = 1
    f.derivatives(x, 12).forEach((derivative, k) => {
      if (k > 1) factorial *= k
      const expected = coefficients[k]!
      expect(Math.abs(derivative / factorial - expected)).toBeLessThan(
        1e-13 * Math.max(1, Math.abs(expected)),
      )
    })
    // A proven bound holds each true error, and is no wild one.
    for (const { degree, b, error } of errors) {
      const [from, to] = [Math.min(x, b), Math.max(x, b)]
      const { bound } = taylorRemainder(f, x, degree).boundOn(from, to)
      expect(bound).toBeGreaterThanOrEqual(Math.abs(error) * (1 - 1e-12))
      expect(bound).toBeLessThan(
        1e-14 + 1000 * Math.abs(error) + 1e-2 * Math.abs(b - x) ** (degree + 1),
      )
    }
  })
})

describe('the formula is written by hand', () => {
  test.each([
    ['f(x) = cos x', 'at 0, order 4', 'y = 1 − x²/2 + x⁴/24'],
    ['f(x) = e^x', 'at 0, order 3', 'y = 1 + x + x²/2 + x³/6'],
    ['f(x) = ln(1 + x)', 'at 1, order 3', 'y = ln(2) + (x − 1)/2 − (x − 1)²/8 + (x − 1)³/24'],
    ['f(x) = 1/(1 - x)', 'at -1, order 2', 'y = 1/2 + (x + 1)/4 + (x + 1)²/8'],
    ['f(x) = 6 + 4 sin(0.9x) - 0.3x', 'at 0, order 3', 'y = 6 + 3.3x − 0.486x³'],
    ['f(x) = x^3', 'at 2, order 3', 'y = 8 + 12(x − 2) + 6(x − 2)² + (x − 2)³'],
    ['f(x) = sin x', 'at 0, order 0', 'y = 0'],
  ])('%s %s', (start, words, formula) => {
    expect(told(start, `taylor polynomial of f ${words}`).readout('formula')?.text).toBe(formula)
  })
})

test('error at a place, term by term', () => {
  // 1 − 1/2 + 1/24 = 0.5416667, and cos 1 = 0.5403023.
  const { rows, readout, sentence } = told(
    'f(x) = cos x',
    'taylor polynomial of f at 0, order 4, error at 1',
  )
  expect(sentence).toBe('Taylor polynomial of f at x = 0, order 4, error at x = 1')
  expect(readout('error')?.value).toBeCloseTo(Math.cos(1) - 13 / 24, 14)
  expect(rows.map((row) => row[5])).toEqual([
    '1.000000',
    '1.000000',
    '0.500000',
    '0.500000',
    '0.541667',
  ])
  expect(rows.at(-1)![6]).toBe('−0.001364')
})

test('of order 1 the differentials stand beside each other', () => {
  // Of √x at 4 with dx = 0.41: dy = 0.41/4 = 0.1025 and Δy = 2.1 − 2 = 0.1.
  const { readout } = told(
    'f(x) = sqrt x for 0 <= x <= 9',
    'taylor polynomial of f at 4, order 1, error at 4.41',
  )
  expect(readout('dy')?.value).toBeCloseTo(0.1025, 12)
  expect(readout('Δy')?.value).toBeCloseTo(0.1, 12)
})

describe('which order is enough', () => {
  test('of e^x on [0, 1] for a thousandth: order 6, and 5 is not', () => {
    // e/7! = 0.00054; at 1 the error of order 5 is e − 163/60 = 0.0016.
    const { said } = told('f(x) = e^x', 'which order of f at 0 is enough on [0, 1] for 10^-3')
    expect(said).toEqual([
      'Order 6 is enough on [0, 1]: |error| is at most 5.4·10⁻⁴.',
      'Order 5 is not: at x = 1 |error| ≈ 0.0016.',
    ])
  })
  test('of the cosine the next term is 0, and that is made use of', () => {
    // 1/10! = 2.8·10⁻⁷ is the error of order 8 at the most.
    const { said } = told('f(x) = cos x', 'which order of f at 0 is enough on [-1, 1] for 1E-6')
    expect(said[0]).toBe('Order 8 is enough on [−1, 1]: |error| is at most 2.8·10⁻⁷.')
    expect(said[1]).toMatch(/^Order 7 is not/)
  })
  test('beyond the radius no order is', () => {
    const { said, readout } = told(
      'f(x) = 1/(1 + x^2)',
      'which order of f at 0 is enough on [0, 2] for 0.01',
    )
    expect(said[0]).toMatch(/^No order up to 40/)
    expect(readout('bound')?.value).toBeGreaterThan(1)
  })
})

test('the stretch on which the error stays under a bound is right and short by little', () => {
  // |sin x − x| = 0.001 at 0.18183, by bisection in mpmath.
  const { said } = told(
    'f(x) = sin x for -3 <= x <= 3',
    'taylor polynomial of f at 0, order 2, error under 0.001',
  )
  const [, from, to] = /from (\S+) to (\S+): proven/.exec(said[0]!)!
  expect(Number(to)).toBeLessThanOrEqual(0.18183)
  expect(Number(to)).toBeGreaterThanOrEqual(0.181)
  expect(from).toBe(`−${to}`)
})

describe('radius of convergence', () => {
  test.each([
    ['1/(1 + x^2)', 0, 1],
    ['1/(1 + x^2)', 2, Math.sqrt(5)],
    ['x/((x - 3)(x + 1))', 0, 1],
    ['(x^2 - 1)/(x - 1)', 0, Infinity],
    ['ln(1 + x)', 1, 2],
    ['sqrt(x + 1)', 0, 1],
    ['e^(-x^2)', 3, Infinity],
    ['sin x cos(3x)', 0, Infinity],
  ])('%s at %s', (formula, at, radius) => {
    expect(convergenceRadius(read(formula).tree, 'x', at)?.radius).toBeCloseTo(radius, 9)
  })
  test.each(['tan x', '|x|', 'sqrt(x^2)', 'x ln x'])('of %s it is not told', (formula) => {
    expect(convergenceRadius(read(formula).tree, 'x', 0.5)).toBeNull()
  })
})

describe('what stands in the way', () => {
  test.each([
    ['f(x) = |x|', 'at 0, order 2', /no slope at x = 0/],
    ['f(x) = cos x', 'at 0, order 41', /whole number from 0 to 40, and not 41/],
    ['f(x) = cos x', 'at 0, order 2.5', /whole number from 0 to 40, and not 2.5/],
    ['f(x) = ln x', 'at -1, order 2', /f has no value at x = −1/],
    ['f(x) = |x|^3', 'at 0, order 5', /no derivative of order 3 at x = 0/],
  ])('%s %s', (start, words, message) => {
    const { problems } = told(start, `taylor polynomial of f ${words}`)
    expect(problems[0]?.message).toMatch(message)
    expect(problems[0]?.fix).toBeTruthy()
  })
  test('no bound is told across a kink', () => {
    const { readout, notes } = told(
      'f(x) = |x - 1|',
      'taylor polynomial of f at 0, order 1, over [0, 2]',
    )
    // The kink lies exactly between two of the boxes; at 2 the error is 2.
    expect(readout('bound')!.value!).toBeGreaterThanOrEqual(2)
    expect(notes.join(' ')).toContain('by enclosing f − P piece by piece')
  })
})

describe('integrals by series', () => {
  test('∫ e^(−x²) over [0, 1], which no antiderivative of schools gives', () => {
    // 1 − 1/3 + 1/10 − 1/42 + 1/216 = 0.7474868; √π erf(1)/2 = 0.7468241 (mpmath).
    const { readout, notes, rows, sentence } = told(
      'f(x) = e^(-x^2)',
      'integrate f by series from 0 to 1',
    )
    expect(sentence).toBe('Integral of f over [0, 1] by its series at x = 0, order 8')
    expect(readout('sum')?.value).toBeCloseTo(1 - 1 / 3 + 1 / 10 - 1 / 42 + 1 / 216, 14)
    expect(readout('exact')?.value).toBeCloseTo(0.7468241328124271, 12)
    expect(readout('bound')!.value!).toBeGreaterThan(Math.abs(readout('error')!.value!))
    // The next term: 1/(5!·11).
    expect(notes.join(' ')).toContain('7.58·10⁻⁴ of order 10')
    expect(rows).toHaveLength(9)
  })
  test('where they do not alternate nothing is said of the next term', () => {
    expect(told('f(x) = e^x', 'integrate f by series from 0 to 1').notes.join(' ')).not.toMatch(
      /alternate/,
    )
  })
})
