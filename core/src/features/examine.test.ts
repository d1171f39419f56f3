import reference from '../../reference/features.json'
import { compile, examine, parseFormula } from '..'
import { examineInSteps } from './examine'
import { read, xs } from './fixtures/testing'

const near = (all: readonly number[]) => all.map((x) => expect.closeTo(x, 9))

describe.each(reference.table)('$formula, against mpmath', ({ formula, from, to, zeros }) => {
  const found = () => examine(read(formula), Number(from), Number(to))
  test('every zero, none too many, each inside its enclosure', () => {
    const { zeros: ours, complete } = found()
    expect(complete).toBe(true)
    expect(ours.length).toBe(zeros[0]!.length)
    ours.forEach(({ enclosure: [lo, hi], x }, i) => {
      const truth = Number(zeros[0]![i])
      // The reference halves to 1e-39, which is what its zeros at 0 are off by.
      const ulp = 2.3e-16 * Math.abs(truth) + 1e-38
      expect({ truth, lo, hi, held: lo - ulp <= truth && truth <= hi + ulp }).toMatchObject({
        held: true,
      })
      expect(hi - lo).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(x)))
    })
  })
  test('every turning point and inflection', () => {
    if (zeros.length < 3) return
    const { turningPoints, inflections, criticalPoints } = found()
    expect(xs(turningPoints)).toEqual(near(zeros[1]!.map(Number)))
    expect(xs(criticalPoints)).toEqual(near(zeros[1]!.map(Number)))
    expect(xs(inflections)).toEqual(near(zeros[2]!.map(Number)))
    const signs = turningPoints.map((t) => (t.kind === 'maximum' ? 1 : -1))
    // Between turning points of a continuous function maxima and minima take turns.
    signs.forEach((s, i) => i > 0 && expect(s).toBe(-signs[i - 1]!))
  })
})

