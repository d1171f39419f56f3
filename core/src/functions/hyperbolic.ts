import type { Ball, BallArithmetic } from '../arithmetic/balls'
import * as B from '../arithmetic/boxJets'
import type { BoxJet } from '../arithmetic/boxJets'
import * as I from '../arithmetic/intervals'
import type { BoxNotes, Interval } from '../arithmetic/intervals'
import { chainJet, constantJet, hyperbolicJets, type Jet, scaleJet } from '../arithmetic/jets'
import {
  call,
  compare,
  type Condition,
  constant,
  negate,
  power,
  product,
  quotient,
  sum,
  type Tree,
  whole,
} from '../formula/tree'
import type { FunctionEntry } from './entry'
import { aroundOne, one, onePlus, reciprocal, rootJet, shifted, square } from './parts'

const exponential = (u: Tree) => power(constant('e'), u)
const halves = (...terms: Tree[]) => quotient(sum(...terms), whole(2))
const sinh = (u: Tree) => call('sinh', u)
const cosh = (u: Tree) => call('cosh', u)

// With many digits these go by e^(−|u|), too, which falls to 0 where e^|u| is beyond all reach.
const two = (B: BallArithmetic) => B.ofNumber(2)
const fallen = (u: Ball, B: BallArithmetic) => B.exp(B.negate(B.abs(u)))
const squared = (u: Ball, B: BallArithmetic) => B.exp(B.multiply(B.ofNumber(-2), B.abs(u)))
const moreSquare = (u: Ball, B: BallArithmetic) => B.add(B.ofNumber(1), squared(u, B))
const lessSquare = (u: Ball, B: BallArithmetic) => B.add(B.ofNumber(1), B.negate(squared(u, B)))
const tanhOfSize = (u: Ball, B: BallArithmetic) => B.divide(lessSquare(u, B), moreSquare(u, B))
const signOf = (u: Ball, B: BallArithmetic) => B.level(u, (x) => (x.isZero() ? x : x.div(x.abs())))

/** 1/cosh x by e^(-|x|), which becomes 0 where cosh x is beyond doubles, and never NaN. */
function sech(x: number): number {
  const e = Math.exp(-Math.abs(x))
  return (2 * e) / (1 + e * e)
}
const csch = (x: number) => (x === 0 ? NaN : 1 / Math.sinh(x))
const coth = (x: number) => (x === 0 ? NaN : 1 / Math.tanh(x))

/**
 * v and w with v' = -v w u' and w' = ±v² u': sech and tanh (1), csch and coth (-1). Quotients of
 * sinh and cosh would overflow for large arguments.
 */
function reciprocalPair(u: Jet, v0: number, w0: number, sign: 1 | -1): [Jet, Jet] {
  const v = constantJet(v0, u.length)
  const w = constantJet(w0, u.length)
  const between = (a: Jet, b: Jet, k: number) => {
    let total = 0
    for (let j = 0; j <= k; j++) total += a[j]! * b[k - j]!
    return total
  }
  const [vw, vv] = [new Float64Array(u.length), new Float64Array(u.length)]
  for (let k = 1; k < u.length; k++) {
    vw[k - 1] = -between(v, w, k - 1)
    vv[k - 1] = sign * between(v, v, k - 1)
    v[k] = chainJet(u, v0, vw)[k]!
    w[k] = chainJet(u, w0, vv)[k]!
  }
  return [v, w]
}

/** The same over a box, where the values are known. */
function boxPair(u: BoxJet, v0: Interval, w0: Interval, sign: 1 | -1): [BoxJet, BoxJet] {
  let [v, w]: [BoxJet, BoxJet] = [[v0], [w0]]
  for (let k = 1; k < u.length; k++) {
    const vw = B.negateJet(B.multiplyJets(v, w))
    const squared = B.multiplyJets(v, v)
    const vv = sign === 1 ? squared : B.negateJet(squared)
    const grown = (jet: BoxJet) => {
      let total = I.zeroInterval
      for (let j = 1; j <= k; j++) {
        total = I.add(total, I.multiply(I.scale(u[j]!, j), jet[k - j]!))
      }
      return I.divide(total, I.point(k))
    }
    const [nextV, nextW] = [grown(vw), grown(vv)]
    v = [...v, nextV]
    w = [...w, nextW]
  }
  return [v, w]
}

