import { say, startStudy, workOut } from '../..'

const told = (formula: string, words: string) => {
  const said = say(startStudy(formula), words)
  if ('problem' in said) throw new Error(said.problem)
  const line = workOut(said.study).lines.at(-1)!
  return { ...line, texts: line.conclusions.map(({ text }) => text) }
}

describe('what follows from a graph that is not continuous, by hand', () => {
  test('a jump across 0 is a turning point below, and is remarked', () => {
    const { texts, notes } = told('f(x) = -1 if x<0; 1 otherwise for -2<=x<=2', 'taking f as f′')
    expect(texts).toEqual([
      'h rises on [0, 2], because h′ > 0 inside.',
      'h falls on [−2, 0], because h′ < 0 inside.',
      'h has a local minimum at x = 0, because h′ goes − to + there with a jump.',
      'h is straight on [−2, 0], because h′ is level there.',
      'h is straight on [0, 2], because h′ is level there.',
    ])
    expect(notes.join(' ')).toMatch(/At x = 0 h′ jumps, which no derivative does/)
  })
  test('f′′ that jumps across 0 bends f there, with a tangent', () => {
    const { texts } = told('f(x) = sgn(x - 1) for -1<=x<=3', 'taking f as f″ about f')
    expect(texts).toContain(
      'h has an inflection at x = 1, because h′′ goes − to + there with a jump.',
    )
  })
  test('a level stretch at 0, a jump that keeps the sign, and one that turns the course', () => {
    const { texts } = told(
      'f(x) = x if x<1; 3-x if x<2; 0 if x<3; x-4 otherwise for 0<=x<=5',
      'taking f as f′',
    )
    expect(texts).toEqual([
      'h rises on [0, 2], because h′ > 0 inside but for x = 1, where it is not continuous.',
      'h rises on [4, 5], because h′ > 0 inside.',
      'h falls on [3, 4], because h′ < 0 inside.',
      'h is level on [2, 3], because h′ is 0 there.',
      'h has a local minimum at x = 4, because h′ goes − to + there.',
      'h is concave up on [0, 1], because h′ rises there.',
      'h is concave up on [3, 5], because h′ rises there.',
      'h is concave down on [1, 2], because h′ falls there.',
      'h has an inflection at x = 1, without a tangent, because h′ turns from rising to falling there with a jump.',
    ])
  })
  test('a jump against the course parts what is concave up', () => {
    // h′ rises on both sides of 1 and falls over it.
    const { texts } = told('f(x) = x if x<1; x - 3 otherwise for 0<=x<=4', 'taking f as f′')
    expect(texts.filter((t) => t.includes('concave'))).toEqual([
      'h is concave up on [0, 1], because h′ rises there.',
      'h is concave up on [1, 4], because h′ rises there.',
    ])
    expect(texts).toContain(
      'h has a local maximum at x = 1, because h′ goes + to − there with a jump.',
    )
  })
  test('a displaced point of a derivative is nothing below it', () => {
    const { texts, notes } = told('f(x) = x if x != 1; -7 if x = 1 for 0<=x<=2', 'taking f as f′')
    expect(texts).toEqual([
      'h rises on [0, 2], because h′ > 0 inside but for x = 1, where it is not continuous.',
      'h is concave up on [0, 2], because h′ rises there.',
    ])
    expect(notes.join(' ')).toMatch(/a value beside its limit, which no derivative has/)
  })
  test('a pole ends what follows where its area runs away, and only there', () => {
    // ∫ x^(−1/3) = 3/2 x^(2/3), bounded with a cusp; ∫ 1/x² runs away.
    const bounded = told('f(x) = 1/cbrt(x) for -2<=x<=2', 'taking f as f′')
    expect(bounded.texts).toContain(
      'h has a local minimum at x = 0, because h′ goes − to + there across a pole.',
    )
    const away = told('f(x) = 1/x for -2<=x<=2', 'taking f as f′')
    expect(away.texts).toEqual([
      'h rises on (0, 2], because h′ > 0 inside.',
      'h falls on [−2, 0), because h′ < 0 inside.',
      'h is concave down on [−2, 0), because h′ falls there.',
      'h is concave down on (0, 2], because h′ falls there.',
    ])
    expect(away.notes.join(' ')).toMatch(/Nothing follows about h at x = 0/)
  })
  test('nothing is said of a stretch on which zeros lie without end', () => {
    const { texts, verdict } = told('f(x) = x sin(1/x) for -1<=x<=1', 'taking f as f′')
    expect(verdict!.text).toBe('Some stretches could not be settled')
    for (const t of texts) {
      const on = /on [[(](\S+), (\S+)[)\]]/.exec(t)
      if (!on) continue
      const [a, b] = on.slice(1).map((end) => Number(end.replace('−', '-')))
      // x sin(1/x) is 0 at 1/(kπ), so nothing holds on a stretch across 0.
      expect([t, a! < 0 && b! > 0]).toEqual([t, false])
    }
    expect(texts.join(' ')).not.toMatch(/at x = −?0\.000/)
  })
})