// Each worked by hand; the rules are common practice, no source.
test.each([
  ['x^4', -1, 1, { turning: [0], inflections: [], critical: [0], breaks: [] }],
  ['x^3', -1, 1, { turning: [], inflections: [0], critical: [0], breaks: [] }],
  ['|x|', -1, 2, { turning: [0], inflections: [], critical: [0], breaks: [[0, 'kink']] }],
  ['max(x, 2x)', -1, 1, { turning: [], inflections: [], critical: [0], breaks: [[0, 'kink']] }],
  [
    '|x^2 - 1|',
    -2,
    2,
    {
      turning: [-1, 0, 1],
      inflections: [-1, 1],
      critical: [-1, 0, 1],
      breaks: [
        [-1, 'kink'],
        [1, 'kink'],
      ],
    },
  ],
  [
    'floor x',
    0.5,
    3.5,
    {
      turning: [],
      inflections: [],
      critical: [1, 2, 3],
      breaks: [
        [1, 'jump'],
        [2, 'jump'],
        [3, 'jump'],
      ],
    },
  ],
  [
    'tan x',
    0,
    6,
    {
      turning: [],
      inflections: [Math.PI],
      critical: [],
      breaks: [
        [Math.PI / 2, 'pole'],
        [1.5 * Math.PI, 'pole'],
      ],
    },
  ],
  ['1/x^2', -1, 2, { turning: [], inflections: [], critical: [], breaks: [[0, 'pole']] }],
  [
    '(x^2 - 1)/(x - 1)',
    -1,
    3,
    { turning: [], inflections: [], critical: [], breaks: [[1, 'hole']] },
  ],
  ['x^(2/3)', -1, 2, { turning: [0], inflections: [], critical: [0], breaks: [[0, 'cusp']] }],
  ['cbrt x', -1, 2, { turning: [], inflections: [0], critical: [0], breaks: [[0, 'vertical']] }],
  ['sqrt x', -1, 4, { turning: [], inflections: [], critical: [], breaks: [[0, 'domain-end']] }],
  ['sqrt x', 0, 4, { turning: [], inflections: [], critical: [], breaks: [] }],
  ['ln x', 0, 3, { turning: [], inflections: [], critical: [], breaks: [[0, 'domain-end']] }],
  ['1/x', 0, 2, { turning: [], inflections: [], critical: [], breaks: [[0, 'pole']] }],
  [
    '(x - 1)^2 (x + 2)',
    -3,
    3,
    { turning: [-1, 1], inflections: [0], critical: [-1, 1], breaks: [] },
  ],
  [
    'x + sin x',
    -4,
    4,
    {
      turning: [],
      inflections: [-Math.PI, 0, Math.PI],
      critical: [-Math.PI, Math.PI],
      breaks: [],
    },
  ],
  [
    'sin(x)/x',
    -5,
    5,
    {
      turning: [-4.493409457909064, 4.493409457909064],
      inflections: [-2.081575977818101, 2.081575977818101],
      critical: [-4.493409457909064, 4.493409457909064],
      breaks: [[0, 'hole']],
    },
  ],
  ['5', 0, 1, { turning: [], inflections: [], critical: [], breaks: [] }],
  [
    'x if x < 1; 1 if x < 2; 3 - x otherwise',
    0,
    4,
    {
      turning: [],
      inflections: [],
      critical: [1, 2],
      breaks: [
        [1, 'kink'],
        [2, 'kink'],
      ],
    },
  ],
  [
    'x^2 if x < 1; 2x - 1 otherwise',
    0,
    3,
    { turning: [], inflections: [], critical: [], breaks: [] },
  ],
  [
    'x if x < 1; 3 - x otherwise',
    0,
    3,
    { turning: [], inflections: [], critical: [1], breaks: [[1, 'jump']] },
  ],
  ['x|x|', -1, 1, { turning: [], inflections: [0], critical: [0], breaks: [] }],
  ['x^2 sgn(x - 1)', 0, 3, { turning: [], inflections: [], critical: [1], breaks: [[1, 'jump']] }],
] as [
  string,
  number,
  number,
  { turning: number[]; inflections: number[]; critical: number[]; breaks: [number, string][] },
][])('%s on [%d, %d]', (text, from, to, expected) => {
  const found = examine(read(text), from, to)
  expect(found.complete).toBe(true)
  expect(found.unresolved).toEqual([])
  expect(xs(found.turningPoints)).toEqual(near(expected.turning))
  expect(xs(found.inflections)).toEqual(near(expected.inflections))
  expect(xs(found.criticalPoints)).toEqual(near(expected.critical))
  expect(found.breaks.map(({ x, kind }) => [x, kind])).toEqual(
    expected.breaks.map(([x, kind]) => [expect.closeTo(x, 9), kind]),
  )
})

