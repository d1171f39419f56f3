import { changeFormula, createEvaluator, createStudy, offersFor, type Study } from '../index'

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
