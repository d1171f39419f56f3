import {
  changeLane,
  createEvaluator,
  createSceneMaker,
  createStudy,
  fitOrWhole,
  offersFor,
  setFrame,
  type Study,
  thumbnail,
  toggleLane,
} from '..'

function made(text: string): Study {
  const created = createStudy(text)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return created.study
}
const say = (words: string, study: Study) => offersFor(words, study, null)[0]!.edit(study)
function sceneOf(study: Study, width = 800, height = 400) {
  const heights = Object.fromEntries(study.lanes.map((l) => [l.id, height]))
  return createSceneMaker()(createEvaluator()(study), { width, heights })
}
const fit = (study: Study) => fitOrWhole(createEvaluator()(study))(study)

/** Heights of turning points, inflections and zeros, worked out by hand. */
const heights: readonly [formula: string, lowest: number, highest: number][] = [
  ['x^3 - 3x', -2, 2],
  ['x^4 - 5x^2 + 4', -2.25, 4],
  ['x e^(-x)', 0, 1 / Math.E],
  ['100 + x^3/1000', 0, 100],
  ['9 - (x - 30)^2/250', 0, 9],
  ['sin x', -1, 1],
  ['x/(1 + x^2)', -0.5, 0.5],
  ['sqrt(x) (x - 3)^2', 0, 4.461],
  ['x^3 - 12x + 3', -13, 19],
  ['x^2/(x - 1)', 0, 4],
]
test.each(heights)(
  '%s opens with its features inside, over a third of the height',
  (f, low, high) => {
    const [bottom, top] = sceneOf(made(f)).lanes[0]!.y
    expect(bottom).toBeLessThanOrEqual(low)
    expect(top).toBeGreaterThanOrEqual(high)
    expect((high - low) / (top - bottom)).toBeGreaterThan(1 / 3)
    for (const bound of [bottom, top]) expect(Number(bound.toPrecision(2))).toBe(bound)
  },
)

test('far tails are cut, not squeezed, and what runs away at a pole leaves room for the rest', () => {
  const topOf = (f: string) => sceneOf(made(f)).lanes[0]!.y[1]
  // On [−5, 5] the 90th percentile of eˣ is e⁴ ≈ 55, its greatest value e⁵ ≈ 148.
  expect(topOf('e^x')).toBeGreaterThan(54)
  expect(topOf('e^x')).toBeLessThan(100)
  // Nine tenths of 1/x lie below 1 there.
  expect(topOf('1/x')).toBeLessThan(6)
  expect(topOf('tan x')).toBeLessThan(15)
  expect(topOf('tan x')).toBeGreaterThan(2)
})

test('a level curve has its axis, and one without values has a frame', () => {
  expect(sceneOf(made('4')).lanes[0]!.y).toEqual([-0.5, 4.5])
  expect(sceneOf(made('0')).lanes[0]!.y).toEqual([-1, 1])
  expect(sceneOf(made('sqrt(-1 - x^2)')).lanes[0]!.y).toEqual([-1, 1])
})

test('a curve without a span is drawn wherever one looks, ∫f too; one with a span ends', () => {
  const reached = (text: string, order: number) => {
    const open = toggleLane('f', order)(made(text))
    const scene = sceneOf(setFrame([200, 220])(open))
    const lane = scene.lanes.find((l) => l.order === order)!
    const curve = lane.items.find((i) => i.key === 'curve')
    return curve?.kind === 'path' && curve.d.length > 0
  }
  for (const order of [-1, 1, 2])
    expect([order, reached('f(x) = sin x', order)]).toEqual([order, true])
  expect(reached('f(x) = sin x for [0, 10]', 1)).toBe(false)
})

test('the area from the beginning of the frame goes on outside it with the right values', () => {
  const found = createEvaluator()(made('f(x) = sin x')).curves.get('f')!
  if (!found.ok) throw new Error('no curve')
  const area = found.curve.drawn(-1)
  const from = Math.cos(found.curve.from)
  for (const x of [-150, -11, 0, 9.5, 40, 170]) {
    expect(area.value(x)).toBeCloseTo(from - Math.cos(x), 11)
  }
  expect(area.value(1e6)).toBeNaN()
})

