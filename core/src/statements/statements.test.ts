import { evaluate } from 'mathjs'
import {
  addLine,
  boundSlider,
  createEvaluator,
  createStudy,
  editSlot,
  changeFormula,
  changeLine,
  enterSlider,
  type LineResult,
  moveSpanEnd,
  offersFor,
  offersOverSpan,
  setSlider,
  type Statement,
  type Study,
  studySchema,
  toggleOverlay,
} from '..'

function made(text: string): Study {
  const created = createStudy(text)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return created.study
}
/** Says what to add and takes the first offer, as a person does. */
function say(study: Study, words: string): Study {
  const offer = offersFor(words, study, null)[0]
  if (!offer) throw new Error(`nothing is offered for ${words}`)
  return offer.edit(study)
}
function last(study: Study): { line: Statement; result: LineResult; sentence: string } {
  const evaluation = createEvaluator({ patience: Infinity })(study)
  const line = study.lines.at(-1)!
  const phrases = evaluation.sentences.get(line.id)!
  return {
    line,
    result: evaluation.lines.get(line.id)!,
    sentence: phrases.map((p) => p.text).join(''),
  }
}
const number = (result: LineResult, label: string) =>
  result.readouts.find((r) => r.label === label)?.value
const text = (result: LineResult, label: string) =>
  result.readouts.find((r) => r.label === label)?.text