describe('by the definitions', () => {
  test.each([
    ['x^3', -1, 1, [[-1, 1]], [], [[0, 1]], [[-1, 0]]],
    ['x^4', -1, 1, [[0, 1]], [[-1, 0]], [[-1, 1]], []],
    [
      '1/x',
      -1,
      1,
      [],
      [
        [-1, 0],
        [0, 1],
      ],
      [[0, 1]],
      [[-1, 0]],
    ],
    ['|x|', -1, 1, [[0, 1]], [[-1, 0]], [], []],
    ['x^2 + |x|', -1, 1, [[0, 1]], [[-1, 0]], [[-1, 1]], []],
    [
      'x^2 - |x|',
      -1,
      1,
      [
        [-0.5, 0],
        [0.5, 1],
      ],
      [
        [-1, -0.5],
        [0, 0.5],
      ],
      [
        [-1, 0],
        [0, 1],
      ],
      [],
    ],
    ['x + sin x', -10, 10, [[-10, 10]], [], null, null],
    ['x if x < 1; 1 if x < 2; 3 - x otherwise', 0, 4, [[0, 1]], [[2, 4]], [], []],
  ] as [string, number, number, ...([number, number][] | null)[]][])(
    'where %s rises, falls and bends on [%d, %d]',
    (text, from, to, rising, falling, up, down) => {
      const found = examine(read(text), from, to)
      const lists = [found.rising, found.falling, found.concaveUp, found.concaveDown]
      ;[rising, falling, up, down].forEach((expected, i) => {
        if (expected) expect(lists[i]).toEqual(expected.map((pair) => near(pair)))
      })
    },
  )

  test.each([
    ['x^3 - 3x', -2, 2, 2, [-1, 2], -2, [-2, 1]],
    ['sin x', 0, 4 * Math.PI, 1, [Math.PI / 2, 2.5 * Math.PI], -1, [1.5 * Math.PI, 3.5 * Math.PI]],
    ['|x|', -1, 2, 2, [2], 0, [0]],
    ['1/x', -1, 1, null, [], null, []],
    ['1/x^2', -1, 2, null, [], 0.25, [2]],
    ['x if x < 1; 0 otherwise', 0, 2, null, [], 0, [0]],
    ['sqrt x', -1, 4, 2, [4], 0, [0]],
    ['sin(x)/x', -3, 3, null, [], Math.sin(3) / 3, [-3, 3]],
    ['ln x', 0, 3, Math.log(3), [3], null, []],
    ['sin x', 0, 2 * Math.PI, 1, [Math.PI / 2], -1, [1.5 * Math.PI]],
  ] as [string, number, number, number | null, number[], number | null, number[]][])(
    'highest and lowest of %s on [%d, %d]',
    (text, from, to, high, highAt, low, lowAt) => {
      const { highest, lowest } = examine(read(text), from, to)
      for (const [found, value, at] of [
        [highest, high, highAt],
        [lowest, low, lowAt],
      ] as const) {
        if (value === null) expect(found).toBeNull()
        else {
          expect(found!.value).toBeCloseTo(value, 12)
          expect(xs(found!.at).filter((x) => at.some((t) => Math.abs(t - x) < 1e-9)).length).toBe(
            at.length,
          )
        }
      }
    },
  )

  test('what cannot be settled is said', () => {
    // e^x touches e·x at 1, and e is no double: two zeros on one place cannot be told from none.
    const touching = examine(read('e^x - e x'), 0, 2)
    expect(touching.complete).toBe(false)
    expect(touching.zeros).toEqual([expect.objectContaining({ proven: false })])
    expect(touching.unresolved[0]![0]).toBeLessThan(1)
    expect(touching.unresolved[0]![1]).toBeGreaterThan(1)
    // The turning point there is a simple zero of the derivative, and proven.
    expect(touching.turningPoints).toMatchObject([{ kind: 'minimum', proven: true }])
    const wild = examine(read('sin(1/x)'), -0.1, 0.1)
    expect(wild.complete).toBe(false)
  })

  test('features crowded near one end of a long decay', () => {
    const f = read('100 e^(-x) + sin(300x) e^(-50x)')
    const { turningPoints, complete } = examine(f, 0, 10)
    expect(complete).toBe(true)
    expect(turningPoints.length).toBeGreaterThan(1)
    expect(Math.max(...xs(turningPoints))).toBeLessThan(0.1)
    for (const { x } of turningPoints) expect(Math.abs(f.derivatives(x, 1)[1]!)).toBeLessThan(1e-9)
  })
  test('a bump a thousandth wide in the middle of nowhere', () => {
    const { turningPoints, complete } = examine(read('x + 0.01 e^(-((x - 3.7)/0.001)^2)'), 0, 100)
    expect(complete).toBe(true)
    expect(turningPoints.map((t) => t.kind)).toEqual(['maximum', 'minimum'])
  })
})

describe('bumps a thousandth wide, where doubles underflow beside them', () => {
  // e^(−u²) with u = (x − c)/0.001 bends at u = ±1/√2; worked by hand.
  const reach = 0.001 / Math.SQRT2
  test('one bump is a maximum with two inflections, and rises from the very start', () => {
    const found = examine(read('exp(-1000000(x - 3)^2)'), 0, 10)
    expect(found.complete).toBe(true)
    expect(xs(found.turningPoints)).toEqual(near([3]))
    expect(xs(found.inflections)).toEqual(near([3 - reach, 3 + reach]))
    expect(found.rising).toEqual([[0, 3]])
    expect(found.falling).toEqual([[3, 10]])
    expect(found.level).toEqual([])
  })
  test('two bumps have a minimum midway, though every value there is below the least double', () => {
    const found = examine(read('exp(-((x-3)/0.001)^2) + exp(-((x-7)/0.001)^2)'), 0, 10)
    expect(found.complete).toBe(true)
    expect(xs(found.turningPoints)).toEqual(near([3, 5, 7]))
    expect(xs(found.inflections)).toEqual(near([3 - reach, 3 + reach, 7 - reach, 7 + reach]))
    expect(found.concaveUp).toHaveLength(3)
  })
  test('a bump on a slope', () => {
    const found = examine(read('0.2x + exp(-((x-3)/0.001)^2)'), 0, 10)
    expect(found.complete).toBe(true)
    expect(found.turningPoints.map((t) => t.kind)).toEqual(['maximum', 'minimum'])
    expect(found.inflections).toHaveLength(2)
    expect(found.concaveUp.map(([lo]) => lo)).toEqual([0, expect.closeTo(3 + reach, 5)])
  })
})

