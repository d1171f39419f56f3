import { say, startStudy, workOut } from '../..'

/** The one line that some words add about a function, worked out. */
function asked(formula: string, words: string) {
  const said = say(startStudy(formula), words)
  if ('problem' in said) throw new Error(`${words}: ${said.problem}`)
  return workOut(said.study).lines.at(-1)!
}
const readouts = (formula: string, words: string) =>
  Object.fromEntries(asked(formula, words).readouts.map(({ id, text }) => [id, text]))

// Each limit is one that calculus texts work out (common practice, no one source).
describe('limits, told with both sides', () => {
  test.each([
    ['f(x) = sin(x)/x', 'limit of f as x -> 0', { limit: '1', left: '1', right: '1' }],
    ['f(x) = (x^2 - 4)/(x - 2)', 'limit at 2', { limit: '4', left: '4', right: '4' }],
    [
      'f(x) = (sqrt(x + 4) - 2)/x',
      'limit at 0',
      { limit: '1/4 = 0.25', left: '1/4 = 0.25', right: '1/4 = 0.25' },
    ],
    [
      'f(x) = floor x',
      'limit at 2',
      { limit: 'no limit: the sides differ', left: '1', right: '2' },
    ],
    [
      'f(x) = 1/(x - 2) if x < 2; 3 otherwise',
      'limit at 2',
      {
        limit: 'no limit: the sides differ',
        left: 'no limit: falls without bound',
        right: '3',
      },
    ],
    [
      'f(x) = 1/x^2',
      'limit at 0',
      Object.fromEntries(
        ['limit', 'left', 'right'].map((id) => [id, 'no limit: grows without bound']),
      ),
    ],
    [
      'f(x) = sqrt x',
      'limit at 0',
      { limit: '0, from the right alone', left: 'no limit: there are no values', right: '0' },
    ],
    [
      'f(x) = sin(1/x)',
      'limit at 0',
      Object.fromEntries(
        ['limit', 'left', 'right'].map((id) => [id, 'no limit: swings without settling']),
      ),
    ],
    ['f(x) = (1 + 1/x)^x', 'limit at infinity', { limit: 'e ≈ 2.718' }],
    ['f(x) = ln(x)/x^0.01', 'limit at infinity', { limit: '0' }],
    ['f(x) = floor x', 'limit at 2 from the left', { limit: '1' }],
    ['f(x) = floor x', 'lim x -> 2+', { limit: '2' }],
  ])('%s, %s', (formula, words, expected) => {
    expect(readouts(formula, words)).toEqual(expected)
  })

  test('a displaced point is told beside its limit, and is open and filled in the picture', () => {
    const line = asked('f(x) = x^2 if x != 2; 5 if x = 2', 'limit at 2')
    expect(line.notes).toContain('f is 5 at x = 2, beside the limit: it is not continuous there.')
  })

  test('asymptotes far out: level and slanting, with the equation', () => {
    const notes = (formula: string, words: string) => asked(formula, words).notes
    expect(notes('f(x) = (x^2 + 1)/(x - 1)', 'limit at infinity')).toContain(
      'f comes near to the line y = x + 1, and the gap vanishes.',
    )
    expect(notes('f(x) = sqrt(x^2 + x)', 'limit at -infinity')).toContain(
      'f comes near to the line y = −x − 1/2, and the gap vanishes.',
    )
    // x + sin x has no asymptote: its gap to y = x swings.
    expect(notes('f(x) = x + sin x', 'limit at infinity').join()).not.toMatch(/comes near/)
  })

  test('the table closes in from both sides, with digits that still differ', () => {
    const [table] = asked('f(x) = sin(x)/x', 'limit at 0').tables
    expect(table!.name).toBe('Closing in')
    expect(table!.rows[2]).toEqual(['−0.001', '0.999999833', '0.001', '0.999999833'])
  })
})

