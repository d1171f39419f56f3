import reference from '../../reference/values.json'
import { compile, differentiate, parseFormula } from '..'
import type { Tree } from '../formula/tree'

/*
 * The table is made by reference/values.py with the version of mpmath that it names, from 80
 * digits. The bounds are the ones docs/accuracy.md promises.
 */
const valueBound = 1e-13
const derivativeBound = 1e-10

const trees = new Map<string, Tree>()
function read(text: string): Tree {
  const known = trees.get(text)
  if (known) return known
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problems[0]!.message}`)
  trees.set(text, parsed.tree)
  return parsed.tree
}

test('the table is there', () => {
  expect(reference['made with']).toMatch(/^mpmath \d/)
  expect(reference.table.length).toBeGreaterThan(120)
})

describe.each([...new Set(reference.table.map((row) => row.formula))])('%s', (formula) => {
  const rows = reference.table.filter((row) => row.formula === formula)

  test('values', () => {
    const f = compile(read(formula))
    for (const { x, derivatives } of rows) {
      const [value, slope] = derivatives.map(Number) as [number, number]
      const allowed = valueBound * (Math.abs(value) + Math.abs(Number(x) * slope))
      expect({ x, off: Math.abs(f.value(Number(x)) - value) <= allowed }).toEqual({ x, off: true })
      expect(f.values([Number(x)])[0]).toBe(f.value(Number(x)))
    }
  })

  test('derivatives to order 6 by Taylor arithmetic', () => {
    const f = compile(read(formula))
    for (const { x, derivatives } of rows) {
      const ours = f.derivatives(Number(x), 6)
      const bound = Math.abs(Number(x)) < 1 ? besideGap.get(formula) : undefined
      derivatives.forEach((text, order) => {
        expect({ x, order, near: isNear(ours[order]!, Number(text), derivatives, bound) }).toEqual({
          x,
          order,
          near: true,
        })
      })
    }
  })

  test('the symbolic derivative agrees to order 3', () => {
    let tree = read(formula)
    for (let order = 1; order <= 3; order++) {
      tree = differentiate(tree, 'x')
      const f = compile(tree)
      for (const { x, derivatives } of rows) {
        const near = isNear(f.value(Number(x)), Number(derivatives[order]), derivatives)
        expect({ x, order, near }).toEqual({ x, order, near: true })
      }
    }
  })
})

/*
 * Beside a removable gap, as sin(x)/x has at 0, each order divides by x once more and the rounding
 * of sin x grows with it: the sixth derivative at 0.3 keeps nine digits. docs/accuracy.md says so.
 */
const besideGap = new Map([
  ['sin(x)/x', 1e-8],
  ['(1 - cos x)/x^2', 1e-6],
])

/** A derivative that is nothing is measured against the others of its function. */
function isNear(
  ours: number,
  theirs: number,
  all: readonly string[],
  bound = derivativeBound,
): boolean {
  const size = theirs === 0 ? Math.max(...all.map((d) => Math.abs(Number(d)))) : Math.abs(theirs)
  return Math.abs(ours - theirs) <= bound * size
}
