import * as I from '../../arithmetic/intervals'
import { rational, rationalFromDecimal } from '../../arithmetic/rational'
import type { RealFunction } from '../../evaluate/compile'
import { withValues } from '../../evaluate/withValues'
import { Constants } from '../../features/limits/constants'
import { valueAtPlace } from '../../features/place/valueAt'
import { exactly, sum, type Tree } from '../../formula/tree'
import { formatCertain, formatPower, formatShort } from '../../vocabulary/numbers'
import type { LineContext, ResultRow, ResultTable } from '../contract'

/** Enough to see values differ that close. */
const tableDigits = 9
const powers = [1, 2, 3, 4, 5, 6]

/** A place as it is told, and exactly. */
interface At {
  x: number
  exact: Tree
}

/** Values closing in on a place from one or both sides: they show, and prove nothing. */
export function closingTable(
  f: RealFunction,
  place: { value: number; exact: Tree | null },
  sides: readonly ('left' | 'right')[],
  name: string,
  { variable, decimals }: LineContext,
): ResultTable {
  const columns = sides.flatMap((side) => [`${variable.letter} on the ${side}`, name])
  const centre = place.exact ?? exactly(rationalFromDecimal(plainText(place.value)))
  const rows = powers.map((k) => {
    const parts = sides.map((side): At => {
      const sign = side === 'left' ? -1 : 1
      const step = exactly(rational(BigInt(sign), 10n ** BigInt(k)))
      return { x: place.value + sign * 10 ** -k, exact: sum(centre, step) }
    })
    return rowOf(f, parts, decimals)
  })
  return { name: 'Closing in', columns, rows, count: rows.length, open: false }
}

/** Values further and further out. */
export function endTable(
  f: RealFunction,
  end: 1 | -1,
  columns: string[],
  decimals: number,
): ResultTable {
  const rows = powers.map((k) =>
    rowOf(
      f,
      [{ x: end * 10 ** k, exact: exactly(rational(BigInt(end) * 10n ** BigInt(k))) }],
      decimals,
    ),
  )
  return { name: 'Closing in', columns, rows, count: rows.length, open: false }
}

const plainText = (x: number) => (String(x).includes('e') ? x.toFixed(20) : String(x))

function rowOf(f: RealFunction, places: readonly At[], decimals: number): ResultRow {
  const digits = Math.max(decimals, tableDigits)
  const found = places.map((at) => valueText(f, at, digits))
  return {
    cells: places.flatMap(({ x }, i) => [formatShort(x, digits), found[i]!.text]),
    values: places.flatMap(({ x }, i) => [x, found[i]!.value]),
  }
}

/** A value with the digits that are certain at the exact place; ≈ where those are fewer. */
function valueText(
  f: RealFunction,
  { exact }: At,
  digits: number,
): { text: string; value: number | null } {
  const constants = new Constants({ variable: '', enclosure: I.point(0), zeros: new Set() })
  const tree = withValues(f.tree, f.parameters)
  const found = valueAtPlace(tree, f.variable, exact, constants)
  if (found === null || found === 'unsure') return { text: '—', value: null }
  const { lo, hi } = found.range
  const value = I.middle(found.range)
  if (!Number.isFinite(value)) return { text: '—', value: null }
  const shown = formatCertain([lo, hi], digits)
  const isZero = !/[1-9]/.test(shown.text)
  // What is not 0 is never shown as 0.
  if (isZero && (lo > 0 || hi < 0)) return { text: formatPower(value, 3), value }
  const certain = shown.certain && !(isZero && (lo !== 0 || hi !== 0))
  return { text: `${certain ? '' : '≈ '}${trimmed(shown.text)}`, value }
}

/** Without the zeros that only fill decimals up. */
const trimmed = (text: string) =>
  text.includes('.') && !text.includes('E') ? text.replace(/\.?0+$/, '') : text
