import { changeFormula, createEvaluator, createStudy, offersFor, type Study } from '..'

/** Nested sines: many boxes before its turning points are proven. */
const hard = Array.from({ length: 4 }, (_, i) => `sin(${i + 1}.5x + cos x)/${i + 1}`).join(' + ')

function turningPointsOf(formula: string): Study {
  const created = createStudy(`f(x) = ${formula} for -10 <= x <= 10`)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return offersFor('turning points of f', created.study, null)[0]!.edit(created.study)
}
/** The outcome of a line's long work, with the shares that were told on the way. */
function driven(study: Study, line: string) {
  const work = createEvaluator({ results: false, sentences: false }).long(study, line)!
  const shares: number[] = []
  for (;;) {
    const step = work.next()
    // Only data comes over.
    if (step.done) return { shares, outcome: structuredClone(step.value) }
    shares.push(step.value)
  }
}

describe('long work of a line, done elsewhere', () => {
  const study = turningPointsOf(hard)
  const line = study.lines.at(-1)!.id

  test('comes to what it comes to in one go', () => {
    const whole = createEvaluator({ patience: Infinity })(study).lines.get(line)!
    const here = createEvaluator({ patience: 5 })
    const pending = here(study).lines.get(line)!
    expect(pending.pending).toBe(true)
    const { shares, outcome } = driven(study, line)
    expect(shares.length).toBeGreaterThan(5)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.every((s) => s >= 0 && s <= 1)).toBe(true)
    expect(here.apply(pending, outcome)).toBe(true)
    const result = here(study).lines.get(line)!
    expect(result.pending).toBeUndefined()
    expect(result.tables![0]!.rows).toEqual(whole.tables![0]!.rows)
    expect(result.verdict).toEqual(whole.verdict)
  })

  test('goes on where it was, though other lines have come', () => {
    const there = createEvaluator({ results: false, sentences: false })
    const first = there.long(study, line)!
    let share = 0
    for (let i = 0; i < 60; i++) share = first.next().value as number
    const more = offersFor('value of f at 1', study, null)[0]!.edit(study)
    expect(there.long(more, line)!.next().value).toBeGreaterThanOrEqual(share)
    const other = changeFormula(study.lines[0]!.id, `${hard} + x`)(study)
    expect(there.long(other, line)!.next().value).toBeLessThan(share)
  })

  test('a new formula begins anew, and nothing of the old one comes through', () => {
    const here = createEvaluator({ patience: 5 })
    const pending = here(study).lines.get(line)!
    const { outcome } = driven(study, line)
    const other = changeFormula(study.lines[0]!.id, 'x^2 - 4')(study)
    here(other)
    expect(here.apply(pending, outcome)).toBe(false)
    const result = createEvaluator({ patience: Infinity })(other).lines.get(line)!
    expect(here(other).lines.get(line)!.tables![0]!.rows).toEqual(result.tables![0]!.rows)
    expect(result.verdict?.complete).toBe(true)
  })

  test('what was found for one line is known to every other about the same', () => {
    const two = offersFor('zeros of f', study, null)[0]!.edit(study)
    const zeros = two.lines.at(-1)!.id
    const here = createEvaluator({ patience: 5 })
    const first = here(two).lines
    expect([first.get(line)!.pending, first.get(zeros)!.pending]).toEqual([true, true])
    here.apply(first.get(zeros)!, driven(two, zeros).outcome)
    here.apply(first.get(line)!, driven(two, line).outcome)
    const { lines } = here(two)
    expect([lines.get(line)!.pending, lines.get(zeros)!.pending]).toEqual([undefined, undefined])
  })

  test.each([
    ['where is f = 0.3', 'Solutions'],
    ['where does f meet g', 'Solutions'],
    ['sign chart of f', undefined],
    ["conclude f as f'", undefined],
    ['accumulate f', undefined],
  ])('%s has its outcome applied, whatever it is', (words, table) => {
    const asked = ['let g(x) = x/9', words].reduce(
      (now, say) => offersFor(say, now, null)[0]!.edit(now),
      { ...study, lines: study.lines.slice(0, 1) } as Study,
    )
    const { id } = asked.lines.at(-1)!
    const whole = createEvaluator({ patience: Infinity })(asked).lines.get(id)!
    const here = createEvaluator({ patience: 5 })
    const pending = here(asked).lines.get(id)!
    expect(pending.pending).toBe(true)
    here.apply(pending, driven(asked, id).outcome)
    const result = here(asked).lines.get(id)!
    expect(result).toEqual(whole)
    // Asked again elsewhere, it is known.
    const there = createEvaluator({ results: false, sentences: false })
    for (let again = 0; again < 2; again++) {
      const work = there.long(asked, id)!
      let step = work.next()
      while (!step.done) step = work.next()
      expect(step.value).toBeDefined()
    }
    expect(result.tables?.[0]?.name).toBe(table)
  })
})

