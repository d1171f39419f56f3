import {
  addLine,
  boundSlider,
  createEvaluator,
  changeFormula,
  changeLine,
  enterSlider,
  moveSpanEnd,
  offersOverSpan,
  setSlider,
  type Statement,
  studySchema,
  toggleOverlay,
} from '..'
import { last, say, flood, number, text, made } from './fixtures/testing'

describe('secant', () => {
  test('slope, rise, run and dy with their units', () => {
    const { result, sentence } = last(say(flood, 'secant 1 to 4'))
    expect(sentence).toBe('Secant to q from t = 1 to t = 4')
    const rise = 4 * (Math.sin(3.6) - Math.sin(0.9)) - 0.9
    expect(number(result, 'rise')).toBeCloseTo(rise, 12)
    expect(number(result, 'slope')).toBeCloseTo(rise / 3, 12)
    expect(text(result, 'run')).toBe('3 h')
    expect(text(result, 'slope')).toMatch(/ML\/h per h$/)
    expect(number(result, 'dy')).toBeCloseTo(3 * (3.6 * Math.cos(0.9) - 0.3), 12)
  })
  test('ends that meet, or leave the curve, say what is the case', () => {
    expect(last(say(flood, 'secant 2 to 2')).result.problems[0]!.message).toMatch(/one point/)
    expect(last(say(flood, 'secant 2 to 20')).result.problems[0]!.message).toMatch(
      /outside the span/,
    )
  })
  test('a distance so small that doubles cancel leaves the slope right', () => {
    const study = enterSlider('h', 1e-13)(say(flood, 'secant'))
    const { result } = last(study)
    const a = study.sliders.find((s) => s.name === 'a')!.value
    // The slope of 6 + 4 sin(0.9t) − 0.3t by hand; over 10⁻¹³ it differs in the 13th digit.
    expect(number(result, 'slope')).toBeCloseTo(3.6 * Math.cos(0.9 * a) - 0.3, 9)
    expect(result.notes).toEqual([])
  })
  test('rise and dy keep their digits while the ends close in', () => {
    const { result } = last(enterSlider('h', 1e-8)(say(made('f(x) = x^2'), 'secant')))
    // The place is 0 and f is x²: the rise over 10⁻⁸ is 10⁻¹⁶, and never reads 0.000.
    expect(text(result, 'rise')).toBe('10⁻¹⁶')
    expect(text(result, 'run')).toBe('10⁻⁸')
  })
  test('a distance that is lost in floating point is told from none at all', () => {
    const lost = last(enterSlider('h', 1e-16)(say(flood, 'secant')))
    expect(lost.result.problems[0]!.message).toMatch(/adding 10⁻¹⁶ to 5 changes nothing/)
    // The doubles beside 5 are 2⁻⁵⁰ apart (IEEE 754: 52 bits after the leading one, 4 ≤ 5 < 8).
    expect(lost.result.problems[0]!.message).toContain('8.9·10⁻¹⁶ apart')
    const none = last(enterSlider('h', 0)(say(flood, 'secant')))
    expect(none.result.problems[0]!.message).toMatch(/one point makes no secant/)
  })
  test('the table of secants says what keeps each slope from the tangent’s', () => {
    const study = say(flood, 'secant')
    const [table] = last(changeLine(study.lines.at(-1)!.id, { closing: true })(study)).result
      .tables!
    const from = Object.fromEntries(table!.rows.map((r) => [r.cells[0], r.cells.at(-1)]))
    expect([from['0.01'], from['10⁻⁷'], from['10⁻¹²']]).toEqual(['h', 'h', 'rounding'])
  })
  test('at a kink the slopes of both sides stand beside it', () => {
    const { result } = last(say(made('f(x) = |x|'), 'secant 0 to 2'))
    expect(result.notes!.join()).toMatch(/kink here, −1 on its left and 1 on its right/)
  })
})

describe('where', () => {
  test('q′ = 2 has three solutions, proven, said with units', () => {
    const { result, sentence } = last(say(flood, "where q' = 2"))
    expect(sentence).toBe('Where is q′ = 2 on [0, 10]')
    // mpmath: findroot(lambda t: 3.6*cos(0.9*t) - 2.3, …).
    expect(result.tables![0]!.rows.map((r) => r.values[0])).toEqual([
      expect.closeTo(0.9752702725, 9),
      expect.closeTo(6.0060467365, 8),
      expect.closeTo(7.9565872801, 8),
    ])
    expect(result.verdict).toMatchObject({ complete: true })
    expect(result.notes![0]).toBe('q′ is 2 ML/h per h at t ≈ 0.975, 6.006 and 7.957 h.')
  })
  test('two curves meet; none do; all along', () => {
    const two = say(made('f(x) = x^2'), 'let g(x) = x + 2')
    expect(
      last(say(two, 'where f meets g')).result.tables![0]!.rows.map((r) => r.cells[0]),
    ).toEqual(['−1.000', '2.000'])
    expect(last(say(two, 'where f = -1')).result.verdict!.text).toMatch(/No solution.*proven/)
    const same = say(made('f(x) = x^2'), 'let g(x) = x*x')
    expect(last(say(same, 'where f meets g')).result.notes!.join()).toMatch(/equal all along/)
  })
  test.each([
    ['f(x) = |x - 1|', "where f' = 1", 'f′ is 1 all along (1, 5].'],
    ['f(x) = floor x', 'where f = 2', 'f is 2 all along [2, 3).'],
    [
      'f(x) = floor x',
      "where f' = 0 on 0 to 8",
      'f′ is 0 all along (0, 1), (1, 2), (2, 3), (3, 4), (4, 5), (5, 6) and 2 more.',
    ],
  ])('stretches of %s, %s, say which of their ends belong to them', (formula, words, note) => {
    const { result } = last(say(made(formula), words))
    expect(result.notes).toEqual([note])
    expect(result.tables).toEqual([])
  })
  test.each([
    ['f(x) = |x - 1|', 'f has a kink at x = 1, and no slope there'],
    ['f(x) = 1/(x - 1)^3', 'f is not continuous at x = 1'],
  ])('an average rate of %s that is not taken is explained', (formula, why) => {
    const rate = last(say(made(formula), 'average rate of f over 0 to 3'))
    const study = addLine((rate.result.offers![0] as { line: Statement }).line)(
      say(made(formula), 'average rate of f over 0 to 3'),
    )
    const { result } = last(study)
    expect(result.verdict!.text).toMatch(/No solution.*proven/)
    expect(result.notes!.join()).toContain(why)
  })
  test('where the mean value theorem holds nothing is to be explained', () => {
    const { result } = last(say(made('f(x) = x^2'), "where f' = 50"))
    expect(result.notes).toEqual([])
  })
})

