import { createEvaluator, createSceneMaker, createStudy, examine, type Study, toggleLane } from '..'
import { type Finding, hiddenFeatures, hiddenSentence } from './findings'
import { compile, parseFormula } from '..'
import { sampleCurve } from './sampleCurve'

const viewport = { width: 800, heights: { lane1: 300, lane2: 200, lane3: 200 } }

function sceneOf(formula: string, span: [string, string], orders: number[], stale = false) {
  const created = createStudy(formula)
  if (!created.ok) throw new Error('unreadable')
  const [line] = created.study.lines
  const spanned: Study = {
    ...created.study,
    lines: [
      { ...line!, span: { from: span[0], to: span[1] }, window: null } as typeof line & object,
    ],
  }
  const study = orders.reduce((s, order) => toggleLane('f', order)(s), spanned)
  const evaluation = createEvaluator()(study)
  const found = evaluation.curves.get('f')!
  if (!found.ok) throw new Error('no curve')
  const { f, from, to } = found.curve
  const finding: Finding = { examination: examine(f, from, to), stale }
  return createSceneMaker()(evaluation, viewport, new Map([['f', finding]]))
}
const texts = (scene: ReturnType<typeof sceneOf>, lane: number) =>
  scene.lanes[lane]!.items.flatMap((i) => (i.kind === 'label' && !i.named ? [i.text] : []))
const pixel = (scene: ReturnType<typeof sceneOf>, x: number) =>
  ((x - scene.x[0]) / (scene.x[1] - scene.x[0])) * scene.width

test('the band of a derivative says where the curve rises and falls', () => {
  const scene = sceneOf('f(x) = x^3 - 3x', ['-2', '2'], [1, 2])
  expect(texts(scene, 1)).toEqual(['+ f rises', '+ f rises', '− f falls'])
  expect(texts(scene, 2)).toEqual(['+ f concave up', '− f concave down'])
  const falls = scene.lanes[1]!.items.find((i) => i.kind === 'rect' && i.sign === 'negative')
  expect(falls).toMatchObject({
    x: expect.closeTo(pixel(scene, -1), 1),
    width: expect.closeTo(pixel(scene, 1) - pixel(scene, -1), 1),
  })
  // The derivative's graph keeps clear of the band.
  const { items, height } = scene.lanes[1]!
  const curve = items.find((i) => i.key === 'curve')
  if (curve?.kind !== 'path') throw new Error('no curve')
  const ys = curve.d
    .match(/-?[\d.]+/g)!
    .map(Number)
    .filter((_, i) => i % 2 === 1)
  expect(Math.max(...ys)).toBeLessThan(height - 20)
})

test('guides lead from turning points to the zeros below them', () => {
  const scene = sceneOf('f(x) = x^3 - 3x', ['-2', '2'], [1])
  const ends = (lane: number) =>
    scene.lanes[lane]!.items.flatMap((i) =>
      i.kind === 'path' && /^turn\d$/.test(i.key) ? [i.d] : [],
    ).map((d) => /^M(\S+) (\S+)V(\S+)$/.exec(d)!.slice(1).map(Number))
  expect(ends(0).map(([x]) => x)).toEqual([-1, 1].map((x) => expect.closeTo(pixel(scene, x), 1)))
  expect(ends(0).every(([, , bottom]) => bottom === 300)).toBe(true)
  const { y, height } = scene.lanes[1]!
  const axis = (y[1] / (y[1] - y[0])) * height
  for (const [, top, bottom] of ends(1)) {
    expect(top).toBe(0)
    expect(bottom).toBeCloseTo(axis, 1)
  }
  // Without the derivative's lane there is nothing to lead to, and the rings stay.
  const alone = sceneOf('f(x) = x^3 - 3x', ['-2', '2'], [])
  expect(alone.lanes[0]!.items.filter((i) => /^turn\d$/.test(i.key))).toEqual([])
  expect(alone.lanes[0]!.items.filter((i) => /ring$/.test(i.key)).length).toBe(2)
})

test('at a kink the guide goes through, and no ring claims a zero of the derivative', () => {
  const scene = sceneOf('f(x) = |x - 1| + x^2/8', ['-3', '3'], [1])
  const keys = scene.lanes[1]!.items.map((i) => i.key)
  expect(keys.filter((k) => /^turn\d$/.test(k))).toEqual(['turn0'])
  expect(keys.filter((k) => /ring$/.test(k))).toEqual([])
})

