import { compile, examine, parseFormula, toText } from '..'

const read = (text: string, names: string[] = []) => {
  const parsed = parseFormula(text, { names })
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return parsed.tree
}
const value = (text: string, x: number, parameters: Record<string, number> = {}) =>
  compile(read(text, Object.keys(parameters)), { parameters }).value(x)

// Tables of special functions (Abramowitz and Stegun, chapters 5 and 7, from memory), and mpmath.
test.each([
  ['∫_0^x sin(t)/t dt', 1, 0.946083070367183],
  ['∫_0^x sin(t)/t dt', 10, 1.658347594218874],
  ['∫_0^x e^(-t^2) dt', 1, 0.746824132812427],
  ['∫_0^x e^(-t^2) dt', 30, Math.sqrt(Math.PI) / 2],
  ['∫_1^x 1/t dt', 7, Math.log(7)],
  ['∫_1^x 1/t dt', 0.25, Math.log(0.25)],
  ['∫_0^x 1/(1+t^2) dt', 3, Math.atan(3)],
  ['∫_0^x |t| dt', -3, -4.5],
  ['∫_x^(x^2) cos t dt', 2, Math.sin(4) - Math.sin(2)],
  ['3 + 2∫_0^x t dt', 4, 19],
  ['∫_0^1 ∫_0^y 6t dt dy', 5, 1],
])('%s at %d', (text, x, expected) => {
  expect(value(text, x)).toBeCloseTo(expected, 11)
})

test('a slider may stand in it where a formula is known', () => {
  expect(value('∫_0^x cos(a t) dt', 2, { a: 3 })).toBeCloseTo(Math.sin(6) / 3, 12)
  const parsed = parseFormula('∫_0^x sin(a t)/t dt', { names: ['a'] })
  expect(parsed).toMatchObject({ ok: false, problems: [{ from: 0, to: 19 }] })
})

test('there is no area across a pole', () => {
  expect(value('∫_{-1}^1 1/t^2 dt', 0)).toBeNaN()
  expect(value('∫_1^x 1/t dt', -2)).toBeNaN()
})

test('its derivative is the integrand, its printed form reads back, and it can be examined', () => {
  const tree = read('∫_0^x sin(t^2) dt')
  const f = compile(tree)
  expect(f.derivatives(1.3, 2)[1]).toBeCloseTo(Math.sin(1.69), 12)
  expect(f.derivatives(1.3, 2)[2]).toBeCloseTo(2.6 * Math.cos(1.69), 10)
  expect(compile(read(toText(tree))).value(1.3)).toBe(f.value(1.3))
  const [low, high] = f.enclose(1, 1.1)
  expect(low).toBeLessThanOrEqual(f.value(1.05))
  expect(high).toBeGreaterThanOrEqual(f.value(1.05))
  // S(x) turns where sin(t²) changes sign: at √π.
  const [first] = examine(f, 0.5, 2).turningPoints
  expect(first!.x).toBeCloseTo(Math.sqrt(Math.PI), 9)
})

test('a curve of the study in it is told, and never thrown', () => {
  const curves = { f: read('x^2') }
  for (const text of [
    '∫_0^x f(t) dt',
    '∫_0^(f(x)) t dt',
    '∫ f(x)dx from 0 to 2',
    '∫_(f(1))^2 t dt',
  ]) {
    const parsed = parseFormula(text, { curves })
    expect(parsed.ok ? '' : parsed.problems[0]!.message).toMatch(/f is a curve of the study/)
  }
})

test.each([
  ['∫ t^2 dt', /two ends/],
  ['∫_0^x t', /two ends/],
  ['∫_0^x foo(t) dt', /nothing is called/],
])('%s is told', (text, message) => {
  const parsed = parseFormula(text)
  expect(parsed.ok ? '' : parsed.problems[0]!.message).toMatch(message)
})