describe('table and fit', () => {
  test('the quotients of a quadratic lie on a line, and the fit finds it', () => {
    const table = say(made('f(x) = 3x^2 - 4x + 1'), 'table of f over -1 to 5 by 0.5')
    const { result } = last(say(table, 'fit line'))
    expect(text(result, 'formula')).toBe('y = 6.000x − 4.000')
    expect(number(result, 'R²')).toBeCloseTo(1, 9)
  })
  test.each([
    ['0', /step above 0/],
    ['0.0000001', /rows/],
  ])('a step of %s says what is wrong', (step, message) => {
    const study = say(made('f(x) = x'), `table of f over 0 to 1 by ${step}`)
    expect(last(study).result.problems[0]!.message).toMatch(message)
  })
  test('without a table there is nothing to fit, and it says so', () => {
    expect(last(say(made('f(x) = x'), 'fit line')).result.problems[0]!.message).toMatch(/no table/)
  })
})

describe('spans', () => {
  test('moving an end moves every line that hangs on the span', () => {
    let study = say(flood, 'average rate of q over 1 to 4')
    study = say(study, "where q' = 0 on 1 to 4")
    const { study: moved, now } = moveSpanEnd({ from: '1', to: '4' }, 'to', 6.25, 2)(study)
    expect(now).toEqual({ from: '1', to: '6.25' })
    expect(moved.lines.slice(-2).map((l) => 'span' in l && l.span)).toEqual([
      { from: '1', to: '6.25' },
      { from: '1', to: '6.25' },
    ])
  })
  test('ends never pass each other', () => {
    const study = say(flood, 'average rate of q over 1 to 4')
    const { study: moved } = moveSpanEnd({ from: '1', to: '4' }, 'from', 9, 2)(study)
    expect(last(moved).result.problems).toEqual([])
  })
  test('a drawn span offers what can hang on it', () => {
    const sentences = offersOverSpan({ from: '2', to: '5' }, flood).map((o) => o.sentence)
    expect(sentences).toContain('Average rate of q over [2, 5]')
    expect(sentences).toContain('Area under q over [2, 5] with n = 8 strips, height at the left')
    expect(sentences.every((s) => s.includes('2') && s.includes('5'))).toBe(true)
  })
})

test('every kind of line survives the study file', () => {
  let study = say(flood, 'let r(t) = t/2')
  for (const words of [
    'tangent',
    'secant',
    'normal',
    'value',
    'rate',
    'average rate',
    "where q' = 1",
    'table of q',
    'fit line',
    'area',
    'between',
    'average of q',
    'accumulate q',
  ]) {
    study = say(study, words)
  }
  study = toggleOverlay(study.lanes[0]!.id, 'r', 1)(study)
  const back = studySchema.parse(JSON.parse(JSON.stringify(study)))
  expect(back).toEqual(JSON.parse(JSON.stringify(study)))
  const evaluation = createEvaluator()(back)
  for (const result of evaluation.lines.values()) expect(result.problems).toEqual([])
})

test('a new function keeps every line, and those that cannot work say what they need', () => {
  let study = say(flood, 'tangent')
  study = say(study, 'area under q over 1 to 7')
  study = changeFormula('line1', 'ln(t - 3)')(study)
  const results = [...createEvaluator({ patience: Infinity })(study).lines.values()]
  expect(results.flatMap((r) => r.problems.map((p) => p.message)).join()).toMatch(
    /has no value from t = 1 to 3/,
  )
  study = changeFormula('line1', 't^2/5')(study)
  for (const r of createEvaluator({ patience: Infinity })(study).lines.values())
    expect(r.problems).toEqual([])
})

test('moving n costs what hangs on n alone', () => {
  const evaluate = createEvaluator()
  let study = say(say(flood, 'tangent'), 'area under q over 1 to 7')
  evaluate(study)
  const before = evaluate.worked()
  study = setSlider('n', 20)(boundSlider('n', { step: 1 })(study))
  evaluate(study)
  expect(evaluate.worked() - before).toBe(1)
})
