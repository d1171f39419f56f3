/* What the lines claim, held against a plain look at many places; values come from mathjs. */
import fc from 'fast-check'
import { all, create } from 'mathjs'
import {
  createEvaluator,
  createStudy,
  type LineResult,
  offersFor,
  type Statement,
  type Study,
} from '..'
import { claim, formulas, remembered } from './fixtures/claims'

const mathjs = create(all!)

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
const made = (formula: string) => studyOver(formula, '')
const studyOver = remembered((formula): Study => {
  const created = createStudy(`f(x) = ${formula}`)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  const [line] = created.study.lines
  const span = { from: String(from), to: String(to) }
  return { ...created.study, decimals: 9, lines: [{ ...line!, span } as Statement] }
})
const asked = remembered((formula, words) => last(made(formula), words))
/** What comes of a line that is asked for. */
function last(before: Study, words: string): LineResult {
  const study = offersFor(words, before, null)[0]!.edit(before)
  const evaluation = createEvaluator({ patience: Infinity })(study)
  return evaluation.lines.get(study.lines.at(-1)!.id)!
}
const table = (result: LineResult, name: string) =>
  result.tables?.find((t) => t.name === name)?.rows ?? []
const near = (a: number, b: number, by = 2 * step) => Math.abs(a - b) <= by
const breakKinds = ['jump', 'kink', 'cusp', 'vertical', 'hole', 'pole', 'end of domain']

/** Rows of features as what, where, value and why. */
const features = (formula: string) =>
  table(asked(formula, 'features of f'), 'Features').map((r) => ({
    what: r.cells[0]!,
    x: r.values[1]!,
    value: r.values[2],
    why: r.cells[3]!,
  }))

/** A formula, its values from elsewhere, and what the list of features says about it. */
interface Look {
  formula: string
  f: (x: number) => number
  values: number[]
  found: ReturnType<typeof features>
  breaks: number[]
}
function lookAt(formula: string, other: string): Look {
  const f = reference(other)
  const found = features(formula)
  const breaks = found.filter((r) => breakKinds.includes(r.what)).map((r) => r.x)
  return { formula, f, values: places.map(f), found, breaks }
}
const at = ({ found }: Look, ...kinds: string[]) =>
  found.filter((r) => kinds.includes(r.what)).map((r) => r.x)
const isWhole = ({ breaks }: Look, a: number, b: number) => !breaks.some((x) => x >= a && x <= b)

/** Each place at which it changes its sign is a zero or a break, and each zero is one. */
function zerosHold(look: Look) {
  const { values, breaks, f } = look
  const zeros = at(look, 'zero')
  values.slice(1).forEach((value, i) => {
    const [a, b] = [places[i]!, places[i + 1]!]
    if (!(value * values[i]! < 0)) return
    claim(
      [...zeros, ...breaks].some((x) => x >= a && x <= b),
      'a zero beside',
      a,
    )
  })
  for (const x of zeros) expect(Math.abs(f(x))).toBeLessThan(1e-6)
}

/** The signs beside its zeros are as they are told. */
function signsBesideHold({ found, f }: Look) {
  for (const { x, why } of found.filter((r) => r.what === 'zero')) {
    const sides = [f(x - 1e-5), f(x + 1e-5)].map((v) => (v > 0 ? '+' : v < 0 ? '−' : '0'))
    const told =
      /goes ([+−]) to ([+−])$/.exec(why)?.slice(1) ??
      (/([+−]) on both sides$/.exec(why)?.[1] ?? '').repeat(2).split('')
    if (told.length === 2) expect([x, ...sides]).toEqual([x, ...told])
  }
}

