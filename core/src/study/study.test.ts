import fc from 'fast-check'
import {
  changeLine,
  spanBounds,
  addLine,
  blankStudy,
  changeFormula,
  createEvaluator,
  createStudy,
  editSlot,
  endGesture,
  formatNumber,
  movePlace,
  nudgePlace,
  offersFor,
  record,
  redo,
  removeLine,
  sentenceText,
  renameSymbol,
  setSlider,
  startHistory,
  studySchema,
  type Study,
  toggleLane,
  undo,
} from '..'
import { lineEquation } from '../vocabulary/equation'
import { formatPower, formatShort, formatStretch } from '../vocabulary/numbers'
import { unitOfDerivative } from '../vocabulary/units'
import { parseSpan, readNumber } from '../vocabulary/values'

function made(text: string, withValues: string[] = []): Study {
  const created = createStudy(text, withValues)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return created.study
}
/** A study with a tangent at a, and with units. */
function flood(): Study {
  const base = made('q(t) = 6 + 4 sin(0.9t) - 0.3t')
  const withUnits: Study = {
    ...base,
    variable: { letter: 't', name: 'time', unit: 'h' },
    lines: base.lines.map((l) =>
      l.kind === 'curve' ? { ...l, unit: 'ML/h', span: { from: '0', to: '10' } } : l,
    ),
  }
  const added = offersFor('tangent', withUnits, null)[0]!.edit(withUnits)
  return setSlider('a', 4.2)(added)
}
const evaluated = (study: Study) => createEvaluator()(study)
const lineOf = (study: Study, kind: string) => study.lines.find((l) => l.kind === kind)!
const resultOf = (study: Study, kind: string) => evaluated(study).lines.get(lineOf(study, kind).id)!
const readout = (study: Study, kind: string, label: string) =>
  resultOf(study, kind).readouts.find((r) => r.label === label)

describe('numbers for reading', () => {
  test.each([
    [2, 3, '2.000'],
    [-3.190965, 3, '−3.191'],
    [0.0005, 3, '0.001'],
    [1.0005, 3, '1.001'],
    [-0.0004, 3, '0.000'],
    [-0, 2, '0.00'],
    [0.5, 0, '1'],
    [-2.5, 0, '−3'],
    [1e-9, 3, '0.000'],
    [123456.789, 1, '123456.8'],
    [1e21, 2, '1.00E21'],
    [NaN, 3, 'none'],
    [9.9995, 3, '10.000'],
  ])('%d to %d decimals is %s', (value, decimals, text) => {
    expect(formatNumber(value, decimals)).toBe(text)
  })

  test.each([
    ['1e-8', 1e-8],
    ['-2.5e-3', -0.0025],
    ['1e3', 1000],
    ['2e', 2 * Math.E],
    ['e^2', Math.exp(2)],
    ['1 - e', 1 - Math.E],
  ])('%s as a place is %d', (typed, value) => {
    expect(readNumber(typed)).toMatchObject({ ok: true, value })
  })
  test.each([
    [1e-8, 1, '10⁻⁸'],
    [-1.0589e-8, 3, '−1.059·10⁻⁸'],
    [1.6, 1, '1.6'],
    [-1e12, 2, '−10¹²'],
    [0, 3, '0'],
  ])('%d as a power of ten is written with %d decimals as %s', (value, decimals, text) => {
    expect(formatPower(value, decimals)).toBe(text)
  })

  test('rounding is within half a unit of the last place, and never −0', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e9, max: 1e9, noNaN: true }),
        fc.integer({ min: 0, max: 6 }),
        (v, d) => {
          const text = formatNumber(v, d)
          const back = Number(text.replace('−', '-'))
          expect(Math.abs(back - v)).toBeLessThanOrEqual(0.5 * 10 ** -d + 2 ** -52 * Math.abs(v))
          expect(text).not.toMatch(/^−0\.?0*$/)
          expect((text.split('.')[1] ?? '').length).toBe(d)
        },
      ),
    )
  })

  test('short form drops padding only', () => {
    expect([2, 4.2, 100, -0.5].map((v) => formatShort(v, 3))).toEqual(['2', '4.2', '100', '−0.5'])
  })
  test('the ends of a short stretch are told apart', () => {
    expect(formatStretch([1, 2.5], 3)).toBe('[1, 2.5]')
    expect(formatStretch([-0.00641, -0.00637], 3)).toBe('[−0.00641, −0.00637]')
    expect(formatStretch([2, 2], 3)).toBe('[2, 2]')
    expect(formatStretch([0, 5e-324], 3)).toBe('[0, 0]')
  })
})

