import { createStopper, say, startStudy, type Study } from '..'

function made(formula: string, ...words: string[]): Study {
  return words.reduce((now, one) => {
    const found = say(now, one)
    if ('problem' in found) throw new Error(found.problem)
    return found.study
  }, startStudy(formula))
}
/** Where a slider stops that goes from place to place in steps of 0.1. */
function stopOf(study: Study, text: string, from: number, to: number, name = 'a'): number | null {
  const find = createStopper()
  const way = Math.sign(to - from)
  const count = Math.round(Math.abs(to - from) * 10)
  for (let i = 0; i < count; i++) {
    const at = (k: number) => Number((from + (way * k) / 10).toFixed(10))
    const found = find(study, name, text, at(i), at(i + 1))
    if (found !== null) return found
  }
  return null
}

const cubic = made('q(t) = t^3 - 6t for -4 ≤ t ≤ 4', 'tangent')

describe('a slider that stops at a condition', () => {
  // By hand: q′ = 3t² − 6 vanishes at ±√2, q at 0 and ±√6; q = 1 and q = q′ solved by mpmath.
  test.each([
    ["q'(a) = 0", -3, 3, -Math.SQRT2],
    ["q'(a) = 0", 0, 3, Math.SQRT2],
    ["q'(a) = 0", 3, 0, Math.SQRT2],
    ['q(a) = 0', -3, 3, -Math.sqrt(6)],
    ['q(a) = 0', 1, 3, Math.sqrt(6)],
    ['q(a) = 1', 1, 3, 2.528917957294362],
    ["q'(a) = 0 and a > 0", -3, 3, Math.SQRT2],
    ["q'(a) = 0 or q(a) = 0", -2, 3, -Math.SQRT2],
    ["q(a) > q'(a)", -3, 0, -1.88202054485707],
    ['q rises at a', -1, 3, Math.SQRT2],
    ['q is concave up at a', -3, 3, 0],
  ])('%s from %d to %d: at %d', (text, from, to, place) => {
    const found = stopOf(cubic, text, from, to)
    // Where a shape ends is known to 9 digits.
    expect(found).toBeCloseTo(place, 8)
  })
  test('a crossing that is a place of its grid is that place', () => {
    expect(stopOf(cubic, "q''(a) = 0", -2, 2)).toBe(0)
    const line = made('f(t) = t - 0.3 for 0 ≤ t ≤ 1', 'tangent')
    expect(stopOf(line, 'f(a) = 0', 0, 1)).toBe(0.3)
  })
  test('standing on it already it goes on, and stops at the next', () => {
    const find = createStopper()
    const first = stopOf(cubic, "q'(a) = 0", -3, 3)!
    expect(find(cubic, 'a', "q'(a) = 0", first, -1.4)).toBeNull()
    expect(stopOf(cubic, "q'(a) = 0", -1.4, 3)).toBeCloseTo(Math.SQRT2, 12)
  })
  test('a pole is no crossing', () => {
    const pole = made('f(t) = 1/(t - 1.05) for 0 ≤ t ≤ 3', 'tangent')
    expect(stopOf(pole, 'f(a) = 0', 0, 3)).toBeNull()
  })
  test.each(['nonsense here', 'part Z', 'q(a) =', 'g(a) = 0'])('“%s” stops nothing', (text) => {
    expect(stopOf(cubic, text, -3, 3)).toBeNull()
  })
})
