import * as I from './intervals'
import { type BoxNotes, type Interval } from './intervals'

/**
 * Taylor coefficients over a box: coefficient k holds f⁽ᵏ⁾(x)/k! for every x of the box where that
 * exists. At kinks it holds the slopes of both sides, so that mean-value forms stay true for
 * functions that are continuous.
 */
export type BoxJet = Interval[]

export const constantJet = (value: Interval, length: number): BoxJet => {
  const jet: BoxJet = new Array<Interval>(length).fill(I.zeroInterval)
  jet[0] = value
  return jet
}
export const unknownJet = (value: Interval, length: number): BoxJet => {
  const jet: BoxJet = new Array<Interval>(length).fill(I.everything)
  jet[0] = value
  return jet
}
export const addJets = (u: BoxJet, v: BoxJet): BoxJet => u.map((c, k) => I.add(c, v[k]!))
export const negateJet = (u: BoxJet): BoxJet => u.map(I.negated)
export const hullJets = (u: BoxJet, v: BoxJet): BoxJet => u.map((c, k) => I.hull(c, v[k]!))

export function multiplyJets(u: BoxJet, v: BoxJet): BoxJet {
  const same = u === v
  return u.map((_, k) => {
    let total = same && k === 0 ? I.square(u[0]!) : I.multiply(u[0]!, v[k]!)
    for (let j = 1; j <= k; j++) total = I.add(total, I.multiply(u[j]!, v[k - j]!))
    return total
  })
}

export function divideJets(u: BoxJet, v: BoxJet, notes: BoxNotes): BoxJet {
  const below = v[0]!
  if (I.holdsZero(below)) {
    notes.partial = true
    if (below.lo === 0 && below.hi === 0) notes.empty = true
    if (below.lo < 0 && below.hi > 0) notes.jumps = true
  }
  const out: BoxJet = []
  for (let k = 0; k < u.length; k++) {
    let total = u[k]!
    for (let j = 1; j <= k; j++) total = I.subtract(total, I.multiply(v[j]!, out[k - j]!))
    out.push(I.divide(total, below))
  }
  return out
}

/** The jet of v with v′ = u′·g and the given value. */
export function chainJet(u: BoxJet, value: Interval, g: BoxJet): BoxJet {
  const out: BoxJet = [value]
  for (let k = 1; k < u.length; k++) {
    let total = I.zeroInterval
    for (let j = 1; j <= k; j++) {
      total = I.add(total, I.multiply(I.scale(u[j]!, j), g[k - j]!))
    }
    out.push(I.divide(total, I.point(k)))
  }
  return out
}

/** The jet of v with v′ = u′·g(v), where each coefficient of g needs only earlier ones of v. */
export function grownJet(u: BoxJet, value: Interval, g: (v: BoxJet) => BoxJet): BoxJet {
  let out: BoxJet = [value]
  for (let k = 1; k < u.length; k++) {
    const slope = g(out)
    let total = I.zeroInterval
    for (let j = 1; j <= k; j++) {
      total = I.add(total, I.multiply(I.scale(u[j]!, j), slope[k - j]!))
    }
    out = [...out, I.divide(total, I.point(k))]
  }
  return out
}

export const onePlus = (sign: 1 | -1, u: BoxJet): BoxJet => {
  const squared = multiplyJets(u, u)
  return addJets(constantJet(I.point(1), u.length), sign === 1 ? squared : negateJet(squared))
}
export const reciprocal = (u: BoxJet, notes: BoxNotes) =>
  divideJets(constantJet(I.point(1), u.length), u, notes)

export function sinePair(
  u: BoxJet,
  sine: Interval,
  cosine: Interval,
  sign: 1 | -1,
): [BoxJet, BoxJet] {
  const s: BoxJet = [sine]
  const c: BoxJet = [cosine]
  for (let k = 1; k < u.length; k++) {
    let inSine = I.zeroInterval
    let inCosine = I.zeroInterval
    for (let j = 1; j <= k; j++) {
      const part = I.scale(u[j]!, j)
      inSine = I.add(inSine, I.multiply(part, c[k - j]!))
      inCosine = I.add(inCosine, I.multiply(part, s[k - j]!))
    }
    s.push(I.divide(inSine, I.point(k)))
    const turned = I.divide(inCosine, I.point(k))
    c.push(sign === 1 ? turned : I.negated(turned))
  }
  return [s, c]
}
export const circular = (u: BoxJet) => sinePair(u, I.sin(u[0]!), I.cos(u[0]!), -1)
export const hyperbolic = (u: BoxJet) => sinePair(u, I.sinh(u[0]!), I.cosh(u[0]!), 1)

export const expJet = (u: BoxJet): BoxJet => grownJet(u, I.exp(u[0]!), (v) => v)

export function lnJet(u: BoxJet, notes: BoxNotes): BoxJet {
  const value = I.ln(u[0]!, notes)
  if (notes.empty) return unknownJet(value, u.length)
  // Only where the logarithm has values has it a slope.
  const inside = [{ lo: Math.max(0, u[0]!.lo), hi: u[0]!.hi }, ...u.slice(1)]
  return chainJet(u, value, reciprocal(inside, { ...notes }))
}

