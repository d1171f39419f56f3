import fc from 'fast-check'
import { all, create } from 'mathjs'
import { differentiate } from '../algebra/differentiate'
import { compile } from '../algebra/compile'
import { examine } from '../features/examine'
import { heldAt } from '../features/held'
import { toLatex } from '../language/latex'
import { parseFormula } from '../calculus/parseFormula'
import { toPlain, toText } from '../language/print'
import { call, keyOf, name, pieces, power, type Tree, whole } from '../formula/tree'
import { entryOf, spellings, type UnaryName, unaryNames } from './index'

const mathjs = create(all!)
const x = name('x')
const read = (text: string): Tree => {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  return parsed.tree
}

/** What mathjs calls them, where that is not our first spelling. */
const theirs: Partial<Record<UnaryName, string>> = {
  arcsin: 'asin',
  arccos: 'acos',
  arctan: 'atan',
  arcsec: 'asec',
  arccsc: 'acsc',
  arccot: 'acot',
  arsinh: 'asinh',
  arcosh: 'acosh',
  artanh: 'atanh',
  arsech: 'asech',
  arcsch: 'acsch',
  arcoth: 'acoth',
  ln: 'log',
  log: 'log10',
  sgn: 'sign',
}

/** The value by mathjs; NaN where that is not a finite real number. */
function reference(of: UnaryName, at: number): number {
  // Theirs goes on between the whole numbers as a gamma function.
  if (of === 'factorial' && !(Number.isInteger(at) && at >= 0)) return NaN
  const value: unknown = mathjs.evaluate(`${theirs[of] ?? of}(x)`, { x: at })
  // With values between 0 and π, as it is continuous (common practice, no source).
  if (of === 'arccot' && at < 0) return Number(value) + Math.PI
  return typeof value === 'number' && Number.isFinite(value) ? value : NaN
}

const places = [-5.25, -3, -2, -1.5, -1, -0.75, -0.1, 0, 0.1, 0.5, 1, 1.25, 2, 3, 4.5]
const close = (of: number) => (Number.isNaN(of) ? NaN : expect.closeTo(of, 11))

