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
  offersFor,
  record,
  redo,
  sentenceText,
  setSlider,
  startHistory,
  studySchema,
  toggleLane,
  undo,
} from '..'
import { made, evaluated, flood, readout, lineOf, resultOf } from './fixtures/testing'

describe('a new study', () => {
  test('is f(x), drawn everywhere unless a span is said, and opens on what there is to see', () => {
    const study = made('x^2 - 3')
    expect(study.lines).toMatchObject([
      { name: 'f', formula: 'x^2 - 3', span: { from: '-3', to: '3' }, window: [-3, 3] },
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
    ['1/x', '-5', '5'],
    ['arcsin(x/3)', '-3', '3'],
  ])('%s is cut to its domain', (text, from, to) => {
    const line = made(text).lines[0]!
    const span = line.kind === 'curve' ? line.span : { from: '', to: '' }
    expect(Number(span.from)).toBeCloseTo(Number(from), 8)
    expect(Number(span.to)).toBeCloseTo(Number(to), 8)
  })
  test('says that an end has no value by its sign', () => {
    expect(sentenceText(evaluated(made('ln x')).sentences.get('line1')!)).toBe('Let f(x) = ln(x)')
    const study = changeLine('line1', { window: null })(made('ln x'))
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
    expect(readout(normal, 'normal', 'line')!.text).toBe('y = 0')
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
      { name: 'a', value: 0, from: -5, to: 5, step: 0.1, place: true },
    ])
  })
  test('a place gets another letter where a is taken', () => {
    const study = made('a(x) = x^2')
    const next = offersFor('tangent', study, null)[0]!
    expect(next.sentence).toBe('Tangent to a at x = b')
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
