import { changeFormula, createEvaluator, createStudy, offersFor, type Study } from '..'

/** Nested sines: many boxes before its turning points are proven. */
const hard = Array.from({ length: 4 }, (_, i) => `sin(${i + 1}.5x + cos x)/${i + 1}`).join(' + ')

function turningPointsOf(formula: string): Study {
  const created = createStudy(`f(x) = ${formula}`)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return offersFor('turning points of f', created.study, null)[0]!.edit(created.study)
}
/** An evaluator that has time for so many steps in each call. */
function inSlices(steps: number) {
  let left = 0
  const evaluate = createEvaluator({ resumeWhile: () => left-- > 0 })
  return {
    evaluate,
    slice: (study: Study) => {
      left = steps
      const line = study.lines.at(-1)!.id
      return evaluate(study, line).lines.get(line)!
    },
  }
}

describe('long work of a line in slices', () => {
  const study = turningPointsOf(hard)
  const line = study.lines.at(-1)!.id

  test('comes to what it comes to in one go, with steps that are done once', () => {
    const whole = createEvaluator({ patience: Infinity })(study).lines.get(line)!
    const { slice, evaluate } = inSlices(40)
    const shares: number[] = []
    let result = slice(study)
    let slices = 1
    while (result.pending && slices < 10_000) {
      shares.push(evaluate.progressOf(line)!)
      result = slice(study)
      slices += 1
    }
    expect(slices).toBeGreaterThan(5)
    expect(result.pending).toBeUndefined()
    expect(result.tables![0]!.rows).toEqual(whole.tables![0]!.rows)
    expect(result.verdict).toEqual(whole.verdict)
    expect(evaluate.progressOf(line)).toBeNull()
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.every((s) => s >= 0 && s <= 1)).toBe(true)
  })

  test('a new formula begins anew, and nothing of the old one comes through', () => {
    const { slice } = inSlices(40)
    expect(slice(study).pending).toBe(true)
    const other = changeFormula(study.lines[0]!.id, 'x^2 - 4')(study)
    let result = slice(other)
    for (let i = 0; result.pending && i < 1000; i++) result = slice(other)
    expect(result.tables![0]!.rows.map((r) => r.cells[1])).toContain('0.000')
    expect(result.verdict?.complete).toBe(true)
  })

  test('other lines are left alone', () => {
    const two = offersFor('zeros of f', study, null)[0]!.edit(study)
    const { evaluate, slice } = inSlices(50)
    const first = evaluate(two, two.lines.at(-1)!.id)
    expect(first.lines.get(line)!.tables).toBeUndefined()
    expect(slice(two).pending ?? false).toBe(true)
    expect(evaluate.progressOf(line)).toBeNull()
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
      // Only data comes over.
      const sent = structuredClone({ ...there, marks: [], tables: [] })
      expect(here.settle(pending, sent)).toBe(true)
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
  here.settle(pending, structuredClone({ ...there(at(1)).lines.get(line)!, marks: [] }))
  const moved = here(at(2)).lines.get(line)!
  expect(moved.pending).toBeUndefined()
  expect(moved.readouts).toEqual(there(at(2)).lines.get(line)!.readouts)
  expect(moved.readouts.map((r) => r.label)).toEqual(['length', 'lowest'])
})
