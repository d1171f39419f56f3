import { toldLast } from './fixtures/testing'

/** The places of contact and the lines, as the table has them. */
function tangentsTo(start: string, words: string) {
  const { sentence, tables, verdict, notes } = toldLast(start, words)
  const rows = tables[0]?.rows ?? []
  return { sentence, rows, complete: verdict?.complete, notes, verdict }
}

// OpenStax, Calculus Volume 1, and Stewart, Calculus: exercises of these kinds, from memory; worked
// again by hand.
test('through a point that lies beside the curve: both lines of a parabola', () => {
  // From (2, 3) under y = x² (2² = 4 > 3): x² − 4x + 3 = 0.
  const { rows, complete } = tangentsTo('f(x) = x^2', 'tangents through (2, 3)')
  expect(rows.map((row) => row[0])).toEqual(['1.000', '3.000'])
  expect(rows.map((row) => row[3])).toEqual(['y = 2.000x − 1.000', 'y = 6.000x − 9.000'])
  expect(complete).toBe(true)
})

test('no line from above a parabola, and that is proven', () => {
  const { rows, complete, verdict } = tangentsTo('f(x) = x^2', 'tangent line through (0, 1)')
  expect(rows).toEqual([])
  expect(complete).toBe(true)
  expect(verdict!.text).toMatch(/^No solution/)
})

test('through a point of the curve itself the tangent there is one of them', () => {
  // (2, 2) on x³ − 3x: (c − 2)²(2c + 2)·… = 0 at c = 2 and c = −1.
  const { rows } = tangentsTo('f(x) = x^3 - 3x', 'tangents through (2, 2)')
  expect(rows.map((row) => Number(row[0]!.replace('−', '-')))).toEqual([-1, 2])
})

test('with a slope, along a line and across one', () => {
  // 3x² − 3 = 9 at ±2.
  for (const words of ['with slope 9', 'parallel to y = 9x + 1', 'perpendicular to y = -x/9']) {
    const { rows, sentence } = tangentsTo('f(x) = x^3 - 3x for -10 <= x <= 10', `tangent ${words}`)
    expect(sentence).toBe('Tangents to f with slope 9 on [−10, 10]')
    expect(rows.map((row) => row[0])).toEqual(['−2.000', '2.000'])
  }
})

test('a stretch along which every tangent is one is told as a stretch', () => {
  const { notes } = tangentsTo('f(x) = |x| for -2 <= x <= 2', 'tangents with slope 1')
  expect(notes).toEqual(['Every tangent along [0, 2] is one.'])
})

test('at a kink there is none: the slopes of |x| jump over 0', () => {
  const { rows, complete } = tangentsTo('f(x) = |x| for -2 <= x <= 2', 'tangents with slope 0')
  expect(rows).toEqual([])
  expect(complete).toBe(true)
})
