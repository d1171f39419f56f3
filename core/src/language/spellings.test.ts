/*
 * Formulas as teachers and textbooks write them, and what each must become. The right column is a
 * value at x, worked by hand; a pattern is what a refusal says, or what is offered beside.
 */
import { createEvaluator, createStudy, startStudy } from '..'

type Row = readonly [text: string, x: number, value: number]
const read: readonly Row[] = [
  // Logarithms and roots with their figures.
  ['log2(x)', 8, 3],
  ['log10(x)', 1000, 3],
  ['log2 x', 8, 3],
  ['log10 x', 100, 2],
  ['log_2 x', 8, 3],
  // ISO 80000-2 has lg for the logarithm to base 10; tg and ctg are what many countries write.
  ['lg x', 1000, 3],
  ['tg x', Math.PI / 4, 1],
  ['ctg(x)', Math.PI / 4, 1],
  ['arctg x', 1, Math.PI / 4],
  ['tg²x', Math.PI / 4, 1],
  ['log 2x', 50, 2],
  ['³√x', 8, 2],
  ['∛(x+1)', 7, 2],
  ['∜x', 16, 2],
  ['⁴√x', 16, 2],
  ['√[3]{x}', 8, 2],
  ['sqrt[3]{x}', 8, 2],
  ['sqrt[3](x)', -8, -2],
  ['\\sqrt[3]{x}', 8, 2],
  ['2√x', 9, 6],
  // Factorials, whole parts, mixed numbers.
  ['x³/3!', 2, 8 / 6],
  ['(x+1)!', 3, 24],
  ['⌊x⌋', 2.5, 2],
  ['⌈x⌉ + ⌊x⌋', 2.5, 5],
  ['⌊x/2⌋+1', 5, 3],
  ['\\lfloor x \\rfloor', 2.5, 2],
  ['3½', 0, 3.5],
  ['2¾x', 4, 11],
  ['⅛x', 8, 1],
  ['x½', 4, 2],
  // Decimal commas.
  ['0,5x', 4, 2],
  ['1,5+x', 1, 2.5],
  ['0,5x + 1,25', 2, 2.25],
  ['x^0,5', 4, 2],
  ['(0,5x + 1)(x - 2)', 4, 6],
  ['min(1,2)', 0, 1],
  ['max(x,0)', 3, 3],
  // Derivatives.
  ['d/dx (x^2)', 3, 6],
  ['d/dx x^2', 3, 6],
  ['d/dx x^2 + 1', 3, 7],
  ['d/dx sin x', 0, 1],
  ['d²/dx² (x^3)', 2, 12],
  ["(x^2)'", 3, 6],
  ["(x^3)''", 2, 12],
  ['\\frac{d}{dx}(x^3)', 2, 12],
  // Pieces.
  ...[
    'x² (x < 1), 2x (x ≥ 1)',
    'x^2 (x<1); 2x (x>=1)',
    'x² for x < 1, 2x for x ≥ 1',
    'x^2, x<1; 2x, x>=1',
    'x^2 if x<1, 2x otherwise',
    'x^2 if x<1, else 2x',
    'x^2 when x<1; 2x else',
    'x^2 where x<1; 2x otherwise',
    '{x^2 if x<1; 2x otherwise}',
    '{ x^2, x<1 ; 2x, x>=1 }',
    'if x<1 then x^2 else 2x',
    'if x<1, x^2; otherwise 2x',
    'x<1: x^2; x>=1: 2x',
    'x<1 ? x^2 : 2x',
    '\\begin{cases} x^2 & x<1 \\\\ 2x & x \\ge 1 \\end{cases}',
    '\\begin{cases} x^2, & \\text{if } x<1 \\\\ 2x, & \\text{otherwise} \\end{cases}',
  ].flatMap((text): Row[] => [
    [text, 0.5, 0.25],
    [text, 3, 6],
  ]),
  ['sin(30 deg)', 0, 0.5],
  ['30°', 0, Math.PI / 6],
]

