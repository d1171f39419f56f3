import reference from '../../../reference/valleys.json'
import { offersFor, say, startStudy, type Study, workOut } from '../..'
import { marksOfLast, studyOf } from '../fixtures/testing'
import type { SearchLine } from './line'

/** What a search says, with all long work done. */
function searched(start: string, ...words: string[]) {
  const study = studyOf(start, ...words)
  const line = workOut(study).lines.at(-1)!
  const valueOf = (label: string) => line.readouts.find((r) => r.label === label)?.value
  const probes = line.tables.find((t) => t.name === 'Probes')?.rows ?? []
  return { ...line, study, valueOf, probes, told: line.conclusions.map((c) => c.text) }
}

const twoValleys = 'p(s) = (s^2 - 4)^2 + s for -3.2 <= s <= 3.2'

describe('every smooth valley of the problems of Hansen, Jaumard and Lu', () => {
  // core/reference/valleys.py names the source; places and values are SciPy's.
  test.each(reference.table)(
    'problem $problem near $x',
    ({ formula, from, to, left, right, x, value }) => {
      const f = `f(x) = ${formula} for ${from} <= x <= ${to}`
      const [a, b] = [(x + left) / 2, (x + right) / 2]
      // Within the valley by its narrower side: a longer way down leaps over a low crest.
      const near = Math.min(b - x, x - a) / 2
      for (const by of [
        `search f from ${x + near} by simplex, first step ${-near / 10}`,
        `search f on [${a}, ${b}] by golden section`,
        `search f from ${x + near / 10} by newton`,
      ]) {
        const { valueOf, probes, problems } = searched(f, by)
        expect(problems).toEqual([])
        expect(Math.abs(valueOf('x')! - x)).toBeLessThan(1e-6 * Math.max(1, Math.abs(x)))
        expect(Math.abs(valueOf('value')! - value)).toBeLessThan(1e-10)
        expect(probes).toHaveLength(valueOf('evaluations')!)
      }
    },
  )
})

test('one search finds one valley, and is told what lies lower', () => {
  // 4s(s² − 4) + 1 = 0 at −2.0306, 0.0626 and 1.9680, by numpy.roots.
  const { sentence, valueOf, told, notes } = searched(
    twoValleys,
    'search p for a low point from s = 3 by simplex',
  )
  expect(sentence).toBe('Search p for a low point from s = 3 by simplex')
  expect(valueOf('s')).toBeCloseTo(1.9679854, 6)
  expect(told).toEqual(['A low point, and not the lowest: s ≈ −2.031 lies ≈ 4.000 lower.'])
  expect(notes).toContain('It stopped because its two places lie within 10⁻⁸ of each other.')
  expect(searched(twoValleys, 'search p from -3').told).toEqual([
    'The lowest on [−3.2, 3.2]: proven.',
  ])
})

test('a long step over the crest is told by its probe and by the crest', () => {
  const { told, probes } = searched(twoValleys, 'search p from 3 by simplex with first step -5')
  expect(told).toEqual([
    'The lowest on [−3.2, 3.2]: proven.',
    'It left the valley it started in at probe 2: the step from 3 to −2 crosses the high point at ≈ 0.063.',
  ])
  expect(probes[1]!.slice(1, 3)).toEqual(['−2.000000', '−2.000000'])
})

test('a worse place beyond the crest is not where the search has gone to', () => {
  // −1 lies in the other valley, at height 8; the start at 2 lies at 2 and stays the better place.
  const { told, probes } = searched(twoValleys, 'search p from 2 by simplex with first step -3')
  expect(probes[1]!.slice(1, 3)).toEqual(['−1.000000', '8.000000'])
  expect(told).toEqual(['A low point, and not the lowest: s ≈ −2.031 lies ≈ 4.000 lower.'])
})

test('where there is no lowest value the rank says why', () => {
  // 1/x falls without bound to the left of its pole; x + 1/x has its low point at 1.
  const { told } = searched('f(x) = x + 1/x for -3 <= x <= 3', 'search f from 2')
  expect(told[0]).toBe('A low point, and not the lowest: f has no lowest value there.')
})

