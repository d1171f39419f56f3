/*
 * An exam as a stranger would sit it: questions of the kinds that textbooks set, with their answers.
 * S: J. Stewart, Calculus; O: OpenStax, Calculus, volume 1; P: M. Spivak, Calculus. Questions and
 * answers are from memory; each answer has been worked again by hand.
 */
import { say, startStudy, workOut } from '..'

interface Question {
  /** Where it is set. */
  source: 'S' | 'O' | 'P'
  start: string
  /** What is said, line by line; the last one answers. */
  words: readonly string[]
  /** What the answer says, as text that stands in it. */
  says: readonly string[]
  /** Numbers among its readouts. */
  numbers?: Readonly<Record<string, number>>
  /** What would be a false answer. */
  never?: RegExp
}

const q = (
  source: Question['source'],
  start: string,
  words: string | readonly string[],
  says: readonly string[],
  numbers: Question['numbers'] = {},
  never?: RegExp,
): Question => ({
  source,
  start: `f(x) = ${start}`,
  words: typeof words === 'string' ? [words] : words,
  says,
  numbers,
  ...(never ? { never } : {}),
})

const limits: readonly Question[] = [
  q('O', '(x^2-4)/(x-2)', 'limit of f as x -> 2', ['4'], { limit: 4 }),
  q('S', 'sin(x)/x', 'limit of f as x -> 0', ['Because close to 0 it is like 1'], { limit: 1 }),
  q('S', '(sqrt(x+4)-2)/x', 'limit of f as x -> 0', ['0.25'], { limit: 1 / 4 }),
  q('S', '(1-cos x)/x^2', 'limit of f as x -> 0', ['0.5'], { limit: 1 / 2 }),
  q('S', '(3x^2-x-2)/(5x^2+4x+1)', 'limit of f at infinity', ['0.6'], { limit: 3 / 5 }),
  q('P', 'e^(-1/x^2)', 'limit of f as x -> 0', ['falls without bound'], { limit: 0 }),
  q('S', '|x|/x', 'limit of f as x -> 0', ['no limit', '−1', '1'], { left: -1, right: 1 }),
  q('O', '1/(x-2) if x<2; 3 otherwise', 'limit of f as x -> 2', ['falls without bound'], {
    right: 3,
  }),
  q('S', 'x sin(1/x)', 'limit of f as x -> 0', ['vanish'], { limit: 0 }),
  q('S', 'sin(pi/x)', 'limit of f as x -> 0', ['no limit']),
  q('S', '(1+1/x)^x', 'limit of f at infinity', [], { limit: Math.E }),
  q('S', 'ln(x)/cbrt(x)', 'limit of f at infinity', [], { limit: 0 }),
  q('S', 'x^x', 'limit of f as x -> 0 from the right', [], { limit: 1 }),
  q('S', 'sqrt(x^2+1)-x', 'limit of f at infinity', [], { limit: 0 }),
]

const continuity: readonly Question[] = [
  q('S', '(x^2-x-2)/(x-2) if x!=2; 1 if x=2', 'is f continuous at 2?', [
    'tends to 3 from both sides',
    'The two differ, so f is not continuous there',
  ]),
  q('S', 'floor(x)', 'is f continuous at 2?', ['f(2) is the limit from the right alone']),
  q('S', '|x|', 'is f differentiable at 0?', [
    'continuous there',
    '−1 from the left and to 1 from the right',
    'kink',
  ]),
  q('S', 'cbrt(x)', 'is f differentiable at 0?', ['grow without bound from both sides']),
  q('P', 'x^2 sin(1/x) if x!=0; 0 otherwise', 'is f differentiable at 0?', [
    'f has the slope 0 there',
  ]),
  q('P', 'x sin(1/x) if x!=0; 0 otherwise', 'is f differentiable at 0?', [
    'continuous there',
    'swing without settling',
  ]),
  q('O', 'x^2 if x<=3; 9 + 6(x-3) otherwise', 'is f differentiable at 3?', [
    'f has the slope 6 there',
  ]),
]

const lines: readonly Question[] = [
  q('S', 'x^2', 'tangent to f at 1', ['y = 2'], { slope: 2 }),
  q('S', '3/x', 'tangent to f at 3', [], { slope: -1 / 3 }),
  q('S', 'cbrt(x)', 'tangent to f at 0', ['vertical'], {}, /slope 0/),
  q('S', 'x sqrt(x)', 'normal to f at 1', [], { slope: -2 / 3 }),
  q('S', '|x-2|', 'tangent to f at 2', ['−1 on its left and 1 on its right'], {}, /slope -?\d/),
  q('O', 'x^2 if x!=1; 3 if x=1', 'tangent to f at 1', [
    'f is 3 here, though both sides tend to 1',
  ]),
]

