import { evaluate } from 'mathjs'
import { editSlot, enterSlider, type Study } from '../..'
import { last, say, flood, text, number, made } from '../fixtures/testing'

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
      'q falls from 1.75 to 4.75 (strips 2 to 5), so left heights are too high there.',
    )
    expect(result.tables!.at(-1)!.rows).toHaveLength(8)
  })
  test('the shape explains a strip only where the whole strip lies in one stretch', () => {
    const notes = (n: number) =>
      last(say(flood, `area under q over 1 to 7 with ${n} strips`)).result.notes!.join(' ')
    // One strip over [1, 7] is too high from 5.329 on as well, though q rises there.
    expect(notes(1)).not.toMatch(/too low|too high/)
    expect(notes(1)).toMatch(/No strip lies where the shape of q decides it/)
    expect(notes(8)).toMatch(
      /falls from 1\.75 to 4\.75 \(strips 2 to 5\), so left heights are too high/,
    )
    expect(notes(8)).not.toMatch(/from 1 to 1\.653/)
    const level = last(say(made('f(x) = 3'), 'area under f over 0 to 1 with 1 strip'))
    expect(level.result.notes).toEqual(['w = (1 − 0)/1 = 1'])
    expect(notes(16)).toMatch(/rises from 1 to 1\.375 \(strip 1\), so left heights are too low/)
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
})

describe('errors of sums, and how many strips there are', () => {
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
      /From so many strips on the error stays under 0\.001: left \d+ \(as far as tried; guaranteed from \d+ strips on\)/,
    )
    expect(result.charts![0]!.series).toHaveLength(5)
  })
  test('√x lowers the orders, and the page says why', () => {
    const study = say(made('f(x) = sqrt x'), 'area under f over 0 to 1')
    const lines = study.lines.map((l) => (l.kind === 'area' ? { ...l, convergence: true } : l))
    const { result } = last({ ...study, lines })
    expect(result.notes!.join()).toMatch(/trapezoid 1\.5\d? instead of 2/)
    expect(result.notes!.join()).toMatch(
      /f′ is unbounded at x = 0, which lowers the order of midpoint, trapezoid and simpson/,
    )
  })
})
