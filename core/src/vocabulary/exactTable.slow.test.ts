import reference from '../../reference/exact.json'
import {
  areaBetween,
  compile,
  differentiate,
  differenceOf,
  examine,
  integrate,
  parseFormula,
  type RealFunction,
  solve,
  toPlain,
} from '..'
import { exactZero } from '../algebra/exactZeros/exactZeros'
import { substitute } from '../algebra/curves'
import { call, negate, sum, type Tree } from '../formula/tree'
import { exactAreaNumber } from './exactArea'
import { exactNumber, readableFunctions } from './exactForms'
import { tellNumber } from './told'

// Forms and 25 digits by SymPy and mpmath; see reference/exact.py. A form counts as found where it is
// a closed one and its digits are those of the reference.

function read(text: string, variable = 'x') {
  const parsed = parseFormula(text, { variable })
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return parsed.tree
}
const valueOf = (tree: Tree) => compile(tree, { variable: '' }).value(0)
const end = (text: string) => {
  const exact = read(text, '')
  return { value: valueOf(exact), exact }
}
/** The number itself, and what a person reads of it, have the digits of the reference. */
function expectNumber(tree: Tree | null, value: string) {
  expect(tree && toPlain(tree)).not.toBeNull()
  expect(valueOf(tree!)).toBeCloseTo(Number(value), 12)
  const { text, exact } = tellNumber(tree!, 3, readableFunctions)
  const said = exact ? exact.text : text
  const digits = exact ? 12 : 3
  expect(valueOf(read(said.replaceAll('−', '-'), ''))).toBeCloseTo(Number(value), digits)
}
const boxOf = ([lo, hi]: readonly [number, number]) => ({ lo, hi })

test('the table is as large as it should be', () => {
  expect(reference.integrals.length + reference.between.length).toBeGreaterThanOrEqual(150)
  expect(reference.equations.length).toBeGreaterThanOrEqual(60)
  expect(reference.extremes.length).toBeGreaterThanOrEqual(60)
})

test.each(reference.integrals)('∫ $formula from $from to $to', ({ formula, from, to, value }) => {
  const f = compile(read(formula))
  const [a, b] = [end(from), end(to)]
  expectNumber(exactAreaNumber(f, a, b, integrate(f, a.value, b.value)), value)
})

test.each(reference.between)(
  'the area between $upper and $lower',
  ({ upper, lower, value, ends }) => {
    const [f, g] = [compile(read(upper)), compile(read(lower))]
    const gap = differenceOf(f, g)
    const meets = solve(f, g, Number(ends[0]) - 1, Number(ends[1]) + 1).solutions
    const [first, last] = [meets[0]!, meets.at(-1)!].map(({ x, enclosure }) => ({
      value: x,
      exact: exactZero(gap.tree, 'x', boxOf(enclosure)),
    })) as [ReturnType<typeof end>, ReturnType<typeof end>]
    const size = compile(call('abs', gap.tree))
    const area = integrate(size, first.value, last.value)
    expect(area.value).toBeCloseTo(areaBetween(f, g, first.value, last.value).total, 10)
    expectNumber(exactAreaNumber(size, first, last, area), value)
  },
)

/** Three real roots that no real radicals tell (casus irreducibilis). */
const withoutForm = ['x^3 + x^2 - 4*x - 2']

test.each(reference.equations)('$left = $right', ({ left, right, from, to, values }) => {
  const [f, g] = [compile(read(left)), compile(read(right))]
  const { solutions, complete } = solve(f, g, from, to)
  expect(complete).toBe(true)
  expect(solutions.map(({ x }) => x)).toEqual(
    values.map((v) => expect.closeTo(Number(v), 9) as number),
  )
  const gap = sum(f.tree, negate(g.tree))
  solutions.forEach(({ enclosure }, i) => {
    const exact = exactZero(gap, 'x', boxOf(enclosure))
    if (withoutForm.includes(left)) expect(exact).toBeNull()
    else expectNumber(exact, values[i]!)
  })
})

test.each(reference.extremes)(
  'turning points of $formula',
  ({ formula, from, to, places, values }) => {
    const f: RealFunction = compile(read(formula))
    const slope = differentiate(f.tree, 'x')
    const { turningPoints } = examine(f, from, to)
    expect(turningPoints.map(({ x }) => x)).toEqual(
      places.map((v) => expect.closeTo(Number(v), 7) as number),
    )
    turningPoints.forEach(({ enclosure }, i) => {
      const place = exactZero(slope, 'x', boxOf(enclosure))
      expectNumber(place, places[i]!)
      expectNumber(exactNumber(substitute(f.tree, 'x', place!), readableFunctions), values[i]!)
    })
  },
)

describe('what has no form gets none', () => {
  test.each([
    ['e^(-x^2)', '0', '1'],
    ['sin(x)/x', '1', '2'],
    ['sqrt(1 + x^3)', '0', '1'],
    ['1/(x - 1)^3', '0', '2'],
    ['1/cos(x)^2', '0', '2'],
    ['1/(x - 1/3)^2', '0', '1'],
  ])('%s from %s to %s', (formula, from, to) => {
    const f = compile(read(formula))
    const [a, b] = [end(from), end(to)]
    expect(exactAreaNumber(f, a, b, integrate(f, a.value, b.value))).toBeNull()
  })
  test.each([
    ['x - cos(x)', [0.7390851332, 0.7390851333]],
    ['x^5 - x - 1', [1.1673039782, 1.1673039783]],
    ['e^x + x', [-0.5671432905, -0.5671432904]],
  ] as const)('the zero of %s', (formula, [lo, hi]) => {
    const { solutions } = solve(compile(read(formula)), 0, lo - 1e-3, hi + 1e-3)
    expect(exactZero(read(formula), 'x', boxOf(solutions[0]!.enclosure))).toBeNull()
  })
})
