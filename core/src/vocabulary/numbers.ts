/** How many decimals a study may show. */
export const mostDecimals = 12

const minus = '−'
/** From here on numbers carry an exponent. */
const exponentFrom = 1e15

/**
 * A number rounded for reading: to the given decimals, ties away from zero, trailing zeros kept,
 * U+2212 for minus and no negative zero; from 1E15 on with an exponent. The shortest decimal of the
 * double is what gets rounded, so 1.0005, as a person typed it, gives 1.001. NaN is "none".
 */
export function formatNumber(value: number, decimals: number): string {
  if (Number.isNaN(value)) return 'none'
  if (!Number.isFinite(value)) return value < 0 ? `${minus}∞` : '∞'
  if (Math.abs(value) >= exponentFrom) {
    const [mantissa, exponent] = value.toExponential(Math.min(decimals, 15)).split('e+')
    return `${mantissa}E${exponent}`.replace('-', minus)
  }
  const rounded = roundDecimal(value, decimals)
  return /[1-9]/.test(rounded) ? rounded.replace('-', minus) : rounded.replace('-', '')
}

/**
 * What is certain of a number that lies between lo and hi: rounded to the given decimals where both
 * ends round alike, else to as many as they share, which `certain` false tells; at the worst the
 * middle, to whole numbers.
 */
export function formatCertain(
  [lo, hi]: readonly [number, number],
  decimals: number,
): { text: string; certain: boolean } {
  for (let d = decimals; d >= 0; d--) {
    const text = formatNumber(lo, d)
    if (text === formatNumber(hi, d)) return { text, certain: d === decimals }
  }
  return { text: formatNumber((lo + hi) / 2, 0), certain: false }
}

/** The same for places that are edited: no padding, so 2 stays 2 and 4.20 is 4.2. */
export function formatShort(value: number, decimals: number): string {
  const text = formatNumber(value, decimals)
  return text.includes('.') && !text.includes('E') ? text.replace(/\.?0+$/, '') : text
}

/** Beyond this many decimals two ends of a stretch count as one place. */
const closestApart = 15

const raised = '⁰¹²³⁴⁵⁶⁷⁸⁹'
/** A number as 2.5·10⁻⁷, rounded to so many decimals without padding; 2.5 where the power is 0. */
export function formatPower(value: number, decimals = 1): string {
  if (value === 0 || !Number.isFinite(value)) return formatNumber(value, 0)
  const [mantissa, exponent] = value.toExponential(decimals).split('e') as [string, string]
  const front = mantissa.replace(/\.?0+$/, '').replace('-', minus)
  if (exponent === '+0') return front
  const power = [...exponent.replace('+', '')]
    .map((c) => (c === '-' ? '⁻' : raised[Number(c)]))
    .join('')
  const plain = front === '1' || front === `${minus}1`
  return plain ? front.replace('1', `10${power}`) : `${front}·10${power}`
}

/** As `formatShort`, but a number that would read 0 and is not is written as a power of ten. */
export function formatTiny(value: number, decimals: number): string {
  const text = formatShort(value, decimals)
  return text === '0' && value !== 0 ? formatPower(value, 3) : text
}

/** As `formatNumber`, but a number that would read 0 and is not takes digits or a power of ten. */
export function formatNotZero(value: number, decimals: number): string {
  const text = formatNumber(value, decimals)
  if (/[1-9∞n]/.test(text) || value === 0) return text
  return Math.abs(value) >= 1e-4 ? formatShort(value, 6) : formatPower(value, 3)
}

/** So many decimals more than the study has an exact number may show. */
export const moreWhereExact = 3
/** A longer decimal may be one by chance alone. */
const mostDigits = 12
/** What a short decimal differs from by less than this is that decimal, up to the rounding of doubles. */
const rounding = 8 * Number.EPSILON

/**
 * A number in running text, of which no form is known: as it is where a short decimal is all of it,
 * else rounded and behind ≈; a number that is not 0 never reads 0.
 */
