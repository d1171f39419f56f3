import {
  compile,
  createEvaluator,
  createSceneMaker,
  createStudy,
  offersFor,
  parseFormula,
  setSlider,
  type Study,
  toggleLane,
} from '..'
import { fitHeights } from './fit'
import { triangleRun } from './marks/lines'
import { type Frame } from './frame'
import { sampleCurve, strokesToPath } from './sampleCurve'
import { textWidth } from './textWidth'
import { axisTicks } from './ticks'

function f(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compile(parsed.tree)
}
const frame: Frame = { x: [-10, 10], y: [-5, 5], width: 800, height: 400 }
const sample = (text: string, from = -10, to = 10, over: Partial<Frame> = {}) =>
  sampleCurve(f(text), from, to, { ...frame, ...over })

describe('sampling', () => {
  test.each([
    ['x^2 - 3', 1],
    ['1/x', 2],
    ['tan x', 7],
    ['floor x', 11],
    ['1/(x^2 - 4)', 3],
    ['cbrt x', 1],
    ['|x|', 1],
    ['100 x', 1],
    ['arctan(1000x)', 1],
    ['sqrt(4 - x^2)', 1],
    ['ln x', 1],
    ['x if x < 1; 5 - x otherwise', 2],
    ['x if x < 1; 2 - x otherwise', 1],
    ['sin(1/x)/x if |x| > 2', 2],
  ])('%s is drawn in %d strokes', (text, count) => {
    const drawn = sample(text).filter((s) => s.some((v, i) => i % 2 === 1 && v >= 0 && v <= 400))
    expect(drawn).toHaveLength(count)
  })

  test('strokes stay within a third of a pixel of the curve', () => {
    const g = f('4 sin(3x) e^(-x/8)')
    const strokes = sample('4 sin(3x) e^(-x/8)')
    let worst = 0
    for (const stroke of strokes) {
      for (let i = 0; i + 3 < stroke.length; i += 2) {
        const [x0, y0, x1, y1] = stroke.slice(i, i + 4) as [number, number, number, number]
        const x = (x0 + x1) / 2
        const y = ((5 - g.value(-10 + x / 40)) / 10) * 400
        if (y > -100 && y < 500) worst = Math.max(worst, Math.abs(y - (y0 + y1) / 2))
      }
    }
    expect(worst).toBeLessThan(0.34)
    expect(strokes[0]!.length).toBeLessThan(8000)
  })

  test('ends of the domain are found to the pixel', () => {
    const [stroke] = sample('sqrt(4 - x^2)')
    expect(stroke![0]).toBeCloseTo(320, 3)
    expect(stroke!.at(-2)).toBeCloseTo(480, 3)
  })

  test('a curve is drawn on its span only, and outside the frame not at all', () => {
    const [stroke] = sample('x', 0, 2)
    expect([stroke![0], stroke!.at(-2)]).toEqual([400, 480])
    expect(sample('x', 20, 30)).toEqual([])
  })

  test('coordinates stay small enough for any file', () => {
    const path = strokesToPath(sample('1/x^9'))
    const numbers = path.match(/-?[\d.]+/g)!.map(Number)
    expect(numbers.length).toBeGreaterThan(10)
    expect(Math.max(...numbers.map(Math.abs))).toBeLessThan(2000)
    expect(path).not.toMatch(/NaN|Infinity|e/)
  })
})

describe('fitting', () => {
  test('shows all of a mild curve with a margin', () => {
    const [low, high] = fitHeights(f('4 sin x'), -10, 10)
    expect(low).toBeGreaterThan(-5.5)
    expect(low).toBeLessThan(-4)
    expect(high).toBeGreaterThan(4)
  })
  test('a pole does not flatten the rest', () => {
    const [low, high] = fitHeights(f('1/x'), -10, 10)
    expect(high - low).toBeLessThan(60)
  })
  test('a level curve still has room', () => {
    const [low, high] = fitHeights(f('4'), 0, 1)
    expect(low).toBeLessThan(0)
    expect(high).toBeGreaterThan(4)
  })
})

