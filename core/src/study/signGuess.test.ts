import { compile, parseFormula, type SignGuess } from '..'
import { compareSigns, cutAt, moveCut, removeCut, startSignGuess, turnSign } from './signGuess'

function f(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compile(parsed.tree)
}
const marked = (from: number, to: number, cuts: number[], signs: (1 | -1 | null)[]): SignGuess => ({
  from,
  to,
  cuts,
  signs,
})

describe('marking signs', () => {
  test('a cut makes two stretches of one, which keep its mark', () => {
    const one = turnSign(startSignGuess(0, 10), 0)
    expect(one.signs).toEqual([1])
    const two = cutAt(cutAt(one, 6), 2)
    expect(two).toMatchObject({ cuts: [2, 6], signs: [1, 1, 1] })
    expect(turnSign(turnSign(two, 1), 1).signs).toEqual([1, null, 1])
    expect(removeCut(turnSign(two, 1), 0)).toMatchObject({ cuts: [6], signs: [1, 1] })
  })

  test('cuts stay inside, in order, and never double', () => {
    const guess = cutAt(cutAt(startSignGuess(0, 10), 3), 7)
    expect(cutAt(guess, 12)).toBe(guess)
    expect(cutAt(guess, 0)).toBe(guess)
    expect(cutAt(guess, 3)).toBe(guess)
    expect(moveCut(guess, 0, 9).cuts[0]).toBeLessThan(7)
    expect(moveCut(guess, 1, -5).cuts[1]).toBeGreaterThan(3)
    expect(moveCut(guess, 1, 99).cuts[1]).toBeLessThan(10)
  })
})

describe('comparing signs', () => {
  // x³ - 3x on [-2, 2]: − to -√3, + to 0, − to √3, + (by hand).
  const cubic = f('x^3 - 3x')

  test('all right, with cuts set by hand a little off', () => {
    const compared = compareSigns(cubic, marked(-2, 2, [-1.75, 0.02, 1.7], [-1, 1, -1, 1]))!
    expect(compared.stretches).toEqual(['right', 'right', 'right', 'right'])
    expect(compared).toMatchObject({ changes: 3, found: 3, missed: [] })
    expect(compared.furthest).toBeCloseTo(Math.sqrt(3) - 1.7, 6)
    expect(compared.right).toBe(1)
  })

  test('the other way round everything is wrong', () => {
    const compared = compareSigns(cubic, marked(-2, 2, [-1.732, 0, 1.732], [1, -1, 1, -1]))!
    expect(compared.stretches).toEqual(['wrong', 'wrong', 'wrong', 'wrong'])
    expect(compared.right).toBe(0)
  })

  test('a change that was not cut is missed, and its stretch is right in part', () => {
    const compared = compareSigns(cubic, marked(-2, 2, [-1.732], [-1, 1]))!
    expect(compared.stretches).toEqual(['right', 'partly'])
    expect(compared).toMatchObject({ changes: 3, found: 1 })
    expect(compared.missed[0]).toBeCloseTo(0, 6)
    expect(compared.missed[1]).toBeCloseTo(Math.sqrt(3), 6)
  })

  test('a zero without a change of sign is none: x² is + on both sides', () => {
    const compared = compareSigns(f('x^2'), marked(-1, 1, [], [1]))!
    expect(compared).toMatchObject({ changes: 0, found: 0, furthest: null, right: 1 })
  })

  test('what was not marked does not count, and without any mark there is nothing to compare', () => {
    const compared = compareSigns(cubic, marked(-2, 2, [-1.732, 0, 1.732], [-1, null, null, null]))!
    expect(compared.stretches).toEqual(['right', null, null, null])
    expect(compared.right).toBe(1)
    expect(compareSigns(cubic, startSignGuess(-2, 2))).toBeNull()
  })

  test('where f has no values nothing is counted', () => {
    const compared = compareSigns(f('ln x'), marked(-2, 2, [0, 1], [1, -1, 1]))!
    expect(compared.stretches).toEqual([null, 'right', 'right'])
    expect(compared.changes).toBe(1)
  })
})
