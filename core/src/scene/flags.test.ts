import fc from 'fast-check'
import { fanOut, flagWidth } from './flags'

const flag = fc.record({
  at: fc.double({ min: 0, max: 800, noNaN: true }),
  text: fc.constantFrom('a', 'b', '2.5', 'a + h', '−1.25'),
})

test('flags never cover each other, keep their order, and stay where they are free', () => {
  fc.assert(
    fc.property(fc.array(flag, { maxLength: 9 }), (flags) => {
      const shifts = fanOut(flags)
      const placed = flags
        .map(({ at, text }, i) => ({ at, middle: at + shifts[i]!, width: flagWidth(text) }))
        .sort((a, b) => a.middle - b.middle)
      placed.slice(1).forEach((next, i) => {
        const last = placed[i]!
        expect(next.middle - last.middle).toBeGreaterThan((last.width + next.width) / 2)
        expect(next.at).toBeGreaterThanOrEqual(last.at)
      })
    }),
  )
  expect(
    fanOut([
      { at: 100, text: 'a' },
      { at: 300, text: 'b' },
    ]),
  ).toEqual([0, 0])
})

test('two at one place stand to both sides of it', () => {
  const [left, right] = fanOut([
    { at: 200, text: 'a' },
    { at: 200, text: 'b' },
  ])
  expect(left).toBe(-right!)
  expect(left).toBeLessThan(0)
})
