import { compile, parseFormula } from '../..'
import type { OneSided } from '../limits/oneSided'
import { lookAtPlace } from './placeFacts'

function look(text: string, x: number) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return lookAtPlace(compile(parsed.tree), x)
}
const numberOf = (found: OneSided | null) =>
  found?.kind === 'value'
    ? (found.range.lo + found.range.hi) / 2
    : found?.kind === 'infinite'
      ? found.sign * Infinity
      : (found?.kind ?? null)

// Each by the definitions of limit, continuity and slope, worked by hand.
test.each([
  ['(x^2-4)/(x-2) if x != 2; 4 if x = 2', 2, 'smooth'],
  ['sin(x)/x if x != 0; 1 if x = 0', 0, 'smooth'],
  ['(sqrt(x+4)-2)/x if x != 0; 1/4 if x = 0', 0, 'smooth'],
  ['e^(-1/x^2) if x != 0; 0 if x=0', 0, 'smooth'],
  ['x^2 sin(1/x) if x != 0; 0 if x = 0', 0, 'smooth'],
  ['x sin(1/x) if x != 0; 0 if x = 0', 0, 'swings'],
  ['1/(x-2) if x < 2; 3 otherwise', 2, 'pole'],
  ['x^2 if x != 2; 5 if x = 2', 2, 'displaced'],
  ['floor x', 1, 'jump'],
  ['|x|/x', 0, 'jump'],
  ['sin(1/x)', 0, 'oscillation'],
  ['1/x^2', 0, 'pole'],
  ['cbrt x', 0, 'vertical'],
  ['|x|', 0, 'kink'],
  ['x^(2/3)', 0, 'cusp'],
  ['sqrt x', 0, 'end'],
  ['(x^2-1)/(x-1)', 1, 'hole'],
  ['x^2', 1, 'smooth'],
  ['ln x', 0, 'pole'],
  ['x if x<0.1; 0.2-x otherwise', 0.1, 'kink'],
  ['x if x<0.3; x^2+0.21 otherwise', 0.3, 'kink'],
  ['|sin x|', 0, 'kink'],
  ['1 if x = 1', 1, 'isolated'],
  ['sqrt(1-x) if x<1; x-1 otherwise', 1, 'kink'],
  ['e^(1/x)', 0, 'pole'],
  ['arctan(1/x)', 0, 'jump'],
  ['|x-1|^1.5', 1, 'smooth'],
  ['x|x|', 0, 'smooth'],
  ['max(x,2x)', 0, 'kink'],
  ['sgn x', 0, 'jump'],
  ['x ln|x| if x != 0; 0 if x = 0', 0, 'vertical'],
  ['floor(x^2)', 2, 'jump'],
  ['ceil(0.6x)', 0.1, 'smooth'],
] as const)('%s at %d: %s', (text, x, kind) => {
  expect(look(text, x).kind).toBe(kind)
})

test.each([
  ['(x^2-4)/(x-2) if x != 2; 4 if x = 2', 2, 4, 1],
  ['sin(x)/x if x != 0; 1 if x = 0', 0, 1, 0],
  ['(sqrt(x+4)-2)/x if x != 0; 1/4 if x = 0', 0, 0.25, -1 / 64],
  ['e^(-1/x^2) if x != 0; 0 if x = 0', 0, 0, 0],
  ['x^2 sin(1/x) if x != 0; 0 if x = 0', 0, 0, 0],
  ['(e^x - 1)/x if x != 0; 1 if x = 0', 0, 1, 0.5],
  ['(1 - cos x)/x^2 if x != 0; 1/2 if x = 0', 0, 0.5, 0],
])('%s: a hole filled with its limit is continuous and has a slope', (text, x, limit, slope) => {
  const facts = look(text, x)
  expect(numberOf(facts.limit)).toBeCloseTo(limit, 9)
  expect(numberOf(facts.slope)).toBeCloseTo(slope, 9)
})

test('one-sided limits and slopes, each for itself', () => {
  const pole = look('1/(x-2) if x < 2; 3 otherwise', 2)
  expect([pole.left.limit, pole.right.limit].map(numberOf)).toEqual([-Infinity, 3])
  const jump = look('arctan(1/x)', 0)
  expect([jump.left.limit, jump.right.limit].map(numberOf)).toEqual(
    [-1, 1].map((side) => expect.closeTo((side * Math.PI) / 2, 12)),
  )
  const displaced = look('x^2 if x != 2; 5 if x = 2', 2)
  expect(numberOf(displaced.limit)).toBe(4)
  expect(displaced.slope).toBeNull()
})

test('a place that no double holds is looked at by its form', () => {
  const parsed = parseFormula('sqrt(2)')
  if (!parsed.ok) throw new Error('unreadable')
  const text = '(x^2 - 2)/(x - sqrt(2)) if x != sqrt(2); 2sqrt(2) otherwise'
  const formula = parseFormula(text)
  if (!formula.ok) throw new Error('unreadable')
  const facts = lookAtPlace(compile(formula.tree), Math.SQRT2, parsed.tree)
  expect(facts.kind).toBe('smooth')
  expect(numberOf(facts.limit)).toBeCloseTo(2 * Math.SQRT2, 12)
  expect(numberOf(facts.slope)).toBeCloseTo(1, 9)
})