describe('equations of lines', () => {
  test.each([
    [-3.190965, 15.758, 3, 'y = −3.191t + 15.758'],
    [0, 4, 0, 'y = 4'],
    [0.0001, 4, 2, 'y = 4.00'],
    [1, 2, 0, 'y = t + 2'],
    [-1, -2, 0, 'y = −t − 2'],
    [1, 0, 3, 'y = t'],
    [0, 0, 1, 'y = 0.0'],
    [0.9999, -0.0001, 3, 'y = t'],
    [2.5, -1, 1, 'y = 2.5t − 1.0'],
  ])('slope %d, height %d, %d decimals', (slope, intercept, decimals, text) => {
    expect(lineEquation({ slope, intercept }, 't', decimals)).toBe(text)
  })
})

test('units of rates', () => {
  expect(unitOfDerivative('ML/h', 'h', 1)).toBe('ML/h per h')
  expect(unitOfDerivative('ML/h', 'h', 2)).toBe('ML/h per h²')
  expect(unitOfDerivative('', '', 1)).toBe('')
  expect(unitOfDerivative('', 'h', 1)).toBe('per h')
  expect(unitOfDerivative('m', '', 0)).toBe('m')
})

describe('a new study', () => {
  test('is f(x) on [-10, 10] unless said otherwise', () => {
    const study = made('x^2 - 3')
    expect(study.lines).toMatchObject([
      { name: 'f', formula: 'x^2 - 3', span: { from: '-10', to: '10' } },
    ])
    expect(study.lanes).toMatchObject([{ curve: 'f', order: 0 }])
    expect(studySchema.safeParse(study).success).toBe(true)
  })
  test('takes name and variable from a left side', () => {
    const study = made('q(t) = sin t')
    expect([study.variable.letter, study.lines[0]]).toMatchObject([
      't',
      { name: 'q', formula: 'sin t' },
    ])
  })
  test('takes the one unknown letter as its variable', () => {
    expect(made('3 sin t').variable.letter).toBe('t')
    expect(createStudy('3 k x').ok).toBe(false)
    expect(made('3 k x', ['k']).sliders).toMatchObject([{ name: 'k', value: 1 }])
  })
  test.each([
    ['ln x', '0', '10'],
    ['sqrt(4 - x^2)', '-2', '2'],
    ['sqrt(x - 1/3)', '0.3333333333333333', '10'],
    ['1/x', '-10', '10'],
    ['arcsin(x/3)', '-3', '3'],
  ])('%s is cut to its domain', (text, from, to) => {
    const line = made(text).lines[0]!
    const span = line.kind === 'curve' ? line.span : { from: '', to: '' }
    expect(Number(span.from)).toBeCloseTo(Number(from), 8)
    expect(Number(span.to)).toBeCloseTo(Number(to), 8)
  })
  test('says that an end has no value by its sign', () => {
    const study = made('ln x')
    expect(sentenceText(evaluated(study).sentences.get('line1')!)).toBe(
      'Let f(x) = ln(x) for 0 < x ≤ 10',
    )
  })
  test('places problems in the whole typed text', () => {
    const created = createStudy('q(t) = 2 + (t')
    expect(created).toMatchObject({ ok: false, problems: [{ from: 11, to: 12 }] })
  })
})

