import fc from 'fast-check'
import { create, all } from 'mathjs'
import { parseFormula } from '../calculus/parseFormula'
import { finish } from '../features/budget'
import { endsOf, surfaceExtremes } from './extremes'
import { remainderBound } from './local'
import { stationaryPoints } from './stationary'
import { compileSurface, type RealSurface, type Rectangle } from './surface'

const math = create(all!)

function surface(text: string, values: Record<string, number> = {}): RealSurface {
  const parsed = parseFormula(text, { variable: 'x', names: ['y', ...Object.keys(values)] })
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compileSurface(parsed.tree, ['x', 'y'], values)
}
const square = (r: number): Rectangle => ({ x: { lo: -r, hi: r }, y: { lo: -r, hi: r } })
const box = (x0: number, x1: number, y0: number, y1: number): Rectangle => ({
  x: { lo: x0, hi: x1 },
  y: { lo: y0, hi: y1 },
})

test.each([
  ['4 e^(-x²/8 - y²/5) + 0.3 sin x', '4 exp(-x^2/8 - y^2/5) + 0.3 sin(x)'],
  ['x^3 y - sin(x y) + 2^y', 'x^3*y - sin(x*y) + 2^y'],
  ['ln(1 + x² + y²) / (2 + cos y)', 'log(1 + x^2 + y^2) / (2 + cos(y))'],
])('%s and its partial derivatives are what mathjs says', (ours, theirs) => {
  const f = surface(ours)
  const node = math.parse(theirs)
  const partials = [
    [1, 0, math.derivative(node, 'x')],
    [0, 1, math.derivative(node, 'y')],
    [2, 0, math.derivative(math.derivative(node, 'x'), 'x')],
    [1, 1, math.derivative(math.derivative(node, 'x'), 'y')],
    [0, 2, math.derivative(math.derivative(node, 'y'), 'y')],
  ] as const
  for (const [x, y] of [
    [0.3, -1.2],
    [2, 1],
    [-1.7, 0.4],
    [0, 0],
  ] as const) {
    expect(f.value(x, y)).toBeCloseTo(node.evaluate({ x, y }) as number, 11)
    for (const [i, j, tree] of partials) {
      expect(f.partial(i, j).value(x, y)).toBeCloseTo(tree.evaluate({ x, y }) as number, 10)
    }
  }
})

test('a partial derivative has values only where the function has', () => {
  const f = surface('ln x + y')
  expect(f.partial(0, 1).value(1, 5)).toBe(1)
  expect(f.partial(0, 1).value(-1, 5)).toBeNaN()
  expect(surface('k x y', { k: 0.1 }).value(3, 1)).toBeCloseTo(0.3, 15)
})

test('an enclosure holds every value on its rectangle', () => {
  const all = ['x y e^(-x²-y²)', 'sin(x y) + x/(y² + 1)', '|x - y| + √(x² + 1)', 'x^3 - 3 x y^2']
  const f = all.map((text) => surface(text))
  const end = fc.double({ min: -4, max: 4, noNaN: true })
  const share = fc.double({ min: 0, max: 1, noNaN: true })
  fc.assert(
    fc.property(end, end, end, end, share, share, (a, b, c, d, s, t) => {
      const [x0, x1, y0, y1] = [Math.min(a, b), Math.max(a, b), Math.min(c, d), Math.max(c, d)]
      const [x, y] = [x0 + s * (x1 - x0), y0 + t * (y1 - y0)]
      for (const one of f) {
        const { lo, hi } = one.enclose(box(x0, x1, y0, y1))
        const z = one.value(x, y)
        const slack = 1e-13 * (1 + Math.abs(z))
        expect(lo).toBeLessThanOrEqual(z + slack)
        expect(hi).toBeGreaterThanOrEqual(z - slack)
      }
    }),
  )
})

/**
 * Critical points with their kinds. Those of polynomials can be checked by hand from the gradient;
 * the sources are named as remembered.
 */
