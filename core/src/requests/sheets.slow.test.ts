import { changeFormula, createEvaluator, createSceneMaker, type Evaluation, setSlider } from '..'
import { spoken, added, flood } from './fixtures/testing'

/** All that a person can read of a study. */
const textsOf = ({ lines, sentences }: Evaluation): string[] => [
  ...[...sentences.values()].flatMap((phrases) => phrases.map((p) => p.text)),
  ...[...lines.values()].flatMap((r) => [
    ...r.readouts.map((o) => o.text),
    ...r.problems.flatMap((p) => [p.message, p.fix ?? '']),
    ...(r.notes ?? []),
    ...(r.conclusions ?? []).map((c) => c.text),
    ...(r.tables ?? []).flatMap((t) => t.rows.slice(0, 50).flatMap((row) => row.cells)),
    r.verdict?.text ?? '',
  ]),
]

describe('a sheet survives a new function', () => {
  const sheet = spoken.reduce((now, [words]) => added(now, words), flood())
  const functions = [
    't^2 - 3t',
    '5',
    '0',
    '|t - 4|',
    '1/(t - 4)',
    'sqrt(t - 2)',
    'ln t',
    'tan t',
    'floor t',
    't if t < 3; 9 - t otherwise',
    't if t < 3; 20 if t > 5',
    'e^(t^2)',
    '10^200 t',
    'cbrt(t - 5)',
    'arcsin(t - 4)',
    'r(t) + sin t',
    '-sqrt(t)',
  ]

  test.each(functions)('q(t) = %s: every line works or says what it needs', (formula) => {
    const study = setSlider('a', 4)(changeFormula('line1', formula)(sheet))
    const evaluation = createEvaluator()(study)
    for (const line of study.lines) {
      const result = evaluation.lines.get(line.id)!
      const says =
        result.readouts.length > 0 ||
        result.problems.length > 0 ||
        (result.tables ?? []).length > 0 ||
        (result.notes ?? []).length > 0 ||
        (result.conclusions ?? []).length > 0 ||
        result.signs !== undefined ||
        result.verdict !== undefined ||
        result.pending === true
      if (!['curve', 'surface', 'given', 'rate', 'accumulate', 'note', 'trail'].includes(line.kind))
        expect([line.kind, says]).toEqual([line.kind, true])
    }
    const texts = textsOf(evaluation)
    expect(texts.length).toBeGreaterThan(50)
    for (const text of texts) {
      expect(text).not.toMatch(/NaN|undefined|null|Infinity|\[object|could not be worked out/)
      // No negative zero, and minus is U+2212 wherever a number is meant.
      expect(text).not.toMatch(/−0\.0+(?!\d)/)
    }
    const heights = Object.fromEntries(study.lanes.map((l) => [l.id, 200]))
    const scene = createSceneMaker()(evaluation, { width: 700, heights })
    for (const lane of scene.lanes) {
      for (const item of lane.items) {
        if (item.kind === 'path') expect(item.d).not.toMatch(/NaN|Infinity/)
        else if (item.kind !== 'rect') {
          expect([item.x, item.y].every(Number.isFinite)).toBe(true)
        }
      }
    }
  })
})
