/* What the lines claim, held against a plain look at many places; values come from mathjs. */
import { all, create } from 'mathjs'
import {
  createEvaluator,
  createStudy,
  type LineResult,
  offersFor,
  type Statement,
  type Study,
} from '../index'

const mathjs = create(all!)

/** [as it is typed here, as mathjs reads it] */
const formulas: readonly (readonly [string, string])[] = [
  ['x^2 - 2', 'x^2 - 2'],
  ['x^3 - 3x', 'x^3 - 3*x'],
  ['x^4 - 2x^2', 'x^4 - 2*x^2'],
  ['x^5 - 5x^3 + 4x', 'x^5 - 5*x^3 + 4*x'],
  ['sin x + x/4', 'sin(x) + x/4'],
  ['cos^2 x', 'cos(x)^2'],
  ['tan(x/2)', 'tan(x/2)'],
  ['sin(5x)/x', 'sin(5*x)/x'],
  ['x e^(-x)', 'x*exp(-x)'],
  ['e^(-x^2)', 'exp(-x^2)'],
  ['2^x - x^2', '2^x - x^2'],
  ['ln(x + 3)', 'log(x + 3)'],
  ['arctan(3x)', 'atan(3*x)'],
  ['1/(x - 1)', '1/(x - 1)'],
  ['1/x^2', '1/x^2'],
  ['1/(x^2 + 1)', '1/(x^2 + 1)'],
  ['(x^2 - 1)/(x - 1)', '(x^2 - 1)/(x - 1)'],
  ['sqrt(x + 2)', 'x < -2 ? NaN : sqrt(x + 2)'],
  ['cbrt x', 'cbrt(x)'],
  ['cbrt(x^2)', 'cbrt(x^2)'],
  ['|x - 1|', 'abs(x - 1)'],
  ['x + |x|/2', 'x + abs(x)/2'],
  ['x |x|', 'x*abs(x)'],
  ['sqrt|x|', 'sqrt(abs(x))'],
  ['max(0, x)', 'max(0, x)'],
  ['min(x^2, 1)', 'min(x^2, 1)'],
  ['floor x', 'floor(x)'],
  ['x - floor x', 'x - floor(x)'],
  ['sgn x + x', 'sign(x) + x'],
  ['x^2 if x < 1; 2 - x otherwise', 'x < 1 ? x^2 : 2 - x'],
  ['x if x < 1; 3 - x otherwise', 'x < 1 ? x : 3 - x'],
]
const [from, to] = [-2.7, 3.1]
const count = 4001
const step = (to - from) / (count - 1)
/** None of them is a place where one of the formulas breaks. */
const places = Array.from({ length: count }, (_, i) => from + (i + 0.37) * step).slice(0, -1)

function reference(text: string): (x: number) => number {
  const compiled = mathjs.compile(text)
  return (x) => {
    const value: unknown = compiled.evaluate({ x })
    return typeof value === 'number' ? value : NaN
  }
}
function made(formula: string): Study {
  const created = createStudy(`f(x) = ${formula}`)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  const [line] = created.study.lines
  const span = { from: String(from), to: String(to) }
  return { ...created.study, decimals: 9, lines: [{ ...line!, span } as Statement] }
}
function asked(formula: string, words: string): LineResult {
  const study = offersFor(words, made(formula), null)[0]!.edit(made(formula))
  const evaluation = createEvaluator({ patience: Infinity })(study)
  return evaluation.lines.get(study.lines.at(-1)!.id)!
}
const table = (result: LineResult, name: string) =>
  result.tables?.find((t) => t.name === name)?.rows ?? []
const near = (a: number, b: number, by = 2 * step) => Math.abs(a - b) <= by
const breakKinds = ['jump', 'kink', 'cusp', 'vertical', 'hole', 'pole', 'end of domain']

/** Rows of features as [what, where, value, why]. */
const features = (formula: string) =>
  table(asked(formula, 'features of f'), 'Features').map((r) => ({
    what: r.cells[0]!,
    x: r.values[1]!,
    value: r.values[2],
    why: r.cells[3]!,
  }))