const published: [string, string, Rectangle, [number, number, string][]][] = [
  [
    'J. Stewart, Calculus, 14.7 (from memory): two minima and a saddle',
    'x^4 + y^4 - 4x y + 1',
    square(3),
    [
      [-1, -1, 'minimum'],
      [0, 0, 'saddle'],
      [1, 1, 'minimum'],
    ],
  ],
  [
    'J. Stewart, Calculus, 14.7 (from memory): five critical points',
    '10x^2 y - 5x^2 - 4y^2 - x^4 - 2y^4',
    square(4),
    [
      [-2.644224, 1.898384, 'maximum'],
      [-0.856657, 0.646772, 'saddle'],
      [0, 0, 'maximum'],
      [0.856657, 0.646772, 'saddle'],
      [2.644224, 1.898384, 'maximum'],
    ],
  ],
  [
    'D. M. Himmelblau, Applied Nonlinear Programming, 1972 (from memory): four minima, a maximum, four saddles',
    '(x^2 + y - 11)^2 + (x + y^2 - 7)^2',
    square(5),
    [
      [-3.77931, -3.283186, 'minimum'],
      [-3.073026, -0.081353, 'saddle'],
      [-2.805118, 3.131313, 'minimum'],
      [-0.270845, -0.923039, 'maximum'],
      [-0.127961, -1.953715, 'saddle'],
      [0.086678, 2.884255, 'saddle'],
      [3, 2, 'minimum'],
      [3.385154, 0.073852, 'saddle'],
      [3.584428, -1.848127, 'minimum'],
    ],
  ],
  [
    'H. H. Rosenbrock, 1960 (from memory): one minimum in a bent valley',
    '100(y - x^2)^2 + (1 - x)^2',
    square(3),
    [[1, 1, 'minimum']],
  ],
  [
    'by hand: x²+y²−2x−6y+14 = (x−1)² + (y−3)² + 4',
    'x^2 + y^2 - 2x - 6y + 14',
    square(5),
    [[1, 3, 'minimum']],
  ],
  ['by hand: the gradient of y² − x² is (−2x, 2y)', 'y^2 - x^2', square(2), [[0, 0, 'saddle']]],
  [
    'by hand: (1 − 2x²)y = 0 and (1 − 2y²)x = 0',
    'x y e^(-x^2 - y^2)',
    square(3),
    [
      [-Math.SQRT1_2, -Math.SQRT1_2, 'maximum'],
      [-Math.SQRT1_2, Math.SQRT1_2, 'minimum'],
      [0, 0, 'saddle'],
      [Math.SQRT1_2, -Math.SQRT1_2, 'minimum'],
      [Math.SQRT1_2, Math.SQRT1_2, 'maximum'],
    ],
  ],
  [
    'by hand: 3x² = 3 and 3y² = 12',
    'x^3 + y^3 - 3x - 12y + 20',
    square(4),
    [
      [-1, -2, 'maximum'],
      [-1, 2, 'saddle'],
      [1, -2, 'saddle'],
      [1, 2, 'minimum'],
    ],
  ],
  [
    'by hand: 2xy = 0 and y² + 1 = x²',
    'x / (x^2 + y^2 + 1)',
    square(3),
    [
      [-1, 0, 'minimum'],
      [1, 0, 'maximum'],
    ],
  ],
  [
    'by hand: 1/x = y and 2y = x, with a pole of the slope at the left edge',
    'ln x + y^2 - x y',
    box(0, 4, -2, 2),
    [[Math.SQRT2, Math.SQRT1_2, 'saddle']],
  ],
  [
    "McCormick's function (from memory): its lowest point; the saddle by hand, cos(x + y) = −1/2 and x − y = 1",
    'sin(x + y) + (x - y)^2 - 1.5 x + 2.5 y + 1',
    box(-1.5, 2, -3, 2),
    [
      [-0.547198, -1.547198, 'minimum'],
      [1.547198, 0.547198, 'saddle'],
    ],
  ],
]

test.each(published)('critical points, %s', (_source, text, within, expected) => {
  const found = finish(stationaryPoints(surface(text), within))
  expect(found.complete).toBe(true)
  const said = found.points.map(({ x, y, kind }) => [x, y, kind])
  expect(said).toEqual(
    expected.map(([x, y, kind]) => [expect.closeTo(x, 5), expect.closeTo(y, 5), kind]),
  )
  for (const { at, proven } of found.points) {
    expect(proven).toBe(true)
    expect(at.x.hi - at.x.lo).toBeLessThan(1e-12)
  }
})