test.each([
  ['sin(x)^2 + cos(x)^2', 0, 5],
  ['sin(2x) - 2 sin(x) cos(x)', 0, 3],
  ['sec(x)^2 - tan(x)^2', -1, 1],
])('%s is one level stretch, not points', (formula, from, to) => {
  const found = examine(read(formula), from, to)
  expect(found).toMatchObject({ level: [[from, to]], criticalPoints: [], complete: true })
})

test.each(['sqrt(x^2)', '(x^2)^(1/2)', 'sqrt(x^2 + 0)'])('%s is examined as |x|', (formula) => {
  const found = examine(read(formula), -1, 2)
  expect(found.complete).toBe(true)
  expect(found.turningPoints).toMatchObject([{ x: 0, kind: 'minimum' }])
  expect(found.breaks).toMatchObject([{ x: 0, kind: 'kink' }])
})

test('arcsin(sin x) is a saw with kinks, straight between them', () => {
  const found = examine(read('arcsin(sin x)'), -4, 4)
  expect(found.complete).toBe(true)
  expect(xs(found.turningPoints)).toEqual(near([-Math.PI / 2, Math.PI / 2]))
  expect(found.concaveUp.concat(found.concaveDown)).toEqual([])
})

test('work that cannot end names the stretch around 0 alone, and the extremes are still proven', () => {
  const found = examine(read('x sin(1/x)'), -1, 1)
  expect(found.complete).toBe(false)
  expect(found.unresolved[0]![0]).toBeGreaterThan(-0.05)
  expect(found.unresolved.at(-1)![1]).toBeLessThan(0.05)
  // mpmath: findroot(tan(y) - y, 4.49) is 4.493409457909064, and sin(y)/y there −0.217233628211222.
  expect(found.lowest!.value).toBeCloseTo(-0.217233628211222, 12)
  expect(found.highest!.value).toBeCloseTo(Math.sin(1), 12)
})

describe('sums with many denominators', () => {
  const read = (text: string) => {
    const parsed = parseFormula(text)
    if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
    return compile(parsed.tree)
  }

  // Each term more once doubled the work: a class that types a long sum must not wait for ever.
  test.each([
    ['of numbers', 40, (i: number) => `sin(${i}.5x + cos x)/${i}`],
    ['of formulas', 24, (i: number) => `sin(${i}x)/(x^2 + ${i})`],
  ])('%s: the first step comes at once', (_, terms, term) => {
    const text = Array.from({ length: terms }, (__, i) => term(i + 1)).join(' + ')
    const work = examineInSteps(read(text), -10, 10)
    expect(work.next().done).toBe(false)
  })

  test('a few of them are still brought together, and their zeros found with proof', () => {
    // 1/(x-5) + 1/(x+5) = 2x/(x²-25); three terms have the zeros ±5/√3 of 3x² - 25 over x(x²-25).
    const two = examine(read('1/(x-5) + 1/(x+5)'), -4, 4)
    expect(two.zeros.map((z) => z.x)).toEqual([0])
    const three = examine(read('1/x + 1/(x-5) + 1/(x+5)'), 0.5, 4.5)
    expect(three.zeros).toHaveLength(1)
    expect(three.zeros[0]!.x).toBeCloseTo(5 / Math.sqrt(3), 9)
    expect(two.complete && three.complete).toBe(true)
  })
})