describe('a tangent at a moving place', () => {
  // q(4.2) and q′(4.2) worked out with mpmath 1.3 to 15 digits.
  test('reads slope, line and unit', () => {
    const study = flood()
    expect(readout(study, 'tangent', 'slope')!.text).toBe('−3.191 ML/h per h')
    expect(readout(study, 'tangent', 'slope')!.value).toBeCloseTo(-3.1909651, 6)
    expect(readout(study, 'tangent', 'line')!.text).toBe('y = −3.191t + 15.758')
  })
  test('its sentence is plain', () => {
    const study = flood()
    const { sentences } = evaluated(study)
    expect(sentenceText(sentences.get(lineOf(study, 'tangent').id)!)).toBe('Tangent to q at t = a')
  })
  test('is worked out alone when its place moves', () => {
    const evaluate = createEvaluator()
    const study = flood()
    const before = evaluate(study)
    const worked = evaluate.worked()
    const after = evaluate(setSlider('a', 5)(study))
    expect(evaluate.worked() - worked).toBe(1)
    const curve = lineOf(study, 'curve').id
    expect(after.lines.get(curve)).toBe(before.lines.get(curve))
    expect(after.curves.get('q')).toBe(before.curves.get('q'))
    expect(after.sentences.get(curve)).toBe(before.sentences.get(curve))
  })
  test('goes on with a new formula', () => {
    const study = changeFormula('line1', 't^2')(flood())
    expect(readout(study, 'tangent', 'slope')!.value).toBeCloseTo(8.4, 12)
  })
  test('says why there is none', () => {
    const at = (formula: string, a: number) =>
      resultOf(setSlider('a', a)(changeFormula('line1', formula)(flood())), 'tangent').problems[0]!
        .message
    expect(at('|t - 5|', 5)).toBe(
      'no slope at t = 5: q has a kink here, −1 on its left and 1 on its right',
    )
    expect(at('floor t', 5)).toBe('no slope at t = 5: q jumps here')
    expect(at('cbrt(t - 5)^2', 5)).toMatch(/q has a cusp here/)
    expect(at('sqrt t', 0)).toBe('no slope at t = 0: q ends here')
    expect(at('1/(t - 5)', 5)).toBe('q has no value at t = 5')
  })
  test('where the curve is vertical, so is the tangent, and the normal is level', () => {
    const study = setSlider('a', 5)(changeFormula('line1', 'cbrt(t - 5)')(flood()))
    expect(readout(study, 'tangent', 'line')!.text).toBe('t = 5')
    expect(readout(study, 'tangent', 'slope')).toBeUndefined()
    const normal = offersFor('normal at 5', study, null)[0]!.edit(study)
    expect(readout(normal, 'normal', 'line')!.text).toBe('y = 0.000')
  })
  test('outside the span says so', () => {
    const study = flood()
    const moved = editSlot(study, lineOf(study, 'tangent'), { slot: 'place', field: 'place' }, '12')
    if (!moved.ok) throw new Error(moved.message)
    expect(resultOf(moved.edit(study), 'tangent').problems[0]!.message).toBe(
      't = 12 lies outside the span of q, 0 to 10',
    )
  })
})

describe('what was typed keeps its meaning', () => {
  test.each(['tangent', 'let a(x) = x'])('atan stays the arctangent after “%s”', (words) => {
    const created = createStudy('f(x) = 2 atan(3x) + asin(x/20)')
    if (!created.ok) throw new Error(created.problems[0]!.message)
    const valueAt2 = (study: Study) => {
      const curve = createEvaluator()(study).curves.get('f')!
      return curve.ok ? curve.curve.f.value(2) : NaN
    }
    const truth = 2 * Math.atan(6) + Math.asin(0.1)
    expect(valueAt2(created.study)).toBeCloseTo(truth, 12)
    const after = offersFor(words, created.study, null)[0]!.edit(created.study)
    expect(valueAt2(after)).toBeCloseTo(truth, 12)
  })
  test('it does so when a curve is given the letter a', () => {
    const created = createStudy('f(x) = atan x')
    if (!created.ok) throw new Error(created.problems[0]!.message)
    const renamed = renameSymbol('f', 'a')(created.study)
    const curve = createEvaluator()(renamed).curves.get('a')!
    expect(curve.ok && curve.curve.f.value(1)).toBeCloseTo(Math.PI / 4, 12)
  })
})