export function sayNumber(value: number, decimals: number): string {
  if (!Number.isFinite(value) || value === 0) return formatNumber(value, 0)
  if (Math.abs(value) >= exponentFrom) {
    const text = formatNumber(value, decimals)
    return Number(text.replace(minus, '-')) === value ? text : `≈ ${text}`
  }
  const short = Number(value.toFixed(Math.min(mostDecimals, decimals + moreWhereExact)))
  const digits = String(short).replace(/e.*|[-.]|^0\.?0*/g, '').length
  const isShort = short !== 0 && digits <= mostDigits
  const isAll = isShort && Math.abs(short - value) <= rounding * Math.abs(value)
  if (isAll) return formatShort(short, mostDecimals)
  return `≈ ${formatNotZero(value, decimals)}`
}

/** The same in an output, where all are rounded that are not exact: without the sign. */
export const showNumber = (value: number, decimals: number): string =>
  sayNumber(value, decimals).replace('≈ ', '')

/**
 * A stretch in running text, closed unless told otherwise, with as many more decimals as tell its ends
 * apart: "[1, 2.5)", and "≈ [0, 1.618]" where an end is rounded.
 */
export function sayStretch(
  stretch: readonly [number, number],
  decimals: number,
  closed: readonly [from: boolean, to: boolean] = [true, true],
): string {
  const [lo, hi] = stretch
  const alike = formatShort(lo, decimals) === formatShort(hi, decimals)
  if (alike && decimals < closestApart && lo < hi) return sayStretch(stretch, decimals + 1, closed)
  const isRounded = stretch.some((x) => sayNumber(x, decimals).startsWith('≈'))
  const inside = stretch.map((x) => showNumber(x, decimals)).join(', ')
  return `${isRounded ? '≈ ' : ''}${closed[0] ? '[' : '('}${inside}${closed[1] ? ']' : ')'}`
}

/** A stretch as "[1, 2.5]", with as many more decimals than the given as tell its ends apart. */
export function formatStretch([lo, hi]: readonly [number, number], decimals: number): string {
  const alike = formatShort(lo, decimals) === formatShort(hi, decimals)
  return alike && decimals < closestApart && lo < hi
    ? formatStretch([lo, hi], decimals + 1)
    : `[${formatShort(lo, decimals)}, ${formatShort(hi, decimals)}]`
}

/** Decimals that a step such as 0.25 needs, at most 12. */
export function decimalsOfStep(step: number): number {
  const [, fraction = ''] = plainDigits(step).split('.')
  return Math.min(fraction.length, mostDecimals)
}

/** A number as text that the formula language reads back to the same number. */
export const numberToFormula = (value: number): string => String(value).replace(/e\+?/, 'E')

/** The shortest decimal of a double without an exponent. */
function plainDigits(value: number): string {
  const text = String(Math.abs(value))
  const [mantissa = '0', exponentText] = text.split('e')
  const exponent = Number(exponentText ?? 0)
  const [whole = '0', fraction = ''] = mantissa.split('.')
  const digits = whole + fraction
  const point = whole.length + exponent
  if (point <= 0) return `0.${'0'.repeat(-point)}${digits}`
  if (point >= digits.length) return digits + '0'.repeat(point - digits.length)
  return `${digits.slice(0, point)}.${digits.slice(point)}`
}

function roundDecimal(value: number, decimals: number): string {
  const [whole = '0', fraction = ''] = plainDigits(value).split('.')
  const kept = fraction.slice(0, decimals).padEnd(decimals, '0')
  let scaled = BigInt(whole + kept)
  if ((fraction[decimals] ?? '0') >= '5') scaled += 1n
  const digits = scaled.toString().padStart(decimals + 1, '0')
  const split = digits.length - decimals
  const text = decimals > 0 ? `${digits.slice(0, split)}.${digits.slice(split)}` : digits
  return value < 0 ? `-${text}` : text
}