test('a high point is looked for the other way up', () => {
  const { sentence, valueOf, told } = searched(twoValleys, 'search p for a high point from 0.5')
  expect(sentence).toBe('Search p for a high point from s = 0.5 by simplex')
  expect(valueOf('s')).toBeCloseTo(0.0625611, 6)
  expect(valueOf('value')).toBeCloseTo(16.0312653, 6)
  // The ends are higher: (3.2² − 4)² + 3.2 = 42.1376, which is 26.106 more.
  expect(told).toEqual(['A high point, and not the highest: s = 3.2 lies ≈ 26.106 higher.'])
})

describe('words and sentences', () => {
  test.each([
    ['search p', 'Search p for a low point from s = a by simplex'],
    ['search p from 1.5', 'Search p for a low point from s = 1.5 by simplex'],
    [
      'search for a high point of p from 1 by newton',
      'Search p for a high point from s = 1 by Newton',
    ],
    [
      'search p for the minimum starting at -1 using gradient descent',
      'Search p for a low point from s = −1 by gradient, rate 0.1',
    ],
    [
      'search p from 1 by gradient with rate 0.02',
      'Search p for a low point from s = 1 by gradient, rate 0.02',
    ],
    [
      'search p on [0, 3] by golden section',
      'Search p for a low point on [0, 3] by golden section',
    ],
    [
      'search p between 0 and 3 by golden section',
      'Search p for a low point on [0, 3] by golden section',
    ],
    ["search p' for a low point from 1", 'Search p′ for a low point from s = 1 by simplex'],
    [
      'search p by population with seed 7, 20 members and 50 generations',
      'Search p for a low point on [−3.2, 3.2] by population, seed 7, members 20, generations 50',
    ],
    [
      'search p from 3 by simplex and population',
      'Search p for a low point from s = 3 on [−3.2, 3.2] by simplex and population',
    ],
    [
      'search p from 3 by simplex, tolerance 1E-4, at most 30 evaluations',
      'Search p for a low point from s = 3 by simplex, tolerance 1·10^-4, evaluations at most 30',
    ],
  ])('%s', (words, sentence) => {
    expect(
      offersFor(words, startStudy(twoValleys), null)[0]?.sentence.replace('0.0001', '1·10^-4'),
    ).toBe(sentence)
  })
  test.each([
    'search p from 3 by golf',
    'search p for gold',
    'search q from 3',
    'search p from 3 tomorrow',
  ])('“%s” is not half understood', (words) => {
    expect(say(startStudy(twoValleys), words)).toHaveProperty('problem')
  })
})

describe('searches that fail say so', () => {
  test.each([
    [
      'f(x) = 3 for 0 <= x <= 10',
      'search f from 4',
      /f is level wherever the search looked: there is no way down/,
    ],
    [
      'f(x) = ln x for 0 <= x <= 5',
      'search f from 0',
      /f has no value at x = 0, where the search begins/,
    ],
    [
      'f(x) = x^2 for -1 <= x <= 1',
      'search f from 4',
      /begins at x = 4, and f is drawn from −1 to 1/,
    ],
    [
      'f(x) = x^2 for -5 <= x <= 5',
      'search f from 1 by gradient with rate 3',
      /left the span of f at probe 3: x = 25/,
    ],
    [
      'f(x) = x^2 for -5 <= x <= 5',
      'search f from 1 by gradient with rate 1',
      /did not come to rest within 500 evaluations/,
    ],
    [
      'f(x) = x^2 for -5 <= x <= 5',
      'search f from 1 by gradient with rate -1',
      /a rate is a number above 0, and not −1/,
    ],
    [
      'f(x) = x^2 for -5 <= x <= 5',
      'search f from 1 with first step 0',
      /a first step is a number other than 0/,
    ],
    ['f(x) = x', 'search f from 0', /runs away: at x ≈ .* f still goes down/],
  ])('%s: %s', (start, words, message) => {
    const { problems } = searched(start, words)
    expect(problems[0]?.message).toMatch(message)
    expect(problems[0]?.fix ?? problems[0]?.message).toBeTruthy()
  })
  test('a pole at the start of the span is no place to rest at', () => {
    const { told, valueOf } = searched('f(x) = 1/x for 0 <= x <= 4', 'search f from 2')
    expect(valueOf('x')).toBeCloseTo(4, 5)
    expect(told[0]).toBe('The lowest on [0, 4]: proven.')
  })
  test('a kink is found, with no slope there', () => {
    const { told, valueOf } = searched('f(x) = |x - 0.1| for -1 <= x <= 1', 'search f from 0.7')
    expect(valueOf('x')).toBeCloseTo(0.1, 7)
    expect(told[0]).toBe('The lowest on [−1, 1]: proven.')
  })
  test('where the slope is 0 and keeps its sign there is no low point', () => {
    const { told } = searched('f(x) = x^3 for -2 <= x <= 2', 'search f from 0 by newton')
    expect(told[0]).toBe(
      'No low point: the slope is 0 or missing at x = 0 and keeps its sign: x = −2 lies 8 lower.',
    )
  })
  test('huge and tiny numbers', () => {
    const huge = searched('f(x) = 1E300 (x - 1)^2 for 0 <= x <= 3', 'search f from 2')
    expect(huge.valueOf('x')).toBeCloseTo(1, 6)
    const tiny = searched('f(x) = 1E-300 (x - 1)^2 for 0 <= x <= 3', 'search f from 2')
    expect(tiny.problems.every(({ message }) => message !== '')).toBe(true)
  })
})

