import { compile, limit, parseFormula } from '../..'

function read(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return compile(parsed.tree)
}
const inf = Infinity

// Limits as any calculus text works them (common practice, no one source).
test.each([
  ['x^2', 3, 9],
  ['sin(x)/x', 0, 1],
  ['(1 - cos x)/x^2', 0, 0.5],
  ['(x^2 - 1)/(x - 1)', 1, 2],
  ['tan(x)/x', 0, 1],
  ['(e^x - 1)/x', 0, 1],
  ['(sqrt(x + 1) - 1)/x', 0, 0.5],
  ['ln(1 + x)/x', 0, 1],
  ['x/(e^x - 1)', 0, 1],
  ['(x^3 - 8)/(x - 2)', 2, 12],
  ['x sin(1/x)', 0, 0],
  ['e^(-1/x^2)', 0, 0],
  ['|x|', 0, 0],
  ['(2x^2 + 1)/(x^2 - 3)', inf, 2],
  ['(x + 1)/x^2', inf, 0],
  ['e^(-x)', inf, 0],
  ['arctan x', inf, Math.PI / 2],
  ['arctan x', -inf, -Math.PI / 2],
  ['(1 + 1/x)^x', inf, Math.E],
  ['sqrt(x^2 + x) - x', inf, 0.5],
  ['x e^(-x)', inf, 0],
  ['tanh x', -inf, -1],
] as [string, number, number][])('%s tends to a value at %d', (text, at, value) => {
  const found = limit(read(text), at)
  expect(found.kind).toBe('value')
  if (found.kind !== 'value') return
  expect(found.value).toBeCloseTo(value, 5)
  expect(found.reason).not.toBe('')
})

test.each([
  ['1/x', 0, 1, 1],
  ['1/x', 0, -1, -1],
  ['ln x', 0, 1, -1],
  ['1/x^2', 0, undefined, 1],
  ['x^2 - x', inf, undefined, 1],
  ['ln x', inf, undefined, 1],
  ['-x^3', inf, undefined, -1],
  ['(x^3 + 1)/(x - 4)', -inf, undefined, 1],
] as [string, number, (-1 | 1) | undefined, number][])(
  '%s at %d from side %p has no bound',
  (text, at, side, sign) => {
    expect(limit(read(text), at, side)).toMatchObject({ kind: 'infinite', sign })
  },
)

test.each([
  ['1/x', 0, 'one side grows and the other falls without bound'],
  // The double next to π/2 stands for the pole.
  ['tan x', Math.PI / 2, 'one side grows and the other falls without bound'],
  ['|x|/x', 0, 'the sides tend to different numbers'],
  ['floor x', 2, 'the sides tend to different numbers'],
  ['sqrt x', 0, 'there are no values on the left'],
  ['sin x', inf, 'the values go to and fro without settling'],
] as [string, number, string][])('%s has no limit at %d', (text, at, reason) => {
  expect(limit(read(text), at)).toEqual({ kind: 'none', reason })
})

test('one-sided limits at a jump', () => {
  const f = read('x if x < 1; 3 otherwise')
  expect(limit(f, 1, -1)).toMatchObject({ kind: 'value', value: 1 })
  expect(limit(f, 1, 1)).toMatchObject({ kind: 'value', value: 3 })
})
