import fc from 'fast-check'
import {
  compile,
  createEvaluator,
  createStudy,
  joinPieces,
  parseFormula,
  rowAt,
  splitPieces,
} from '..'
import type { OneSided } from './limits/oneSided'
import { lookAtPlace } from './place/placeFacts'

function read(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compile(parsed.tree)
}

// Each worked by hand from the limits of both pieces.
test.each([
  ['x/4 if x < 6; 2.8 - 0.15x if x < 10; 0 otherwise', 6, 'jump', [1.5, 0.25], [1.9, -0.15]],
  ['x^2 if x < 1; 2x - 1 otherwise', 1, 'smooth', [1, 2], [1, 2]],
  ['x if x < 1; 2 - x otherwise', 1, 'kink', [1, 1], [1, -1]],
  ['x if x < 1; 2 - x if x > 1', 1, 'hole', [1, 1], [1, -1]],
  ['x if x < 1; 5 if x = 1; x otherwise', 1, 'displaced', [1, 1], [1, 1]],
  ['x if x < 1', 1, 'end', [1, 1], [NaN, NaN]],
  ['sqrt(1 - x) if x < 1; x - 1 otherwise', 1, 'kink', [0, -Infinity], [0, 1]],
] as const)('%s at %d: %s', (text, x, kind, left, right) => {
  const facts = lookAtPlace(read(text), x)
  expect(facts.kind).toBe(kind)
  // Without a value of its own, or beside it, a side has a limit and no slope.
  const numberOf = (found: OneSided | null) =>
    found?.kind === 'value'
      ? (found.range.lo + found.range.hi) / 2
      : found?.kind === 'infinite'
        ? found.sign * Infinity
        : NaN
  for (const [side, [value, slope]] of [
    [facts.left, left],
    [facts.right, right],
  ] as const) {
    const sides = [numberOf(side.limit), side.continuous ? numberOf(side.slope) : slope]
    expect(sides).toEqual(
      [value, slope].map((v) => (Number.isFinite(v) ? expect.closeTo(v, 12) : v)),
    )
  }
})

test('the sides agree with values close by', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: -2, max: 2, noNaN: true }),
      (p, q, at) => {
        const parsed = parseFormula('p sin x + x^2 if x < c; q cos x otherwise', {
          names: ['p', 'q', 'c'],
        })
        if (!parsed.ok) throw new Error('unreadable')
        const f = compile(parsed.tree, { parameters: { p, q, c: at } })
        expect(f.beside(at, -1, 0)[0]).toBeCloseTo(f.value(at - 1e-9), 6)
        expect(f.beside(at, 1, 0)[0]).toBeCloseTo(f.value(at + 1e-9), 6)
      },
    ),
  )
})

test('a curve in pieces says how its joins behave, also where they move with a slider', () => {
  const created = createStudy('x^2 if x < k; x + 2 otherwise', ['k'])
  if (!created.ok) throw new Error('unreadable')
  const notes = (k: number) => {
    const sliders = created.study.sliders.map((s) => ({ ...s, value: k }))
    return createEvaluator()({ ...created.study, sliders }).lines.get('line1')!.notes
  }
  expect(notes(1)).toEqual([
    'At x = 1, f jumps from 1 to 3: it is not continuous and has no slope.',
  ])
  expect(notes(2)).toEqual([
    'At x = 2, there is a kink: f is continuous, its slope goes from 4 to 1.',
  ])
})

describe('rows', () => {
  test('a formula is split into rows and comes together again', () => {
    const text = 'x^2 if x < 1; (2 if x < 3; x) if x < 4; 0 otherwise'
    const rows = splitPieces(text)
    expect(rows).toEqual([
      { body: 'x^2', when: 'x < 1' },
      { body: '(2 if x < 3; x)', when: 'x < 4' },
      { body: '0', when: 'otherwise' },
    ])
    expect(joinPieces(rows)).toBe(text)
    expect(rows.map((_, i) => rowAt(rows, [0, 20, 45][i]!))).toEqual([0, 1, 2])
  })
  test('what cannot be read keeps every character that was typed', () => {
    expect(splitPieces('x^ if ; otherwise')).toEqual([
      { body: 'x^', when: '' },
      { body: '', when: 'otherwise' },
    ])
    expect(splitPieces('x + 1')).toEqual([{ body: 'x + 1', when: '' }])
    expect(joinPieces([{ body: 'x + 1', when: ' ' }])).toBe('x + 1')
  })
})