test('places outside the opening frame can be asked about', () => {
  const study = say('tangent at 40', made('f(x) = x^2'))
  const result = createEvaluator()(study).lines.get(study.lines.at(-1)!.id)!
  expect(result.problems).toEqual([])
  expect(result.readouts.find((r) => r.label === 'slope')!.value).toBe(80)
})

test('a new line takes the frame as its span, on round bounds and within the domain', () => {
  const spanOf = (study: Study) => {
    const line = say('area', study).lines.at(-1)!
    return 'span' in line && line.span ? [line.span.from, line.span.to] : []
  }
  expect(spanOf(made('x^3 - 3x'))).toEqual(['-3', '3'])
  expect(spanOf(setFrame([1.2345, 7.3891])(made('x^3 - 3x')))).toEqual(['1.2', '7.4'])
  expect(spanOf(setFrame([-2.02, 6.98])(made('sqrt x')))).toEqual(['0', '7'])
})

test('a second function joins without a span, and the frame holds what both have to show', () => {
  const both = say('let g(x) = (x - 8)^2', made('f(x) = x^3 - 3x'))
  const [from, to] = sceneOf(both).x
  expect(from).toBeLessThanOrEqual(-3)
  expect(to).toBeGreaterThanOrEqual(12)
  // Beside a curve that has a span the new one takes that.
  const spanned = say('let g(x) = x', made('f(x) = x^2 for [0, 4]')).lines.at(-1)
  expect(spanned).toMatchObject({ span: { from: '0', to: '4' } })
  expect(spanned).not.toHaveProperty('window')
})

describe('Fit', () => {
  test('shows what matters, and pressed again the whole', () => {
    const study = made('f(x) = x^4 - 5x^2 + 4')
    const moved = setFrame([40, 60])(study)
    const fitted = fit(moved)
    expect(sceneOf(fitted).x).toEqual(sceneOf(study).x)
    const top = (s: Study) => sceneOf(s).lanes[0]!.y[1]
    expect(top(fitted)).toBeLessThan(20)
    // 4⁴ − 5 · 4² + 4 = 180 at the ends of [−4, 4].
    expect(top(fit(fitted))).toBeGreaterThan(180)
    expect(top(fit(fit(fitted)))).toBe(top(fitted))
  })
  test('of a span that is far wider than what happens finds that, then the span', () => {
    const study = made('f(x) = x^3 - 3x for [-100, 100]')
    const [from, to] = sceneOf(fit(study)).x
    expect(from).toBeGreaterThan(-6)
    expect(to).toBeLessThan(6)
    expect(sceneOf(fit(fit(study))).x).toEqual(sceneOf(study).x)
  })
  test('of a span on which everything happens is that span', () => {
    const study = made('f(x) = 6 + 4 sin(0.9x) for [0, 10]')
    expect(sceneOf(fit(study)).x).toEqual(sceneOf(study).x)
  })
})

test('equal scale makes the frame wider rather than cutting the curve off', () => {
  const study = made('f(x) = x^3 - 3x for [-2, 2]')
  const equal = changeLane(study.lanes[0]!.id, { equalScale: true })(study)
  for (const [width, height] of [
    [800, 400],
    [800, 150],
    [300, 700],
  ] as const) {
    const { x, lanes } = sceneOf(equal, width, height)
    const [bottom, top] = lanes[0]!.y
    expect((x[1] - x[0]) / width).toBeCloseTo((top - bottom) / height, 9)
    expect(bottom).toBeLessThanOrEqual(-2)
    expect(top).toBeGreaterThanOrEqual(2)
    expect(x[0]).toBeLessThanOrEqual(-2)
    expect(x[1]).toBeGreaterThanOrEqual(2)
  }
})

test('the picture for the list shows what a study opens with, and never what is covered', () => {
  const study = say('tangent to f at 1', made('f(x) = x^3 - 3x'))
  const drawn = thumbnail(study, 592, 264)
  expect(drawn.items.length).toBeGreaterThan(3)
  expect(drawn.items.some(({ ink }) => ink === 'place')).toBe(true)
  const covered = changeLane(study.lanes[0]!.id, { covered: true })(toggleLane('f', 1)(study))
  expect(thumbnail(covered, 592, 264).path).not.toBe(drawn.path)
  const nothingElse = changeLane(study.lanes[0]!.id, { covered: true })(study)
  expect(thumbnail(nothingElse, 592, 264)).toEqual({ path: '', axis: null, items: [] })
})
