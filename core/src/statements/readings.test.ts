import { addLine, createEvaluator } from '..'
import { last, say, made, number, text, flood } from './fixtures/testing'

describe('accumulation, between, average', () => {
  test('a velocity has a displacement and a distance', () => {
    // v = t² − 4t + 3 on [0, 5], by hand: 4/3 forward, 4/3 back, 20/3 forward.
    const { result } = last(say(made('v(t) = t^2 - 4t + 3 on [0, 5]'), 'displacement'))
    expect(number(result, 'displacement')).toBeCloseTo(20 / 3, 10)
    expect(result.readouts[0]!.exact).toEqual({ text: '20/3', proven: true })
    expect(number(result, 'distance')).toBeCloseTo(28 / 3, 10)
  })
  test.each([
    ['floor(x)', 1, null],
    ['x^2 if x != 2; 5 if x = 2', 2, 4],
    ['(x^2 - 1)/(x - 1)', 1, 2],
    ['x if x < 1; 3 otherwise', 1, null],
    ['|x - 1|', 1, 0],
  ])('the slope of the area under %s at %d is what it tends to', (formula, x, slope) => {
    const { result } = last(
      say(say(made(`f(x) = ${formula}`), 'accumulate f from 0'), `tangent to A at ${x}`),
    )
    const found = result.readouts.find((r) => r.id === 'slope')?.value ?? null
    expect(found).toEqual(slope === null ? null : expect.closeTo(slope, 12))
    if (slope === null)
      expect(result.problems[0]!.message).toMatch(/on its left and .* since f jumps/)
    if (/!=|x - 1\)$/.test(formula)) expect(result.notes!.join()).toMatch(/tends to there/)
  })
  test('the slope of A is pointed out on what A accumulates', () => {
    const { result } = last(say(say(flood, 'accumulate q from 0'), 'tangent to A at 4'))
    expect(result.notes).toEqual(['A′ = q: the slope is the height of q there.'])
    const height = 6 + 4 * Math.sin(3.6) - 1.2
    expect(result.marks).toContainEqual(
      expect.objectContaining({
        kind: 'dot',
        lane: { curve: 'q', order: 0 },
        x: 4,
        y: expect.closeTo(height, 10) as number,
      }),
    )
  })
  test('A is a curve of its own: its slope is f', () => {
    const study = say(say(flood, 'accumulate q from 0'), 'value of A at 4')
    // ∫ by hand: 6t + (4/0.9)(1 − cos 0.9t) − 0.15t².
    expect(number(last(study).result, 'value')).toBeCloseTo(
      24 + (4 / 0.9) * (1 - Math.cos(3.6)) - 2.4,
      10,
    )
    expect(text(last(study).result, 'value')).toMatch(/ML$/)
    const slope = number(last(say(study, 'tangent to A at 4')).result, 'slope')
    expect(slope).toBeCloseTo(6 + 4 * Math.sin(3.6) - 1.2, 10)
  })
  test('where q jumps, A has a kink, and the line says so', () => {
    const { result } = last(say(made('f(x) = x if x < 1; 3 otherwise'), 'accumulate f from 0'))
    expect(result.notes!.join()).toMatch(/At x = 1, f jumps, so A has a kink there/)
  })
  test('the area between x and x² over [−1, 2]', () => {
    const two = say(made('f(x) = x'), 'let g(x) = x^2')
    const { result } = last(say(two, 'between f and g over -1 to 2'))
    expect(number(result, 'area')).toBeCloseTo(11 / 6, 10)
    expect(result.verdict!.complete).toBe(true)
  })
  test('curves that change sides by a jump: both parts count, and it is said', () => {
    const two = say(made('f(x) = -1 if x < 0; 2 otherwise'), 'let g(x) = 0x')
    const { result } = last(say(two, 'between f and g over -1 to 1'))
    expect([number(result, 'area'), number(result, 'difference')]).toEqual([3, 1])
    expect(result.notes!.at(-1)).toBe('At x = 0 they change sides by a jump, without meeting.')
    expect(result.verdict!.text).toBe('They do not cross on this span: proven')
  })
  test('an average, and where it is taken', () => {
    const { result } = last(say(made('f(x) = x^2'), 'average of f over 0 to 3'))
    expect(number(result, 'average')).toBeCloseTo(3, 12)
    expect(result.offers![0]).toMatchObject({ line: { kind: 'where', target: '3' } })
  })
})

describe('readings', () => {
  const points: [number, number][] = [
    [0, 2],
    [1, 5],
    [4, 1],
  ]
  const study = addLine({ kind: 'readings', id: '', name: 'w', unit: 'm', points })(flood)
  test('strips at their own widths', () => {
    const { result, sentence } = last(say(study, 'area under w'))
    expect(sentence).toMatch(/^Area under w over \[0, 4\] at its readings, along a slanted top$/)
    expect(number(result, 'sum')).toBeCloseTo(12.5, 12)
  })
  test('a table of them has a row for each, with the quotients of neighbours', () => {
    const { result, sentence } = last(say(study, 'table of w'))
    expect(sentence).toBe('Table of w over [0, 4] at its readings')
    // By hand: 3/1 and -4/3, and across both (1 - 2)/4.
    expect(result.tables![0]!.rows.map((r) => r.cells)).toEqual([
      ['0', '2.000', '3.000', '—', '—'],
      ['1', '5.000', '−1.333', '3.000', '−0.250'],
      ['4', '1.000', '—', '−1.333', '—'],
    ])
    const fit = last(say(say(study, 'table of w'), 'fit a line to w'))
    expect(fit.result.problems).toEqual([])
  })
  test('derivatives of any order: straight between readings, and of none more is told at one', () => {
    const found = createEvaluator()(study).curves.get('w')!
    if (!found.ok) throw new Error(found.problem.message)
    const [[x0, y0], [x1, y1]] = points as [[number, number], [number, number]]
    const slope = (y1 - y0) / (x1 - x0)
    const inside = found.curve.f.derivatives((x0 + x1) / 2, 14)
    expect(inside).toEqual([(y0 + y1) / 2, slope, ...new Array<number>(13).fill(0)])
    expect(found.curve.f.derivatives(x1, 12).slice(0, 2)).toEqual([y1, NaN])
    expect(found.curve.f.derivatives(x0 - 1, 12)).toEqual(new Array<number>(13).fill(NaN))
  })

  test('rates between readings, none at a reading', () => {
    expect(number(last(say(study, "value of w' at 2")).result, 'value')).toBeCloseTo(-4 / 3, 12)
    const { message } = last(say(study, "value of w' at 1")).result.problems[0]!
    expect(message).toMatch(/at a reading no rate is known, about .* before it and .* after it/)
    expect(message).not.toMatch(/kink/)
  })
  test('what needs a formula says so', () => {
    expect(last(say(study, 'where w = 3')).result.problems[0]!.message).toMatch(/no formula/)
  })
})
