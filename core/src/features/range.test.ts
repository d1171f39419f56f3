import { compile, findRange, parseFormula } from '..'

function run(text: string, from: number, to: number, looks?: number) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  const search = findRange(compile(parsed.tree), from, to, looks)
  const shares: number[] = []
  for (;;) {
    const step = search.next()
    if (step.done) return { ...step.value, shares }
    shares.push(step.value)
  }
}

test('finds the ends of the range to many digits', () => {
  // cos(0.9t) = 1/12 at the turning points of 6 + 4 sin(0.9t) - 0.3t, by hand.
  const { low, high } = run('6 + 4 sin(0.9x) - 0.3x', 0, 10)
  const first = Math.acos(1 / 12) / 0.9
  const second = (2 * Math.PI - Math.acos(1 / 12)) / 0.9
  expect(high!.x).toBeCloseTo(first, 6)
  expect(high!.value).toBeCloseTo(6 + 4 * Math.sqrt(1 - 1 / 144) - 0.3 * first, 12)
  expect(low!.x).toBeCloseTo(second, 6)
})
test('counts the ends of the span', () => {
  expect(run('x', -1, 3)).toMatchObject({ low: { x: -1, value: -1 }, high: { x: 3, value: 3 } })
})
test('sees a spike a thousandth wide', () => {
  const { high } = run('e^(-((x - 3)/0.0005)^2)', 0, 10)
  expect(high!.value).toBeCloseTo(1, 9)
  expect(high!.x).toBeCloseTo(3, 6)
})
test('has nothing to say where there is no value', () => {
  expect(run('ln x', -3, -1)).toMatchObject({ low: null, high: null })
})
test('tells how far it is', () => {
  const { shares, evaluations } = run('x^2', 0, 1, 10_000)
  expect(shares).toEqual([...shares].sort((a, b) => a - b))
  expect(shares.length).toBeGreaterThan(3)
  expect(evaluations).toBeGreaterThan(10_000)
})