/** An even function that falls on both sides of 0. */
function sechOver(a: Interval): Interval {
  const { lo, hi } = I.magnitudes(a)
  const range = I.falling(sech, { lo, hi })
  return { lo: Math.max(0, range.lo), hi: Math.min(1, range.hi) }
}
/** An odd function that falls on each side of its pole at 0. */
function fallingBesidePole(f: (x: number) => number, a: Interval, notes: BoxNotes): Interval {
  if (!I.holdsZero(a)) return I.falling(f, a)
  notes.partial = true
  if (a.lo === 0 && a.hi === 0) {
    notes.empty = true
    return I.everything
  }
  if (a.lo < 0 && a.hi > 0) {
    notes.jumps = true
    return I.everything
  }
  return a.lo === 0
    ? { lo: I.falling(f, I.point(a.hi)).lo, hi: Infinity }
    : { lo: -Infinity, hi: I.falling(f, I.point(a.lo)).hi }
}
const cothOver = (a: Interval, notes: BoxNotes): Interval => {
  const range = fallingBesidePole(coth, a, notes)
  // Beyond 19 or so a double knows nothing between coth x and ±1.
  return a.lo >= 0
    ? I.meet(range, { lo: 1, hi: Infinity })
    : a.hi <= 0
      ? I.meet(range, { lo: -Infinity, hi: -1 })
      : range
}

const squareMinusOne = (u: Jet) => scaleJet(onePlus(-1, u), -1)
const quiet = () => I.noNotes()
/** A box cut to where a function has values, which is noted; null where nothing is left. */
function cut(u: BoxJet, lo: number, hi: number, notes: BoxNotes): BoxJet | null {
  const [at, ...rest] = u as [Interval]
  if (at.lo >= lo && at.hi <= hi) return u
  notes.partial = true
  if (at.hi < lo || at.lo > hi) {
    notes.empty = true
    return null
  }
  return [{ lo: Math.max(lo, at.lo), hi: Math.min(hi, at.hi) }, ...rest]
}
/** Like slopeOfArcsin, 1/√v of a v that is 0 or more, unbounded at 0. */
function slopeByRoot(v: BoxJet, notes: BoxNotes): BoxJet {
  const below = [{ lo: Math.max(0, v[0]!.lo), hi: Math.max(0, v[0]!.hi) }, ...v.slice(1)]
  if (below[0]!.lo === 0) notes.kinks = true
  return B.realPowerJet(below, -0.5, quiet())
}
const arcoshBox = (u: BoxJet, notes: BoxNotes): BoxJet => {
  const part = cut(u, 1, Infinity, notes)
  if (!part) return B.unknownJet(I.everything, u.length)
  const value = I.rising(Math.acosh, part[0]!, (x) => x === 1)
  return B.chainJet(
    part,
    { ...value, lo: Math.max(0, value.lo) },
    slopeByRoot(B.negateJet(B.onePlus(-1, part)), notes),
  )
}
const artanhBox = (u: BoxJet, notes: BoxNotes): BoxJet => {
  const part = cut(u, -1, 1, notes)
  if (!part || part[0]!.hi === -1 || part[0]!.lo === 1) {
    notes.empty = notes.partial = true
    return B.unknownJet(I.everything, u.length)
  }
  if (part[0]!.lo === -1 || part[0]!.hi === 1) notes.partial = true
  const value = I.rising(Math.atanh, part[0]!)
  return B.chainJet(part, value, B.reciprocal(B.onePlus(-1, part), quiet()))
}
const arsinhBox = (u: BoxJet): BoxJet =>
  B.chainJet(u, I.rising(Math.asinh, u[0]!), B.realPowerJet(B.onePlus(1, u), -0.5, quiet()))

const artanh = (x: number) => (Math.abs(x) < 1 ? Math.atanh(x) : NaN)
const betweenOnes = (u: Tree): Condition => ({
  kind: 'compare',
  terms: [whole(-1), u, one],
  relations: ['<', '<'],
})
const oneMinusSquare = (u: Tree) => sum(one, negate(square(u)))

export type HyperbolicName =
  | 'sinh'
  | 'cosh'
  | 'tanh'
  | 'sech'
  | 'csch'
  | 'coth'
  | 'arsinh'
  | 'arcosh'
  | 'artanh'
  | 'arsech'
  | 'arcsch'
  | 'arcoth'
declare module '../formula/tree' {
  interface FunctionNames {
    hyperbolic: HyperbolicName
  }
}