const inflow = made('q(t) = 6 + 4 sin(0.9t) - 0.3t')
const flood: Study = {
  ...inflow,
  variable: { letter: 't', name: 'time', unit: 'h' },
  lines: inflow.lines.map((l) =>
    l.kind === 'curve' ? { ...l, unit: 'ML/h', span: { from: '0', to: '10' } } : l,
  ),
}

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
  test('so small a distance that rounding counts is said', () => {
    const study = enterSlider('h', 1e-13)(say(flood, 'secant'))
    expect(last(study).result.notes!.join()).toMatch(/rounding alone moves the slope/)
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
    expect(result.notes![0]).toBe('q′ is 2 ML/h per h at t = 0.975, 6.006 and 7.957 h.')
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
    ['f(x) = |x - 1|', "where f' = 1", 'f′ is 1 all along (1, 10].'],
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

describe('area', () => {
  test('the flood by 8 left strips: the numbers of the drawing', () => {
    const { result, sentence } = last(say(flood, 'area under q over 1 to 7'))
    expect(sentence).toBe('Area under q over [1, 7] with n = 8 strips, height at the left')
    expect(text(result, 'sum')).toBe('29.008 ML')
    expect(text(result, 'exact')).toBe('27.119 ML')
    expect(text(result, 'difference')).toBe('over by 1.889 ML')
    expect(number(result, 'over')! - number(result, 'short')!).toBeCloseTo(
      number(result, 'difference')!,
      10,
    )
    expect(result.notes!.join()).toContain(
      'q falls from 1.653 to 5.329, so left heights are too high there.',
    )
    expect(result.tables!.at(-1)!.rows).toHaveLength(8)
  })
  test('the shape explains a strip only where the whole strip lies in one stretch', () => {
    const notes = (n: number) =>
      last(say(flood, `area under q over 1 to 7 with ${n} strips`)).result.notes!.join(' ')
    // One strip over [1, 7] is too high from 5.329 on as well, though q rises there.
    expect(notes(1)).not.toMatch(/too low|too high/)
    expect(notes(1)).toMatch(/No strip lies where the shape of q decides it/)
    expect(notes(8)).toMatch(/falls from 1\.653 to 5\.329, so left heights are too high/)
    expect(notes(8)).not.toMatch(/from 1 to 1\.653/)
    const level = last(say(made('f(x) = 3'), 'area under f over 0 to 1 with 1 strip'))
    expect(level.result.notes).toEqual(['w = (1 − 0)/1 = 1'])
    expect(notes(16)).toMatch(/rises from 1 to 1\.653, so left heights are too low/)
  })
  test('a place that is typed as a power of ten is one', () => {
    const { result, sentence } = last(say(flood, 'value of q at 1e-3'))
    expect(number(result, 'value')).toBeCloseTo(6 + 4 * Math.sin(0.0009) - 0.0003, 12)
    expect(sentence).toMatch(/0\.001|10⁻³|1E-3/)
  })
  test('a width that has no short decimal is told rounded, and summed as a fraction', () => {
    const { result } = last(say(made('f(x) = x'), 'area under f over 0 to 5 with 6 strips'))
    expect(result.notes![0]).toBe('w = (5 − 0)/6 ≈ 0.833333333')
    expect(result.sigma).toContain('\\cdot \\tfrac{5}{6} \\approx')
    const whole = last(say(made('f(x) = x'), 'area under f over 0 to 5 with 8 strips'))
    expect(whole.result.notes![0]).toBe('w = (5 − 0)/8 = 0.625')
  })
  test('a sum that has no value stands without one', () => {
    const { result } = last(say(made('f(x) = 1/x'), 'area under f over 0 to 1'))
    expect(result.sigma).not.toMatch(/approx|none/)
  })
  test('the exact area and the average stand in exact form, ends as they were typed', () => {
    const form = (words: string, label: string) =>
      last(say(made('f(x) = cos x'), words)).result.readouts.find((r) => r.label === label)!.exact
    expect(form('area under f over 0 to π/4', 'exact')).toEqual({ text: '√2/2', proven: true })
    expect(form('average of f over 0 to π/4', 'average')).toEqual({ text: '2√2/π', proven: true })
    const { readouts } = last(say(flood, 'average of q')).result
    expect(readouts[0]!.exact).toEqual({ text: '89/18 − 4 cos(9)/9', proven: true })
  })
  test('a third area has a third count', () => {
    const study = ['area', 'area', 'area'].reduce(say, made('f(x) = x'))
    expect(study.sliders.map((s) => s.name)).toEqual(['n', 's', 'n₂', 's₂', 'n₃', 's₃'])
  })
  test('heights elsewhere, by the words of the slot', () => {
    const study = say(flood, 'area under q over 1 to 7')
    const line = study.lines.at(-1)!
    const put = (value: string) => {
      const edit = editSlot(study, line, { slot: 'choice', field: 'rule' }, value)
      if (!edit.ok) throw new Error(edit.message)
      return last(edit.edit(study))
    }
    expect(put('0.5').sentence).toMatch(/at the middle$/)
    expect(put('upper').result.readouts.find((r) => r.label === 'short')!.value).toBeLessThan(1e-9)
    expect(put('lower').result.readouts.find((r) => r.label === 'over')!.value).toBeLessThan(1e-9)
    const simpson = put('simpson').result
    expect(Math.abs(number(simpson, 'difference')!)).toBeLessThan(0.05)
    expect(put('random').result.marks).toHaveLength(1)
  })
  test('the sum in sigma notation, worked out term by term, is the sum that is shown', () => {
    const study = say(made('f(x) = x^2 + 1'), 'area under f over -1 to 2')
    const line = study.lines.at(-1)!
    const sigmaOf = (rule: string) => {
      const edit = editSlot(study, line, { slot: 'choice', field: 'rule' }, rule)
      if (!edit.ok) throw new Error(edit.message)
      return last(edit.edit(study)).result
    }
    for (const rule of ['0', '0.5', '1', 'trapezoid', 'simpson']) {
      const { sigma, ...result } = sigmaOf(rule)
      const [, count, terms, value] = /^\\sum_\{i=1\}\^\{(\d+)\} (.*) \\approx (.*)$/.exec(sigma!)!
      const plain = terms!
        .replaceAll('\\tfrac12', '0.5')
        .replaceAll(/\\frac\{(.*?)\}\{(\d)\}/g, '($1)/$2')
        .replaceAll(/\\left|\\right/g, '')
        .replaceAll('\\cdot', '*')
      let total = 0
      for (let i = 1; i <= Number(count); i++) {
        total += evaluate(plain, { i, f: (x: number) => x * x + 1 }) as number
      }
      expect(total).toBeCloseTo(number(result, 'sum')!, 9)
      expect(Number(value)).toBeCloseTo(total, 3)
    }
    expect(sigmaOf('lower').sigma).toMatch(/\\min_\{\[x_\{i-1\},\\,x_i\]\} f/)
    expect(sigmaOf('upper').sigma).toMatch(/\\max_/)
    expect(sigmaOf('random').sigma).toMatch(/f\(x_i\^\*\)\\cdot 0\.375/)
  })
  test('a fraction is exact for polynomials', () => {
    const { result } = last(say(made('f(x) = x^2'), 'area under f over 0 to 1'))
    expect(result.readouts.find((r) => r.label === 'exact')!.exact).toEqual({
      text: '1/3',
      proven: true,
    })
  })
  test.each([
    ['f(x) = 1/x', '-1 to 1', /grows without bound at x = 0/],
    ['f(x) = ln x', '0 to 1', null],
    ['f(x) = sqrt(x - 1)', '1 to 3', null],
  ])('%s over %s gives no false number', (formula, span, message) => {
    const { result } = last(say(made(formula), `area under f over ${span}`))
    if (message) expect(result.problems.map((p) => p.message).join()).toMatch(message)
    for (const r of result.readouts) if (r.label !== 'difference') expect(r.text).not.toMatch(/NaN/)
    expect(number(result, 'exact') === undefined).toBe(message !== null)
  })
  test('1 to 10,000 strips, and no count outside', () => {
    const study = say(flood, 'area under q over 1 to 7')
    const at = (n: number) => last(enterSlider('n', n)(study)).result
    expect(number(at(1), 'sum')).toBeCloseTo(6 * (6 + 4 * Math.sin(0.9) - 0.3), 10)
    expect(Math.abs(number(at(10_000), 'difference')!)).toBeLessThan(0.002)
    expect(at(0).problems[0]!.message).toMatch(/no count of strips/)
  })
  test('convergence: orders, and how many strips are enough', () => {
    const study = say(flood, 'area under q over 1 to 7')
    const id = study.lines.at(-1)!.id
    const shown = {
      ...study,
      lines: study.lines.map((l) => (l.id === id ? { ...l, convergence: true } : l)),
    } as Study
    const { result } = last(shown)
    expect(result.notes!.join()).toMatch(
      /left 1\.00, right 1\.00, midpoint 2\.00, trapezoid 2\.00, simpson 4\.00/,
    )
    expect(result.notes!.join()).toMatch(
      /Strips until the error is under 0\.001: left \d+ \(sure with \d+\)/,
    )
    expect(result.charts![0]!.series).toHaveLength(5)
  })
  test('√x lowers the orders, and the page says why', () => {
    const study = say(made('f(x) = sqrt x'), 'area under f over 0 to 1')
    const lines = study.lines.map((l) => (l.kind === 'area' ? { ...l, convergence: true } : l))
    const { result } = last({ ...study, lines })
    expect(result.notes!.join()).toMatch(/trapezoid 1\.5\d? instead of 2/)
    expect(result.notes!.join()).toMatch(/slope is infinite at an end/)
  })
})

describe('accumulation, between, average', () => {
  test('a velocity has a displacement and a distance', () => {
    // v = t² − 4t + 3 on [0, 5], by hand: 4/3 forward, 4/3 back, 20/3 forward.
    const { result } = last(say(made('v(t) = t^2 - 4t + 3 on [0, 5]'), 'displacement'))
    expect(number(result, 'displacement')).toBeCloseTo(20 / 3, 10)
    expect(result.readouts[0]!.exact).toEqual({ text: '20/3', proven: true })
    expect(number(result, 'distance')).toBeCloseTo(28 / 3, 10)
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
    expect(sentence).toMatch(/^Area under w at its readings, along a slanted top$/)
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
    expect(last(say(study, "value of w' at 1")).result.problems[0]!.message).toMatch(/kink/)
  })
  test('what needs a formula says so', () => {
    expect(last(say(study, 'where w = 3')).result.problems[0]!.message).toMatch(/no formula/)
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
