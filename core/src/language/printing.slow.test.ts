import fc from 'fast-check'
import { chanceFrom, randomFormula } from '../../fuzz/formulas'
import { compile, differentiate, simplify, toLatex, toPlain, toText } from '..'
import { formulaText, read, sameValue } from './fixtures/testing'

describe('printing', () => {
  test('printed text reads back as an equal function', () => {
    fc.assert(
      fc.property(formulaText, (text) => {
        const tree = read(text)
        const again = read(toText(tree))
        const [f, g] = [compile(tree), compile(again)]
        for (const x of [-2.3, -0.4, 0, 0.7, 1, 3.9]) {
          expect({ x, same: sameValue(f.value(x), g.value(x)), back: toText(tree) }).toMatchObject({
            same: true,
          })
        }
      }),
      { numRuns: 1500 },
    )
  })

  test('as it would stand on a board', () => {
    expect(toLatex(read('6 + 4 sin(0.9x) - 0.3x'))).toBe('6 + 4\\sin(0.9 x) - 0.3 x')
    expect(toLatex(read('1/2x'))).toBe('\\frac{1}{2} x')
    expect(toLatex(read('e^(-x/2)'))).toBe('e^{-x/2}')
    expect(toLatex(read('sin^2 x'))).toBe('\\sin^{2} x')
    expect(toLatex(read('2 * 3x'))).toBe('2 \\cdot 3 x')
    expect(toLatex(read('2x if x < 1; 1 otherwise'))).toBe(
      '\\begin{cases}2 x & \\text{for } x < 1 \\\\ 1 & \\text{otherwise}\\end{cases}',
    )
  })

  test('in plain characters', () => {
    expect(toPlain(read('6 + 4sin(0.9x) - 0.3x'))).toBe('6 + 4 sin(0.9x) − 0.3x')
    expect(toPlain(read('x^2(x-1) + |x| - sqrt(x)/2'))).toBe('x²(x − 1) + |x| − √x/2')
  })
})

describe('what is printed reads back as the same function', () => {
  test.each([
    ['max(2, (x if x < 1; 3 otherwise))', 'max(2, (x if x < 1; 3 otherwise))'],
    ['min((x if x < 1; 3 otherwise), x^2, 4)', 'min((x if x < 1; 3 otherwise), x^2, 4)'],
    ['sin(x if x < 1; 3 otherwise)', 'sin(x if x < 1; 3 otherwise)'],
    [
      'x if (x if x < 1; 3 otherwise) > 0; -x otherwise',
      'x if (x if x < 1; 3 otherwise) > 0; -x otherwise',
    ],
    ['x if ((x < 1) or (x > 2)) and x < 5', 'x if (x < 1 or x > 2) and x < 5'],
  ])('%s', (text, printed) => expect(toText(read(text))).toBe(printed))

  test('random formulas and their derivatives, typed and plain, pieces anywhere in them', () => {
    let compared = 0
    for (let seed = 1; seed <= 700; seed++) {
      const tree = read(randomFormula(chanceFrom(seed), 4))
      for (const wanted of [tree, simplify(tree), differentiate(tree, 'x')]) {
        for (const text of [toText(wanted), toPlain(wanted)]) {
          const [f, g] = [compile(wanted), compile(read(text))]
          for (const x of [-2.3, -1, -0.4, 0.3, 1, 1.9, 5.1]) {
            const [a, b] = [f.value(x), g.value(x)]
            const same = Object.is(a, b) || Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a))
            expect([seed, text, same || a === b]).toEqual([seed, text, true])
            compared += 1
          }
        }
      }
    }
    expect(compared).toBeGreaterThan(20_000)
  })
})

describe('evaluating many values at once', () => {
  test('gives what one at a time gives, bit for bit', () => {
    fc.assert(
      fc.property(
        formulaText,
        fc.array(fc.double({ noDefaultInfinity: true }), { minLength: 1, maxLength: 600 }),
        (text, xs) => {
          const f = compile(read(text))
          const many = f.values(xs)
          xs.forEach((x, i) =>
            expect(
              Object.is(many[i], f.value(x)) || (Number.isNaN(many[i]) && Number.isNaN(f.value(x))),
            ).toBe(true),
          )
        },
      ),
      { numRuns: 300 },
    )
  })

  test('sliders change without compiling again', () => {
    const f = compile(read('a x + h'), { parameters: { a: 2, h: 1 } })
    const g = f.withParameters({ a: 3, h: 0 })
    expect([f.value(5), g.value(5), f.values([1, 2])[1], g.values([1, 2])[1]]).toEqual([
      11, 15, 5, 6,
    ])
    expect(compile(read('a x')).value(1)).toBeNaN()
  })
})
