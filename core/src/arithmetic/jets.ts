/**
 * Truncated Taylor arithmetic. A jet holds the Taylor coefficients of a function at one point,
 * u(x0 + h) = u[0] + u[1] h + u[2] h² + …, all jets in one computation having the same length.
 * The recurrences are those of A. Griewank and A. Walther, Evaluating Derivatives, SIAM 2008,
 * chapter 13 (from memory). Outside a function's domain every coefficient is NaN; where a value
 * exists and derivatives do not, the value stands and the rest is NaN.
 */
export type Jet = Float64Array

/** Left of the point, the point itself, right of it. */
export type Side = -1 | 0 | 1

/**
 * From where a computation looks at its point. At a kink, a step or a join the point itself tells
 * no derivative: `splits` is set, and the two sides are then looked at on their own.
 */
export interface Look {
  readonly side: Side
  splits: boolean
}

export const constantJet = (value: number, length: number): Jet => {
  const jet = new Float64Array(length)
  jet[0] = value
  return jet
}

export const variableJet = (value: number, length: number): Jet => {
  const jet = constantJet(value, length)
  if (length > 1) jet[1] = 1
  return jet
}

export const undefinedJet = (length: number): Jet => new Float64Array(length).fill(NaN)

/** A value without derivatives, unless the argument does not move at all. */
export function valueOnly(value: number, u: Jet): Jet {
  const jet = new Float64Array(u.length).fill(isConstant(u) ? 0 : NaN)
  jet[0] = value
  return jet
}

export const isConstant = (u: Jet) => {
  for (let k = 1; k < u.length; k++) if (u[k] !== 0) return false
  return true
}

export function addJets(u: Jet, v: Jet): Jet {
  return u.map((c, k) => c + v[k]!)
}

export function scaleJet(u: Jet, factor: number): Jet {
  return u.map((c) => c * factor)
}

export function multiplyJets(u: Jet, v: Jet): Jet {
  const out = new Float64Array(u.length)
  for (let k = 0; k < out.length; k++) {
    let total = 0
    for (let j = 0; j <= k; j++) total += u[j]! * v[k - j]!
    out[k] = total
  }
  return out
}

export function divideJets(u: Jet, v: Jet): Jet {
  if (v[0] === 0) return undefinedJet(u.length)
  const out = new Float64Array(u.length)
  for (let k = 0; k < out.length; k++) {
    let total = u[k]!
    for (let j = 1; j <= k; j++) total -= v[j]! * out[k - j]!
    out[k] = total / v[0]!
  }
  return out
}

/**
 * The jet of v with v' = u' · g and the given value: the chain rule, integrated. Where there is no
 * value there is no slope either, though g may go on, as 1/(1 - u²) does beyond artanh.
 */
export function chainJet(u: Jet, value: number, g: Jet): Jet {
  if (Number.isNaN(value)) return undefinedJet(u.length)
  const out = new Float64Array(u.length)
  out[0] = value
  for (let k = 1; k < out.length; k++) {
    let total = 0
    for (let j = 1; j <= k; j++) total += j * u[j]! * g[k - j]!
    out[k] = total / k
  }
  return out
}

export function expJet(u: Jet): Jet {
  const out = new Float64Array(u.length)
  out[0] = Math.exp(u[0]!)
  for (let k = 1; k < out.length; k++) {
    let total = 0
    for (let j = 1; j <= k; j++) total += j * u[j]! * out[k - j]!
    out[k] = total / k
  }
  return out
}

export function lnJet(u: Jet): Jet {
  if (!(u[0]! > 0)) return undefinedJet(u.length)
  const out = new Float64Array(u.length)
  out[0] = Math.log(u[0]!)
  for (let k = 1; k < out.length; k++) {
    let total = u[k]! * k
    for (let j = 1; j < k; j++) total -= j * out[j]! * u[k - j]!
    out[k] = total / (k * u[0]!)
  }
  return out
}

/** Sine and cosine together (sign -1), or their hyperbolic counterparts (sign 1). */
function sinePair(u: Jet, sine: number, cosine: number, sign: 1 | -1): [Jet, Jet] {
  const s = new Float64Array(u.length)
  const c = new Float64Array(u.length)
  s[0] = sine
  c[0] = cosine
  for (let k = 1; k < u.length; k++) {
    let inSine = 0
    let inCosine = 0
    for (let j = 1; j <= k; j++) {
      inSine += j * u[j]! * c[k - j]!
      inCosine += j * u[j]! * s[k - j]!
    }
    s[k] = inSine / k
    c[k] = (sign * inCosine) / k
  }
  return [s, c]
}

export const sineCosineJets = (u: Jet) => sinePair(u, Math.sin(u[0]!), Math.cos(u[0]!), -1)
export const hyperbolicJets = (u: Jet) => sinePair(u, Math.sinh(u[0]!), Math.cosh(u[0]!), 1)

