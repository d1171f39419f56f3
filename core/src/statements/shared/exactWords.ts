import { formatNotZero } from '../../vocabulary/numbers'
import * as I from '../../arithmetic/intervals'
import { toDecimalText } from '../../arithmetic/rational'
import { isNumber, type Tree } from '../../formula/tree'
import { closedForm } from '../../vocabulary/exactForms'

/**
 * A number as running text has it: exact where it is known exactly and short, "= 16/3", else rounded,
 * "≈ 0.637".
 */
export function equalWords(
  { tree, range }: { tree: Tree; range: I.Interval },
  decimals: number,
): string {
  const places = Math.max(3, decimals)
  const form = closedForm(tree, places, ['sqrt'])
  if (form) return `= ${form.text}`
  const plain = isNumber(tree) ? toDecimalText(tree.exact) : null
  if (plain !== null && plain.length <= places + 12) return `= ${plain.replace('-', '−')}`
  return `≈ ${formatNotZero(I.middle(range), places)}`
}