describe.each(unaryNames)('%s', (of) => {
  const entry = entryOf(of)
  const f = compile(call(of, x))

  test('is read in each of its spellings, and as it is printed', () => {
    const key = keyOf(call(of, x))
    for (const spelling of entry.spellings) {
      expect(spellings[spelling]).toBe(of)
      expect(keyOf(read(`${spelling}(x)`))).toBe(key)
    }
    const nested = call(of, call(of, x))
    for (const tree of [call(of, x), nested, power(call(of, x), whole(2))]) {
      const printed = [toText(tree), toPlain(tree), toLatex(tree)]
      for (const text of printed) {
        // The same function, if not the same tree: exp x is printed as a power of e.
        const back = compile(read(text)).values(Float64Array.from(places))
        expect({ text, back }).toEqual({
          text,
          back: compile(tree).values(Float64Array.from(places)),
        })
      }
    }
  })

  test('has the values of a library, one by one and many at once', () => {
    const many = f.values(Float64Array.from(places))
    places.forEach((at, i) => {
      const expected = reference(of, at)
      expect({ at, value: f.value(at) }).toEqual({ at, value: close(expected) })
      expect({ at, value: many[i] }).toEqual({ at, value: f.value(at) })
    })
  })

  test('has a slope where differences of the values of a library have a limit', () => {
    const slope = compile(differentiate(call(of, x), 'x'))
    const h = 1e-5
    for (const at of [-5.3, -2.1, -1.4, -0.6, -0.15, 0.15, 0.6, 1.4, 2.1, 5.3]) {
      const expected = (reference(of, at + h) - reference(of, at - h)) / (2 * h)
      const [, byJet, second] = f.derivatives(at, 2)
      if (Number.isNaN(expected)) {
        expect({ at, byJet, byTree: slope.value(at) }).toEqual({ at, byJet: NaN, byTree: NaN })
        continue
      }
      const nearly = expect.closeTo(expected, 5)
      expect({ at, byJet, byTree: slope.value(at) }).toEqual({ at, byJet: nearly, byTree: nearly })
      // The second derivative of one way is the first of the other.
      expect(second).toBeCloseTo(slope.derivatives(at, 1)[1]!, 8)
    }
  })

  test('its enclosures hold the values and the slopes', () => {
    const place = fc.double({ min: -6, max: 6, noNaN: true })
    const slope = compile(differentiate(call(of, x), 'x'))
    fc.assert(
      fc.property(place, place, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, share) => {
        const [lo, hi] = [Math.min(a, b), Math.max(a, b)]
        const at = Math.min(hi, Math.max(lo, lo + share * (hi - lo)))
        for (const g of [f, slope]) {
          const [value, [from, to]] = [g.value(at), g.enclose(lo, hi)]
          if (!Number.isNaN(value)) expect(from <= value && value <= to).toBe(true)
        }
      }),
      { numRuns: 300 },
    )
  })

  test('has its domain, and what is said of its sign and its zeros is so', () => {
    const { domain, total, positive, signOfArgument, atZero, zero } = entry
    const inDomain = domain && compile(pieces({ body: whole(1), when: domain(x) }))
    for (const at of places) {
      const value = reference(of, at)
      const exists = !Number.isNaN(value)
      if (inDomain) expect({ at, in: inDomain.value(at) === 1 }).toEqual({ at, in: exists })
      if (total) expect({ at, exists }).toEqual({ at, exists: true })
      if (!exists) continue
      if (positive) expect(value).toBeGreaterThan(0)
      if (signOfArgument) expect(Math.sign(value)).toBe(Math.sign(at) + 0)
      if (zero === 'never') expect(value).not.toBe(0)
      else if (zero && 'tree' in zero) {
        expect({ at, zero: Math.abs(value) < 1e-15 }).toEqual({
          at,
          zero: Math.abs(compile(zero.tree(x)).value(at)) < 1e-15,
        })
      }
    }
    if (atZero !== undefined) expect(reference(of, 0)).toBe(atZero)
  })

  test('far out it is a number or has none, and a slope never without a value', () => {
    for (const at of [1e-320, 1e-160, 40, 400, 800, 1e5, 1e160, 1e300].flatMap((a) => [a, -a])) {
      const [value, slope] = f.derivatives(at, 1) as [number, number]
      expect({ at, exists: !Number.isNaN(value) }).toEqual({
        at,
        exists: !Number.isNaN(f.value(at)),
      })
      if (Number.isNaN(value)) expect({ at, slope }).toEqual({ at, slope: NaN })
      const [from, to] = f.enclose(at, at)
      if (Number.isFinite(value)) expect(from <= value && value <= to).toBe(true)
    }
  })

  test('is examined without a fall, on both sides of 0 and away from it', () => {
    for (const [from, to] of [
      [-3.3, 3.3],
      [0, 1],
      [1, 8],
    ] as const) {
      for (const { x: at } of examine(f, from, to).zeros) {
        expect(Math.abs(reference(of, at))).toBeLessThan(1e-12)
      }
    }
  })
})

test.each(unaryNames.filter((of) => entryOf(of).inverse))(
  '%s and its inverse undo each other',
  (of) => {
    const inverse = entryOf(of).inverse as UnaryName
    const back = compile(call(of, call(inverse, x)))
    for (const at of places) {
      if (Number.isNaN(reference(inverse, at))) continue
      if (!Number.isNaN(reference(of, reference(inverse, at))))
        expect(back.value(at)).toBeCloseTo(at, 10)
    }
    expect(keyOf(read(`${of}^(-1)(x)`))).toBe(keyOf(call(inverse, x)))
  },
)

test('where a value is too small for a double it is 0, and so is its slope', () => {
  for (const text of ['sech(800)', 'csch(800)', 'sech(-100000)', 'exp(-800)']) {
    expect({ text, value: compile(read(text)).value(0) }).toEqual({ text, value: 0 })
  }
  for (const text of ['sech(x)', 'csch(x)', 'coth(x)', 'tanh(x)', 'exp(-x)']) {
    expect({ text, slope: compile(read(text)).derivatives(800, 1)[1]! + 0 }).toEqual({
      text,
      slope: 0,
    })
    expect({ text, slope: compile(differentiate(read(text), 'x')).value(800) + 0 }).toEqual({
      text,
      slope: 0,
    })
  }
})

