import { createStudy, editSlot, say, startStudy, workOut } from '..'
import { made, last, say as added } from './fixtures/testing'

const after = (start: string, ...words: string[]) => {
  let study = startStudy(start)
  for (const one of words) {
    const said = say(study, one)
    if ('problem' in said) throw new Error(said.problem)
    study = said.study
  }
  return workOut(study).lines
}
const readout = (lines: ReturnType<typeof after>, label: string) =>
  lines.at(-1)!.readouts.find((r) => r.label === label)?.value

describe('a curve that is known by its derivative', () => {
  // x² + 3, x² + 4, x³ − 3x + 1 and |x| − 1: by hand.
  test.each([
    ["f'(x) = 2x, f(0) = 3 for -1<=x<=3", 'f', 2, 7],
    ["f'(x) = 2x for 0<=x<=3 with f(1) = 5", 'f', 2, 8],
    ["h''(x) = 6x for -2<=x<=2 with h'(0) = -3 and h(0) = 1", 'h', 2, 3],
    ['h″(x) = 6x, h′(0) = -3, h(0) = 1', 'h', -2, -1],
    ['dy/dx = -1 if x<0; 1 otherwise, y(1) = 0', 'y', -2, 1],
    ["y' = cos x, y(0) = 1/2", 'y', Math.PI / 2, 1.5],
  ])('%s', (start, name, x, value) => {
    expect(readout(after(start, `value of ${name} at ${x}`), 'value')).toBeCloseTo(value, 12)
  })
  test('values of one without a formula agree with the table', () => {
    // √π/2 erf(1) = 0.746824132812 (M. Abramowitz, I. Stegun, table 7.1, from memory).
    const lines = after("k'(t) = e^(-t^2), k(0) = 0 for 0<=t<=3", 'value of k at 1')
    expect(readout(lines, 'value')).toBeCloseTo(0.746824132812, 11)
  })
  test('opens with both lanes, and says what it takes for granted', () => {
    const study = startStudy("f'(x) = 2x for 0<=x<=3")
    expect(study.lanes.map(({ curve, order }) => [curve, order])).toEqual([
      ['f', 0],
      ['f', 1],
    ])
    const line = workOut(study).lines[0]!
    expect(line.sentence).toBe('Let f′(x) = 2x for 0 ≤ x ≤ 3, with f(0) = 0')
    expect(line.notes).toEqual([
      'f′ alone does not decide f: f(0) = 0 is taken until another value is typed.',
    ])
    const given = study.lines[0]!
    const edit = editSlot(study, given, { slot: 'number', field: 'value' }, '4')
    if (!edit.ok) throw new Error(edit.message)
    expect(workOut(edit.edit(study)).lines[0]!.notes).toEqual([])
  })
  test('has a kink where its derivative jumps, and says so', () => {
    const [line] = after("f'(x) = -1 if x<1; 2 otherwise for 0<=x<=3")
    expect(line!.notes.join(' ')).toContain('At x = 1, f′ jumps, so f has a kink there.')
    const asked = after("f'(x) = -1 if x<1; 2 otherwise for 0<=x<=3", 'tangent to f at 1').at(-1)!
    expect(asked.problems[0]!.message).toMatch(/kink here, −1 on its left and 2 on its right/)
  })
  test('its features are proven from the derivative', () => {
    const line = after("h''(x) = 6x, h'(0) = -3, h(0) = 1 for -2<=x<=2", 'features of h').at(-1)!
    expect(line.verdict!.text).toBe('Complete on [−2, 2]')
    const places = (what: string) =>
      line.tables[0]!.rows.filter((row) => row[0] === what).map((row) => row[1])
    expect([places('high'), places('low'), places('inflection')]).toEqual([
      ['−1.000'],
      ['1.000'],
      ['0.000'],
    ])
    // 2 cos(20°), 2 cos(140°), 2 cos(260°) are the zeros of x³ − 3x + 1.
    expect(places('zero')).toEqual(['−1.879', '0.347', '1.532'])
  })
  test.each([
    ["this graph is h''", 'Let h′′(t) = q(t) for 0 ≤ t ≤ 6, with h′(0) = 0 and h(0) = 0'],
    ["this graph is f'' of h", 'Let h′′(t) = q(t) for 0 ≤ t ≤ 6, with h′(0) = 0 and h(0) = 0'],
    ["q is g'", 'Let g′(t) = q(t) for 0 ≤ t ≤ 6, with g(0) = 0'],
    ["q' is g'", 'Let g′(t) = q′(t) for 0 ≤ t ≤ 6, with g(0) = 0'],
    ["given k'(t) = 2t, k(1) = 3", 'Let k′(t) = 2t for 0 ≤ t ≤ 6, with k(1) = 3'],
  ])('%s', (words, sentence) => {
    expect(after('q(t) = cos(t) for 0<=t<=6', words).at(-1)!.sentence).toBe(sentence)
  })
  test('another order in its slot is refused, and nothing is lost', () => {
    const study = startStudy("f'(x) = 2x")
    const [given] = study.lines
    const edit = editSlot(study, given!, { slot: 'formula', field: 'formula' }, "f''(x) = 3")
    expect(edit.ok ? '' : edit.message).toMatch(/this line gives f′/)
    const curve = made('f(x) = x')
    const other = editSlot(curve, curve.lines[0]!, { slot: 'formula', field: 'formula' }, "f' = 3")
    expect(other.ok ? '' : other.message).toMatch(/this line gives f:/)
  })
  test('one that runs away ends there, and one on itself is refused', () => {
    const [line] = after("f'(x) = 1/x for -1<=x<=2, f(1) = 0")
    expect(line!.problems[0]!.message).toMatch(/grows without bound at x = 0/)
    const circle = last(added(startStudy('g(x) = x'), "let f'(x) = f(x)"))
    expect(circle.result.problems[0]!.message).toMatch(/itself|circle/)
  })
  test('a third derivative is not taken', () => {
    const created = createStudy("f'''(x) = 2")
    expect(created.ok ? '' : created.problems[0]!.message).toMatch(/first or second derivative/)
  })
})
