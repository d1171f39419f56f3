import type { Rational } from './rational'

/**
 * base^exponent on the reals: NaN for a negative base with a broken exponent and for 0 to a
 * negative power; 0^0 is 1. With a literal fraction p/q of odd q the real root is meant, so that
 * (-8)^(1/3) is -2.
 */
export function realPower(base: number, exponent: number): number {
  if (exponent === 2) return base * base
  if (exponent === 3) return base * base * base
  if (exponent === 4) return base * base * (base * base)
  if (Number.isNaN(base) || (base === 0 && exponent < 0)) return NaN
  return Math.pow(base, exponent)
}

/** The real base^(p/q) for a literal fraction in lowest terms; even q wants a base of 0 or more. */
export function rootPower(fraction: Rational): (base: number) => number {
  const exponent = Number(fraction.n) / Number(fraction.d)
  if (fraction.d % 2n === 0n) return (base) => realPower(base, exponent)
  const oddAbove = fraction.n % 2n !== 0n
  const cubeRoot = fraction.d === 3n && fraction.n === 1n
  return (base) => {
    if (cubeRoot) return Math.cbrt(base)
    if (base >= 0) return realPower(base, exponent)
    const size = Math.pow(-base, exponent)
    return oddAbove ? -size : size
  }
}