/** What a root makes of a negative base: its own sign (odd roots), no sign, or nothing. */
export type RootSign = 'odd' | 'even' | 'none'

/**
 * u^r for a fixed real r, given the value of u[0]^r. Where u is 0 the sides are looked at on their
 * own: there u is h^m·w with w not 0, so u^r is |h|^(mr)·|w|^r with the sign the root gives it.
 */
export function realPowerJet(
  u: Jet,
  r: number,
  value: number,
  look: Look,
  sign: RootSign = 'none',
): Jet {
  if (Number.isNaN(value)) return undefinedJet(u.length)
  if (u[0] !== 0) return awayFromZero(u, r, value)
  if (look.side === 0) {
    look.splits = true
    return valueOnly(value, u)
  }
  return besideZero(u, r, look.side, sign)
}

function awayFromZero(u: Jet, r: number, value: number): Jet {
  const out = new Float64Array(u.length)
  out[0] = value
  for (let k = 1; k < out.length; k++) {
    let total = 0
    for (let j = 1; j <= k; j++) total += (r * j - (k - j)) * u[j]! * out[k - j]!
    out[k] = total / (k * u[0]!)
  }
  return out
}

function besideZero(u: Jet, r: number, side: -1 | 1, sign: RootSign): Jet {
  const m = u.findIndex((c) => c !== 0)
  const out = new Float64Array(u.length).fill(NaN)
  // Nothing but zeros: u is at least of the order of its length.
  const power = (m < 0 ? u.length : m) * r
  out.fill(0, 0, Math.min(out.length, Math.max(1, Math.ceil(power - 1e-9))))
  if (m < 0) return out
  const below = signBeside(u, side) < 0
  if (below && sign === 'none') return undefinedJet(u.length)
  const shift = Math.round(power)
  if (Math.abs(power - shift) > 1e-9) return out
  const w = u.slice(m).map((c) => (u[m]! < 0 ? -c : c))
  const g = awayFromZero(w, r, Math.pow(w[0]!, r))
  const factor = (side < 0 && shift % 2 === 1 ? -1 : 1) * (below && sign === 'odd' ? -1 : 1)
  for (let k = shift; k < out.length && k - shift < g.length; k++) out[k] = factor * g[k - shift]!
  return out
}

/** u^n for a whole n, by squaring: right at zeros of u too. */
export function wholePowerJet(u: Jet, n: number): Jet {
  if (n < 0) return divideJets(constantJet(1, u.length), wholePowerJet(u, -n))
  let result = constantJet(1, u.length)
  let square = u
  for (let rest = n; rest > 0; rest = Math.floor(rest / 2)) {
    if (rest % 2 === 1) result = multiplyJets(result, square)
    if (rest > 1) square = multiplyJets(square, square)
  }
  return result
}

/** |u|: where u is 0 each side has its own sign. */
export function absJet(u: Jet, look: Look): Jet {
  if (u[0] !== 0) return u[0]! < 0 ? scaleJet(u, -1) : u
  if (look.side === 0) {
    look.splits = true
    return valueOnly(0, u)
  }
  return signBeside(u, look.side) < 0 ? scaleJet(u, -1) : u
}

/**
 * The jet of a function that follows one jet on the left and another on the right: equal
 * coefficients hold for both sides, and from the first difference on there is no derivative.
 * `value` is what the function itself has at the point; a value apart from both sides leaves none.
 */
export function joinJets(left: Jet, right: Jet, value = right[0]!): Jet {
  const out = new Float64Array(left.length).fill(NaN)
  out[0] = value
  if (!nearlyEqual(left[0]!, value) || !nearlyEqual(right[0]!, value)) return out
  for (let k = 1; k < out.length && nearlyEqual(left[k]!, right[k]!); k++) out[k] = right[k]!
  return out
}

/**
 * Equal but for rounding: both sides of a join come from different formulas. 1e-12 of the size
 * is a few thousand roundings and far below any kink a person would draw.
 */
export const nearlyEqual = (a: number, b: number) =>
  Math.abs(a - b) <= 1e-12 * Math.max(1, Math.abs(a), Math.abs(b))

/** The sign of u right beside the point: -1 for the left side, 1 for the right. */
export function signBeside(u: Jet, side: -1 | 1): number {
  for (let k = 0; k < u.length; k++) {
    if (Number.isNaN(u[k])) return NaN
    if (u[k] !== 0) return Math.sign(u[k]!) * (side < 0 && k % 2 === 1 ? -1 : 1)
  }
  return 0
}

/** True derivatives f, f', f'', … from Taylor coefficients, in place. */
export function toDerivatives(jet: Jet): number[] {
  let factorial = 1
  return Array.from(jet, (c, k) => {
    if (k > 1) factorial *= k
    return c * factorial
  })
}
