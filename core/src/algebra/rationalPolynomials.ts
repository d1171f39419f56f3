import {
  addRational,
  divideRational,
  multiplyRational,
  negateRational,
  one,
  type Rational,
  rational,
  zero,
} from '../arithmetic/rational'

/** Fractions as coefficients, constant first, the last one not 0; [] is the zero polynomial. */
export type Coefficients = readonly Rational[]

export function trimmed(p: Coefficients): Rational[] {
  let end = p.length
  while (end > 0 && p[end - 1]!.n === 0n) end -= 1
  return p.slice(0, end)
}

export const added = (p: Coefficients, q: Coefficients): Rational[] =>
  trimmed(
    Array.from({ length: Math.max(p.length, q.length) }, (_, i) =>
      addRational(p[i] ?? zero, q[i] ?? zero),
    ),
  )

export function multiplied(p: Coefficients, q: Coefficients): Rational[] {
  if (p.length === 0 || q.length === 0) return []
  const out = new Array<Rational>(p.length + q.length - 1).fill(zero)
  p.forEach((a, i) =>
    q.forEach((b, j) => (out[i + j] = addRational(out[i + j]!, multiplyRational(a, b)))),
  )
  return trimmed(out)
}

export const scaled = (p: Coefficients, factor: Rational): Rational[] =>
  trimmed(p.map((c) => multiplyRational(c, factor)))

export const raised = (p: Coefficients, n: number): Rational[] =>
  Array.from({ length: n }).reduce<Rational[]>((out) => multiplied(out, p), [one])

export const slopeOf = (p: Coefficients): Rational[] =>
  p.slice(1).map((c, i) => multiplyRational(c, rational(BigInt(i + 1))))

/** p = q · whole + rest, with a rest of a lower degree than q, which must not be 0. */
export function divided(p: Coefficients, q: Coefficients): { whole: Rational[]; rest: Rational[] } {
  const whole = new Array<Rational>(Math.max(0, p.length - q.length + 1)).fill(zero)
  let rest = trimmed(p)
  while (rest.length >= q.length) {
    const shift = rest.length - q.length
    const factor = divideRational(rest.at(-1)!, q.at(-1)!)
    whole[shift] = factor
    const taken = [...new Array<Rational>(shift).fill(zero), ...scaled(q, negateRational(factor))]
    rest = added(rest.slice(0, -1), taken.slice(0, -1))
  }
  return { whole: trimmed(whole), rest }
}

/** The value at a fraction, by Horner's rule. */
export const valueAt = (p: Coefficients, x: Rational): Rational =>
  p.reduceRight((total, c) => addRational(multiplyRational(total, x), c), zero)
