import { sayNumber, showNumber } from '../../vocabulary/numbers'

/** "(1, 2)", and "≈ (0.333, 2)" where a coordinate is rounded or not known exactly. */
export function placeSaidAs(place: readonly number[], decimals: number, isExact = true): string {
  const isRounded = !isExact || place.some((v) => sayNumber(v, decimals).startsWith('≈'))
  return `${isRounded ? '≈ ' : ''}(${place.map((v) => showNumber(v, decimals)).join(', ')})`
}

/** A bound to read: two digits, rounded up, so that what it says stays true. */
export function boundSaid(bound: number): string {
  if (bound === 0) return '0'
  const size = 10 ** (Math.floor(Math.log10(bound)) - 1)
  const up = Math.ceil(bound / size) * size
  const text = Number(up.toPrecision(2)) >= bound ? Number(up.toPrecision(2)) : up
  return showNumber(text, 12)
}

/** Terms with their signs, as in 2 − 3(x − 1) + y; a term that reads 0 is left out. */
export function termsSaid(constant: string, terms: readonly (readonly [string, string])[]): string {
  let text = isZero(constant) ? '' : constant
  for (const [factor, of] of terms) {
    if (isZero(factor)) continue
    const isNegative = factor.startsWith('−')
    const size = isNegative ? factor.slice(1) : factor
    const power = /[⁰¹²³⁴⁵⁶⁷⁸⁹E]/.test(size) ? `${size} ` : size
    const term = `${size === '1' ? '' : power}${of}`
    text =
      text === '' ? `${isNegative ? '−' : ''}${term}` : `${text} ${isNegative ? '−' : '+'} ${term}`
  }
  return text === '' ? '0' : text
}

const isZero = (text: string) => !/[1-9∞]/.test(text)

/** "(x − 1)", "(x + 2)", and "x" for 0: how far from a place. */
export function runSaid(letter: string, place: string): string {
  if (isZero(place)) return letter
  return place.startsWith('−') ? `(${letter} + ${place.slice(1)})` : `(${letter} − ${place})`
}