const extremes: readonly Question[] = [
  q(
    'S',
    'x^3-3x^2+1 for -1/2<=x<=4',
    'features of f',
    [
      '17.000',
      '−3.000',
      'f is highest at x = 4, because 17 is the largest of its values at the candidates',
    ],
    { highest: 17, lowest: -3 },
  ),
  q('S', 'x-2sin x for 0<=x<=2pi', 'features of f', ['1.047', '5.236'], {
    lowest: Math.PI / 3 - Math.sqrt(3),
    highest: (5 * Math.PI) / 3 + Math.sqrt(3),
  }),
  q('S', 'x^(3/5) (4-x) for -1<=x<=3', 'critical points of f', ['1.500', '0.000']),
  q(
    'S',
    'x^4-4x^3 for -1<=x<=5',
    'features of f',
    [
      'low | 3.000 | −27.000',
      'inflection | 0.000',
      'inflection | 2.000',
      'keeps its sign, − on both sides',
    ],
    {},
    /(high|low) \| 0\.000/,
  ),
  q(
    'O',
    'x^(2/3) for -1<=x<=2',
    'features of f',
    ['low | 0.000 | 0.000 | f is continuous there, f′ is missing and goes − to +'],
    { lowest: 0, highest: 2 ** (2 / 3) },
  ),
  q(
    'S',
    '1/x for -1<=x<=2',
    'features of f',
    ['f takes no highest value', 'f takes no lowest value'],
    {},
    /turning|high \|/,
  ),
  q(
    'S',
    'x-floor(x) for 0<=x<=2',
    'features of f',
    ['f takes no highest value on [0, 2]', 'lowest nearby | 1.000'],
    { lowest: 0 },
  ),
  q(
    'O',
    'x if x<1; 3-x otherwise for 0<=x<=3',
    'features of f',
    ['highest nearby | 1.000 | 2.000', 'not continuous there'],
    { highest: 2, lowest: 0 },
    /high \| 1\.000/,
  ),
]

const theorems: readonly Question[] = [
  q('S', 'x^3-x', 'mean value theorem for f on [0, 2]', ['x = 2√3/3 ≈ 1.155'], {
    c: 2 / Math.sqrt(3),
  }),
  q(
    'S',
    'x^3-x^2-6x+2',
    "rolle's theorem for f on [0, 3]",
    ['equal: f(0) = 2 and f(3) = 2', 'x = (1 + √19)/3 ≈ 1.786'],
    { c: (1 + Math.sqrt(19)) / 3 },
  ),
  q('S', '1-x^(2/3)', "rolle's theorem for f on [-1, 1]", [
    'f is not differentiable on (−1, 1): at x = 0 it has a cusp',
    'nowhere in (−1, 1) is f′(c) = 0',
  ]),
  q('S', '(x-3)^(-2)', 'mean value theorem for f on [1, 4]', [
    'f is not continuous on [1, 4]: at x = 3',
    'its conclusion is false',
  ]),
  q('S', '4x^3-6x^2+3x-2', 'intermediate value theorem for f on [1, 2]', [
    'f(1) = −1 and f(2) = 12',
    'x ≈ 1.221',
  ]),
  q(
    'S',
    '1/x^2',
    'fundamental theorem for f on [-1, 3]',
    ['f is not continuous on [−1, 3]: at x = 0', 'There is no area from −1 to 3'],
    {},
    /−4\/3|-1\.333/,
  ),
  q('S', '3x^4-4x^3-12x^2+5', 'first derivative test for f on [-2, 3]', [
    'At x = −1 f is continuous and f′ goes − to +',
    'At x = 0 f is continuous and f′ goes + to −',
    'At x = 2 f is continuous and f′ goes − to +',
  ]),
  q('S', 'x^4-4x^3', 'second derivative test for f on [-1, 5]', [
    'At x = 3 f′ is 0 and f′′ is 36 > 0',
    'At x = 0 f′ is 0 and f′′ is 0 as well: the test does not decide',
  ]),
  q(
    'O',
    'floor(x)',
    'extreme value theorem for f on [0, 1.5]',
    ['f is not continuous on [0, 1.5]: at x = 1 it jumps'],
    { highest: 1, lowest: 0 },
  ),
]

