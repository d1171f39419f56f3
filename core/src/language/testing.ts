import fc from 'fast-check'
import { compile, parseFormula } from '..'
import type { Tree } from '../formula/tree'

export function read(text: string, names: string[] = ['a', 'b', 'h'], variable = 'x'): Tree {
  const parsed = parseFormula(text, { variable, names })
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems.map((p) => p.message).join('; ')}`)
  return parsed.tree
}

/** Random formulas as text, built from the grammar people use. */
export const formulaText: fc.Arbitrary<string> = fc.letrec<{ all: string }>((tie) => ({
  all: fc.oneof(
    { maxDepth: 4, depthSize: 'small' },
    fc.constantFrom('x', '2', '0.5', 'pi', 'e', '3', 'x'),
    fc
      .tuple(tie('all'), fc.constantFrom('+', '-', '*', '/'), tie('all'))
      .map(([a, op, b]) => `(${a}) ${op} (${b})`),
    fc.tuple(tie('all'), tie('all')).map(([a, b]) => `(${a})(${b})`),
    tie('all').map((a) => `-(${a})`),
    fc
      .tuple(tie('all'), fc.constantFrom('2', '3', '-1', '0.5', '(1/3)'))
      .map(([a, n]) => `(${a})^${n}`),
    fc
      .tuple(
        fc.constantFrom('sin', 'cos', 'exp', 'ln', 'sqrt', 'abs', 'arctan', 'floor'),
        tie('all'),
      )
      .map(([f, a]) => `${f}(${a})`),
    fc.tuple(tie('all'), tie('all')).map(([a, b]) => `(${a} if x < 1; ${b} otherwise)`),
  ),
})).all

export const sameValue = (a: number, b: number) =>
  (Number.isNaN(a) && Number.isNaN(b)) ||
  a === b ||
  Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a))

export const valueAt = (text: string, x: number, parameters = {}) =>
  compile(read(text, Object.keys(parameters)), { parameters }).value(x)