describe('strips under a curve that takes long to examine', () => {
  const created = createStudy('f(x) = 6 + 4 sin(0.9x) - 0.3x + x^2/(1 + x^2) - cos(2x) e^(-x/5)')
  if (!created.ok) throw new Error(created.problems[0]!.message)
  const study = offersFor('area', created.study, null)[0]!.edit(created.study)
  const line = study.lines.at(-1)!.id
  const recut = (n: number): Study => ({
    ...study,
    sliders: study.sliders.map((s) => (s.name === 'n' ? { ...s, value: n } : s)),
  })
  const labels = (result: { readouts: readonly { label: string }[] }) =>
    result.readouts.map((r) => r.label)

  test('no totals of over and short are given before its turns are known', () => {
    const first = createEvaluator({ patience: 5 })(recut(3)).lines.get(line)!
    expect(first.pending).toBe(true)
    expect(labels(first)).toContain('sum')
    expect(labels(first)).not.toContain('over')
  })

  test('recut often enough they are worked out here, as in one go', () => {
    const evaluate = createEvaluator({ patience: 20 })
    let result = evaluate(recut(1)).lines.get(line)!
    let cuts = 1
    while (result.pending && cuts < 2000) {
      cuts += 1
      result = evaluate(recut(1 + (cuts % 5))).lines.get(line)!
    }
    expect(cuts).toBeGreaterThan(5)
    const last = evaluate(recut(2)).lines.get(line)!
    const whole = createEvaluator({ patience: Infinity })(recut(2)).lines.get(line)!
    expect(last.pending).toBeUndefined()
    expect(last.readouts).toEqual(whole.readouts)
    expect(labels(last)).toEqual(expect.arrayContaining(['over', 'short']))
  })

  test.each(['position', 'upper'])(
    'what a worker found is drawn here: strips by rule %s with their slivers',
    (rule) => {
      const lines = study.lines.map((l) => (l.id === line ? { ...l, rule } : l))
      const wanted = { ...recut(3), lines } as Study
      const here = createEvaluator({ patience: 5 })
      const pending = here(wanted).lines.get(line)!
      expect(pending.pending).toBe(true)
      const there = createEvaluator({ patience: Infinity })(wanted).lines.get(line)!
      expect(here.apply(pending, driven(wanted, line).outcome)).toBe(true)
      const result = here(wanted).lines.get(line)!
      expect(result.pending).toBeUndefined()
      expect(result.readouts).toEqual(there.readouts)
      const mark = result.marks.find((m) => m.kind === 'strips')!
      expect(mark.strips).toHaveLength(3)
      expect(mark.slivers.length).toBeGreaterThan(2)
      expect(mark).toEqual(there.marks.find((m) => m.kind === 'strips'))
    },
  )
})

test('a distance whose least took a worker moves with its place from then on', () => {
  const created = createStudy('f(x) = sin(3x) + x^2/9 + cos(2x) e^(-x/5)')
  if (!created.ok) throw new Error(created.problems[0]!.message)
  const study = offersFor('distance from f to (3, 1)', created.study, null)[0]!.edit(created.study)
  const line = study.lines.at(-1)!.id
  const at = (value: number): Study => ({
    ...study,
    sliders: study.sliders.map((s) => ({ ...s, value })),
  })
  const here = createEvaluator({ patience: 5 })
  const there = createEvaluator({ patience: Infinity })
  const pending = here(at(1)).lines.get(line)!
  expect(pending.pending).toBe(true)
  here.apply(pending, driven(at(1), line).outcome)
  const moved = here(at(2)).lines.get(line)!
  expect(moved.pending).toBeUndefined()
  expect(moved.readouts).toEqual(there(at(2)).lines.get(line)!.readouts)
  expect(moved.readouts.map((r) => r.label)).toEqual(['length', 'lowest'])
})