/** u^r for a base of 0 or more, with slopes that may be unbounded at 0. */
export function realPowerJet(u: BoxJet, r: number, notes: BoxNotes): BoxJet {
  const value = I.realPower(u[0]!, r, notes)
  if (notes.empty) return unknownJet(value, u.length)
  const base = { lo: Math.max(0, u[0]!.lo), hi: u[0]!.hi }
  const out: BoxJet = [value]
  const quiet = I.noNotes()
  if (base.lo === 0 && r < u.length) notes.kinks = true
  const slopeAt = (k: number) => {
    let factor = 1
    for (let j = 0; j < k; j++) factor *= (r - j) / (j + 1)
    // (r choose k) is a double near the true number: widened by a few roundings.
    const choose =
      factor === 0 ? I.zeroInterval : { lo: I.down(I.down(factor)), hi: I.up(I.up(factor)) }
    return I.multiply(choose, I.realPower(base, r - k, quiet))
  }
  if (u.length > 1) out.push(I.multiply(slopeAt(1), u[1]!))
  if (u.length > 2) {
    out.push(I.add(I.multiply(slopeAt(1), u[2]!), I.multiply(slopeAt(2), I.square(u[1]!))))
  }
  for (let k = 3; k < u.length; k++) {
    let total = I.zeroInterval
    for (let j = 1; j <= k; j++) {
      const weight = I.subtract(
        I.multiply({ lo: I.down(r), hi: I.up(r) }, I.point(j)),
        I.point(k - j),
      )
      total = I.add(total, I.multiply(weight, I.multiply(u[j]!, out[k - j]!)))
    }
    out.push(I.divide(total, I.scale(base, k)))
  }
  return out
}

/** The odd root of a jet of either sign: −|u|^r on the left of 0. */
export function oddRootJet(u: BoxJet, r: number, odd: boolean, notes: BoxNotes): BoxJet {
  const [base] = u as [Interval]
  if (base.lo >= 0) return realPowerJet(u, r, notes)
  const turned = (v: BoxJet) => {
    const jet = realPowerJet(negateJet(v), r, notes)
    return odd ? negateJet(jet) : jet
  }
  if (base.hi <= 0) return turned(u)
  notes.kinks = true
  const left = turned([{ lo: base.lo, hi: 0 }, ...u.slice(1)])
  const right = realPowerJet([{ lo: 0, hi: base.hi }, ...u.slice(1)], r, notes)
  if (r < 0) notes.partial = notes.jumps = true
  return hullJets(left, right)
}

export function wholePowerJet(u: BoxJet, n: number, notes: BoxNotes): BoxJet {
  if (n < 0) return reciprocal(wholePowerJet(u, -n, notes), notes)
  if (n === 0) return constantJet(I.point(1), u.length)
  const out: BoxJet = [I.wholePower(u[0]!, n)]
  if (u.length === 1) return out
  const slope = I.scale(I.wholePower(u[0]!, n - 1), n)
  out.push(I.multiply(slope, u[1]!))
  if (u.length === 2) return out
  const bend = n < 2 ? I.zeroInterval : I.scale(I.wholePower(u[0]!, n - 2), (n * (n - 1)) / 2)
  out.push(I.add(I.multiply(slope, u[2]!), I.multiply(bend, I.square(u[1]!))))
  if (u.length === 3) return out
  let result = u
  for (let i = 1; i < n; i++) result = multiplyJets(result, u)
  return [...out, ...result.slice(3)]
}

export function absJet(u: BoxJet, notes: BoxNotes): BoxJet {
  const [base] = u as [Interval]
  if (base.lo >= 0) return u
  if (base.hi <= 0) return negateJet(u)
  notes.kinks = true
  const both = hullJets(u, negateJet(u))
  // Beyond the slope the kink itself has no derivative to enclose.
  return both.map((c, k) => (k === 0 ? I.magnitudes(base) : k === 1 ? c : I.everything))
}

/** A function that is level between its steps: its values at both ends of the box enclose it. */
export function stepJet(value: (x: number) => number, u: BoxJet, notes: BoxNotes): BoxJet {
  const [base] = u as [Interval]
  const [low, high] = [value(base.lo), value(base.hi)]
  if (low === high) return constantJet(I.point(low), u.length)
  notes.jumps = true
  return unknownJet({ lo: low, hi: high }, u.length)
}

export function leastJet(u: BoxJet, v: BoxJet, sign: 1 | -1, notes: BoxNotes): BoxJet {
  const difference = I.subtract(u[0]!, v[0]!)
  if (I.signOf(difference) * sign < 0) return u
  if (I.signOf(difference) * sign > 0) return v
  notes.kinks = true
  const pick = sign === 1 ? Math.min : Math.max
  const value = { lo: pick(u[0]!.lo, v[0]!.lo), hi: pick(u[0]!.hi, v[0]!.hi) }
  return hullJets(u, v).map((c, k) => (k === 0 ? value : k === 1 ? c : I.everything))
}

export const ln10: Interval = { lo: 2.302585092994045, hi: 2.302585092994046 }

/** 1/√(1 − u²) where that has a value; unbounded at the ends. */
export function slopeOfArcsin(u: BoxJet, notes: BoxNotes): BoxJet {
  const inside = [{ lo: Math.max(-1, u[0]!.lo), hi: Math.min(1, u[0]!.hi) }, ...u.slice(1)]
  const below = onePlus(-1, inside)
  below[0] = { lo: Math.max(0, below[0]!.lo), hi: below[0]!.hi }
  if (below[0].lo === 0) notes.kinks = true
  return realPowerJet(below, -0.5, I.noNotes())
}
