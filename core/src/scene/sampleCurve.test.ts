import fc from 'fast-check'
import { compile, parseFormula } from '..'
import type { Frame } from './frame'
import { sampleCurve, type Stroke, strokesToPath } from './sampleCurve'

const frame = { x: [0, 10], y: [-2, 2], width: 800, height: 300 } as const

/** The points of a path of one stroke. */
const pointsOf = (path: string) =>
  path
    .split(/[ML]/)
    .slice(1)
    .map((pair) => pair.split(' ').map(Number) as [number, number])

/** How far above or below a path a point lies, in pixels; a vertical part holds all its heights. */
function strayOf(points: [number, number][], x: number, y: number): number {
  let least = Infinity
  for (let i = 1; i < points.length; i++) {
    const [[x0, y0], [x1, y1]] = [points[i - 1]!, points[i]!]
    if (x < x0 - 0.006 || x > x1 + 0.006) continue
    const between = y >= Math.min(y0, y1) && y <= Math.max(y0, y1)
    const on = x1 - x0 < 0.02 ? (between ? y : y1) : y0 + ((y1 - y0) * (x - x0)) / (x1 - x0)
    least = Math.min(least, Math.abs(on - y))
  }
  return least
}

test('a path leaves out points, and none of them lies off it', () => {
  const step = fc.record({ dx: fc.integer({ min: 0, max: 40 }), y: fc.integer({ max: 3000 }) })
  fc.assert(
    fc.property(fc.array(step, { minLength: 2, maxLength: 40 }), (steps) => {
      let x = 0
      const stroke: Stroke = steps.flatMap(({ dx, y }) => [(x += dx) / 10, Math.max(0, y) / 10])
      const points = pointsOf(strokesToPath([stroke]))
      expect(points[0]).toEqual([stroke[0], stroke[1]])
      expect(points.at(-1)).toEqual(stroke.slice(-2))
      for (let i = 0; i < stroke.length; i += 2) {
        // A twentieth of a pixel, and the hundredths that the text is rounded to.
        expect(strayOf(points, stroke[i]!, stroke[i + 1]!)).toBeLessThan(0.061)
      }
    }),
    { numRuns: 300 },
  )
})

test('the path of a smooth curve keeps its shape with far fewer points than were sampled', () => {
  const parsed = parseFormula('sin(x)')
  if (!parsed.ok) throw new Error('unreadable')
  const [stroke] = sampleCurve(compile(parsed.tree), 0, 10, frame, true)
  const points = pointsOf(strokesToPath([stroke!]))
  expect(points.length).toBeLessThan(stroke!.length / 2 / 3)
  for (let x = 0; x <= 10; x += 0.01) {
    // Against the sine itself, in pixels.
    expect(strayOf(points, x * 80, 150 - Math.sin(x) * 75)).toBeLessThan(0.3)
  }
})

test('a straight line is two points', () => {
  const parsed = parseFormula('x/5 - 1')
  if (!parsed.ok) throw new Error('unreadable')
  const path = strokesToPath(sampleCurve(compile(parsed.tree), 0, 10, frame, true))
  expect(pointsOf(path)).toEqual([
    [0, 225],
    [800, 75],
  ])
})

test.each([
  // Near 0 it is 1/2 − x²/24, by its series.
  ['(1 - cos(x))/x^2', 2e-7, 0.5],
  // And 1/3 + 2x²/15.
  ['(tan(x) - x)/x^3', 2e-5, 1 / 3],
])('%s is drawn as what it is where doubles cancel', (formula, reach, height) => {
  const parsed = parseFormula(formula)
  if (!parsed.ok) throw new Error('unreadable')
  const near: Frame = { ...frame, x: [-reach, reach], y: [height - 0.1, height + 0.1] }
  const strokes = sampleCurve(compile(parsed.tree), -reach, reach, near, true)
  const heights = strokes.flatMap((stroke) => stroke.filter((_, i) => i % 2 === 1))
  expect(heights.length).toBeGreaterThan(40)
  const off = heights.map((y) => Math.abs(y - frame.height / 2))
  expect(Math.max(...off)).toBeLessThan(0.5)
})