describe('the graph of a function itself', () => {
  test('its inflections are told', () => {
    const { texts } = told('g(x) = x^3 - 3x for -2<=x<=2', 'conclude g as f')
    expect(texts).toContain(
      'f has an inflection at x = 0, because its graph turns from concave down to concave up there.',
    )
  })
  test('where its derivative is missing no interval of the derivative holds', () => {
    const formula = 'f(x) = x + |x-1|/2 for 0<=x<=3'
    expect(told(formula, 'conclude f as f about f′').texts).toEqual([
      'f′ is 0 or above on [0, 3] but for x = 1, where it is missing, because the graph of f rises there.',
      'f′ is missing at x = 1, because the graph of f has a kink there.',
    ])
    expect(told(formula, 'conclude f as f about f″').texts).toEqual([
      'f′′ is 0 on [0, 1), because the graph of f is straight there.',
      'f′′ is 0 on (1, 3], because the graph of f is straight there.',
      'f′′ is missing at x = 1, because the graph of f has a kink there.',
    ])
  })
  test('a value beside the graph may be the highest nearby and no turning point', () => {
    const { texts } = told('f(x) = x^2 if x!=1; 5 if x=1 for -2<=x<=2', 'conclude f as f')
    expect(texts).toContain(
      'f has a value at x = 1 that is highest nearby, without turning, because its graph has a displaced point there and no value nearby is higher.',
    )
  })
})

describe('one name never means two functions', () => {
  test.each([
    ['f(x) = x', "conclude f as f'", 'Taking f as h′: conclusions about h'],
    ['g(x) = x', "conclude g as f'", 'Taking g as f′: conclusions about f'],
    ['g(x) = x', "conclude g as h''", 'Taking g as f′′: conclusions about f'],
    ['f(x) = x', 'conclude f as f', 'Taking f as f: conclusions about f'],
    ['f(x) = x', "conclude f' as f'", 'Taking f′ as f′: conclusions about f'],
    ["y'(x) = x", "conclude y' as y'", 'Taking y′ as y′: conclusions about y'],
  ])('%s, %s', (formula, words, sentence) => {
    expect(told(formula, words).sentence.startsWith(sentence)).toBe(true)
  })
  test('a curve that is known by the graph is the one that is spoken of', () => {
    const first = say(startStudy('f(x) = 3x^2 - 3 for -2 <= x <= 3'), "conclude f as f'")
    if ('problem' in first) throw new Error(first.problem)
    const next = say(first.study, "given h'(x) = f(x), h(-2) = 0")
    if ('problem' in next) throw new Error(next.problem)
    const line = workOut(next.study).lines[1]!
    expect(line.sentence).toBe('Taking f as h′: conclusions about h on [−2, 3]')
    expect(line.notes.join(' ')).not.toMatch(/need one value/)
  })
  test('not even where another curve has the name', () => {
    let study = startStudy('f(x) = x')
    for (const words of ['let g(x) = x^3', 'let h(x) = 2', 'conclude g as itself']) {
      const said = say(study, words)
      if ('problem' in said) throw new Error(said.problem)
      study = said.study
    }
    const line = workOut(study).lines.at(-1)!
    expect(line.sentence).toMatch(/^Taking g as itself: conclusions about g on/)
    expect(line.conclusions[0]!.text).toMatch(/^g rises on/)
  })
})

describe('highest and lowest nearby, apart from the turning points', () => {
  test.each([
    // A jump with the upper value; the lower piece comes up to 1.
    ['x if x < 1; 3 - x otherwise for 0<=x<=2', 'highest nearby', '1.000'],
    // Below both sides.
    ['x^2 if x != 1; -2 if x = 1 for 0<=x<=2', 'lowest nearby', '1.000'],
    // The upper side of a pole on the left alone: the value ends the other piece.
    ['x if x <= 1; 1/(x-1) otherwise for 0<=x<=2', 'lowest nearby', null],
  ])('%s', (formula, what, place) => {
    const { tables } = told(`f(x) = ${formula}`, 'features of f')
    const rows = tables[0]!.rows.filter((row) => row[0] === what)
    expect(rows.map((row) => row[1])).toEqual(place === null ? [] : [place])
  })
})