/** Each hill and valley that is seen is a turning point or lies at a break, and each is one. */
function turnsHold(look: Look) {
  const { values, breaks, found, f } = look
  const turns = at(look, 'high', 'low')
  for (let i = 1; i + 1 < values.length; i++) {
    const [a, b, c] = values.slice(i - 1, i + 2) as [number, number, number]
    const size = Math.max(1, Math.abs(b))
    if (![a, b, c].every(Number.isFinite) || !((b - a) * (b - c) > 1e-12 * size)) continue
    const x = places[i]!
    claim(
      [...turns, ...breaks].some((t) => near(t, x)),
      'a turning point at',
      x,
    )
  }
  for (const { what, x, value } of found.filter((r) => ['high', 'low'].includes(r.what))) {
    const side = what === 'high' ? 1 : -1
    for (const h of [-1e-3, -1e-4, 1e-4, 1e-3]) {
      if (x + h < from || x + h > to || !isWhole(look, x + Math.min(h, -1e-9), x - 1e-9)) continue
      if (!isWhole(look, x + 1e-9, x + Math.max(h, 1e-9))) continue
      claim(side * (value! - f(x + h)) > -1e-11, what, x, h)
    }
  }
}

/** No value that is seen lies beyond the highest and the lowest. */
function extremesHold({ formula, values }: Look) {
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
      if (Number.isFinite(value)) claim(side * (told.value! - value) > -1e-9, label, value)
    }
  }
}

/** Signs of f, f′ and f′′ are those of values and of their differences. */
function signsHold(look: Look) {
  const { formula, f } = look
  const rows = asked(formula, 'sign chart of f').signs!.rows
  const h = 1e-4
  const differences: ((x: number) => number)[] = [
    f,
    (x) => (f(x + h) - f(x - h)) / (2 * h),
    (x) => (f(x + h) - 2 * f(x) + f(x - h)) / (h * h),
  ]
  const noise = [1e-9, 1e-7, 1e-4]
  rows.forEach(({ stretches, marks }, k) => {
    for (const x of places.filter((_, i) => i % 13 === 0)) {
      if (!isWhole(look, x - 2 * h, x + 2 * h) || marks.some((m) => near(m.x, x, 2 * h))) continue
      const value = differences[k]!(x)
      const here = stretches.find((s) => x > s.from && x < s.to)
      if (!Number.isFinite(value) || Math.abs(value) < noise[k]! * Math.max(1, Math.abs(f(x)))) {
        continue
      }
      claim(here?.sign === Math.sign(value), 'sign of derivative', k, 'at', x)
    }
  })
}

/** Where it is a level nothing is missing. */
function solutionsHold(look: Look, level: number) {
  const { formula, f, values } = look
  const result = asked(formula, `where f = ${level} on ${from} to ${to}`)
  const solutions = table(result, 'Solutions').map((r) => r.values[0]!)
  values.slice(1).forEach((value, i) => {
    const [a, b] = [places[i]!, places[i + 1]!]
    if (!((value - level) * (values[i]! - level) < 0) || !isWhole(look, a, b)) return
    claim(
      solutions.some((x) => x >= a && x <= b),
      'a solution beside',
      a,
    )
  })
  for (const x of solutions) expect(f(x)).toBeCloseTo(level, 6)
  if (/^No solution/.test(result.verdict!.text)) expect(result.notes).toEqual([])
}

const told = (text: string | undefined, usual: number) =>
  text === undefined ? usual : Number(text.replace('−', '-'))

/** Strips, their sum, what is over and short, and why. */
function stripsHold(look: Look) {
  const { formula, f } = look
  const n = 7
  const result = asked(formula, `left sum of f with ${n} strips`)
  const number = (label: string) => result.readouts.find((r) => r.label === label)?.value
  const width = (to - from) / n
  const heights = Array.from({ length: n }, (_, i) => f(from + i * width))
  if (heights.every(Number.isFinite) && number('sum') !== undefined) {
    const sum = heights.reduce((a, b) => a + b, 0) * width
    expect(number('sum')! / Math.max(1, Math.abs(sum))).toBeCloseTo(
      sum / Math.max(1, Math.abs(sum)),
      9,
    )
  }
  // A pole has no area, or none that so few places could tell.
  if (at(look, 'pole').length > 0 || number('over') === undefined) return
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
  const size = Math.max(1, over + short)
  expect(number('exact')! / size).toBeCloseTo(area / size, 2)
  expect(number('over')! / size).toBeCloseTo(over / size, 2)
  expect(number('short')! / size).toBeCloseTo(short / size, 2)
  for (const note of result.notes!) {
    const said = /(?:throughout|from (\S+) to (\S+)), so left heights are too (low|high)/.exec(note)
    if (!said) continue
    const [a, b] = [told(said[1], from), told(said[2], to)]
    for (let i = 0; i < n; i++) {
      const [left, right] = [from + i * width, from + (i + 1) * width]
      if (left < a - 1e-9 || right > b + 1e-9) continue
      for (let k = 1; k < 50; k++) {
        const gap = f(left + (k / 50) * width) - heights[i]!
        claim(said[3] === 'low' ? gap >= -1e-9 : gap <= 1e-9, note)
      }
    }
  }
}

