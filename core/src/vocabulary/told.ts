import { Decimal } from 'decimal.js'
import { type Rational, toDecimalText, toNumber } from '../arithmetic/rational'
import * as I from '../arithmetic/intervals'
import { compileBoxes } from '../evaluate/enclosures'
import { exactRational } from '../evaluate/exactRational'
import { type Certain, certainValue } from '../evaluate/precise'
import { exactly, type Tree } from '../formula/tree'
import type { FunctionName } from '../functions'
import { closedForm, type ExactForm } from './exactForms'
import { formatNumber, moreWhereExact } from './numbers'

/** A number as it stands under a sentence: every digit of its text is right. */
export interface Told {
  /** The double nearest to it; NaN where there is none. */
  value: number
  text: string
  /** With fractions, roots and π, where it has such a form that says more than the text. */
  exact?: ExactForm
  /** The fraction that it is, where that is known. */
  fraction?: Rational
  /** False where its digits could not be made certain. */
  certain: boolean
}

/** Longer than this nobody reads a decimal. */
const longestDecimal = 15

/** A fraction as the decimal it is, without padding; null where that does not end, or is long. */
export function plainDecimal(fraction: Rational, decimals: number): string | null {
  const text = toDecimalText(fraction)
  if (text === null || text.length > longestDecimal) return null
  const [, behind = ''] = text.split('.')
  return behind.length <= decimals + moreWhereExact ? text.replace('-', '−') : null
}

/** A fraction rounded to decimals, ties away from zero; as it is where that is short. */
export const formatFraction = (fraction: Rational, decimals: number): string =>
  plainDecimal(fraction, decimals) ?? formatDecimal(quotientOf(fraction, decimals), decimals)

/**
 * A number of many digits rounded to decimals, ties away from zero, with U+2212 for minus; from 1E15 on
 * with an exponent. One that is not 0 and would read so takes digits or a power of ten.
 */
export function formatDecimal(value: Decimal, decimals: number): string {
  if (value.isZero()) return formatNumber(0, decimals)
  if (!value.isFinite()) return formatNumber(value.toNumber(), decimals)
  if (value.abs().greaterThanOrEqualTo('1e15')) {
    const [mantissa, exponent] = value.toExponential(Math.min(decimals, 15)).split('e+')
    return `${mantissa}E${exponent}`.replace('-', '−')
  }
  if (value.e < -decimals - 1) return small(value).replace('-', '−')
  const text = value.toFixed(decimals, Decimal.ROUND_HALF_UP)
  return (/[1-9]/.test(text) ? text : small(value)).replace('-', '−')
}

/** Digits of what would read 0: 0.00042, 2.4·10⁻⁸. */
function small(value: Decimal): string {
  if (value.e >= -4) return value.toSignificantDigits(3).toFixed()
  const [mantissa = '', exponent = ''] = value.toExponential(3).split('e')
  const front = mantissa.replace(/\.?0+$/, '')
  const power = `10${[...exponent].map((c) => raised[c] ?? '').join('')}`
  if (front === '1') return power
  return front === '-1' ? `-${power}` : `${front}·${power}`
}
const raised: Readonly<Record<string, string>> = {
  '-': '⁻',
  ...Object.fromEntries([...'⁰¹²³⁴⁵⁶⁷⁸⁹'].map((digit, i) => [String(i), digit])),
}

/** A fraction with enough digits to be rounded right: what is cut off is no tie. */
function quotientOf({ n, d }: Rational, decimals: number): Decimal {
  const size = Math.max(1, n.toString().length - d.toString().length + 2)
  const Digits = Decimal.clone({ precision: Math.max(60, size + decimals + 40) })
  return Digits.div(String(n), String(d))
}

/** The text of a number between two others, where both read alike. */
function sharedText({ lo, hi }: Certain, decimals: number): string | null {
  const text = formatDecimal(lo, decimals)
  return text === formatDecimal(hi, decimals) ? text : null
}

/**
 * A formula without names, as a number to be read: exact where it is known exactly and short, else
 * rounded to digits that are certain. They are by the enclosure of doubles, or, where these cancel, by
 * as many digits as it takes. `forms` are the functions that its exact form may have; null leaves it out:
 * while a slider moves, one that comes and goes reads badly.
 */
export function tellNumber(
  tree: Tree,
  decimals: number,
  forms: readonly FunctionName[] | null,
): Told {
  const fraction = exactRational(tree)
  if (fraction) return tellFraction(fraction, decimals, forms !== null)
  const form = forms && closedForm(tree, decimals, forms)
  const found = certainText(tree, decimals)
  return { ...found, ...(form ? { exact: form } : {}) }
}

/** The same for a fraction. */
export function tellFraction(fraction: Rational, decimals: number, forms = true): Told {
  const text = formatFraction(fraction, decimals)
  const form = forms ? closedForm(exactly(fraction), decimals, []) : null
  return {
    value: toNumber(fraction),
    text,
    fraction,
    certain: true,
    ...(form ? { exact: form } : {}),
  }
}

/** Both ends read alike, and are near enough to be drawn. */
function isSettled(one: Certain, decimals: number): boolean {
  const { lo, hi } = one
  if (sharedText(one, decimals) === null) return false
  const size = Decimal.max(lo.abs(), hi.abs())
  return hi.minus(lo).lessThanOrEqualTo(size.times('1e-13'))
}

function certainText(tree: Tree, decimals: number): Told {
  const notes = I.noNotes()
  const box = compileBoxes(tree, '')(I.point(0), 1, notes)[0]!
  if (notes.empty && !notes.jumps)
    return { value: NaN, text: formatNumber(NaN, decimals), certain: true }
  const inDoubles = textOfBox(box, decimals)
  if (inDoubles) return { value: I.middle(box), text: inDoubles, certain: true }
  const found = certainValue(tree, '', 0, {}, (one) => isSettled(one, decimals))
  if (!found) {
    const value = I.middle(box)
    return { value, text: formatNumber(value, decimals), certain: false }
  }
  const { lo, hi } = found
  const value = lo.plus(hi).div(2)
  // What no number of digits tells from a tie, or from 0, is that.
  const text =
    sharedText(found, decimals) ??
    (lo.isNegative() !== hi.isNegative()
      ? formatNumber(0, decimals)
      : formatDecimal(value.isNegative() ? lo : hi, decimals))
  return { value: lo.isNegative() !== hi.isNegative() ? 0 : value.toNumber(), text, certain: true }
}

/** A box of doubles holds enough where its ends read alike and not as 0. */
function textOfBox({ lo, hi }: I.Interval, decimals: number): string | null {
  if (!Number.isFinite(lo) || !Number.isFinite(hi)) return null
  if (Math.max(Math.abs(lo), Math.abs(hi)) >= 1e15) return null
  const text = formatNumber(lo, decimals)
  if (text !== formatNumber(hi, decimals)) return null
  // Near enough for what is drawn, too.
  const isNear = hi - lo <= 1e-9 * Math.max(Math.abs(lo), Math.abs(hi))
  return isNear && /[1-9]/.test(text) ? text : null
}
