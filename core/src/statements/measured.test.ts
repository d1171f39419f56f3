import { addReadings, readCsv, say, startStudy, workOut } from '..'
import { createEvaluator } from '..'

/** A study with readings pasted as text, and what a person then says. */
function read(csv: string, ...words: string[]) {
  const table = readCsv(csv)
  const points = table.rows.map((row): [number, number] => [row[0]!, row[1]!])
  const headings = table.named ? { x: table.columns[0]!, y: table.columns[1]! } : null
  const { name, edit } = addReadings(startStudy('f(x) = x'), points, headings)
  let study = edit(startStudy('f(x) = x'))
  for (const one of words) {
    const said = say(study, one.replaceAll('#', name))
    if ('problem' in said) throw new Error(said.problem)
    study = said.study
  }
  return { study, name, line: workOut(study).lines.at(-1)! }
}
const sumOf = (csv: string, words: string) => {
  const { line } = read(csv, words)
  return line.readouts.find((r) => r.id === 'sum')
}

// The speed of a runner, t in s and v in ft/s: 34.7 ft at least and 44.8 ft at most
// (J. Stewart, Calculus, exercise on distances, from memory).
const runner = 't (s),v (ft/s)\n0,0\n0.5,6.2\n1,10.8\n1.5,14.9\n2,18.1\n2.5,19.4\n3,20.2'

describe('areas under readings', () => {
  test.each([
    ['area under # left', 34.7],
    ['area under # right', 44.8],
    ['area under # trapezoid', 39.75],
    // Middle readings of three strips of 1: 6.2 + 14.9 + 19.4.
    ['area under # midpoint', 40.5],
    // (0.5/3)(0 + 4·6.2 + 2·10.8 + 4·14.9 + 2·18.1 + 4·19.4 + 20.2), by hand.
    ['area under # simpson', (0.5 / 3) * 240],
    // A part of the table, and strips put together.
    ['area under # left over 1 to 3', (10.8 + 14.9 + 18.1 + 19.4) / 2],
    ['area under # left with 3 strips', 0 + 10.8 + 18.1],
    ['area under # midpoint over 1 to 3', 14.9 + 19.4],
    ['area under # with 2 strips trapezoid', 1.5 * (0 / 2 + 14.9 + 20.2 / 2)],
  ])('%s', (words, sum) => {
    const found = sumOf(runner, words)!
    expect(found.value).toBeCloseTo(sum, 10)
    expect(found.text).toMatch(/^≈ /)
    expect(found.certain).toBe(false)
  })
  test('what cannot be read so is told, and never silently read otherwise', () => {
    const problem = (csv: string, words: string) => read(csv, words).line.problems[0]!.message
    expect(problem(runner, 'area under # midpoint over 0 to 2.5')).toMatch(
      /midpoints take the strips between readings in pairs, and there are 5/,
    )
    expect(problem(runner, 'area under # with 4 strips left')).toMatch(
      /6 strips between readings cannot be put together to 4/,
    )
    expect(problem(runner, 'area under # left over 0.25 to 3')).toMatch(
      /nothing was read at x = 0\.25: .* at 0 and 0\.5/,
    )
    expect(problem(runner, 'area under # upper')).toMatch(/no height is known/)
    expect(problem('0,1\n1,2\n4,5', 'area under # midpoint')).toMatch(
      /the reading at x = 1 is not in the middle between 0 and 4/,
    )
    expect(problem('0,1\n1,2\n4,5', 'area under # simpson')).toMatch(/not in the middle/)
  })
  test('the sentence says the rule that is used', () => {
    expect(read(runner, 'area under # midpoint').line.sentence).toBe(
      'Area under v over [0, 3] at its readings, at the middle',
    )
    expect(read(runner, 'area under # left with 3 strips').line.sentence).toBe(
      'Area under v over [0, 3] at its readings with 3 strips, height at the left',
    )
  })
  test('an average is the sum along slanted tops over the width, as an estimate', () => {
    const { line } = read(runner, 'average of #')
    expect(line.readouts[0]!.value).toBeCloseTo(39.75 / 3, 12)
    expect(line.readouts[0]!).toMatchObject({ certain: false })
  })
})

describe('what lies between readings is an estimate, what was read is not', () => {
  test.each([
    ['value of # at 1', 10.8, true],
    ['value of # at 0.75', 8.5, false],
    ["value of #' at 0.75", 9.2, false],
    ['tangent to # at 0.75', 9.2, false],
    ['average rate of # over 1 to 2', 7.3, true],
    ['average rate of # over 1 to 2.25', (18.75 - 10.8) / 1.25, false],
    ['secant to # from 1 to 2', 7.3, true],
  ])('%s', (words, value, certain) => {
    const { line } = read(runner, words)
    expect(line.readouts[0]!.value).toBeCloseTo(value, 10)
    expect(line.readouts[0]!.certain).toBe(certain)
  })
  test('no kink is said of a reading', () => {
    const texts = ["value of #' at 1", 'tangent to # at 1', 'normal to # at 1'].map((words) =>
      JSON.stringify(read(runner, words).line),
    )
    expect(texts.join()).not.toMatch(/kink/)
  })
})

describe('headings are names', () => {
  test.each([
    ['t (s),v (ft/s)', 'v', 'ft/s', undefined, 't', 's'],
    ['time (h),inflow (ML/h)', 'i', 'ML/h', 'inflow', 'time', 'h'],
    ['t [h],inflow q in ML/h', 'q', 'ML/h', 'inflow', 't', 'h'],
    ['hours,q(t) (ML/h)', 'q', 'ML/h', undefined, 'hours', ''],
    // f has a curve already, x is the variable.
    ['x,f', 'w', '', undefined, '', ''],
    ['time,water level', 'w', '', 'water level', 'time', ''],
  ])('%s', (head, name, unit, label, axis, axisUnit) => {
    const found = read(`${head}\n0,1\n1,2`)
    const line = found.study.lines.at(-1)!
    expect(found.name).toBe(name)
    expect(line).toMatchObject({ name, unit })
    expect(line.look?.label).toBe(label)
    expect(found.study.variable).toMatchObject({ name: axis, unit: axisUnit })
    const curve = createEvaluator()(found.study).curves.get(name)!
    expect(curve.ok).toBe(true)
  })
  test('without headings a free letter is taken', () => {
    expect(read('0,1\n1,2').name).toBe('w')
  })
})