/** Its tangent at a place, or why there is none. */
function tangentHolds({ formula, f }: Look, x: number) {
  const { readouts, problems, notes } = asked(formula, `tangent to f at ${x}`)
  const slope = readouts.find((r) => r.label === 'slope')?.value
  const h = 1e-6
  const [left, right] = [(f(x) - f(x - h)) / h, (f(x + h) - f(x)) / h]
  const isClose = (a: number, b: number) =>
    expect(a / Math.max(1, Math.abs(b))).toBeCloseTo(b / Math.max(1, Math.abs(b)), 3)
  if (slope !== undefined) {
    isClose(left, slope)
    isClose(right, slope)
  } else if (readouts.length > 0) {
    expect(notes!.join()).toMatch(/vertical/)
    expect(Math.min(Math.abs(left), Math.abs(right))).toBeGreaterThan(100)
  } else {
    const { message } = problems[0]!
    const sides = /kink here, (\S+) on its left and (\S+) on its right/.exec(message)
    if (sides) {
      isClose(left, told(sides[1], NaN))
      isClose(right, told(sides[2], NaN))
    } else if (/jumps/.test(message)) {
      expect(Math.abs(f(x + h) - f(x - h))).toBeGreaterThan(0.1)
    } else if (/no value/.test(message)) {
      expect(Number.isFinite(f(x))).toBe(false)
    } else {
      expect(message).toMatch(/ends here|cusp here/)
    }
  }
}

/** What follows about F from the graph of f as F′: F itself comes from adding values up. */
function conclusionsHold(look: Look) {
  const { formula, values } = look
  if (at(look, 'pole').length > 0 || values.some((v) => !Number.isFinite(v))) return
  const sums = [0]
  values.forEach((value) => sums.push(sums.at(-1)! + value * step))
  const { conclusions = [] } = asked(formula, "conclude f as f'")
  for (const { text } of conclusions) {
    const said = /h (rises|falls|is concave up|is concave down) on [[(](\S+), (\S+)[\])]/.exec(text)
    if (!said) continue
    const [a, b] = [told(said[2], NaN), told(said[3], NaN)]
    for (let i = 1; i < values.length; i++) {
      if (places[i - 1]! < a || places[i]! > b) continue
      const holds = {
        rises: sums[i]! - sums[i - 1]! >= -1e-9,
        falls: sums[i]! - sums[i - 1]! <= 1e-9,
        'is concave up': values[i]! - values[i - 1]! >= -1e-9,
        'is concave down': values[i]! - values[i - 1]! <= 1e-9,
      }[said[1]!]
      claim(holds === true, text, places[i])
    }
  }
}

/** No place of the curve is closer to a point than the closest one. */
function distanceHolds({ formula, values, f, breaks }: Look) {
  const [px, py] = [0.5, 1]
  const { readouts, verdict } = asked(formula, `distance from f to (${px}, ${py})`)
  const lowest = readouts.find((r) => r.label === 'lowest')?.value
  if (lowest === undefined || !verdict?.complete) return
  // A jump may have a value of its own between its sides.
  const seen = [
    ...values.map((y, i) => Math.hypot(places[i]! - px, y - py)),
    ...breaks.map((x) => Math.hypot(x - px, f(x) - py)),
  ].filter(Number.isFinite)
  const least = Math.min(...seen)
  expect(lowest).toBeLessThanOrEqual(least + 1e-9)
  // And it is taken, or come to: between two looks the curve goes no further than this.
  expect(lowest).toBeGreaterThan(least - 0.05)
}