const areas: readonly Question[] = [
  q('S', 'x^2 for 0<=x<=1', 'area under f with 10 strips right', ['So the right sum is over'], {
    sum: 0.385,
    exact: 1 / 3,
  }),
  q('S', 'x^2 for 0<=x<=1', 'area under f with 10 strips left', ['So the left sum is short'], {
    sum: 0.285,
  }),
  q('S', '1/x for 1<=x<=2', 'area under f with 5 strips midpoint', ['short'], {
    sum: 0.691908,
    exact: Math.LN2,
  }),
  q('S', '1/x for 1<=x<=2', 'area under f with 5 strips trapezoid', ['over'], { sum: 0.695635 }),
  q('S', '1/x for 1<=x<=2', 'area under f with 10 strips simpson', [], { sum: 0.69315 }),
  q('S', 'x^3-6x for 0<=x<=3', 'area under f with 6 strips right', ['count against'], {
    sum: -3.9375,
    exact: -6.75,
  }),
  q(
    'S',
    'e^x for 0<=x<=1',
    ['let g(x) = x', 'between f and g over 0 to 1'],
    ['From 0 to 1 f lies above'],
    { area: Math.E - 1.5 },
  ),
  q(
    'S',
    'x^2 for 0<=x<=1',
    ['let g(x) = 2x - x^2', 'between f and g over 0 to 1'],
    ['They do not cross'],
    { area: 1 / 3 },
  ),
  q('S', '1+x^2 for -1<=x<=2', 'average of f over -1 to 2', [], { average: 2 }),
  q('S', 'sqrt(1+x^2) for 0<=x<=3', ['accumulate f from 0', 'tangent to A at 2'], ['A′ = f'], {
    slope: Math.sqrt(5),
  }),
  q('S', '1/sqrt(x-2) for 2<=x<=5', 'area under f over 2 to 5 with 4 strips right', [], {
    exact: 2 * Math.sqrt(3),
  }),
  q('O', 'floor(x) for 0<=x<=2.5', 'area under f over 0 to 2.5 with 5 strips left', ['none'], {
    sum: 2,
    exact: 2,
  }),
]

const motion: readonly Question[] = [
  {
    ...q(
      'S',
      '',
      'when is s at rest',
      ['at rest at t = 1', 'at rest at t = 3', 'turns back', 'It speeds up from t = 1 to 2'],
      { displacement: 20, distance: 28 },
    ),
    start: 's(t) = t^3-6t^2+9t for 0<=t<=5',
  },
  {
    ...q('S', '', 'distance of v', [], {}),
    start: 'v(t) = t^2-t-6 for 1<=t<=4',
    words: ['speeding up of v'],
    says: ['turns back: v goes − to +'],
    numbers: { displacement: -4.5, distance: 61 / 6 },
  },
  q(
    'S',
    'x^2 for -2<=x<=2',
    ['let g(x) = 2x - 1', 'where does f meet g'],
    ['They touch at x = 1 and do not cross there'],
  ),
  q(
    'S',
    'sin x for 0<=x<=2pi',
    ['let g(x) = cos x', 'where does f meet g'],
    ['x = π/4 ≈ 0.785 and 5π/4 ≈ 3.927'],
    {},
    /touch/,
  ),
  q('O', '3x^4-4x^3-12x^2+5 for -2<=x<=3', "conclude f' as f'", [
    'f rises on [−1, 0], because f′ > 0 inside.',
    'f has a local minimum at x = 2, because f′ goes − to + there.',
  ]),
  q(
    'O',
    'x^2-1 for -2<=x<=2',
    "conclude f as f''",
    [
      'h has an inflection at x = 1, because h′′ goes − to + there.',
      'h is concave down on [−1, 1], because h′′ < 0 inside.',
    ],
    {},
    /h (rises|falls) on/,
  ),
  {
    ...q('O', '', 'value of y at e', [], { value: 3 }),
    start: 'dy/dx = 1/x for 1/2<=x<=4, y(1) = 2',
  },
  q('S', 'x^2 (x-3) for -1<=x<=4', 'sign chart of f', ['Every change of sign is here: proven']),
]

const exam = [...limits, ...continuity, ...lines, ...extremes, ...theorems, ...areas, ...motion]

test('there are sixty of them', () => {
  expect(exam.length).toBeGreaterThanOrEqual(60)
})

/** Everything a line says, as one text. */
function answered({ start, words }: Question) {
  let study = startStudy(start)
  for (const one of words) {
    const said = say(study, one)
    if ('problem' in said) throw new Error(`${one}: ${said.problem}`)
    study = said.study
  }
  const line = workOut(study).lines.at(-1)!
  const text = [
    line.sentence,
    ...line.readouts.map((r) => `${r.label} ${r.text}`),
    ...line.notes,
    ...line.conclusions.map((c) => c.text),
    ...line.problems.map((p) => p.message),
    line.verdict?.text ?? '',
    ...line.tables.flatMap((t) => t.rows.map((row) => row.join(' | '))),
  ].join('\n')
  return { line, text }
}

test.each(exam.map((one) => [`${one.start}: ${one.words.join(', ')}`, one] as const))(
  '%s',
  (_, question) => {
    const { line, text } = answered(question)
    for (const part of question.says) expect(text).toContain(part)
    for (const [id, value] of Object.entries(question.numbers ?? {})) {
      const found = line.readouts.find((r) => r.id === id)
      expect([id, found?.value]).toEqual([id, expect.closeTo(value, 5)])
    }
    if (question.never) expect(text).not.toMatch(question.never)
    expect(text).not.toMatch(/NaN|undefined/)
  },
)
