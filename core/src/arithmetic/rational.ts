/**
 * Exact fractions of big integers: what the numbers written in a formula are made of,
 * so that 4 · 0.9 simplifies to 3.6 and not to 3.6000000000000001.
 */
export interface Rational {
  /** Numerator, carries the sign. */
  readonly n: bigint
  /** Denominator, always above 0 and without a common factor with n. */
  readonly d: bigint
}

const abs = (a: bigint) => (a < 0n ? -a : a)

export function greatestCommonDivisor(a: bigint, b: bigint): bigint {
  let [p, q] = [abs(a), abs(b)]
  while (q !== 0n) [p, q] = [q, p % q]
  return p
}

/** n/d in lowest terms. Throws RangeError for d = 0. */
export function rational(n: bigint, d: bigint = 1n): Rational {
  if (d === 0n) throw new RangeError('a fraction needs a denominator other than 0')
  const sign = d < 0n ? -1n : 1n
  const g = greatestCommonDivisor(n, d)
  return g === 0n ? { n: 0n, d: 1n } : { n: (sign * n) / g, d: (sign * d) / g }
}

export const zero = rational(0n)
export const one = rational(1n)

export const addRational = (a: Rational, b: Rational) => rational(a.n * b.d + b.n * a.d, a.d * b.d)
export const multiplyRational = (a: Rational, b: Rational) => rational(a.n * b.n, a.d * b.d)
export const divideRational = (a: Rational, b: Rational) => rational(a.n * b.d, a.d * b.n)
export const negateRational = (a: Rational): Rational => ({ n: -a.n, d: a.d })
export const isWhole = (a: Rational) => a.d === 1n

/** a to a whole power; a must not be 0 for a negative one. */
export function powerRational(a: Rational, exponent: number): Rational {
  const e = BigInt(Math.abs(exponent))
  return exponent < 0 ? rational(a.d ** e, a.n ** e) : { n: a.n ** e, d: a.d ** e }
}

/** Exactly the number a decimal literal such as "1.5E-3" stands for. */
export function rationalFromDecimal(text: string): Rational {
  const [mantissa = '0', exponentText = '0'] = text.split('E')
  const [whole = '', fraction = ''] = mantissa.split('.')
  const digits = BigInt((whole + fraction).replace(/^0+(?=\d)/, '') || '0')
  const exponent = Number(exponentText) - fraction.length
  return exponent >= 0
    ? rational(digits * 10n ** BigInt(exponent))
    : rational(digits, 10n ** BigInt(-exponent))
}

/** The number that a finite double is written as, its shortest decimal: 1/10 for 0.1. */
export function decimalOfNumber(value: number): Rational {
  if (!Number.isFinite(value)) throw new RangeError(`not a finite number: ${value}`)
  return rationalFromDecimal(String(value).replace(/e\+?/, 'E'))
}

/** Exactly the binary number a finite double stands for. */
export function rationalFromNumber(value: number): Rational {
  if (!Number.isFinite(value)) throw new RangeError(`not a finite number: ${value}`)
  let scaled = value
  let twos = 0
  while (!Number.isInteger(scaled)) {
    scaled *= 2
    twos += 1
  }
  return rational(BigInt(scaled), 1n << BigInt(twos))
}

const bitLength = (a: bigint) => a.toString(2).length

/** The nearest double (ties as BigInt to Number conversion: to even; correct to the last bit). */
export function toNumber({ n, d }: Rational): number {
  if (n === 0n) return 0
  if (abs(n) < 2n ** 53n && d < 2n ** 53n) return Number(n) / Number(d)
  const shift = 66 - (bitLength(abs(n)) - bitLength(d))
  const top = shift >= 0 ? abs(n) << BigInt(shift) : abs(n)
  const bottom = shift >= 0 ? d : d << BigInt(-shift)
  // A set last bit stands for "and a little more", so the one rounding sees ties as they are.
  const quotient = top / bottom
  const sticky = top % bottom === 0n ? quotient : quotient | 1n
  const value = Number(sticky) * 2 ** (-shift / 2) * 2 ** (-shift / 2)
  return n < 0n ? -value : value
}

/** The finite decimal expansion, such as "-3.6", or null where the expansion never ends. */
export function toDecimalText({ n, d }: Rational): string | null {
  let rest = d
  let twos = 0
  let fives = 0
  while (rest % 2n === 0n) {
    rest /= 2n
    twos += 1
  }
  while (rest % 5n === 0n) {
    rest /= 5n
    fives += 1
  }
  if (rest !== 1n) return null
  const places = Math.max(twos, fives)
  const digits = ((abs(n) * 10n ** BigInt(places)) / d).toString().padStart(places + 1, '0')
  const whole = digits.slice(0, digits.length - places)
  const fraction = digits.slice(digits.length - places)
  return (n < 0n ? '-' : '') + whole + (fraction ? `.${fraction}` : '')
}
