import {
  addRational,
  divideRational,
  multiplyRational,
  negateRational,
  type Rational,
  zero,
} from './rational'

/**
 * The one solution of a system of linear equations, by Gaussian elimination in fractions, so exactly;
 * each row holds the coefficients of one equation, of which there may be more than unknowns. Null where
 * there is no solution, or more than one.
 */
export function solveLinear(
  rows: readonly (readonly Rational[])[],
  right: readonly Rational[],
): Rational[] | null {
  const unknowns = rows[0]?.length ?? 0
  const table = rows.map((row, i) => [...row, right[i]!])
  for (let column = 0; column < unknowns; column++) {
    const found = table.findIndex((row, i) => i >= column && row[column]!.n !== 0n)
    if (found < 0) return null
    ;[table[column], table[found]] = [table[found]!, table[column]!]
    const lead = table[column]!
    const scaled = lead.map((c) => divideRational(c, lead[column]!))
    table[column] = scaled
    table.forEach((row, i) => {
      const factor = row[column]!
      if (i === column || factor.n === 0n) return
      const turned = negateRational(factor)
      table[i] = row.map((c, k) => addRational(c, multiplyRational(turned, scaled[k]!)))
    })
  }
  const isSolved = table.slice(unknowns).every((row) => row[unknowns]!.n === 0n)
  return isSolved ? table.slice(0, unknowns).map((row) => row[unknowns] ?? zero) : null
}
