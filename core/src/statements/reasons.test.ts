import {
  changeFormula,
  compareGuess,
  compile,
  createEvaluator,
  createStudy,
  editSlot,
  type LineResult,
  offersFor,
  parseFormula,
  sentenceText,
  setSlider,
  type Study,
} from '..'

function made(text: string, from: string, to: string): Study {
  const created = createStudy(text)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  const { study } = created
  const lines = study.lines.map((l) => (l.kind === 'curve' ? { ...l, span: { from, to } } : l))
  return { ...study, lines }
}
function say(study: Study, words: string): Study {
  const offer = offersFor(words, study, null)[0]
  if (!offer) throw new Error(`nothing is offered for ${words}`)
  return offer.edit(study)
}
function last(study: Study): LineResult {
  const evaluation = createEvaluator({ patience: Infinity })(study)
  return evaluation.lines.get(study.lines.at(-1)!.id)!
}
const cells = (result: LineResult, name: string) =>
  result.tables!.find((t) => t.name === name)!.rows.map((r) => r.cells)
const flood = made('q(t) = 6 + 4 sin(0.9t) - 0.3t', '0', '10')

describe('features', () => {
  test('turning points with their reasons, and the candidates that decide', () => {
    const result = last(say(flood, 'turning points of q'))
    // Zeros of 3.6 cos(0.9t) − 0.3 by mpmath: 1.6526292, 5.3286879, 8.6339462.
    expect(cells(result, 'Features')).toEqual([
      ['high', '1.653', '9.490', 'q is continuous there and q′ goes + to −'],
      ['low', '5.329', '0.415', 'q is continuous there and q′ goes − to +'],
      ['high', '8.634', '7.396', 'q is continuous there and q′ goes + to −'],
    ])
    expect(cells(result, 'Candidates').map((c) => c.slice(2))).toEqual([
      ['end', ''],
      ['critical point', 'highest'],
      ['critical point', 'lowest'],
      ['critical point', ''],
      ['end', ''],
    ])
    expect(result.verdict!.text).toBe('Complete: no other turning point on [0, 10]')
  })
  test.each([
    ['features of f for x >= 0', '0', '2'],
    ['features of f for x≤1', '-2', '1'],
    ['zeros of f where -1 < x <= 1.5', '-1', '1.5'],
    ['features of f on -1 to 2', '-1', '2'],
  ])('%s bounds the span', (words, from, to) => {
    const line = say(made('f(x) = x^2 - 1', '-2', '2'), words).lines.at(-1)
    expect(line).toMatchObject({ kind: 'features', curve: 'f', span: { from, to } })
  })
  test.each([
    ['x^2 - 1', 'f', 'f′′′ is 0 on [−3, 3], because the graph of f′′ is level there.'],
    ['2x - 1', "f'", 'f′′′ is 0 on [−3, 3], because the graph of f′ is straight there.'],
  ])('from %s as %s: where nothing bends or changes, the derivative is 0', (formula, as, text) => {
    const study = say(made(`g(x) = ${formula}`, '-3', '3'), `conclude g as ${as}`)
    const field = { slot: 'choice', field: 'about' } as const
    const edit = editSlot(study, study.lines.at(-1)!, field, `f${"'".repeat(3)}`)
    if (!edit.ok) throw new Error(edit.message)
    expect(last(edit.edit(study)).conclusions!.map((c) => c.text)).toEqual([text])
  })
  test('a constraint typed into the span keeps the other end', () => {
    const study = say(made('f(x) = x^2 - 1', '-2', '2'), 'features of f')
    const put = (text: string) =>
      editSlot(study, study.lines.at(-1)!, { slot: 'span', field: 'span' }, text)
    const edit = put('x ≥ 0')
    if (!edit.ok) throw new Error(edit.message)
    const next = edit.edit(study)
    expect(next.lines.at(-1)).toMatchObject({ span: { from: '0', to: '2' } })
    // The low at 0 is no turning point here: it is an end.
    expect(cells(last(next), 'Features').map((c) => c[0])).toEqual(['end', 'zero', 'end'])
    expect(put('x ≥ 3')).toMatchObject({ ok: false })
  })
  test.each(['highest of f', 'lowest value of f', 'maximum of f', 'extremes of f', 'minima'])(
    '%s asks for the turning points with what decides the extremes',
    (words) => {
      const line = say(made('f(x) = x^2 - 1', '-2', '2'), words).lines.at(-1)
      expect(line).toMatchObject({ kind: 'features', only: 'turning points', curve: 'f' })
    },
  )
  test('an exam question: ends, highs, lows and zeros of f′′ to the nearest thousandth', () => {
    const study = say(made('g(x) = 2 sin(x) - x/3 + 0.4', '0', '7'), 'features of g')
    // Worked out with mpmath's findroot.
    expect(cells(last(study), 'Features').map((c) => c.slice(0, 3))).toEqual([
      ['end', '0.000', '0.400'],
      ['high', '1.403', '1.904'],
      ['zero', '2.861', '0.000'],
      ['inflection', '3.142', '−0.647'],
      ['low', '4.880', '−3.199'],
      ['inflection', '6.283', '−1.694'],
      ['end', '7.000', '−0.619'],
    ])
  })
  test.each([
    [
      'f(x) = |x|',
      ['low', '0.000', '0.000', 'f is continuous there, f′ is missing and goes − to +'],
    ],
    ['f(x) = x^3', ['rest', '0.000', '0.000', 'f′ is 0 there and keeps its sign, + on both sides']],
    ['f(x) = cbrt x', ['vertical', '0.000', '0.000', 'f′ is missing: unbounded with one sign']],
    [
      'f(x) = x + |x|/2',
      ['kink', '0.000', '0.000', 'f′ is missing: the slopes on its sides differ'],
    ],
  ])('critical points of %s', (formula, row) => {
    const result = last(say(made(formula, '-1', '2'), 'critical points'))
    expect(cells(result, 'Features')).toEqual([row])
  })
  test.each([
    ['f(x) = x^3 - x', ['f goes − to +', 'f goes + to −', 'f goes − to +']],
    ['f(x) = x^2', ['f is 0 there and + on both sides']],
    ['f(x) = -|x|', ['f is 0 there and − on both sides']],
    ['f(x) = sqrt(1 + x) - 1', ['f goes − to +']],
  ])('the zeros of %s are told by the signs beside them', (formula, reasons) => {
    const result = last(say(made(formula, '-1.5', '2'), 'zeros'))
    expect(cells(result, 'Features').map((c) => c[3])).toEqual(reasons)
  })
  test('a level curve is highest and lowest all along', () => {
    const result = last(say(made('f(x) = 3', '-1', '2'), 'features'))
    expect(result.readouts.map((r) => r.text)).toEqual([
      '3 all along [−1, 2]',
      '3 all along [−1, 2]',
    ])
  })
  test('1/x² has a pole and no turning point; a level stretch is no point', () => {
    const pole = last(say(made('f(x) = 1/x^2', '-1', '1'), 'features'))
    expect(cells(pole, 'Features').map(([kind]) => kind)).toEqual(['end', 'pole', 'end'])
    expect(pole.notes!.join()).toMatch(/takes no highest value/)
    const level = last(say(made('f(x) = max(0, x)', '-1', '1'), 'turning points'))
    expect(level.notes!.join()).toMatch(/level from x = −1 to 0: a stretch, not points/)
  })
  test('without its ends a span may have no highest value', () => {
    const study = say(made('f(x) = x^2', '-1', '2'), 'turning points')
    const lines = study.lines.map((l) => (l.kind === 'features' ? { ...l, ends: false } : l))
    const result = last({ ...study, lines })
    expect(result.readouts.map((r) => r.label)).toEqual(['lowest'])
  })
  test('what cannot be settled is named', () => {
    const result = last(say(made('f(x) = x^(sin x)', '0', '5'), 'turning points'))
    expect(result.verdict).toMatchObject({ complete: false })
    expect(result.verdict!.text).toMatch(/^Not settled on \[/)
  })
})

describe('conclusions from a graph, as a grader would take them', () => {
  const about = (taken: string, order: string) => {
    const study = say(made('g(x) = x^2 - 1', '-2', '3'), `conclude g as ${taken}`)
    const line = study.lines.at(-1)!
    const edit = editSlot(study, line, { slot: 'choice', field: 'about' }, order)
    if (!edit.ok) throw new Error(edit.message)
    return last(edit.edit(study))
  }
  const texts = (result: LineResult) => result.conclusions!.map((c) => c.text)
  test('from f′: f rises where f′ > 0, and turns where it changes sign', () => {
    expect(texts(about("f'", 'f'))).toEqual([
      'f rises on [−2, −1], because f′ > 0 inside.',
      'f rises on [1, 3], because f′ > 0 inside.',
      'f falls on [−1, 1], because f′ < 0 inside.',
      'f has a local maximum at x = −1, because f′ goes + to − there.',
      'f has a local minimum at x = 1, because f′ goes − to + there.',
      'f is concave up on [0, 3], because f′ rises there.',
      'f is concave down on [−2, 0], because f′ falls there.',
      'f has an inflection at x = 0, because f′ turns from falling to rising there.',
    ])
  })
  test('a graph of f′ offers to draw f from a value', () => {
    const { offers } = about("f'", 'f')
    expect(offers).toEqual([
      {
        text: 'Draw f by accumulation, f(−2) = 0',
        words: "given f'(x) = g(x) for -2 <= x <= 3, f(-2) = 0",
      },
    ])
  })
  test('from f′′ alone: concavity of f, and what is missing for its rise', () => {
    const result = about("f''", 'f')
    expect(texts(result)).toContain('f is concave down on [−1, 1], because f′′ < 0 inside.')
    expect(texts(result)).toContain('f has an inflection at x = 1, because f′′ goes − to + there.')
    expect(result.notes!.join()).toMatch(/needs one value of f′/)
    expect(texts(result).join()).not.toMatch(/rises|falls/)
  })
  test('from f′′: where f′ has a local minimum', () => {
    expect(texts(about("f''", "f'"))).toContain(
      'f′ has a local minimum at x = 1, because f′′ goes − to + there.',
    )
  })
  test('a value other than 0 raises the whole graph, which keeps its slope', () => {
    const study = say(made('g(x) = 3x^2 - 3', '-2', '3'), 'accumulate g from -2 plus 5')
    const line = study.lines.at(-1)!
    const sentence = sentenceText(createEvaluator()(study).sentences.get(line.id)!)
    expect(sentence).toBe('Let A(x) be the area under g from −2 to x, plus 5')
    const curve = createEvaluator()(study).curves.get('A')!
    if (!curve.ok) throw new Error(curve.problem.message)
    const { f } = curve.curve
    // x³ - 3x + 7 has the value 5 at -2: by hand.
    for (const x of [-2, -1, 0, 1.5, 3]) {
      expect(f.value(x)).toBeCloseTo(x ** 3 - 3 * x + 7, 11)
      expect(f.derivatives(x, 1)[1]).toBeCloseTo(3 * x ** 2 - 3, 11)
      const [low, high] = f.enclose(x, x)
      expect(low <= x ** 3 - 3 * x + 7 + 1e-12 && high >= x ** 3 - 3 * x + 7 - 1e-12).toBe(true)
    }
    const raised = editSlot(study, line, { slot: 'number', field: 'start' }, '-1')
    if (!raised.ok) throw new Error(raised.message)
    const other = createEvaluator()(raised.edit(study)).curves.get('A')!
    expect(other.ok && other.curve.f.value(-2)).toBeCloseTo(-1, 12)
  })
  test('two orders up: the sign of f′′ from the concavity of f, and where it changes', () => {
    const result = about('f', "f''")
    // g = x² - 1 is concave up throughout; a cubic has an inflection.
    expect(texts(result)).toEqual([
      'f′′ is 0 or above on [−2, 3], because the graph of f is concave up there.',
    ])
    const study = say(made('g(x) = x^3 - 3x', '-2', '2'), 'conclude g as f')
    const edit = editSlot(study, study.lines.at(-1)!, { slot: 'choice', field: 'about' }, "f''")
    if (!edit.ok) throw new Error(edit.message)
    expect(texts(last(edit.edit(study)))).toEqual([
      'f′′ is 0 or above on [0, 2], because the graph of f is concave up there.',
      'f′′ is 0 or below on [−2, 0], because the graph of f is concave down there.',
      'f′′ is 0 at x = 0 and goes − to + there, because the graph of f turns from concave down to concave up.',
    ])
  })
  test('three orders up: f′′′ from the lane of f′′, which it says', () => {
    const study = say(made('g(x) = x^4 - 2x^3', '-1', '2'), 'conclude g as f')
    const edit = editSlot(study, study.lines.at(-1)!, { slot: 'choice', field: 'about' }, "f'''")
    if (!edit.ok) throw new Error(edit.message)
    const result = last(edit.edit(study))
    // f′′ = 12x² - 12x turns at 1/2: f′′′ = 24x - 12. By hand.
    expect(texts(result)).toContain(
      'f′′′ is 0 at x = 0.5 and goes − to + there, because the graph of f′′ turns.',
    )
    expect(texts(result)).toContain(
      'f′′′ is 0 or above on [0.5, 2], because the graph of f′′ rises there.',
    )
    expect(result.notes!.join(' ')).toContain('follows from the lane of f′′')
  })
  test('upwards: a kink of f leaves f′ missing', () => {
    const study = say(made('g(x) = |x|', '-1', '1'), 'conclude g as f')
    const line = study.lines.at(-1)!
    const edit = editSlot(study, line, { slot: 'choice', field: 'about' }, "f'")
    if (!edit.ok) throw new Error(edit.message)
    expect(texts(last(edit.edit(study))).join()).toMatch(/f′ is missing at x = 0,/)
  })
})

describe('signs and speed', () => {
  test('the chart of x³ − 3x: three rows, each sign with its stretch', () => {
    const { signs } = last(say(made('f(x) = x^3 - 3x', '-3', '3'), 'sign chart of f'))
    expect(signs!.rows.map((r) => r.name)).toEqual(['f', 'f′', 'f′′'])
    const rises = signs!.rows[1]!.stretches.filter((s) => s.sign > 0).map((s) => [s.from, s.to])
    expect(rises).toEqual([
      [-3, -1],
      [1, 3],
    ])
    expect(signs!.rows[2]!.stretches.map((s) => s.words)).toEqual(['concave down', 'concave up'])
  })
  test('signs of a level slope beside a kink, and between a pole and a zero', () => {
    const signsOf = (text: string, from: string, to: string, row: number) =>
      last(say(made(text, from, to), 'sign chart of f')).signs!.rows[row]!.stretches.map(
        ({ from, to, sign }) => [from, to, sign],
      )
    // The slope of |x − 1| is −1, then 1; 1 − 1/x is below 0 up to 1, though it rises there.
    expect(signsOf('f(x) = |x - 1| + 1/2', '0', '3', 1)).toEqual([
      [0, 1, -1],
      [1, 3, 1],
    ])
    expect(signsOf('f(x) = 1 - 1/x', '0', '3', 0)).toEqual([
      [0, 1, -1],
      [1, 3, 1],
    ])
  })
  test('a kink of v turns slowing down into speeding up', () => {
    const line = last(say(made('v(t) = |t - 1| + 1/2', '0', '3'), 'speeding up of v'))
    expect(line.conclusions!.map((c) => c.text)).toEqual([
      'It slows down from t = 0 to 1, because v > 0 and v′ < 0 inside.',
      'It speeds up from t = 1 to 3, because v > 0 and v′ > 0 inside.',
    ])
    expect(line.notes).toEqual([
      'v is read as the velocity of what moves, v′ as its acceleration; choose position to read it so.',
    ])
  })
  test('speeding up where v and v′ have one sign', () => {
    const { conclusions } = last(say(made('v(t) = t^2 - 4t + 3', '0', '4'), 'speeding up of v'))
    expect(conclusions!.map((c) => c.text)).toEqual([
      'It is at rest at t = 1, because v = 0 there, and turns back: v goes + to −.',
      'It is at rest at t = 3, because v = 0 there, and turns back: v goes − to +.',
      'It slows down from t = 0 to 1, because v > 0 and v′ < 0 inside.',
      'It speeds up from t = 1 to 2, because v < 0 and v′ < 0 inside.',
      'It slows down from t = 2 to 3, because v < 0 and v′ > 0 inside.',
      'It speeds up from t = 3 to 4, because v > 0 and v′ > 0 inside.',
    ])
  })
})

describe('the shortest distance', () => {
  // To (3, 0) from y = √x: (x − 3)² + x is least at x = 5/2, the distance √11/2. By hand.
  const study = say(made('f(x) = sqrt x', '0', '8'), 'distance from f to (3, 0)')
  test('is found, proven, and the moving length lies on its own curve', () => {
    const result = last(study)
    const least = result.readouts.find((r) => r.label === 'lowest')!
    expect(least.value).toBeCloseTo(Math.sqrt(11) / 2, 12)
    expect(least.text).toBe('1.658 at x = 2.5')
    expect(result.verdict).toMatchObject({ complete: true })
    const moved = setSlider('a', 1)(study)
    const length = last(moved).readouts.find((r) => r.label === 'length')!.value!
    expect(length).toBeCloseTo(Math.sqrt(5), 12)
    const { curves } = createEvaluator()(moved)
    const curve = curves.get('L')!
    if (!curve.ok) throw new Error(curve.problem.message)
    expect(curve.curve.f.value(1)).toBeCloseTo(length, 12)
  })
  test('a new function keeps it going', () => {
    const result = last(changeFormula('line1', 'x^2/4')(study))
    expect(result.problems).toEqual([])
  })
})

test('a guess is compared by its signs and its way', () => {
  const parsed = parseFormula('cos x')
  if (!parsed.ok) throw new Error('unreadable')
  const f = compile(parsed.tree)
  const drawn = (g: (x: number) => number) =>
    Array.from({ length: 60 }, (_, i): [number, number] => [i / 10, g(i / 10)])
  const right = compareGuess(f, drawn(Math.cos))!
  expect(right.sameSign).toBeGreaterThan(0.99)
  const wrong = compareGuess(
    f,
    drawn((x) => -Math.cos(x)),
  )!
  expect(wrong.sameSign).toBeLessThan(0.02)
  expect(wrong.sameWay).toBeLessThan(0.05)
  expect(compareGuess(f, [[1, 1]])).toBeNull()
})