describe('continuous, differentiable: condition by condition', () => {
  const answers = (formula: string, words: string) => {
    const { continuous, differentiable } = readouts(formula, words)
    return [continuous, differentiable]
  }
  test.each([
    ['x^2', 2, 'yes', 'yes'],
    ['|x|', 0, 'yes', 'no'],
    ['cbrt x', 0, 'yes', 'no'],
    ['floor x', 2, 'no, only from the right', 'no'],
    ['1/x', 0, 'no', 'no'],
    ['x^2 if x != 2; 5 if x = 2', 2, 'no', 'no'],
    ['(x^2 - 4)/(x - 2) if x != 2; 4 if x = 2', 2, 'yes', 'yes'],
    ['sin(x)/x if x != 0; 1 if x = 0', 0, 'yes', 'yes'],
    ['x^2 sin(1/x) if x != 0; 0 if x = 0', 0, 'yes', 'yes'],
    ['x sin(1/x) if x != 0; 0 if x = 0', 0, 'yes', 'no'],
    ['sqrt x', 0, 'yes, from the right, where its values are', 'no'],
    [
      'x^1.5',
      0,
      'yes, from the right, where its values are',
      'from the right alone, where its values are',
    ],
  ])('%s at %d', (formula, x, continuous, differentiable) => {
    expect(answers(`f(x) = ${formula}`, `is f continuous at ${x}?`)).toEqual([
      continuous,
      differentiable,
    ])
  })

  test('each condition is answered for itself', () => {
    const told = (formula: string) =>
      asked(`f(x) = ${formula}`, 'is f continuous at 2?').conclusions.map(({ text }) => text)
    expect(told('x^2 if x != 2; 5 if x = 2')).toEqual([
      'f has a value there: f(2) = 5.',
      'It has a limit there: f tends to 4 from both sides.',
      'The two differ, so f is not continuous there.',
      'A function that is not continuous on both sides has no slope there.',
    ])
    expect(told('|x - 2|')).toEqual([
      'f has a value there: f(2) = 0.',
      'It has a limit there: f tends to 0 from both sides.',
      'The two are equal, so f is continuous there.',
      'The slopes of secants tend to −1 from the left and to 1 from the right.',
      'So f has no slope there: it has a kink here, −1 on its left and 1 on its right.',
    ])
  })
})

describe('what stands beside broken functions is true', () => {
  const linesOf = (formula: string, ...words: string[]) => {
    let study = startStudy(formula)
    for (const one of words) {
      const said = say(study, one)
      if ('problem' in said) throw new Error(said.problem)
      study = said.study
    }
    return workOut(study).lines
  }
  test.each([
    ['(x^2 - 4)/(x - 2) if x != 2; 4 if x = 2', 2, 1],
    ['sin(x)/x if x != 0; 1 if x = 0', 0, 0],
    ['(sqrt(x + 4) - 2)/x if x != 0; 1/4 if x = 0', 0, -1 / 64],
    ['e^(-1/x^2) if x != 0; 0 if x = 0', 0, 0],
    ['x^2 sin(1/x) if x != 0; 0 if x = 0', 0, 0],
  ])('%s has a tangent at %d', (formula, x, slope) => {
    const [curve, tangent] = linesOf(`f(x) = ${formula}`, `tangent at ${x}`)
    expect(tangent!.problems).toEqual([])
    expect(tangent!.readouts.find((r) => r.id === 'slope')!.value).toBeCloseTo(slope, 9)
    expect(curve!.notes.join()).toMatch(/meet smoothly: f is continuous/)
  })

  test.each([
    ['x^2 if x != 2; 5 if x = 2', 'f′(x) = 2x if x ≠ 2'],
    ['x^2 if x < 1; 5 if x = 1; x if x > 1', 'f′(x) = 2x if x < 1; 1 if x > 1'],
    [
      '(x^2 - 4)/(x - 2) if x != 2; 4 if x = 2',
      'f′(x) = 1 if x = 2; (x² − 4x + 4)/(x − 2)² if x ≠ 2',
    ],
  ])('the rate of %s lists each place once', (formula, rate) => {
    const [, line] = linesOf(`f(x) = ${formula}`, 'rate')
    expect(line!.sentence).toBe(`Rate of change ${rate}`)
  })

  test('why there is no slope is what is the case', () => {
    const why = (formula: string, x: number) =>
      linesOf(`f(x) = ${formula}`, `tangent at ${x}`)[1]!.problems[0]!.message
    expect(why('x^2 if x != 2; 5 if x = 2', 2)).toBe(
      'no slope at x = 2: f is 5 here, though both sides tend to 4',
    )
    expect(why('1/(x - 2) if x < 2; 3 otherwise', 2)).toBe(
      'no slope at x = 2: f falls without bound from the left and tends to 3 from the right here',
    )
    expect(why('floor x', 1)).toBe('no slope at x = 1: f jumps here')
  })
})
