import { say, startStudy, type Study, understand } from '..'

/*
 * Phrases of everyday English around the kinds of lines there are: what leads in, what is asked for,
 * about which curve, where; in one order or another. What is offered first is said back as its
 * sentence, and read again it must be the same line.
 */

/** A generator of whole numbers, the same at every run (Park and Miller's minimal standard). */
function createPick(seed: number) {
  let state = seed
  const next = (below: number) => {
    state = (state * 48271) % 2147483647
    return state % below
  }
  return {
    one: <T>(all: readonly T[]): T => all[next(all.length)]!,
    chance: (share: number) => next(1000) < share * 1000,
  }
}
type Pick = ReturnType<typeof createPick>

const leads = [
  ...[
    '',
    '',
    '',
    'find ',
    'find the ',
    'show me the ',
    'draw the ',
    'what is the ',
    'please add the ',
  ],
  ...['calculate the ', 'determine the ', 'give me the ', 'I want the ', 'add ', 'show '],
]
const numbers = ['0', '1', '2', '3', '0.5', '1.25', '-1', '−2', '1/2', 'π/2', '√2', '2.5', '0.1']
const ordered = [
  ...[
    ['0', '2'],
    ['0', '3'],
    ['-1', '1'],
    ['1', '4'],
    ['0.5', '2.5'],
    ['0', 'π'],
    ['-2', '4'],
    ['1/2', '3'],
  ],
] as const

const place = (p: Pick, x: string) => {
  const at = p.one(numbers)
  return p.one([
    ` at ${at}`,
    ` at ${x} = ${at}`,
    ` at the point where ${x} = ${at}`,
    ` when ${x} = ${at}`,
    ` at ${x}=${at}`,
  ])
}
const span = (p: Pick, x: string) => {
  const [from, to] = p.one(ordered)
  return p.one([
    ` from ${from} to ${to}`,
    ` on [${from}, ${to}]`,
    ` over [${from}, ${to}]`,
    ` between ${from} and ${to}`,
    ` on the interval [${from}, ${to}]`,
    ` from ${x} = ${from} to ${x} = ${to}`,
    ` for ${from} ≤ ${x} ≤ ${to}`,
    ` over ${from} to ${to}`,
  ])
}
const strips = (p: Pick) => {
  const n = p.one(['4', '5', '10', '25', '100'])
  return p.one([
    ` with ${n} strips`,
    ` with ${n} rectangles`,
    ` using ${n} subintervals`,
    `, n = ${n}`,
    ` with ${n} equal subintervals`,
  ])
}

type Make = (p: Pick, f: string, x: string) => string
const optional = (p: Pick, make: (p: Pick, x: string) => string, x: string) =>
  p.chance(0.6) ? make(p, x) : ''

