import { readStudyFile, say, startStudy, type Study, Unreadable, workOut, writeStudyFile } from '..'
import { ask } from '../../ask/main'

/** Says all of some words; each must be taken. */
function told(start: string, ...words: string[]): Study {
  return words.reduce((study, one) => {
    const said = say(study, one)
    if ('problem' in said) throw new Error(`${one}: ${said.problem}`)
    return said.study
  }, startStudy(start))
}
const flood = 'q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10'

describe('beginning a study', () => {
  test('with what the start field takes', () => {
    const study = startStudy('q(t) = 6 + sin t for 0 ≤ t ≤ 10')
    expect(study.variable.letter).toBe('t')
    expect(study.lines).toMatchObject([
      { id: 'line1', kind: 'curve', name: 'q', span: { from: '0', to: '10' } },
    ])
  })
  test('a letter without a value gets a slider', () => {
    expect(startStudy('f(x) = a x^2 + b').sliders.map((s) => s.name)).toEqual(['a', 'b'])
  })
  test('what cannot be read is told with its place', () => {
    expect(() => startStudy('f(x) = 2 +')).toThrow(Unreadable)
    try {
      startStudy('f(x) = 2 + sim x')
    } catch (error) {
      expect(error).toMatchObject({ problems: [{ from: 11, to: 14 }] })
    }
  })
})

describe('saying lines', () => {
  test('the first line that the words offer is added, with the next free id', () => {
    const said = say(startStudy(flood), 'tangent at 2')
    expect(said).toMatchObject({ sentence: 'Tangent to q at t = 2' })
    if ('problem' in said) throw new Error(said.problem)
    expect(said.study.lines.map((l) => l.id)).toEqual(['line1', 'line2'])
    expect(said.others).not.toContain(said.sentence)
  })

  test.each([
    ['area 0 to 4 shaded blue', ['shaded', 'blue']],
    ['tangent at 2 in the lagoon', ['lagoon']],
    ['turning points of q tomorrow', ['tomorrow']],
    ['secant from 1 to 3 through 17', ['17']],
    ['tangent secant at 2', ['secant']],
    ['value of q at 2 7', ['7']],
  ])('words are left over in “%s”: nothing is added, and choices come back', (words, left) => {
    const study = startStudy(flood)
    const said = say(study, words)
    expect(said.study).toBe(study)
    if (!('problem' in said)) throw new Error(`${words} was taken as ${said.sentence}`)
    for (const word of left)
      expect([words, said.problem]).toEqual([words, expect.stringContaining(word)])
  })

  test('with two curves and none named, both are offered and nothing is added', () => {
    const study = told(flood, 'let r(t) = 5 - t/4')
    const said = say(study, 'tangent at 2')
    expect(said.study).toBe(study)
    expect(said).toMatchObject({ choices: ['Tangent to q at t = 2', 'Tangent to r at t = 2'] })
    expect(say(study, 'tangent to r at 2')).toMatchObject({ sentence: 'Tangent to r at t = 2' })
  })

  test('words that fit nothing are told', () => {
    const study = startStudy(flood)
    expect(say(study, 'zzz')).toEqual({
      study,
      problem: expect.stringContaining('Nothing fits “zzz”'),
      choices: [],
    })
  })
})

describe('working out', () => {
  test('gives plain values: sentences, readouts, tables, notes, verdicts', () => {
    const study = told(flood, 'tangent at 2', "where q' = 2", 'area 0 to 4')
    const worked = workOut(study)
    expect(JSON.parse(JSON.stringify(worked))).toEqual(worked)
    const [, tangent, where, area] = worked.lines
    expect(tangent).toMatchObject({
      id: 'line2',
      kind: 'tangent',
      sentence: 'Tangent to q at t = 2',
    })
    // q′(2) = 3.6 cos 1.8 − 0.3
    const slope = tangent!.readouts.find((r) => r.id === 'slope')!
    expect(slope.value).toBeCloseTo(3.6 * Math.cos(1.8) - 0.3, 12)
    expect(slope).toMatchObject({ label: 'slope', certain: true })
    // 3.6 cos 0.9t = 2.3 has the solutions (arccos(2.3/3.6) + 2πk)/0.9 and (−arccos + 2πk)/0.9.
    const angle = Math.acos(2.3 / 3.6)
    const by = (a: number) => a / 0.9
    const times = [by(angle), by(2 * Math.PI - angle), by(2 * Math.PI + angle)]
    expect(where!.tables[0]!.rows.map((row) => Number(row[0]))).toEqual(
      times.map((t) => expect.closeTo(t, 2)),
    )
    expect(where!.verdict).toMatchObject({ complete: true, unresolved: [] })
    expect(area!.tables.map((t) => t.name)).toContain('Strips')
  })

  test('values are laid over the sliders for this once', () => {
    const study = told(flood, 'tangent')
    const at = (a: number) =>
      workOut(study, { values: { a } }).lines[1]!.readouts.find((r) => r.id === 'slope')!.value!
    expect(at(0)).toBeCloseTo(3.3, 12)
    expect(at(1)).toBeCloseTo(3.6 * Math.cos(0.9) - 0.3, 12)
    expect(() => workOut(study, { values: { z: 1 } })).toThrow(RangeError)
  })

  test('long work is done', () => {
    const hard = Array.from({ length: 3 }, (_, i) => `sin(${i + 1}.5x + cos x)/${i + 1}`).join(
      ' + ',
    )
    const worked = workOut(told(`f(x) = ${hard}`, 'turning points of f'))
    expect(worked.lines[1]!.verdict).toMatchObject({ complete: true })
    expect(worked.lines[1]!.tables[0]!.rows.length).toBeGreaterThan(4)
  })

  test('what is in the way is said in the line', () => {
    const worked = workOut(told('f(x) = 1/x for 1 <= x <= 4', 'tangent at 0'))
    expect(worked.lines[1]!.problems[0]!.message).toBe('x = 0 lies outside the span of f, 1 to 4')
    expect(worked.lines[1]!.readouts).toEqual([])
  })
})

test('a study goes through its file and stays what it is', () => {
  const study = told(flood, 'tangent', 'area 0 to 4', 'turning points of q')
  expect(readStudyFile(writeStudyFile(study))).toEqual({ ok: true, study })
})

describe('asking from the command line', () => {
  test('prints what the lines say, as a person would read it', () => {
    const { text, ok } = ask(['q(t) = 6 + sin t', 'tangent at 2', 'area 0 to 4'])
    expect(ok).toBe(true)
    // q′(2) = cos 2 = −0.416; the area from 0 to 4 is 24 + 1 − cos 4 = 25.654.
    expect(text).toContain('Tangent to q at t = 2')
    expect(text).toMatch(/slope −0\.416/)
    expect(text).toContain('25.654')
    expect(text).not.toMatch(/undefined|NaN|\[object/)
  })
  test('as data with --json, and words that were not taken are told', () => {
    const { text, ok } = ask(['q(t) = 6 + sin t', 'tangent at 2', 'zzz', '--json'])
    const told = JSON.parse(text) as { lines: unknown[]; refused: { words: string }[] }
    expect(ok).toBe(false)
    expect(told.lines).toHaveLength(2)
    expect(told.refused).toMatchObject([{ words: 'zzz' }])
  })
})
