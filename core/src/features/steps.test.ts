import { examine } from '..'
import { read } from './fixtures/testing'

test('a step of steps breaks where a count by hand says', () => {
  // On [n, n + 1) the formula is ceil(n(2 − x)): it jumps where n(2 − x) is a whole number k, which
  // it is for x = 2 − k/n, and at n itself where the values on both sides differ.
  const value = (n: number, x: number) => Math.ceil(n * (2 - x))
  const places = new Set<string>()
  for (let n = -4; n < 4; n++) {
    for (let k = -40; k <= 40; k++) {
      const x = 2 - k / n
      if (x > n && x < n + 1) places.add(x.toFixed(6))
    }
    const beside = value(n - 1, n - 1e-9)
    if (n > -4 && (beside !== value(n, n) || value(n, n + 1e-9) !== value(n, n))) {
      places.add(n.toFixed(6))
    }
  }
  const { breaks, complete } = examine(read('ceil(floor(x)(2 - x))'), -4, 4)
  expect(complete).toBe(true)
  const inside = breaks.map((b) => b.x).filter((x) => Math.abs(x) < 4)
  expect(inside.map((x) => (x === 0 ? 0 : x).toFixed(6)).sort()).toEqual([...places].sort())
})

test('steps of a fast formula are not searched one whole number after another', () => {
  const { complete, unresolved } = examine(read('floor(ceil(x^3))'), -10, 10)
  expect(complete).toBe(false)
  expect(unresolved).toEqual([[-10, 10]])
  expect(examine(read('floor(ceil(x^3))'), -2, 2).complete).toBe(true)
})

test('a factorial has values one by one: none of them is told as an end with values on one side', () => {
  const { breaks, highest, complete } = examine(read('x!'), -2, 4.5)
  expect(complete).toBe(true)
  expect(breaks.map((b) => [b.x, b.kind, b.isolated])).toEqual(
    [0, 1, 2, 3, 4].map((at) => [at, 'domain-end', true]),
  )
  expect(highest).toMatchObject({ x: 4, value: 24 })
  expect(examine(read('sqrt x'), -1, 4).breaks.map((b) => b.isolated)).toEqual([undefined])
})