const asked: readonly Make[] = [
  (p, f, x) =>
    p.one([
      'tangent to ',
      'tangent line to ',
      'slope of ',
      'gradient of ',
      'equation of the tangent to ',
    ]) +
    f +
    place(p, x),
  (p, f, x) => p.one(['normal to ', 'normal line to ']) + f + place(p, x),
  (p, f, x) => p.one(['value of ', 'height of ']) + f + place(p, x),
  (p, f) => `${f}(${p.one(numbers)})`,
  (p, f, x) => p.one(['secant to ', 'chord of ', 'secant line of ']) + f + span(p, x),
  (p, f, x) =>
    p.one(['average rate of change of ', 'average rate of ', 'mean rate of change of ']) +
    f +
    span(p, x),
  (p, f, x) =>
    p.one(['average of ', 'average value of ', 'mean value of ']) + f + optional(p, span, x),
  (p, f, x) =>
    p.one([
      'area under ',
      'integral of ',
      'definite integral of ',
      'Riemann sum of ',
      'left Riemann sum for ',
      'midpoint rule for ',
      'trapezoidal rule for ',
      'upper sum of ',
    ]) +
    f +
    (p.chance(0.5)
      ? optional(p, span, x) + optional(p, strips, x)
      : optional(p, strips, x) + optional(p, span, x)),
  (p, f, x) =>
    p.one([
      'zeros of ',
      'roots of ',
      'x-intercepts of ',
      'turning points of ',
      'local extrema of ',
      'maximum of ',
      'inflection points of ',
      'critical numbers of ',
      'critical points of ',
      'absolute maximum of ',
      'range of ',
    ]) +
    f +
    optional(p, span, x),
  (p, f, x) =>
    p.one(['where is ', 'on what intervals is ', 'intervals where ']) +
    f +
    p.one([' increasing', ' decreasing', ' concave up', ' concave down']) +
    optional(p, span, x),
  (p, f, x) =>
    p.one([
      `limit of ${f} as ${x} approaches 2`,
      `lim ${x}->2 of ${f}`,
      `limit of ${f} at infinity`,
    ]),
  (p, f, x) =>
    `limit of ${f} as ${x} → ${p.one(['0 from the left', '2', '∞', '-∞', '1 from the right'])}`,
  (p, f, x) => `is ${f} ${p.one(['continuous', 'differentiable'])}${place(p, x)}`,
  (p, f, x) =>
    p.one([
      'mean value theorem for ',
      'MVT for ',
      "Rolle's theorem for ",
      'extreme value theorem for ',
    ]) +
    f +
    optional(p, span, x),
  (p, f, x) =>
    p.one(['table of ', 'table of values of ']) +
    f +
    optional(p, span, x) +
    (p.chance(0.5) ? ' by 0.25' : ''),
  (p, f, x) =>
    p.one([
      'length of ',
      'arc length of ',
      'volume of revolution of ',
      'surface area of revolution of ',
    ]) +
    f +
    optional(p, span, x),
  (p, f) =>
    p.one(['tangents to ', 'tangent lines to ']) +
    f +
    p.one([' through (0, 2)', ' with slope 3', ' parallel to y = 2']),
  (p, f) =>
    p.one([
      'derivative of ',
      'second derivative of ',
      'rate of change of ',
      'sign chart of ',
      'features of ',
    ]) + f,
  (p, f) =>
    p.one(['accumulation of ', 'area function of ', 'antiderivative of ']) +
    f +
    p.one(['', ' from 0', ' from 1']),
  (p, f) => `distance from ${f} to (${p.one(numbers)}, 1)`,
]

const studies: readonly { study: Study; x: string; curves: readonly string[] }[] = [
  { study: startStudy('f(x) = x^3 - 3x for -2 <= x <= 4'), x: 'x', curves: ['f', "f'", 'f′'] },
  { study: startStudy('q(t) = 6 + 4 sin(0.9t) for 0 <= t <= 10'), x: 't', curves: ['q', 'q′'] },
  { study: startStudy('g(u) = u^2 for -1 <= u <= 5'), x: 'u', curves: ['g'] },
]

/** The line that a request adds, without its id; null where nothing is added. */
function lineOf(study: Study, words: string) {
  const said = say(study, words)
  if ('problem' in said) return null
  const { id: _, ...line } = said.study.lines.at(-1)!
  const added = said.study.sliders
    .slice(study.sliders.length)
    .map(({ name, value }) => [name, value])
  return { sentence: said.sentence, line, added }
}

/** As data, whichever minus sign was typed. */
const asData = (line: unknown) => JSON.stringify(line).replaceAll('−', '-')

test('10,000 phrases: what is offered first, said back and read again, is the same line', () => {
  const p = createPick(20261127)
  const wrong: string[] = []
  const again = new Map<string, ReturnType<typeof lineOf>>()
  let taken = 0
  for (let i = 0; i < 10_000; i += 1) {
    const { study, x, curves } = p.one(studies)
    const request = p.one(asked)(p, p.one(curves), x)
    const phrase = /^(?:where|on|is|intervals|lim)\b/.test(request)
      ? request
      : p.one(leads) + request
    const first = lineOf(study, phrase)
    if (!first) continue
    taken += 1
    const key = `${x} ${first.sentence}`
    if (!again.has(key)) again.set(key, lineOf(study, first.sentence))
    if (asData(again.get(key)) !== asData(first)) {
      wrong.push(
        `${phrase} → ${first.sentence} → ${again.get(key)?.sentence ?? understand(first.sentence, study).unread.join()}`,
      )
    }
  }
  expect([...new Set(wrong)].slice(0, 20)).toEqual([])
  // What the grammar makes is English: nearly all of it is understood.
  expect(taken).toBeGreaterThan(9_800)
})