test('several searches stand side by side, by what they cost and what they found', () => {
  const { tables, told } = searched(
    twoValleys,
    'search p from 3 by simplex, golden section and population',
  )
  const table = tables.find((t) => t.name === 'Searches')!
  expect(table.columns).toEqual(['by', 's', 'value', 'above the best', 'evaluations', 'iterations'])
  expect(table.rows.map((row) => row[0])).toEqual(['simplex', 'golden section', 'population'])
  expect(table.rows.map((row) => row[3])).toEqual(['4.000', '0.000', '0.000'])
  const cost = table.rows.map((row) => Number(row[4]))
  // A population pays with many times the evaluations.
  expect(cost[2]!).toBeGreaterThan(8 * cost[0]!)
  expect(told.filter((text) => text.startsWith('Simplex:'))).toHaveLength(1)
})

test('many starts: the borders between the valleys are where the outcome changes', () => {
  const { told, study } = searched(twoValleys, 'search p from 3 by newton, 30 starts')
  const borders = told.flatMap((text) => {
    const found = /^Starts from s [=≈] (\S+) to (?:≈ )?(\S+) end at s [=≈] (\S+), (.*)\.$/.exec(
      text,
    )
    return found ? [found.slice(1)] : []
  })
  expect(borders.length).toBeGreaterThan(1)
  expect(borders[0]![0]).toBe('−3.2')
  expect(borders.at(-1)![1]).toBe('3.2')
  for (const [i, [, to]] of borders.slice(0, -1).entries()) expect(borders[i + 1]![0]).toBe(to)
  expect(new Set(borders.map(([, , end]) => end))).toEqual(new Set(['−2.031', '1.968']))
  expect(
    borders.filter(([, , end]) => end === '−2.031').every(([, , , rank]) => rank === 'the lowest'),
  ).toBe(true)
  const starts = marksOfLast(study).find((mark) => mark.kind === 'starts')
  expect(starts?.kind === 'starts' && starts.starts).toHaveLength(30)
})

test('the walk is shown up to a probe, and its slider leads through it', () => {
  const { study } = searched(twoValleys, 'search p from 3')
  const line = study.lines.at(-1) as SearchLine
  const led: Study = { ...study, lines: [...study.lines.slice(0, -1), { ...line, probe: '4' }] }
  const walk = marksOfLast(led).find((mark) => mark.kind === 'walk')
  expect(walk?.kind === 'walk' && [walk.probes.length, walk.isWhole]).toEqual([4, false])
  const readout = workOut(led)
    .lines.at(-1)!
    .readouts.find((r) => r.label === 'probe')
  expect(readout?.text).toMatch(/^4 of \d+$/)
})

test('sliders of the function and of the rate are followed', () => {
  const start = 'f(x) = (x - c)^2 for -10 <= x <= 10'
  const study = startStudy(start)
  const said = say(study, 'let c = 3')
  if ('problem' in said) throw new Error(said.problem)
  const next = say(said.study, 'search f from 9 by newton')
  if ('problem' in next) throw new Error(next.problem)
  const at = (c: number) =>
    workOut(next.study, { values: { c } })
      .lines.at(-1)!
      .readouts.find((r) => r.label === 'x')!.value
  expect(at(3)).toBeCloseTo(3, 9)
  expect(at(-4)).toBeCloseTo(-4, 9)
})