test('what was found for the curve as it was is dimmed', () => {
  const found = sceneOf('f(x) = x^3 - 3x', ['-2', '2'], [1], true).lanes[1]!.items.filter((i) =>
    /^(band|turn)/.test(i.key),
  )
  expect(found.length).toBeGreaterThan(4)
  expect(found.every((i) => i.dimmed)).toBe(true)
})

test('turning points that a frame cannot show are told', () => {
  const scene = sceneOf('f(x) = x/10 + 0.0001 sin(2000x) e^(-x^2)', ['0', '10'], [])
  const { hidden } = scene.lanes[0]!
  expect(hidden!.sentence).toMatch(
    /^At least \d+ turning points between x = 0.* do not show in this frame$/,
  )
  expect(hidden!.to).toBeLessThan(3)
  expect(sceneOf('f(x) = sin x', ['0', '10'], []).lanes[0]!.hidden).toBeNull()
})

test('what lies outside the frame is told by kind', () => {
  const told = (formula: string, x: readonly [number, number], y: readonly [number, number]) => {
    const parsed = parseFormula(formula)
    if (!parsed.ok) throw new Error('unreadable')
    const examination = examine(compile(parsed.tree), -4, 4)
    const found = hiddenFeatures({ examination, stale: false }, { x, y, width: 800, height: 300 })
    return found && hiddenSentence(found, 'x')
  }
  // x³ − 3x: zeros at 0 and ±√3, turning points (∓1, ±2), an inflection at 0.
  const all = told('x^3 - 3x', [-4, 4], [-60, 60])
  expect(all).toBeNull()
  expect(told('x^3 - 3x', [0.5, 4], [-60, 60])).toBe(
    '1 turning point, 2 zeros and 1 inflection between x = −1.73 and 0 do not show in this frame',
  )
  expect(told('x^3 - 3x', [-4, 1.2], [-60, 60])).toBe(
    '1 zero, at x = 1.73, does not show in this frame',
  )
  expect(told('x^3 - 3x', [-4, 4], [1, 60])).toMatch(/^1 turning point, 3 zeros and 1 inflection/)
  // A zero that is an inflection too, and nothing else: two features at one place.
  expect(told('x^3', [1, 4], [-60, 60])).toBe(
    '1 zero and 1 inflection at x = 0 do not show in this frame',
  )
  // An end of the frame shows what lies on it.
  expect(told('x^3', [0, 4], [-60, 60])).toBeNull()
  expect(told('x^3', [-4, 4], [0, 60])).toBeNull()
})

test('inflections that lie in one pixel are told, where no turning point is lost', () => {
  // 0.01·e^(−(50x)²) bends at ±1/(50√2) = ±0.01414, and is nowhere steeper than 0.43.
  const { hidden } = sceneOf('f(x) = x + 0.01 e^(-(50x)^2)', ['-10', '10'], []).lanes[0]!
  expect(hidden!.sentence).toBe(
    '2 inflections between x = −0.0141 and 0.0141 do not show in this frame',
  )
})

test('zeros that look like one are told, and those that can be told apart are not', () => {
  const { hidden } = sceneOf('f(x) = x^2 - 0.0001', ['-10', '10'], []).lanes[0]!
  expect(hidden!.sentence).toBe('2 zeros between x = −0.01 and 0.01 do not show in this frame')
  expect(sceneOf('f(x) = x^2 - 1', ['-10', '10'], []).lanes[0]!.hidden).toBeNull()
})

describe('sampling with care', () => {
  const frame = { x: [0, 10], y: [0, 3], width: 800, height: 300 } as const
  const heights = (formula: string, care: boolean) => {
    const parsed = parseFormula(formula)
    if (!parsed.ok) throw new Error('unreadable')
    const strokes = sampleCurve(compile(parsed.tree), 0, 10, frame, care)
    return { strokes, top: Math.min(...strokes.flat().filter((_, i) => i % 2 === 1)) }
  }
  test('a spike between two samples is drawn', () => {
    const spike = '1 + e^(-((x - 3.1416)/0.0005)^2)'
    expect(heights(spike, false).top).toBeCloseTo(200, 0)
    expect(heights(spike, true).top).toBeCloseTo(100, 0)
  })
  test('a pole is not drawn over', () => {
    expect(heights('1/(x - 5)', true).strokes.length).toBe(2)
    expect(heights('1 + 0.00001/(x - 5)', true).strokes.length).toBe(2)
  })
})