describe('say what to add', () => {
  const sentences = (text: string, study = flood()) =>
    offersFor(text, study, null).map((o) => o.sentence)
  test('offers whole sentences', () => {
    expect(sentences('tangent')).toContain('Tangent to q at t = a')
    expect(sentences('tan')).toContain('Tangent to q at t = a')
    expect(sentences("tangent to q' at 2")).toEqual(['Tangent to q′ at t = 2'])
    expect(sentences('value at 2')).toEqual(['Value of q at t = 2'])
    expect(sentences("value of q' at t = 2")).toEqual(['Value of q′ at t = 2'])
    expect(sentences('rate')[0]).toBe('Rate of change q′(t) = 3.6 cos(0.9t) − 0.3')
    expect(sentences('let g(t) = t^2')).toEqual(['Let g(t) = t² for 0 ≤ t ≤ 10'])
    expect(sentences('')).toContain('Value of q at t = a')
    expect(sentences('let q(t) = 2')).toEqual([])
    expect(sentences('porridge')).toEqual([])
  })
  test('the first place is slider a at the middle of the span with step 0.1', () => {
    const study = offersFor('tangent', made('x^2'), null)[0]!.edit(made('x^2'))
    expect(study.sliders).toMatchObject([
      { name: 'a', value: 0, from: -10, to: 10, step: 0.1, place: true },
    ])
  })
  test('a place gets another letter where a is taken', () => {
    const study = made('a(x) = x^2')
    const next = offersFor('tangent', study, null)[0]!
    expect(next.sentence).toBe('Tangent to a at x = b')
  })
})

describe('moving places', () => {
  test('a slider moves by its steps, inside its bounds', () => {
    const study = flood()
    const at = (x: number) => movePlace('a', x, 2)(study).study.sliders[0]!.value
    expect([at(3.14159), at(-5), at(50)]).toEqual([3.1, 0, 10])
    expect(nudgePlace('a', 10)(study).sliders[0]!.value).toBe(5.2)
    expect(nudgePlace('a', 0.1)(study).sliders[0]!.value).toBe(4.21)
    expect(nudgePlace('a', 'to')(study).sliders[0]!.value).toBe(10)
  })
  test('a typed place is rewritten in every line that hangs on it', () => {
    const two = ['tangent at 2', 'value at 2'].reduce(
      (s, w) => offersFor(w, s, null)[0]!.edit(s),
      flood(),
    )
    const { study: moved, now } = movePlace('2', 3.14159, 2)(two)
    expect(now).toBe('3.14')
    expect(moved.lines.filter((l) => 'place' in l && l.place === '3.14')).toHaveLength(2)
  })
  test('an expression moves the one slider in it', () => {
    const study = offersFor('value at 2a + 1', flood(), null)[0]!.edit(flood())
    expect(movePlace('2a + 1', 7, 2)(study).study.sliders[0]!.value).toBeCloseTo(3, 9)
  })
})

test('a number is read without a variable, and unknown letters are named', () => {
  const a = { name: 'a', value: 3 }
  expect(readNumber('2a + π', [a])).toMatchObject({ ok: true, value: 6 + Math.PI })
  expect(readNumber('k + 1', [a])).toMatchObject({ ok: false, missing: 'k' })
  expect(readNumber('1/0')).toMatchObject({ ok: false, message: '1/0 has no value' })
})

