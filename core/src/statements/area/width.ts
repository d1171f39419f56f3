import {
  addRational,
  divideRational,
  negateRational,
  type Rational,
  rational,
  decimalOfNumber,
  toDecimalText,
  toNumber,
} from '../../arithmetic/rational'
import { exactRational } from '../../evaluate/exactRational'
import { simplify } from '../../algebra/simplify'
import { negate, quotient, sum, type Tree, whole } from '../../formula/tree'
import { treeSaid } from '../shared/said'
import { formatShort } from '../../vocabulary/numbers'
import { withUnit } from '../../vocabulary/units'

/** The width of a strip by the ends as they are written, without rounding. */
export const widthOf = (from: number, to: number, n: number) =>
  divideRational(
    addRational(decimalOfNumber(to), negateRational(decimalOfNumber(from))),
    rational(BigInt(n)),
  )
function shortDecimal(width: Rational): string | null {
  const text = toDecimalText(width)
  return text !== null && text.length <= longestDecimal ? text : null
}

/** "= 0.625 h", and "≈ 0.833333333 h" where that is rounded. */
export function widthText(width: Rational, unit: string): string {
  const short = shortDecimal(width)
  return short !== null
    ? `= ${withUnit(short, unit)}`
    : `≈ ${withUnit(formatShort(toNumber(width), 9), unit)}`
}

/** The width of a strip as a formula, where an end is no fraction, such as π/3; else null. */
export function widthTree(ends: readonly [Tree, Tree], n: number): Tree | null {
  if (ends.every((end) => exactRational(end) !== null)) return null
  return simplify(quotient(sum(ends[1], negate(ends[0])), whole(n)))
}

/** "= π/24 ≈ 0.131 h" */
export function widthTreeText(width: Tree, decimals: number, unit: string): string {
  const said = withUnit(treeSaid(width, decimals), unit)
  return said.startsWith('≈') ? said : `= ${said}`
}

/** A width as a decimal, or as a fraction of whole numbers where it has no short decimal. */
export function widthLatex(width: Rational): string {
  const rounded = () => formatShort(toNumber(width), 6)
  return (
    shortDecimal(width) ??
    (width.d <= largestDenominator ? `\\tfrac{${width.n}}{${width.d}}` : rounded())
  )
}
const largestDenominator = 10_000n
const longestDecimal = 9