describe.each(formulas)('%s', (formula, other) => {
  const f = reference(other)
  const values = places.map(f)
  const found = features(formula)
  const at = (...kinds: string[]) => found.filter((r) => kinds.includes(r.what)).map((r) => r.x)
  const breaks = at(...breakKinds)
  const whole = (a: number, b: number) => !breaks.some((x) => x >= a && x <= b)

  test('each place at which it changes its sign is a zero or a break, and each zero is one', () => {
    const zeros = at('zero')
    values.slice(1).forEach((value, i) => {
      const [a, b] = [places[i]!, places[i + 1]!]
      if (!(value * values[i]! < 0)) return
      expect([a, [...zeros, ...breaks].some((x) => x >= a && x <= b)]).toEqual([a, true])
    })
    for (const x of zeros) expect(Math.abs(f(x))).toBeLessThan(1e-6)
  })

  test('the signs beside its zeros are as they are told', () => {
    for (const { x, why } of found.filter((r) => r.what === 'zero')) {
      const sides = [f(x - 1e-5), f(x + 1e-5)].map((v) => (v > 0 ? '+' : v < 0 ? '−' : '0'))
      const told =
        /goes ([+−]) to ([+−])$/.exec(why)?.slice(1) ??
        (/([+−]) on both sides$/.exec(why)?.[1] ?? '').repeat(2).split('')
      if (told.length === 2) expect([x, ...sides]).toEqual([x, ...told])
    }
  })

  test('each hill and valley that is seen is a turning point or lies at a break', () => {
    const turns = at('high', 'low')
    for (let i = 1; i + 1 < values.length; i++) {
      const [a, b, c] = values.slice(i - 1, i + 2) as [number, number, number]
      if (![a, b, c].every(Number.isFinite) || !((b - a) * (b - c) > 1e-12)) continue
      const x = places[i]!
      expect([x, [...turns, ...breaks].some((t) => near(t, x))]).toEqual([x, true])
    }
    for (const { what, x, value } of found.filter((r) => ['high', 'low'].includes(r.what))) {
      const side = what === 'high' ? 1 : -1
      for (const h of [-1e-3, -1e-4, 1e-4, 1e-3]) {
        if (x + h < from || x + h > to) continue
        expect(side * (value! - f(x + h))).toBeGreaterThan(-1e-12)
      }
    }
  })

  test('no value that is seen lies beyond the highest and the lowest', () => {
    const { readouts, notes } = asked(formula, 'features of f')
    for (const [label, side] of [
      ['highest', 1],
      ['lowest', -1],
    ] as const) {
      const told = readouts.find((r) => r.label === label)
      const none = notes!.some((n) => n.includes(`no ${label} value`))
      expect([label, told === undefined]).toEqual([label, none])
      if (!told) continue
      for (const value of values) {
        if (Number.isFinite(value)) expect(side * (told.value! - value)).toBeGreaterThan(-1e-9)
      }
    }
  })

  test('signs of f, f′ and f′′ are those of values and of their differences', () => {
    const rows = asked(formula, 'sign chart of f').signs!.rows
    const h = 1e-4
    const differences: ((x: number) => number)[] = [
      f,
      (x) => (f(x + h) - f(x - h)) / (2 * h),
      (x) => (f(x + h) - 2 * f(x) + f(x - h)) / (h * h),
    ]
    const noise = [1e-9, 1e-7, 1e-4]
    rows.forEach(({ stretches }, k) => {
      for (const x of places.filter((_, i) => i % 13 === 0)) {
        if (!whole(x - 2 * h, x + 2 * h)) continue
        const value = differences[k]!(x)
        const here = stretches.find((s) => x > s.from && x < s.to)
        if (!Number.isFinite(value) || Math.abs(value) < noise[k]! * Math.max(1, Math.abs(f(x)))) {
          continue
        }
        expect([k, x, here?.sign]).toEqual([k, x, Math.sign(value)])
      }
    })
  })

  test.each([0.5, -1, 2])('where it is %d nothing is missing', (level) => {
    const result = asked(formula, `where f = ${level} on ${from} to ${to}`)
    const solutions = table(result, 'Solutions').map((r) => r.values[0]!)
    const said = result.notes!.join(' ')
    values.slice(1).forEach((value, i) => {
      const [a, b] = [places[i]!, places[i + 1]!]
      if (!((value - level) * (values[i]! - level) < 0) || !whole(a, b)) return
      expect([a, solutions.some((x) => x >= a && x <= b)]).toEqual([a, true])
    })
    for (const x of solutions) expect(f(x)).toBeCloseTo(level, 6)
    if (/^No solution/.test(result.verdict!.text)) expect(said).toBe('')
  })

  test('strips, their sum, what is over and short, and why', () => {
    const n = 7
    const result = asked(formula, `left sum of f with ${n} strips`)
    const number = (label: string) => result.readouts.find((r) => r.label === label)?.value
    const width = (to - from) / n
    const heights = Array.from({ length: n }, (_, i) => f(from + i * width))
    if (heights.every(Number.isFinite) && number('sum') !== undefined) {
      const sum = heights.reduce((a, b) => a + b, 0) * width
      expect(number('sum')).toBeCloseTo(sum, 9)
    }
    // A pole has no area, or none that so few places could tell.
    if (at('pole').length > 0 || number('over') === undefined) return
    let [over, short, area] = [0, 0, 0]
    const many = 4000
    for (let i = 0; i < n; i++) {
      for (let k = 0; k < many; k++) {
        const value = f(from + (i + (k + 0.5) / many) * width)
        const part = ((heights[i]! - value) * width) / many
        if (part > 0) over += part
        else short -= part
        area += (value * width) / many
      }
    }
    expect(number('exact')).toBeCloseTo(area, 2)
    expect(number('over')).toBeCloseTo(over, 2)
    expect(number('short')).toBeCloseTo(short, 2)
    for (const note of result.notes!) {
      const told = /(?:throughout|from (\S+) to (\S+)), so left heights are too (low|high)/.exec(
        note,
      )
      if (!told) continue
      const read = (text: string | undefined, usual: number) =>
        text === undefined ? usual : Number(text.replace('−', '-'))
      const [a, b] = [read(told[1], from), read(told[2], to)]
      for (let i = 0; i < n; i++) {
        const [left, right] = [from + i * width, from + (i + 1) * width]
        if (left < a - 1e-9 || right > b + 1e-9) continue
        for (let k = 1; k < 50; k++) {
          const gap = f(left + (k / 50) * width) - heights[i]!
          expect([note, told[3] === 'low' ? gap >= -1e-9 : gap <= 1e-9]).toEqual([note, true])
        }
      }
    }
  })

  test.each([-2, -1, 0, 0.3, 1, 2])('its tangent at %d, or why there is none', (x) => {
    const { readouts, problems, notes } = asked(formula, `tangent to f at ${x}`)
    const slope = readouts.find((r) => r.label === 'slope')?.value
    const h = 1e-6
    const [left, right] = [(f(x) - f(x - h)) / h, (f(x + h) - f(x)) / h]
    if (slope !== undefined) {
      expect(left).toBeCloseTo(slope, 3)
      expect(right).toBeCloseTo(slope, 3)
    } else if (readouts.length > 0) {
      expect(notes!.join()).toMatch(/vertical/)
      expect(Math.min(left, right)).toBeGreaterThan(100)
    } else {
      const { message } = problems[0]!
      const sides = /kink here, (\S+) on its left and (\S+) on its right/.exec(message)
      if (sides) {
        expect(left).toBeCloseTo(Number(sides[1]!.replace('−', '-')), 3)
        expect(right).toBeCloseTo(Number(sides[2]!.replace('−', '-')), 3)
      } else if (/jumps/.test(message)) {
        expect(Math.abs(f(x + h) - f(x - h))).toBeGreaterThan(0.1)
      } else if (/no value/.test(message)) {
        expect(Number.isFinite(f(x))).toBe(false)
      } else {
        expect(message).toMatch(/ends here|cusp here/)
      }
    }
  })
})