describe('slots', () => {
  const put = (slot: 'formula' | 'domain' | 'place' | 'curve', text: string, kind: string) => {
    const study = flood()
    const result = editSlot(
      study,
      lineOf(study, kind),
      { slot, field: slot === 'domain' ? 'span' : slot },
      text,
    )
    return result.ok ? result.edit(study) : result.message
  }
  test('an unreadable formula keeps the last readable one beside it', () => {
    const study = put('formula', 'q(t) = 3 +', 'curve') as Study
    expect(study.lines[0]).toMatchObject({ formula: '3 +', lastGood: '6 + 4 sin(0.9t) - 0.3t' })
    const result = resultOf(study, 'curve')
    expect(result.problems[0]).toMatchObject({
      message: 'something is missing after +',
      at: { from: 2 },
    })
    expect(readout(study, 'tangent', 'slope')!.text).toBe('−3.191 ML/h per h')
    const again = changeFormula('line1', 'still ) bad')(study)
    expect(again.lines[0]).toMatchObject({ lastGood: '6 + 4 sin(0.9t) - 0.3t' })
    const mended = changeFormula('line1', '2t')(again)
    expect(mended.lines[0]).not.toHaveProperty('lastGood')
  })
  test('a new left side renames curve and variable everywhere', () => {
    const study = put('formula', 'p(x) = 2x', 'curve') as Study
    expect(study.variable.letter).toBe('x')
    expect(lineOf(study, 'tangent')).toMatchObject({ curve: 'p' })
    expect(study.lanes[0]!.curve).toBe('p')
    expect(readout(study, 'tangent', 'slope')!.value).toBe(2)
    expect(put('formula', 'a(t) = 2', 'curve')).toMatch(/a is taken/)
  })
  test('a span must run upwards', () => {
    expect(put('domain', '10 ≤ t ≤ 0', 'curve')).toBe(
      'this span ends at 0, below its beginning 10: swap the ends',
    )
    expect(put('domain', '3 to 3', 'curve')).toBe(
      'both ends are 3: a span needs two different ends',
    )
    expect(put('domain', 'nonsense', 'curve')).toMatch(/write the span as/)
    expect((put('domain', '[0, 2π]', 'curve') as Study).lines[0]).toMatchObject({
      span: { from: '0', to: '2π' },
    })
  })
  test('a place may name a slider that is still to come', () => {
    const study = put('place', 't = b', 'tangent') as Study
    expect(resultOf(study, 'tangent').problems[0]).toMatchObject({ missing: 'b' })
    expect(put('place', '2 +', 'tangent')).toMatch(/missing/)
  })
  test('a curve slot takes a curve of the study', () => {
    expect((put('curve', "q'", 'tangent') as Study).lines.at(-1)).toMatchObject({ order: 1 })
    expect(put('curve', 'r', 'tangent')).toBe('there is no curve r: there is q')
  })
  test.each([
    ['0 ≤ t ≤ 10', '0', '10'],
    ['-1 < t <= 2pi', '-1', '2pi'],
    ['[0, 10]', '0', '10'],
    ['1 to 4', '1', '4'],
  ])('%s is a span', (text, from, to) => expect(parseSpan(text)).toEqual({ from, to }))
})

describe('curves that use curves', () => {
  test('g follows f, and a circle is named', () => {
    const study = offersFor("let g(t) = q'(t) + 2", flood(), null)[0]!.edit(flood())
    const g = evaluated(study).curves.get('g')!
    expect(g.ok && g.curve.f.value(0)).toBeCloseTo(3.6 - 0.3 + 2, 12)
    const line = study.lines.find((l) => l.kind === 'curve' && l.name === 'g')!
    const renamed = renameSymbol('q', 'p')(study)
    expect(renamed.lines.find((l) => l.id === line.id)).toMatchObject({ formula: "p'(t) + 2" })
    const circle = changeFormula('line1', 'g + 1')(study)
    const found = evaluated(circle).curves.get('q')!
    expect(found).toMatchObject({ ok: false, problem: { message: 'defined by itself: q → g → q' } })
  })
})

describe('history', () => {
  test('a drag is one step; undo and redo go through every edit', () => {
    const study = flood()
    let history = startHistory(study)
    for (const a of [4.3, 4.4, 4.5])
      history = record(history, setSlider('a', a)(history.present), 'drag.1')
    history = endGesture(history)
    history = record(history, toggleLane('q', 1)(history.present))
    expect(history.present.lanes).toHaveLength(2)
    const once = undo(history)
    expect(once.present.lanes).toHaveLength(1)
    expect(once.present.sliders[0]!.value).toBe(4.5)
    expect(undo(once).present).toBe(study)
    expect(redo(undo(once)).present.sliders[0]!.value).toBe(4.5)
    expect(undo(undo(once)).present).toBe(study)
  })
  test('two drags in a row are two steps', () => {
    let history = startHistory(flood())
    history = endGesture(record(history, setSlider('a', 5)(history.present), 'drag.1'))
    history = record(history, setSlider('a', 6)(history.present), 'drag.1')
    expect(history.past).toHaveLength(2)
  })
})

describe('lanes and lines', () => {
  test('lanes stay in the order of derivatives, and the last one stays open', () => {
    const study = [2, 1, 0].reduce((s, order) => toggleLane('q', order)(s), flood())
    expect(study.lanes.map((l) => l.order)).toEqual([1, 2])
    expect(toggleLane('q', 1)(toggleLane('q', 2)(study)).lanes).toHaveLength(1)
  })
  test('a curve takes its lanes along when it goes', () => {
    expect(removeLine('line1')(flood())).toMatchObject({ lanes: [] })
  })
})

