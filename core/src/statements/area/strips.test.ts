import { changeLine, say, startStudy, workOut } from '../..'

const told = (start: string, words: string, converges = false) => {
  const said = say(startStudy(start), words)
  if ('problem' in said) throw new Error(said.problem)
  const id = said.study.lines.at(-1)!.id
  const study = converges ? changeLine(id, { convergence: true })(said.study) : said.study
  const line = workOut(study).lines.at(-1)!
  const value = (name: string) => line.readouts.find((r) => r.id === name)?.value
  return { ...line, value, notes: line.notes.join('\n') }
}

describe('heights are read where they are, exactly', () => {
  // Sums by hand: heights at the exact places.
  test.each([
    ['floor(x) for -1<=x<=1', '3 strips midpoint', -2 / 3],
    ['floor(100x) for 0<=x<=1', '100 strips left', 49.5],
    ['ceil(10x) for 0<=x<=0.6', '12 strips right', 2.1],
    ['floor(3x) for -1/3<=x<=2/3', '3 strips left', 0],
    ['sgn(x) for -2/7<=x<=1/7', '3 strips left', -2 / 7],
    ['floor(2x/pi) for 0<=x<=2pi', '4 strips left', 3 * Math.PI],
    // √(2 − x²) is 0 at √2, which no double is.
    ['sqrt(2-x^2) for -sqrt(2)<=x<=sqrt(2)', '2 strips trapezoid', 2],
    ['sqrt(2-x^2) for -sqrt(2)<=x<=sqrt(2)', '2 strips left', 2],
  ])('%s, %s', (formula, words, sum) => {
    const { value } = told(`f(x) = ${formula}`, `area under f with ${words}`)
    expect(value('sum')).toBeCloseTo(sum, 12)
    // The strips' account is kept at ends of the domain too.
    expect(value('over')! - value('short')!).toBeCloseTo(sum - value('exact')!, 9)
  })
  test.each([
    ['1/x for -1<=x<=1', '5 strips midpoint'],
    ['ln|x| for -1<=x<=1', '5 strips midpoint'],
    ['tan x for 0<=x<=pi', '6 strips right'],
    ['x ln x for 0<=x<=1', '4 strips left'],
  ])('%s, %s: a place without a value gives no number', (formula, words) => {
    const { value, problems, tables } = told(`f(x) = ${formula}`, `area under f with ${words}`)
    expect(value('sum')).toBeUndefined()
    expect(problems.map((p) => p.message).join(' ')).toMatch(
      /no value that can be read in the strip/,
    )
    expect(JSON.stringify(tables)).not.toMatch(/E15|E16|e\+/)
  })
})

describe('over and short at a displaced point', () => {
  // x² with 2 at 1: the strip from 1 to 2 stands at 2, over x² up to √2 and short of it from there.
  const over = 2 * (Math.SQRT2 - 1) - (2 * Math.SQRT2 - 1) / 3
  const short = (8 - 2 * Math.SQRT2) / 3 - 2 * (2 - Math.SQRT2)
  test('the piece on each side of the crossing counts', () => {
    const { value, notes } = told(
      'f(x) = x^2 if x!=1; 2 if x=1 for 1<=x<=2',
      'area under f with 1 strip left',
    )
    expect(value('over')).toBeCloseTo(over, 12)
    expect(value('short')).toBeCloseTo(short, 12)
    // f rises on (1, 2] only: the height that is read does not belong to it.
    expect(notes).not.toMatch(/too low|too high/)
    expect(notes).toMatch(/The left sum is short: its strips stand over by ≈ 0\.219/)
  })
})

describe('reasons hold strip by strip', () => {
  const strips = (n: number, rule: string) =>
    told('f(x) = sin x for 0<=x<=6', `area under f with ${n} strips ${rule}`)
  test('only strips that lie in a stretch as a whole are named', () => {
    // sin rises to π/2, falls to 3π/2 and rises again; strips of 1.
    expect(strips(6, 'left').notes).toMatch(
      /f rises from 0 to 1 \(strip 1\), so left heights are too low there\.\nf falls from 2 to 4 \(strips 3 to 4\), so left heights are too high there\.\nf rises from 5 to 6 \(strip 6\)/,
    )
  })
  test('each strip that is named is so: its whole sliver has that sign', () => {
    for (const rule of ['left', 'right', 'midpoint', 'trapezoid']) {
      const { notes, tables } = strips(9, rule)
      const rows = tables.find(({ name }) => name === 'Strips')!.rows
      const named = [
        ...notes.matchAll(
          /\(strips? (\d+)(?: to (\d+))?\), so .* (too high|too low|lie over it|lie under it|come out over|come out short) there/g,
        ),
      ]
      expect(named.length).toBeGreaterThan(1)
      for (const [, a, b = a, way] of named) {
        for (let i = Number(a); i <= Number(b); i++) {
          const [from, to] = [(6 * (i - 1)) / 9, (6 * i) / 9]
          const area = Number(rows[i - 1]![5]!.replace('−', '-'))
          const gap = area - (Math.cos(from) - Math.cos(to))
          const holds = /high|over/.test(way!) ? gap > -6e-4 : gap < 6e-4
          expect([rule, i, holds]).toEqual([rule, i, true])
        }
      }
    }
  })
  test('one sentence decides the whole sum', () => {
    expect(told('f(x) = e^x for 0<=x<=1', 'area under f with 4 strips left').notes).toMatch(
      /f rises throughout, so left heights are too low there\.\nSo the left sum is short, since every strip is\./,
    )
    expect(told('f(x) = x for -1<=x<=1', 'area under f with 4 strips midpoint').notes).toMatch(
      /come to the same: the midpoint sum is the area/,
    )
  })
})

describe('orders of errors', () => {
  const notes = (formula: string) =>
    told(`f(x) = ${formula}`, 'area under f with 8 strips', true).notes
  test.each([
    // Navot 1961: an end like x^α leaves n^−(α + 1).
    ['x^(3/2) for 0<=x<=1', /midpoint 2\.00, trapezoid 2\.00, simpson 2\.50 instead of 4/],
    [
      'x^(3/2) for 0<=x<=1',
      /f′′ is unbounded at x = 0, which lowers the order of simpson\. Left, right, midpoint and trapezoid keep theirs/,
    ],
    ['x ln x if x>0; 0 otherwise for 0<=x<=1', /f′ is unbounded at x = 0/],
    ['x|x| for -1<=x<=2', /f′′ jumps at x = 0, which lowers the order of simpson/],
    [
      'sin x for 0<=x<=pi',
      /Equal values at both ends make the main part of the error of left and right cancel/,
    ],
    [
      'x^2 if x!=1; 5 if x=1 for 0<=x<=2',
      /f has a value beside its limit at x = 1, which lowers the order of trapezoid and simpson/,
    ],
  ])('%s', (formula, reason) => expect(notes(formula)).toMatch(reason))
  test('a count is named only where larger ones keep it', () => {
    // |x − 1/3| by slanted tops: 3 strips are exact, 4 are not.
    expect(notes('|x-1/3| for 0<=x<=1')).toMatch(
      /trapezoid 15 \(as far as tried; 3 meets it too, 14 does not\)/,
    )
    // 1/24 · e/n² < 1/1000 from n = 11 on; by trying from 9.
    expect(notes('e^x for 0<=x<=1')).toMatch(/midpoint 9 \(proven\)/)
    // A displaced point gives no bound: Simpson meets it at every even count.
    expect(notes('x^2 if x!=1; 5 if x=1 for 0<=x<=2')).not.toMatch(
      /simpson \d+ \(proven|simpson [^,]*sure/,
    )
  })
})
