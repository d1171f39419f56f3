import fc from 'fast-check'
import { evaluate as byMathjs } from 'mathjs'
import { toldLast } from '../fixtures/testing'

// Each set by hand.
test.each([
  ['x^3 - 3x for -2<=x<=2', 'where f > 0', 'f > 0 on ≈ (−1.732, 0) and on ≈ (1.732, 2].'],
  ['x^2 for -2<=x<=2', 'where f > 0', 'f > 0 on [−2, 0) and on (0, 2].'],
  ['x^2 for -2<=x<=2', 'where f >= 0', 'f ≥ 0 on [−2, 2].'],
  ['x^2 for -2<=x<=2', 'where f <= 0', 'f ≤ 0 at x = 0.'],
  ['x^2 for -2<=x<=2', 'where f < 0', 'f < 0 nowhere on [−2, 2].'],
  ['1/x for -2<=x<=2', 'where f > 0', 'f > 0 on (0, 2].'],
  ['1/x for -2<=x<=2', 'where f < 1', 'f < 1 on [−2, 0) and on (1, 2].'],
  ['floor(x) for 0<=x<=3', 'where f >= 1', 'f ≥ 1 on [1, 3].'],
  ['floor(x) for 0<=x<=3', 'where f < 1', 'f < 1 on [0, 1).'],
  ['max(0, x) for -2<=x<=2', 'where f <= 0', 'f ≤ 0 on [−2, 0].'],
  ['max(0, x) for -2<=x<=2', 'where f > 0', 'f > 0 on (0, 2].'],
  ['x if x != 1; -5 if x = 1 for 0<=x<=2', 'where f >= 0', 'f ≥ 0 on [0, 1) and on (1, 2].'],
  ['ln x for 0<=x<=3', 'where is f negative', 'f < 0 on (0, 1).'],
  ['sin x for 0<=x<=pi', 'where is f positive', 'f > 0 on ≈ (0, 3.142).'],
])('%s, %s', (formula, words, set) => {
  const line = toldLast(`f(x) = ${formula}`, words)
  expect(line.notes).toEqual([set])
  expect(line.verdict!.complete).toBe(true)
})

test('one curve above another, and a rate above a number', () => {
  expect(toldLast('f(x) = x^2 for -2<=x<=2', 'let g(x) = x + 2', 'where f > g').notes).toEqual([
    'f > g on [−2, −1).',
  ])
  const line = toldLast('f(x) = x^2 for -2<=x<=2', "where f' >= 2")
  expect(line.sentence).toBe('Where is f′ ≥ 2 on [−2, 2]')
  expect(line.notes).toEqual(['f′ ≥ 2 on [1, 2].'])
})

test('nothing is claimed where zeros lie without end', () => {
  const line = toldLast('f(x) = x sin(1/x) for -1<=x<=1', 'where f > 0')
  expect(line.verdict!.text).toMatch(/^Not settled on/)
  for (const [, a, b] of line.notes[0]!.matchAll(/[[(](\S+), (\S+)[\])]/g)) {
    const [from, to] = [a, b].map((end) => Number(end!.replace('−', '-')))
    expect([from, to, from! < 0 && to! > 0]).toEqual([from, to, false])
  }
})

test('a place belongs to the set exactly if the inequality holds there (mathjs)', () => {
  const whole = fc.integer({ min: -4, max: 4 })
  fc.assert(
    fc.property(whole, whole, whole, fc.constantFrom('>', '>=', '<', '<='), (p, q, r, relation) => {
      const formula = `(x - (${p}))*(x - (${q}))*(x - (${r}))`
      const [note] = toldLast(`f(x) = ${formula} for -5<=x<=5`, `where f ${relation} 0`).notes
      const parts = [...note!.matchAll(/([[(])(\S+), (\S+)([\])])/g)].map(
        ([, open, a, b, close]) => ({
          from: Number(a!.replace('−', '-')),
          to: Number(b!.replace('−', '-')),
          open,
          close,
        }),
      )
      const single = [...note!.matchAll(/at x = (\S+?)(?=[ ,.]|$)/g)].map((m) =>
        Number(m[1]!.replace('−', '-')),
      )
      for (let x = -5; x <= 5; x += 0.5) {
        const said =
          single.includes(x) ||
          parts.some(
            ({ from, to, open, close }) =>
              (open === '[' ? x >= from : x > from) && (close === ']' ? x <= to : x < to),
          )
        expect([formula, relation, x, said]).toEqual([
          formula,
          relation,
          x,
          byMathjs(`${formula} ${relation} 0`, { x }),
        ])
      }
    }),
    { numRuns: 60 },
  )
}, 30_000)