describe('the schema', () => {
  test('refuses what is not a study, with the path', () => {
    const bad = { ...blankStudy(), decimals: 99, lines: [{ kind: 'curve', id: 'x' }] }
    const read = studySchema.safeParse(bad)
    expect(read.success).toBe(false)
    expect(read.error!.issues.map((i) => i.path.join('.'))).toEqual(
      expect.arrayContaining(['decimals', 'lines.0.name', 'lines.0.formula']),
    )
  })
  test('refuses doubled names and texts no database keeps', () => {
    const study = flood()
    const twice = addLine({ ...study.lines[0]!, id: '' })(study)
    expect(studySchema.safeParse(twice).success).toBe(false)
    expect(studySchema.safeParse({ ...study, title: 'a\u0000b' }).success).toBe(false)
    expect(studySchema.safeParse({ ...study, title: 'a\ud800b' }).success).toBe(false)
  })
})

describe('a span typed behind a function', () => {
  const spanOf = (text: string) => {
    const created = createStudy(text)
    const line = created.ok ? created.study.lines[0] : undefined
    return line?.kind === 'curve' ? [line.formula, line.span.from, line.span.to] : created
  }
  test.each([
    ['q(t) = 6 + 4 sin(0.9t) for 0 ≤ t ≤ 10', '6 + 4 sin(0.9t)', '0', '10'],
    ['q(t) = 6 + 4 sin(0.9t) for [0, 10]', '6 + 4 sin(0.9t)', '0', '10'],
    ['x^2 on [-1, 2]', 'x^2', '-1', '2'],
    ['sin x for 0 <= x <= 2π', 'sin x', '0', '2π'],
    ['x^3, for 1 to 2', 'x^3', '1', '2'],
  ])('%s', (text, ...parts) => expect(spanOf(text)).toEqual(parts))

  test('one that runs backwards, or has no value, is named where it stands', () => {
    const text = 'x^2 for [3, 1]'
    expect(spanOf(text)).toMatchObject({
      ok: false,
      problems: [{ message: 'the span runs from 3 to 1', from: 3, to: text.length }],
    })
    expect(spanOf('x^2 for [0, k]')).toMatchObject({ ok: false, problems: [{ missing: 'k' }] })
  })

  test('"let" takes it too', () => {
    const offer = offersFor('let g(x) = cos x for [0, π]', made('x^2'), null)[0]!
    expect(offer.edit(made('x^2')).lines.at(-1)).toMatchObject({
      name: 'g',
      formula: 'cos x',
      span: { from: '0', to: 'π' },
    })
  })
})

test('a span reaches as far as the curves that its lines are about', () => {
  const made = createStudy('f(x) = x for 0 <= x <= 10')
  if (!made.ok) throw new Error('unreadable')
  const two = [
    'let g(x) = x^2 for -4 <= x <= 3',
    'area of g over [1, 2]',
    'features of f over [4, 6]',
  ]
  const study = two.reduce((now, say) => offersFor(say, now, null)[0]!.edit(now), made.study)
  const evaluation = createEvaluator()(study)
  const bounds = evaluation.spans.map(({ text }) => spanBounds(evaluation, text))
  // The first curve ends at 0 and 10; the area's own curve at -4 and 3.
  expect(bounds).toEqual([
    { from: -4, to: 3 },
    { from: 0, to: 10 },
  ])
  expect(spanBounds(evaluation, { from: '7', to: '8' })).toBeNull()
})

test('a kind that fails says so in its line and to those who mend it', () => {
  const made = createStudy('f(x) = x for 0 <= x <= 10')
  if (!made.ok) throw new Error('unreadable')
  const study = offersFor('table of f', made.study, null)[0]!.edit(made.study)
  const { id } = study.lines.at(-1)!
  // What no schema lets in: columns that are none.
  const broken = changeLine(id, { columns: null })(study)
  const heard: string[] = []
  const onFault = (error: unknown, line: string) => heard.push(`${line}: ${String(error)}`)
  const { problems } = createEvaluator({ onFault })(broken).lines.get(id)!
  expect(problems.map((p) => p.message).join()).toMatch(/could not be worked out/)
  expect(heard.join()).toMatch(new RegExp(`^${id}: TypeError`))
})