/** The area between two curves counts each part, and the accumulated area is the sum so far. */
function areasHold(look: Look) {
  const { formula, f, values } = look
  if (at(look, 'pole').length > 0 || values.some((v) => !Number.isFinite(v))) return
  const g = (x: number) => 1 - x / 3
  const both = offersFor('let g(x) = 1 - x/3', made(formula), null)[0]!.edit(made(formula))
  const result = last(both, `between f and g over ${from} to ${to}`)
  const area = result.readouts.find((r) => r.label === 'area')!.value!
  const apart = values.reduce((sum, v, i) => sum + Math.abs(v - g(places[i]!)) * step, 0)
  const size = Math.max(1, apart)
  expect(area / size).toBeCloseTo(apart / size, 1)
  const sum = offersFor(`accumulate f from ${from}`, made(formula), null)[0]!.edit(made(formula))
  const upTo = 1.05
  const value = last(sum, `value of A at ${upTo}`).readouts.find((r) => r.label === 'value')!.value!
  const many = 20_000
  const width = (upTo - from) / many
  let total = 0
  for (let k = 0; k < many; k++) total += f(from + (k + 0.5) * width) * width
  expect(value / Math.max(1, Math.abs(total))).toBeCloseTo(total / Math.max(1, Math.abs(total)), 2)
}

describe.each(formulas)('%s', (formula, other) => {
  const look = lookAt(formula, other)
  test('zeros', () => zerosHold(look))
  test('signs beside zeros', () => signsBesideHold(look))
  test('turning points', () => turnsHold(look))
  test('highest and lowest', () => extremesHold(look))
  test('signs of f, f′ and f′′', () => signsHold(look))
  test.each([0.5, -1, 2])('where it is %d', (level) => solutionsHold(look, level))
  test('strips', () => stripsHold(look))
  test.each([-2, -1, 0, 0.3, 1, 2])('tangent at %d', (x) => tangentHolds(look, x))
  test('conclusions', () => conclusionsHold(look))
  test('distance', () => distanceHolds(look))
  test('areas', () => areasHold(look))
})

/** Sums of a few parts of many kinds, written so that both read them. */
const parts = fc
  .tuple(
    fc.integer({ min: -4, max: 4 }).filter((c) => c !== 0),
    fc.constantFrom(...[-2, -1, 0, 1, 2]),
    fc.constantFrom(
      ...['x', 'x^2', 'x^3', 'sin(2*x)', 'cos(3*x)', 'exp(x/2)', 'exp(-x^2)', 'abs(x - S)'],
      ...['1/(x - S)', '1/(x^2 + 1)', 'atan(2*x)', 'cbrt(x - S)', 'sign(x - S)', 'floor(x)'],
      ...['max(x, S)', 'min(x^2, 2)', 'x*abs(x)', 'sqrt(abs(x - S))', 'x*exp(-x)', '1'],
    ),
  )
  .map(([c, shift, part]) => `(${c})*${part.replace('S', `(${shift})`)}`)
const sums = fc.array(parts, { minLength: 1, maxLength: 3 }).map((all) => all.join(' + '))

test('the same for formulas that nobody has chosen', () => {
  fc.assert(
    fc.property(sums, fc.constantFrom(-1, 0.5, 2), fc.constantFrom(-1, 0, 1, 1.3), (sum, y, x) => {
      const look = lookAt(sum, sum)
      zerosHold(look)
      signsBesideHold(look)
      turnsHold(look)
      extremesHold(look)
      signsHold(look)
      solutionsHold(look, y)
      stripsHold(look)
      tangentHolds(look, x)
      conclusionsHold(look)
      distanceHolds(look)
      areasHold(look)
    }),
    // The same formulas each time, so that a run tells of a change and not of chance.
    { seed: Number(process.env.CLAIMS_SEED ?? 1), numRuns: Number(process.env.CLAIMS_RUNS ?? 8) },
  )
}, 120_000)