test('ticks are round and readable', () => {
  expect(axisTicks(0, 10, 700, 70).map((t) => t.text)).toEqual([
    '0',
    '1',
    '2',
    '3',
    '4',
    '5',
    '6',
    '7',
    '8',
    '9',
    '10',
  ])
  expect(axisTicks(-1, 1, 300, 60).map((t) => t.text)).toEqual([
    '−1.0',
    '−0.5',
    '0.0',
    '0.5',
    '1.0',
  ])
  expect(axisTicks(0, 4e-7, 300, 100).map((t) => t.text)).toContain('2E−7')
})

test('the slope triangle runs over one, or a power of ten that fits', () => {
  expect(triangleRun({ ...frame, x: [0, 10] }, 0)).toBe(1)
  expect(triangleRun({ ...frame, x: [0, 1] }, 0)).toBe(0.1)
  expect(triangleRun({ ...frame, x: [0, 1000] }, 0)).toBe(100)
})

describe('the scene', () => {
  const start = (): Study => {
    const created = createStudy('q(t) = 6 + 4 sin(0.9t) - 0.3t for [-10, 10]')
    if (!created.ok) throw new Error('unreadable')
    const open = toggleLane('q', 1)(created.study)
    return offersFor('tangent', open, null)[0]!.edit(open)
  }
  const viewport = { width: 800, heights: { lane1: 300, lane2: 200 } }
  /** The picture of a study that words have been added to. */
  const pictured = (formula: string, ...words: string[]) => {
    const created = createStudy(formula)
    if (!created.ok) throw new Error('unreadable')
    const study = words.reduce((now, say) => offersFor(say, now, null)[0]!.edit(now), created.study)
    return createSceneMaker()(createEvaluator({ patience: Infinity })(study), viewport)
  }

  test('strips stand on their axis, however high the curve is', () => {
    const [low] = pictured('f(x) = 100 + x on [0, 10]').lanes[0]!.y
    expect(low).toBeGreaterThan(90)
    const [foot] = pictured('f(x) = 100 + x on [0, 10]', 'area').lanes[0]!.y
    expect(foot).toBeLessThan(0)
  })

  test('the height of a chord that ends at the edge stands inside the picture', () => {
    const { items } = pictured('f(x) = x^2 on [0, 10]', 'average rate of f over 0 to 10').lanes[0]!
    const rise = items.find((i) => i.kind === 'label' && i.text === '100')
    if (rise?.kind !== 'label') throw new Error('no such label')
    const right = rise.x + (rise.anchor === 'start' ? textWidth(rise.text) : 0)
    expect(right).toBeLessThanOrEqual(800)
  })

  test('moving a place leaves curve and grid as they are and moves what hangs on it', () => {
    const evaluate = createEvaluator()
    const make = createSceneMaker()
    const study = start()
    const before = make(evaluate(study), viewport)
    const after = make(evaluate(setSlider('a', 3)(study)), viewport)
    const item = (scene: typeof before, key: string) =>
      scene.lanes[0]!.items.find((i) => i.key === key)
    expect(item(after, 'curve')).toBe(item(before, 'curve'))
    expect(item(after, 'grid')).toBe(item(before, 'grid'))
    expect(item(after, 'guide.a')).not.toBe(item(before, 'guide.a'))
    expect(after.flags[0]).toMatchObject({ text: 'a', value: 3, slider: 'a' })
    expect(after.lanes[0]!.y).toBe(before.lanes[0]!.y)
  })

  test('a flag stands exactly over its dots in every lane', () => {
    const scene = createSceneMaker()(createEvaluator()(start()), viewport)
    const dots = scene.lanes.map((l) => l.items.find((i) => i.kind === 'dot')!)
    expect(dots).toHaveLength(2)
    for (const dot of dots) expect(dot).toMatchObject({ x: scene.flags[0]!.at })
  })

  test('each lane tells in one sentence what it shows', () => {
    const scene = createSceneMaker()(createEvaluator()(start()), viewport)
    expect(scene.lanes[1]!.summary).toMatch(
      /^q′ over t from −10 to 10 lies between about −3\.9 near t = .* and about 3\.3/,
    )
  })
})
