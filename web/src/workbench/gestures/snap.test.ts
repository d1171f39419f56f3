import fc from 'fast-check'
import { snapped } from './snap'

test('near a round value it is that, elsewhere the value under the pointer', () => {
  // 100 pixels to a unit: halves are 50 pixels apart.
  expect(snapped(1.96, 0.01)).toBe(2)
  expect(snapped(1.51, 0.01)).toBe(1.5)
  expect(snapped(1.75, 0.01)).toBe(1.75)
  expect(snapped(-0.02, 0.01)).toBe(0)
  // 10 pixels to a hundred.
  expect(snapped(1030, 10)).toBe(1000)
})

test('it never moves further than the pointer is from the round value', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -1e6, max: 1e6, noNaN: true }),
      fc.double({ min: 1e-6, max: 1e3, noNaN: true }),
      (value, perPixel) => {
        expect(Math.abs(snapped(value, perPixel) - value)).toBeLessThanOrEqual(5.0001 * perPixel)
      },
    ),
  )
})
