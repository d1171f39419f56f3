import {
  changeLane,
  createEvaluator,
  createSceneMaker,
  createStudy,
  examine,
  type Findings,
  type LaneScene,
  type Study,
  studySchema,
} from '..'

function made(text: string): Study {
  const created = createStudy(text)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return created.study
}
/** A bump a hundredth wide on a slope, as the first lane of a study that examines it. */
const bump = made('w(t) = 8 - 0.1t + 0.004 e^(-((t - 20)/0.02)^2) for 0 ≤ t ≤ 60')
function laneOf(study: Study, width = 800, height = 400): LaneScene {
  const evaluation = createEvaluator()(study)
  const curve = evaluation.curves.get('w')
  if (!curve?.ok) throw new Error('the curve cannot be read')
  const { f, from, to } = curve.curve
  const findings: Findings = new Map([['w', { examination: examine(f, from, to), stale: false }]])
  const heights = { [study.lanes[0]!.id]: height }
  return createSceneMaker()(evaluation, { width, heights }, findings).lanes[0]!
}
const withInset = (from: number, to: number) =>
  changeLane(bump.lanes[0]!.id, { inset: [from, to] })(bump)

describe('an inset', () => {
  test('there is none until someone asks for it', () => {
    expect(laneOf(bump).inset).toBeNull()
    expect(laneOf(bump).hidden?.sentence).toMatch(/^2 turning points/)
  })

  test('shows what the frame does not: both turning points, apart', () => {
    const { from, to } = laneOf(bump).hidden!
    const room = 0.3 * (to - from)
    const inset = laneOf(withInset(from - room, to + room)).inset!
    const rings = inset.items.flatMap((i) =>
      i.kind === 'path' && i.key.startsWith('turn') ? [i.d.match(/[\d.]+/g)!.map(Number)] : [],
    )
    expect(rings).toHaveLength(2)
    const [[x0 = 0, y0 = 0] = [], [x1 = 0, y1 = 0] = []] = rings
    expect(Math.abs(x1 - x0)).toBeGreaterThan(20)
    expect(Math.abs(y1 - y0)).toBeGreaterThan(20)
  })

  test('its curve runs through its rings, at its own scale with its own numbers', () => {
    const { items, width, height } = laneOf(withInset(19.9, 20.1)).inset!
    const texts = items.flatMap((i) => (i.kind === 'label' ? [i.text] : []))
    expect(texts).toContain('20.00')
    expect(texts.some((t) => /^(5\.99|6\.00)/.test(t))).toBe(true)
    const curve = items.find((i) => i.key === 'curve')
    const numbers = curve?.kind === 'path' ? curve.d.match(/-?[\d.]+/g)!.map(Number) : []
    const ys = numbers.filter((_, i) => i % 2 === 1)
    expect(Math.min(...ys)).toBeGreaterThan(0)
    expect(Math.max(...ys) - Math.min(...ys)).toBeGreaterThan(0.5 * height)
    expect(Math.max(...numbers.filter((_, i) => i % 2 === 0))).toBeCloseTo(width, 0)
  })

  test('keeps inside the lane and off the curve, and is tied to its stretch', () => {
    const lane = laneOf(withInset(19.9, 20.1))
    const { left, top, width, height } = lane.inset!
    expect(left).toBeGreaterThanOrEqual(0)
    expect(left + width).toBeLessThanOrEqual(800)
    expect(top + height).toBeLessThanOrEqual(400)
    // The curve falls from the upper left to the lower right: the upper right is free.
    expect(left).toBeGreaterThan(400)
    const frame = lane.items.find((i) => i.key === 'inset')
    expect(frame?.kind === 'path' && frame.d.match(/M/g)!.length).toBe(3)
  })

  test('a low lane gets a low inset, and a stretch beyond the curve draws what there is', () => {
    expect(laneOf(withInset(19.9, 20.1), 300, 120).inset!.height).toBeLessThan(80)
    expect(laneOf(withInset(59, 70)).inset!.items.some((i) => i.key === 'curve')).toBe(true)
    expect(laneOf(withInset(70, 80)).inset!.items.length).toBeGreaterThan(0)
  })

  test('a stretch that runs backwards is no inset', () => {
    expect(studySchema.safeParse(withInset(3, 1)).success).toBe(false)
    expect(studySchema.safeParse(withInset(1, 3)).success).toBe(true)
  })
})
