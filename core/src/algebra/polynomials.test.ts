import fc from 'fast-check'
import { parseFormula } from '..'
import { rootsBetween, squareFreeParts, toRationalFunction } from './polynomials'

function read(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return toRationalFunction(parsed.tree, 'x')
}

test('polynomials made from known roots give back every root with its multiplicity, and no other', () => {
  const roots = fc.uniqueArray(
    fc.record({ n: fc.integer({ min: -40, max: 40 }), times: fc.integer({ min: 1, max: 3 }) }),
    { minLength: 1, maxLength: 5, selector: (r) => r.n },
  )
  fc.assert(
    fc.property(roots, fc.constantFrom(1, 3, 8, 10), (all, d) => {
      const text = all.map(({ n, times }) => `(x - (${n}/${d}))^${times}`).join('')
      const parts = squareFreeParts(read(`${text}(x^2 + 1)`)!.above)
      const found = parts
        .flatMap(({ factor, multiplicity }) =>
          rootsBetween(factor, -50, 50).map(({ lo, hi }) => ({ lo, hi, multiplicity })),
        )
        .sort((a, b) => a.lo - b.lo)
      const expected = [...all].sort((a, b) => a.n - b.n)
      expect(found.length).toBe(expected.length)
      expected.forEach(({ n, times }, i) => {
        expect(found[i]!.multiplicity).toBe(times)
        expect(found[i]!.lo).toBeLessThanOrEqual(n / d)
        expect(found[i]!.hi).toBeGreaterThanOrEqual(n / d)
        expect(found[i]!.hi - found[i]!.lo).toBeLessThan(1e-14)
      })
    }),
    { numRuns: 200 },
  )
})

test('common factors go, and what is no rational function is none', () => {
  expect(read('(x^2 - 1)/(x - 1)')).toEqual({ above: [1n, 1n], below: [1n] })
  expect(read('1/x + 1/(x + 1)')).toEqual({ above: [1n, 2n], below: [0n, 1n, 1n] })
  expect(read('0.5x^2 - 0.1')).toEqual({ above: [-1n, 0n, 5n], below: [1n] })
  expect(read('sin x')).toBeNull()
  expect(read('pi x')).toBeNull()
})

// J. H. Wilkinson, Rounding Errors in Algebraic Processes, 1963: ∏(x − k), k = 1 … 20 (from memory).
test('the polynomial of Wilkinson has its twenty roots', () => {
  const text = Array.from({ length: 20 }, (_, i) => `(x - ${i + 1})`).join('')
  const roots = rootsBetween(read(text)!.above, 0, 21)
  expect(roots).toEqual(Array.from({ length: 20 }, (_, i) => ({ lo: i + 1, hi: i + 1 })))
})