const valueOf = (text: string, x: number) => {
  const study = startStudy(`f(x) = ${text}`)
  const found = createEvaluator()(study).curves.get('f')!
  return found.ok ? found.curve.f.value(x) : NaN
}

test.each(read)('%s at %d is %d', (text, x, value) => {
  expect(valueOf(text, x)).toBeCloseTo(value, 12)
})

// Two readings are in use: the one by the rules is taken, the other stands beside it.
test.each([
  ['x^1/2', 4, 2, 'x^(1/2)', 2],
  ['e^1/x', 2, Math.E / 2, 'e^(1/x)', Math.exp(0.5)],
  ['√2x', 2, 2 * Math.SQRT2, '√(2x)', 2],
  ['sin x/2', Math.PI, 0, 'sin(x/2)', 1],
  ['(x-1)2', 3, 4, '(x-1)^2', 4],
  ['1/2x', 4, 2, '1/(2x)', 1 / 8],
  ['1e-3 x', 1000, 1000 * 0 + Math.E - 3000, '1E-3', 1],
])('%s is taken by the rules, and %s stands beside it', (text, x, taken, other, meant) => {
  expect(valueOf(text, x)).toBeCloseTo(taken, 9)
  const created = createStudy(`f(x) = ${text}`)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  const hint = created.hints.find(({ message }) => message.includes(other))!
  const whole = `f(x) = ${text}`
  const mended = whole.slice(0, hint.from) + hint.replacement + whole.slice(hint.to)
  expect(valueOf(mended.slice('f(x) = '.length), x)).toBeCloseTo(meant, 9)
})

test.each([
  ['[x]', /could mean two things · write ⌊x⌋ for the whole part, or \(x\)/],
  ['1,000x', /comma/],
  ['x2', /x2 could mean three things · write x\^2, x₂ or 2x/],
  ['sin(1,5)', /sin takes one value/],
])('%s is asked about', (text, message) => {
  expect(() => startStudy(`f(x) = ${text}`)).toThrow(message)
})

test('a decimal comma is told once', () => {
  const created = createStudy('f(x) = 0,5x + 1,25')
  if (!created.ok) throw new Error('unreadable')
  expect(created.hints.map((h) => h.message)).toEqual(['0,5 is read as 0.5'])
})

test.each(['x0 + x', 'x_0 + x', 'x₀ + x'])('%s: one name with a subscript', (text) => {
  expect(startStudy(text).sliders.map((s) => s.name)).toEqual(['x₀'])
})

describe('a span behind a function', () => {
  test.each([
    'x^2, 0 ≤ x ≤ 3',
    'x^2, 0<=x<=3',
    'x^2 for 0 ≤ x ≤ 3',
    'x^2 where 0 ≤ x ≤ 3',
    'x^2 on [0, 3]',
    'x^2 in [0,3]',
    'x^2, [0,3]',
    'x^2, x in [0,3]',
    'x^2 for x in [0, 3]',
    'x^2, x ∈ [0, 3]',
    'x^2 x ∈ [0, 3]',
    'x^2 from 0 to 3',
    'x^2 between 0 and 3',
    'x^2 over 0 to 3',
    'f(x) = x^2, 0 ≤ x ≤ 3',
    'f: x ↦ x^2 on [0, 3]',
    'x -> x^2 for 0..3',
  ])('%s', (text) => {
    const [line] = startStudy(text).lines
    expect(line).toMatchObject({ formula: 'x^2', span: { from: '0', to: '3' } })
  })
  test('pieces and calls keep their commas', () => {
    expect(startStudy('x^2 (x<1), 2x (x≥1), 0≤x≤3').lines[0]).toMatchObject({
      formula: 'x^2 (x<1), 2x (x≥1)',
      span: { from: '0', to: '3' },
    })
    expect(startStudy('max(x, 2)').lines[0]).toMatchObject({ formula: 'max(x, 2)' })
  })
})