test('a hundred random cubics: every proven point is one, and those of a grid of Newton steps are all there', () => {
  const c = fc.integer({ min: -5, max: 5 })
  fc.assert(
    fc.property(c, c, c, c, c, c, c, (p, q, r, s, t, u, v) => {
      const text = `${p} x^3 + ${q} x^2 y + ${r} x y^2 + ${s} y^3 + ${t} x^2 + ${u} x + ${v} y`
      const f = surface(text)
      const found = finish(stationaryPoints(f, square(2)))
      const [fx, fy, fxx, fxy, fyy] = [
        [1, 0],
        [0, 1],
        [2, 0],
        [1, 1],
        [0, 2],
      ].map(([i, j]) => f.partial(i!, j!)) as [
        RealSurface,
        RealSurface,
        RealSurface,
        RealSurface,
        RealSurface,
      ]
      for (const { x, y, proven } of found.points) {
        if (!proven) continue
        expect(Math.abs(fx.value(x, y))).toBeLessThan(1e-9)
        expect(Math.abs(fy.value(x, y))).toBeLessThan(1e-9)
      }
      if (!found.complete) return
      for (let i = 0; i < 36; i++) {
        let [x, y] = [-1.9 + (i % 6) * 0.76, -1.9 + Math.floor(i / 6) * 0.76]
        for (let k = 0; k < 60; k++) {
          const [a, b, d] = [fxx.value(x, y), fxy.value(x, y), fyy.value(x, y)]
          const det = a * d - b * b
          const [g, h] = [fx.value(x, y), fy.value(x, y)]
          x -= (d * g - b * h) / det
          y -= (a * h - b * g) / det
        }
        const isPoint = Math.hypot(fx.value(x, y), fy.value(x, y)) < 1e-10
        if (!isPoint || Math.abs(x) > 1.999 || Math.abs(y) > 1.999) continue
        const isListed = found.points.some((o) => Math.hypot(o.x - x, o.y - y) < 1e-6)
        expect({ text, x, y, isListed }).toEqual({ text, x, y, isListed: true })
      }
    }),
    { numRuns: 100 },
  )
})

test('waves are told as unsettled, and folds as not looked at', () => {
  const waves = finish(stationaryPoints(surface('sin(x + y)'), square(2)))
  expect(waves).toMatchObject({ complete: false, curve: null })
  // A fold has no partial derivative: it is no such point, and the list says that it looked at none.
  const fold = finish(stationaryPoints(surface('|x| + y^2'), square(2)))
  expect(fold).toMatchObject({ points: [], complete: true, rough: true })
  // By hand: 1/(x² + y²) has no value where the numerators of its partial derivatives are both 0.
  const pole = finish(stationaryPoints(surface('1/(x^2 + y^2)'), square(2)))
  expect(pole).toMatchObject({ points: [], complete: true, rough: true })
})

test('the highest and lowest of a closed rectangle, the border searched too', () => {
  // J. Stewart, Calculus, 14.7 (from memory): x² − 2xy + 2y on [0, 3] × [0, 2]: 9 at (3, 0), 0 at (0, 0) and (2, 2).
  const within = box(0, 3, 0, 2)
  const f = surface('x^2 - 2 x y + 2 y')
  const inside = finish(stationaryPoints(f, within))
  const { highest, lowest, complete, candidates } = finish(
    surfaceExtremes(f, within, endsOf(within), inside),
  )
  expect(complete).toBe(true)
  expect(highest).toMatchObject([{ x: 3, y: 0, z: 9, where: 'corner' }])
  expect(lowest.map(({ x, y }) => [x, y]).sort()).toEqual([
    [0, 0],
    [2, 2],
  ])
  expect(candidates.find((c) => c.where === 'inside')).toMatchObject({ x: 1, y: 1, z: 1 })
})

test('the bound of what a tangent plane and a polynomial of order 2 leave out holds, and is no more than a few times too wide', () => {
  for (const text of ['e^(x - y)', 'sin x cos y', '4 e^(-x²/8 - y²/5)']) {
    const f = surface(text)
    for (const [a, b, r] of [
      [0.4, 0.3, 0.5],
      [1, -1, 0.1],
    ] as const) {
      const c = [
        [0, 0],
        [1, 0],
        [0, 1],
        [2, 0],
        [1, 1],
        [0, 2],
      ].map(([i, j]) => f.partial(i!, j!).value(a, b)) as [
        number,
        number,
        number,
        number,
        number,
        number,
      ]
      let [first, second] = [0, 0]
      for (let i = 0; i <= 40; i++) {
        for (let j = 0; j <= 40; j++) {
          const [u, v] = [r * (i / 20 - 1), r * (j / 20 - 1)]
          const z = f.value(a + u, b + v)
          const plane = c[0] + c[1] * u + c[2] * v
          first = Math.max(first, Math.abs(z - plane))
          const more = (c[3] * u * u) / 2 + c[4] * u * v + (c[5] * v * v) / 2
          second = Math.max(second, Math.abs(z - plane - more))
        }
      }
      const [one, two] = [remainderBound(f, a, b, r, 1)!, remainderBound(f, a, b, r, 2)!]
      expect(one).toBeGreaterThanOrEqual(first * (1 - 1e-9))
      expect(two).toBeGreaterThanOrEqual(second * (1 - 1e-9))
      expect(one).toBeLessThan(first * 8)
      expect(two).toBeLessThan(second * 8)
    }
  }
  // Across a fold there is no such bound.
  expect(remainderBound(surface('|x| + y'), 0.05, 0, 0.1, 1)).toBeNull()
})
