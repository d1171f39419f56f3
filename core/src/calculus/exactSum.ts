import {
  addRational,
  decimalOfNumber,
  divideRational,
  multiplyRational,
  negateRational,
  type Rational,
  rational,
  zero,
} from '../arithmetic/rational'
import { exactRational } from '../evaluate/exactRational'
import { withValues } from '../evaluate/withValues'
import type { RealFunction } from '../evaluate/compile'
import { substitute } from '../algebra/curves'
import { exactly } from '../formula/tree'
import type { SumRule } from './riemann'

/** More strips than this are not added up in fractions. */
export const mostExactStrips = 64

/**
 * The sum of f over equal strips as the fraction that it is, where both ends are fractions and f is one
 * at every place that is read; null where it is not, and for lower and upper sums, whose places need
 * not be fractions.
 */
export function exactSum(
  f: RealFunction,
  [from, to]: readonly [Rational, Rational],
  count: number,
  rule: SumRule,
): Rational | null {
  if (count > mostExactStrips || rule === 'lower' || rule === 'upper') return null
  const tree = withValues(f.tree, f.parameters)
  const width = divideRational(addRational(to, negateRational(from)), rational(BigInt(count)))
  const heightAt = (share: Rational) =>
    exactRational(
      substitute(tree, f.variable, exactly(addRational(from, multiplyRational(share, width)))),
    )
  let total: Rational = zero
  for (const { share, weight } of readings(count, rule)) {
    const height = heightAt(share)
    if (!height) return null
    total = addRational(total, multiplyRational(weight, height))
  }
  return multiplyRational(total, width)
}

/** Where heights are read, in widths from the first end, and how often each counts. */
function readings(count: number, rule: SumRule): { share: Rational; weight: Rational }[] {
  const at = (i: number, inside: Rational) => addRational(rational(BigInt(i)), inside)
  if (rule === 'trapezoid' || rule === 'simpson') {
    return Array.from({ length: count + 1 }, (_, i) => {
      const isEnd = i === 0 || i === count
      const times = rule === 'trapezoid' ? (isEnd ? 1n : 2n) : isEnd ? 1n : i % 2 === 1 ? 4n : 2n
      return { share: at(i, zero), weight: rational(times, rule === 'trapezoid' ? 2n : 3n) }
    })
  }
  const inside =
    rule === 'left'
      ? zero
      : rule === 'right'
        ? rational(1n)
        : rule === 'midpoint'
          ? rational(1n, 2n)
          : positionOf(rule)
  return Array.from({ length: count }, (_, i) => ({ share: at(i, inside), weight: rational(1n) }))
}

const positionOf = (rule: SumRule): Rational =>
  typeof rule === 'object' ? decimalOfNumber(rule.position) : zero
