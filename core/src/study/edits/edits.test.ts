import {
  changeFormula,
  changeLane,
  drawHere,
  drawnIn,
  laddersOf,
  ownLane,
  createEvaluator,
  createStudy,
  editSlot,
  movePlace,
  nudgePlace,
  offersFor,
  removeLine,
  renameSymbol,
  type Study,
  toggleLane,
} from '../..'
import { parseSpan } from '../../vocabulary/values'
import { flood, lineOf, resultOf, readout, evaluated, made } from '../fixtures/testing'

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
  test('tg, ctg and lg stay what they are after a curve g', () => {
    const created = createStudy('f(x) = tg x + ctg x + lg(10x) + arctg x')
    if (!created.ok) throw new Error(created.problems[0]!.message)
    const after = offersFor('let g(x) = x', created.study, null)[0]!.edit(created.study)
    const curve = createEvaluator()(after).curves.get('f')!
    const truth = Math.tan(1) + 1 / Math.tan(1) + 1 + Math.PI / 4
    expect(curve.ok && curve.curve.f.value(1)).toBeCloseTo(truth, 12)
  })
  test('beside a curve g, tg(t) is t times g(t)', () => {
    const created = createStudy('f(t) = 2t')
    if (!created.ok) throw new Error(created.problems[0]!.message)
    const say = (words: string, study: Study) => offersFor(words, study, null)[0]!.edit(study)
    const both = say('let k(t) = tg(t)', say('let g(t) = t + 1', created.study))
    const curve = createEvaluator()(both).curves.get('k')!
    expect(curve.ok && curve.curve.f.value(3)).toBe(12)
  })
  test('it does so when a curve is given the letter a', () => {
    const created = createStudy('f(x) = atan x')
    if (!created.ok) throw new Error(created.problems[0]!.message)
    const renamed = renameSymbol('f', 'a')(created.study)
    const curve = createEvaluator()(renamed).curves.get('a')!
    expect(curve.ok && curve.curve.f.value(1)).toBeCloseTo(Math.PI / 4, 12)
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

describe('curves on one pair of axes', () => {
  const say = (words: string, study: Study) => offersFor(words, study, null)[0]!.edit(study)
  const lanesOf = (study: Study) =>
    study.lanes.map((lane) =>
      drawnIn(lane)
        .map(({ curve, order }) => `${curve}${order}`)
        .join('+'),
    )
  const both = say('let g(x) = 2x', made('f(x) = x^2'))

  test('a second one of the same unit joins the first, and so do their derivatives', () => {
    expect(lanesOf(both)).toEqual(['f0+g0'])
    const opened = toggleLane('g', 1)(toggleLane('f', 1)(both))
    expect(lanesOf(opened)).toEqual(['f0+g0', 'f1+g1'])
    expect(lanesOf(toggleLane('g', 2)(both))).toEqual(['f0+g0', 'g2'])
  })

  test('one of another unit, an area and a covered lane keep their own', () => {
    const metres: Study = {
      ...made('f(x) = x^2'),
      lines: made('f(x) = x^2').lines.map((l) => ({ ...l, unit: 'm' }) as typeof l),
    }
    expect(lanesOf(say('let g(x) = 2x', metres))).toEqual(['f0', 'g0'])
    expect(lanesOf(say('accumulate f', both))).toEqual(['f0+g0', 'A0'])
    const covered = changeLane(both.lanes[0]!.id, { covered: true })(both)
    expect(lanesOf(say('let k(x) = x', covered))).toEqual(['f0+g0', 'k0'])
  })

  test('each is taken out and comes back, whichever was there first', () => {
    const withoutF = toggleLane('f', 0)(both)
    expect(lanesOf(withoutF)).toEqual(['g0'])
    expect(lanesOf(toggleLane('f', 0)(withoutF))).toEqual(['g0+f0'])
    expect(lanesOf(toggleLane('g', 0)(withoutF))).toEqual(['g0'])
    expect(lanesOf(removeLine('line1')(both))).toEqual(['g0'])
  })

  test('one gets a lane of its own, and is drawn on the axes of another again', () => {
    const apart = ownLane('g', 0)(both)
    expect(lanesOf(apart)).toEqual(['f0', 'g0'])
    expect(lanesOf(ownLane('f', 0)(both))).toEqual(['f0', 'g0'])
    expect(ownLane('g', 0)(apart)).toBe(apart)
    const lane = apart.lanes[0]!.id
    expect(lanesOf(drawHere(lane, 'g', 0)(apart))).toEqual(['f0+g0', 'g0'])
    expect(lanesOf(drawHere(lane, 'f', 0)(apart))).toEqual(['f0', 'g0'])
  })

  test('every curve has its ladder in one lane, also where nothing of it is drawn', () => {
    const three = say('let k(x) = 3x', ownLane('g', 0)(both))
    const named = (study: Study) => [...laddersOf(study).values()].map((l) => l.join())
    expect(named(three)).toEqual(['f,k', 'g'])
    expect(named(toggleLane('k', 0)(three))).toEqual(['f,k', 'g'])
  })
})
