import { compile, differentiate, examine, parseFormula } from '..'
import { breakHeights, breakItems } from './breakSpots'
import type { Frame } from './frame'

const frame: Frame = { x: [-4, 4], y: [-4, 4], width: 800, height: 800 }

/** Where the spots of a curve stand, in its own coordinates, and which of them are filled. */
function spotsOf(formula: string, order = 0) {
  const parsed = parseFormula(formula)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  const { breaks } = examine(compile(parsed.tree), -3.5, 3.5)
  const tree = order === 0 ? parsed.tree : differentiate(parsed.tree, 'x')
  const heights = breakHeights(compile(tree), order, breaks)
  return breakItems(heights, frame, 'curve1', false).map((item) => {
    if (item.kind !== 'path') throw new Error('a spot is a path')
    const [, x, y] = /^M(\S+) (\S+)a/.exec(item.d)!.map(Number)
    return [Math.round((x! + 4.5) / 10) / 10 - 4, Math.round((800 - y!) / 10) / 10 - 4, item.fill]
  })
}
const round = (spots: ReturnType<typeof spotsOf>) =>
  spots.map(([x, y, fill]) => `${Number(x).toFixed(1)} ${Number(y).toFixed(1)} ${String(fill)}`)

// By the definition: open where the graph only tends to a height, filled where that is its value.
test.each([
  ['1 if x < 0; 2 if x >= 0', ['0.0 1.0 page', '0.0 2.0 own']],
  ['1 if x <= 0; 2 if x > 0', ['0.0 1.0 own', '0.0 2.0 page']],
  ['(x^2 - 1)/(x - 1)', ['1.0 2.0 page']],
  ['x if x != 1; 3 if x = 1', ['1.0 1.0 page', '1.0 3.0 own']],
  // A decimal that no double holds.
  ['1 if x < 0.1; 2 if x >= 0.1', ['0.1 1.0 page', '0.1 2.0 own']],
  // Between two limits and neither of them.
  ['-1 if x < 0; 1 if x > 0; 0 if x = 0', ['0.0 -1.0 page', '0.0 1.0 page', '0.0 0.0 own']],
])('%s', (formula, spots) => expect(round(spotsOf(formula))).toEqual(spots))

test.each(['x^2', '|x|', '1/x', '√x', 'x if x < 1; 2x - 1 if x >= 1', '1/x^2'])(
  '%s has none',
  (formula) => expect(spotsOf(formula)).toEqual([]),
)

test('at a kink the rate tends to two heights and has neither', () => {
  expect(round(spotsOf('|x|', 1))).toEqual(['0.0 -1.0 page', '0.0 1.0 page'])
})