/** The hyperbolic functions and those that lead back. */
export const hyperbolic: Record<HyperbolicName, FunctionEntry> = {
  sinh: {
    spellings: ['sinh'],
    inGrowth: (u) => halves(exponential(u), negate(exponential(negate(u)))),
    latex: { name: '\\sinh' },
    inverse: 'arsinh',
    value: Math.sinh,
    derivative: cosh,
    jet: (u) => hyperbolicJets(u)[0],
    box: (u) => B.hyperbolic(u)[0],
    total: true,
    signOfArgument: true,
    atZero: 0,
    zero: { power: 1 },
    antiderivative: cosh,
    readable: true,
  },
  cosh: {
    spellings: ['cosh'],
    inGrowth: (u) => halves(exponential(u), exponential(negate(u))),
    latex: { name: '\\cosh' },
    inverse: 'arcosh',
    value: Math.cosh,
    derivative: sinh,
    jet: (u) => hyperbolicJets(u)[1],
    box: (u) => B.hyperbolic(u)[1],
    total: true,
    positive: true,
    atZero: 1,
    zero: 'never',
    antiderivative: sinh,
    readable: true,
  },
  tanh: {
    spellings: ['tanh'],
    inGrowth: (u) =>
      sum(one, negate(quotient(whole(2), sum(exponential(product(whole(2), u)), one)))),
    latex: { name: '\\tanh' },
    inverse: 'artanh',
    value: Math.tanh,
    ball: (u, B) => B.multiply(signOf(u, B), tanhOfSize(u, B)),
    derivative: (u) => quotient(one, power(cosh(u), whole(2))),
    // v' = u' (1 - v²), with v on both sides: each step uses the coefficients before it. The
    // quotient sinh/cosh would overflow for large arguments.
    jet: (u) => {
      const v = constantJet(Math.tanh(u[0]!), u.length)
      const slope = new Float64Array(u.length)
      for (let k = 1; k < u.length; k++) {
        slope[k - 1] = onePlus(-1, v)[k - 1]!
        v[k] = chainJet(u, v[0]!, slope)[k]!
      }
      return v
    },
    box: (u) => B.grownJet(u, I.tanh(u[0]!), (v) => B.onePlus(-1, v)),
    total: true,
    signOfArgument: true,
    atZero: 0,
    zero: { power: 1 },
    antiderivative: (u) => call('ln', cosh(u)),
  },
  sech: {
    spellings: ['sech'],
    inGrowth: (u) => quotient(one, halves(exponential(u), exponential(negate(u)))),
    latex: { name: '\\operatorname{sech}' },
    inverse: 'arsech',
    value: sech,
    ball: (u, B) => B.divide(B.multiply(two(B), fallen(u, B)), moreSquare(u, B)),
    derivative: (u) => negate(product(call('sech', u), call('tanh', u))),
    jet: (u) => reciprocalPair(u, sech(u[0]!), Math.tanh(u[0]!), 1)[0],
    box: (u) => boxPair(u, sechOver(u[0]!), I.tanh(u[0]!), 1)[0],
    total: true,
    positive: true,
    atZero: 1,
    zero: 'never',
  },
  csch: {
    spellings: ['csch', 'cosech'],
    inGrowth: (u) => quotient(one, halves(exponential(u), negate(exponential(negate(u))))),
    latex: { name: '\\operatorname{csch}' },
    inverse: 'arcsch',
    value: csch,
    ball: (u, B) =>
      B.multiply(signOf(u, B), B.divide(B.multiply(two(B), fallen(u, B)), lessSquare(u, B))),
    derivative: (u) => negate(product(call('csch', u), call('coth', u))),
    jet: (u) => reciprocalPair(u, csch(u[0]!), coth(u[0]!), -1)[0],
    box: (u, notes) =>
      boxPair(u, fallingBesidePole(csch, u[0]!, notes), cothOver(u[0]!, { ...notes }), -1)[0],
    domain: (u) => compare(u, '!=', whole(0)),
    signOfArgument: true,
    zero: 'never',
    breaks: (u) => [u],
  },
  coth: {
    spellings: ['coth'],
    inGrowth: (u) =>
      sum(one, quotient(whole(2), sum(exponential(product(whole(2), u)), negate(one)))),
    latex: { name: '\\coth' },
    inverse: 'arcoth',
    value: coth,
    ball: (u, B) => B.multiply(signOf(u, B), B.divide(B.ofNumber(1), tanhOfSize(u, B))),
    derivative: (u) => negate(power(call('csch', u), whole(2))),
    jet: (u) => reciprocalPair(u, csch(u[0]!), coth(u[0]!), -1)[1],
    box: (u, notes) =>
      boxPair(u, fallingBesidePole(csch, u[0]!, { ...notes }), cothOver(u[0]!, notes), -1)[1],
    domain: (u) => compare(u, '!=', whole(0)),
    signOfArgument: true,
    zero: 'never',
    breaks: (u) => [u],
  },
  arsinh: {
    spellings: ['arsinh', 'asinh', 'arcsinh'],
    inGrowth: (u) => call('ln', sum(u, call('sqrt', sum(square(u), one)))),
    latex: { name: '\\operatorname{arsinh}' },
    value: Math.asinh,
    derivative: (u) => quotient(one, call('sqrt', sum(square(u), one))),
    jet: (u, look) => chainJet(u, Math.asinh(u[0]!), reciprocal(rootJet(onePlus(1, u), look))),
    box: arsinhBox,
    total: true,
    signOfArgument: true,
    atZero: 0,
    zero: { power: 1 },
  },
  arcosh: {
    spellings: ['arcosh', 'acosh', 'arccosh'],
    inGrowth: (u) => call('ln', sum(u, call('sqrt', sum(square(u), negate(one))))),
    latex: { name: '\\operatorname{arcosh}' },
    value: Math.acosh,
    derivative: (u) => quotient(one, call('sqrt', sum(square(u), whole(-1)))),
    jet: (u, look) => chainJet(u, Math.acosh(u[0]!), reciprocal(rootJet(squareMinusOne(u), look))),
    box: arcoshBox,
    domain: (u) => compare(u, '>=', one),
    zero: { tree: (u) => shifted(u, -1) },
    breaks: (u) => [shifted(u, -1)],
  },
  artanh: {
    spellings: ['artanh', 'atanh', 'arctanh'],
    inGrowth: (u) => halves(call('ln', quotient(sum(one, u), sum(one, negate(u))))),
    latex: { name: '\\operatorname{artanh}' },
    value: artanh,
    derivative: (u) => quotient(one, oneMinusSquare(u)),
    jet: (u) => chainJet(u, artanh(u[0]!), reciprocal(onePlus(-1, u))),
    box: artanhBox,
    domain: betweenOnes,
    signOfArgument: true,
    atZero: 0,
    zero: { power: 1 },
    breaks: aroundOne,
  },
  arsech: {
    spellings: ['arsech', 'asech', 'arcsech'],
    inGrowth: (u) => call('arcosh', quotient(one, u)),
    latex: { name: '\\operatorname{arsech}' },
    value: (x) => (x > 0 ? Math.acosh(1 / x) : NaN),
    derivative: (u) => quotient(whole(-1), product(u, call('sqrt', oneMinusSquare(u)))),
    jet: (u, look) => {
      const inner = reciprocal(u)
      return chainJet(
        inner,
        Math.acosh(inner[0]!),
        reciprocal(rootJet(squareMinusOne(inner), look)),
      )
    },
    box: (u, notes) => {
      const part = cut(u, 0, 1, notes)
      return part
        ? arcoshBox(B.reciprocal(part, notes), notes)
        : B.unknownJet(I.everything, u.length)
    },
    domain: (u) => ({ kind: 'compare', terms: [whole(0), u, one], relations: ['<', '<='] }),
    zero: { tree: (u) => shifted(u, -1) },
    breaks: (u) => [u, shifted(u, -1)],
  },
  arcsch: {
    spellings: ['arcsch', 'acsch', 'arccsch'],
    inGrowth: (u) => call('arsinh', quotient(one, u)),
    latex: { name: '\\operatorname{arcsch}' },
    value: (x) => (x === 0 ? NaN : Math.asinh(1 / x)),
    derivative: (u) =>
      quotient(whole(-1), product(call('abs', u), call('sqrt', sum(one, square(u))))),
    jet: (u, look) => {
      const inner = reciprocal(u)
      return chainJet(inner, Math.asinh(inner[0]!), reciprocal(rootJet(onePlus(1, inner), look)))
    },
    box: (u, notes) => arsinhBox(B.reciprocal(u, notes)),
    domain: (u) => compare(u, '!=', whole(0)),
    signOfArgument: true,
    zero: 'never',
    breaks: (u) => [u],
  },
  arcoth: {
    spellings: ['arcoth', 'acoth', 'arccoth'],
    inGrowth: (u) => halves(call('ln', quotient(sum(u, one), sum(u, negate(one))))),
    latex: { name: '\\operatorname{arcoth}' },
    value: (x) => artanh(1 / x),
    derivative: (u) => quotient(one, oneMinusSquare(u)),
    jet: (u) => {
      const inner = reciprocal(u)
      return chainJet(inner, artanh(inner[0]!), reciprocal(onePlus(-1, inner)))
    },
    box: (u, notes) => artanhBox(B.reciprocal(u, notes), notes),
    domain: (u) => compare(call('abs', u), '>', one),
    signOfArgument: true,
    zero: 'never',
    breaks: (u) => [u, ...aroundOne(u)],
  },
}