describe('mod', () => {
  test('has the sign of what is divided by, as in a library', () => {
    for (const [of, by] of [
      [-1, 3],
      [7, 3],
      [-7, 3],
      [5.5, 2],
      [-0.75, 0.5],
      [6, 3],
    ] as const) {
      const { value } = compile(read(`mod(x, ${by})`))
      expect({ of, by, value: value(of) }).toEqual({ of, by, value: close(mathjs.mod(of, by)) })
    }
    // With a divisor below 0 by the definition, x − y·floor(x/y); theirs takes none.
    expect(compile(read('mod(x, -3)')).value(7)).toBe(-2)
    expect(compile(read('mod(x, 0)')).value(7)).toBeNaN()
  })

  test.each([
    ['-1 mod 3', 2],
    ['5 - 1 mod 3', 4],
    ['2x mod 3', 1],
    ['2 mod(x, 3) + 1', 5],
    ['x mod (1 + 2)', 2],
    ['5 + -7 mod 3', 7],
    ['x! mod 7', 1],
    ['10 mod 7 mod 2', 1],
    ['x \\bmod 3', 2],
  ])('%s is read as it is said', (text, expected) => {
    // 5! = 120 = 17 · 7 + 1.
    expect(compile(read(text)).value(5)).toBe(expected)
    expect(compile(read(toText(read(text)))).value(5)).toBe(expected)
    expect(compile(read(toLatex(read(text)))).value(5)).toBe(expected)
  })

  test('jumps and vanishes at the multiples, and its area is known', () => {
    const found = examine(compile(read('x mod 3')), -4, 7)
    expect(found.complete).toBe(true)
    expect(found.zeros.map((z) => z.x)).toEqual([-3, 0, 3, 6])
    expect(found.breaks.map((b) => [b.x, b.kind])).toEqual([-3, 0, 3, 6].map((at) => [at, 'jump']))
    expect(found.rising).toHaveLength(5)
  })

  test('has one slope between its jumps, and none at them', () => {
    const slope = differentiate(read('4 + x mod 3'), 'x')
    expect(toPlain(slope)).toBe('1 if x/3 ≠ floor(x/3)')
    const f = compile(slope)
    expect([f.value(1.5), f.value(-0.5), f.value(3)]).toEqual([1, 1, NaN])
  })

  test.each(['mod(x)', 'mod(x, 2, 3)', 'mod 3', 'x mod'])('%s is told what is missing', (text) => {
    const parsed = parseFormula(text)
    expect(parsed.ok).toBe(false)
    if (!parsed.ok) expect(parsed.problems[0]!.message).toMatch(/two values|parentheses|missing/)
  })
})

describe('the sign of a factorial', () => {
  test.each([
    ['5!', 120],
    ['x^3/3!', 4.5],
    ['2x!', 12],
    ['x!^2', 36],
    ['(x + 1)!', 24],
    ['-x!', -6],
    ['sin(0)!', 1],
  ])('%s', (text, expected) => {
    expect(compile(read(text)).value(3)).toBe(expected)
    expect(compile(read(toText(read(text)))).value(3)).toBe(expected)
    expect(compile(read(toLatex(read(text)))).value(3)).toBe(expected)
  })

  test('two of them are asked about, and != stays a relation', () => {
    expect(parseFormula('x!!').ok).toBe(false)
    expect(compile(read('1 if x != 3; 2 otherwise')).value(3)).toBe(2)
  })
})

describe('what a double cannot hold', () => {
  const held = (text: string, at: number) => heldAt(compile(read(text)), at)

  test('is told from 0 and from poles', () => {
    // By hand: none of these is 0; log₁₀ of the first is −347.
    for (const [text, at] of [
      ['sech x', 800],
      ['e^(-x)', 800],
      ['x^200', 1e-10],
      ['1/x^3', 1e200],
      ['3 e^(-x^2)', 40],
      ['csch(x)/x', -800],
    ] as const) {
      expect([text, held(text, at)]).toEqual([text, 'tooSmall'])
    }
    for (const [text, at] of [
      ['sin x', 0],
      ['x e^(-x)', 0],
      ['floor x', 0.5],
      ['x - x', 3],
      ['(x - 3)^2', 3],
    ] as const) {
      expect([text, held(text, at)]).toEqual([text, 'held'])
    }
    for (const [text, at] of [
      ['e^x', 800],
      ['x!', 171],
      ['csch x', 1e-320],
      ['-cosh x', 1000],
    ] as const) {
      expect([text, held(text, at)]).toEqual([text, 'tooLarge'])
    }
    expect(held('1/x', 0)).toBe('held')
    expect(held('ln x', 0)).toBe('held')
    expect(held('sech x', 700)).toBe('held')
  })
})
