import * as B from '../arithmetic/boxJets'
import * as I from '../arithmetic/intervals'
import {
  absJet,
  chainJet,
  divideJets,
  type Jet,
  type Look,
  multiplyJets,
  scaleJet,
  sineCosineJets,
} from '../arithmetic/jets'
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

const quarterTurn = quotient(constant('pi'), whole(2))
const sine = (u: Tree) => call('sin', u)
const cosine = (u: Tree) => call('cos', u)
const minusLnOfSize = (u: Tree) => negate(call('ln', call('abs', u)))

/** A function that runs away where a formula vanishes has no value there. */
const poleWith =
  (below: (u: Tree) => Tree) =>
  (u: Tree, isZero: (tree: Tree) => boolean): Tree | null =>
    isZero(below(u)) ? quotient(one, whole(0)) : null

const inverseSineSlope = (u: Jet, look: Look) => reciprocal(rootJet(onePlus(-1, u), look))
const inverseSecantSlope = (u: Jet, look: Look) =>
  reciprocal(multiplyJets(absJet(u, look), rootJet(scaleJet(onePlus(-1, u), -1), look)))
const withinOne = (u: Tree): Condition => ({
  kind: 'compare',
  terms: [whole(-1), u, whole(1)],
  relations: ['<=', '<='],
})
const beyondOne = (u: Tree) => compare(call('abs', u), '>=', one)
const inverseSecantDerivative = (u: Tree) =>
  quotient(one, product(call('abs', u), call('sqrt', sum(square(u), whole(-1)))))
const beyondOneBreaks = (u: Tree) => [u, ...aroundOne(u)]
/** At an end of its domain the argument is ±1. */
const atOne =
  (at: (one: Tree) => Tree) =>
  (u: Tree, isZero: (tree: Tree) => boolean): Tree | null =>
    isZero(shifted(u, -1)) ? at(whole(1)) : isZero(shifted(u, 1)) ? at(whole(-1)) : null
/** arccos 1 and arcsec 1 are 0, exactly. */
const zeroAtOne = (name: CircularName) => (at: Tree) =>
  at.kind === 'number' && at.exact.n > 0n ? whole(0) : call(name, at)

function arccot(x: number): number {
  if (x === 0) return Math.PI / 2
  return x > 0 ? Math.atan(1 / x) : Math.PI + Math.atan(1 / x)
}
const halfPi: I.Interval = { lo: 1.5707963267948966, hi: 1.5707963267948968 }

export type CircularName =
  | 'sin'
  | 'cos'
  | 'tan'
  | 'sec'
  | 'csc'
  | 'cot'
  | 'arcsin'
  | 'arccos'
  | 'arctan'
  | 'arcsec'
  | 'arccsc'
  | 'arccot'
declare module '../formula/tree' {
  interface FunctionNames {
    circular: CircularName
  }
}

/** Sine, cosine and their like, and the arcs that lead back. */
export const circular: Record<CircularName, FunctionEntry> = {
  sin: {
    spellings: ['sin'],
    latex: { name: '\\sin', raised: true },
    inverse: 'arcsin',
    value: Math.sin,
    loop: (a, out, count, { scale, factor, shift }) => {
      for (let i = 0; i < count; i += 4) {
        out[i] = shift + factor * Math.sin(scale * a[i]!)
        out[i + 1] = shift + factor * Math.sin(scale * a[i + 1]!)
        out[i + 2] = shift + factor * Math.sin(scale * a[i + 2]!)
        out[i + 3] = shift + factor * Math.sin(scale * a[i + 3]!)
      }
    },
    ball: (u, B) => B.sin(u),
    derivative: cosine,
    jet: (u) => sineCosineJets(u)[0],
    box: (u) => B.circular(u)[0],
    total: true,
    atZero: 0,
    antiderivative: (u) => negate(cosine(u)),
    readable: true,
  },
  cos: {
    spellings: ['cos'],
    latex: { name: '\\cos', raised: true },
    inverse: 'arccos',
    value: Math.cos,
    loop: (a, out, count, { scale, factor, shift }) => {
      for (let i = 0; i < count; i += 4) {
        out[i] = shift + factor * Math.cos(scale * a[i]!)
        out[i + 1] = shift + factor * Math.cos(scale * a[i + 1]!)
        out[i + 2] = shift + factor * Math.cos(scale * a[i + 2]!)
        out[i + 3] = shift + factor * Math.cos(scale * a[i + 3]!)
      }
    },
    ball: (u, B) => B.cos(u),
    derivative: (u) => negate(sine(u)),
    jet: (u) => sineCosineJets(u)[1],
    box: (u) => B.circular(u)[1],
    total: true,
    atZero: 1,
    antiderivative: sine,
    readable: true,
  },
  tan: {
    spellings: ['tan', 'tg'],
    latex: { name: '\\tan', raised: true },
    inverse: 'arctan',
    value: Math.tan,
    loop: (a, out, count, { scale, factor, shift }) => {
      for (let i = 0; i < count; i++) out[i] = shift + factor * Math.tan(scale * a[i]!)
    },
    derivative: (u) => power(call('sec', u), whole(2)),
    jet: (u) => {
      const [s, c] = sineCosineJets(u)
      return divideJets(s, c)
    },
    box: (u, notes) => B.grownJet(u, I.tan(u[0]!, notes), (v) => B.onePlus(1, v)),
    atZero: 0,
    zero: { tree: sine },
    breaks: (u) => [cosine(u)],
    atBreak: poleWith(cosine),
    quotient: (u) => ({ above: sine(u), below: cosine(u) }),
    antiderivative: (u) => minusLnOfSize(cosine(u)),
    readable: true,
  },
  sec: {
    spellings: ['sec'],
    latex: { name: '\\sec', raised: true },
    inverse: 'arcsec',
    value: (x) => 1 / Math.cos(x),
    derivative: (u) => product(call('sec', u), call('tan', u)),
    jet: (u) => reciprocal(sineCosineJets(u)[1]),
    box: (u, notes) => B.reciprocal(B.circular(u)[1], notes),
    atZero: 1,
    zero: 'never',
    breaks: (u) => [cosine(u)],
    atBreak: poleWith(cosine),
    quotient: (u) => ({ above: one, below: cosine(u) }),
  },
  csc: {
    spellings: ['csc', 'cosec'],
    latex: { name: '\\csc', raised: true },
    inverse: 'arccsc',
    value: (x) => (Math.sin(x) === 0 ? NaN : 1 / Math.sin(x)),
    derivative: (u) => negate(product(call('csc', u), call('cot', u))),
    jet: (u) => reciprocal(sineCosineJets(u)[0]),
    box: (u, notes) => B.reciprocal(B.circular(u)[0], notes),
    zero: 'never',
    breaks: (u) => [sine(u)],
    atBreak: poleWith(sine),
    quotient: (u) => ({ above: one, below: sine(u) }),
  },
  cot: {
    spellings: ['cot', 'ctg', 'cotg'],
    latex: { name: '\\cot', raised: true },
    inverse: 'arccot',
    antiderivative: (u) => call('ln', call('abs', sine(u))),
    value: (x) => (Math.sin(x) === 0 ? NaN : Math.cos(x) / Math.sin(x)),
    derivative: (u) => negate(power(call('csc', u), whole(2))),
    jet: (u) => {
      const [s, c] = sineCosineJets(u)
      return divideJets(c, s)
    },
    box: (u, notes) => {
      const [s, c] = B.circular(u)
      return B.divideJets(c, s, notes)
    },
    zero: { tree: cosine },
    breaks: (u) => [sine(u)],
    atBreak: poleWith(sine),
    quotient: (u) => ({ above: cosine(u), below: sine(u) }),
  },
  arcsin: {
    spellings: ['arcsin', 'asin'],
    latex: { name: '\\arcsin' },
    value: Math.asin,
    ball: (u, B) => B.arcsin(u),
    derivative: (u) => quotient(one, call('sqrt', sum(one, negate(square(u))))),
    jet: (u, look) => chainJet(u, Math.asin(u[0]!), inverseSineSlope(u, look)),
    box: (u, notes) => {
      const value = I.arcsin(u[0]!, notes)
      if (notes.empty) return B.unknownJet(value, u.length)
      return B.chainJet(u, value, B.slopeOfArcsin(u, notes))
    },
    domain: withinOne,
    signOfArgument: true,
    atZero: 0,
    zero: { power: 1 },
    breaks: aroundOne,
    atBreak: atOne((at) => call('arcsin', at)),
    readable: true,
  },
  arccos: {
    spellings: ['arccos', 'acos'],
    inGrowth: (u) => sum(quarterTurn, negate(call('arcsin', u))),
    latex: { name: '\\arccos' },
    value: Math.acos,
    derivative: (u) => quotient(whole(-1), call('sqrt', sum(one, negate(square(u))))),
    jet: (u, look) => chainJet(u, Math.acos(u[0]!), scaleJet(inverseSineSlope(u, look), -1)),
    box: (u, notes) => {
      const value = I.arccos(u[0]!, notes)
      if (notes.empty) return B.unknownJet(value, u.length)
      return B.chainJet(u, value, B.negateJet(B.slopeOfArcsin(u, notes)))
    },
    domain: withinOne,
    breaks: aroundOne,
    atBreak: atOne(zeroAtOne('arccos')),
  },
  arctan: {
    spellings: ['arctan', 'atan', 'arctg'],
    latex: { name: '\\arctan' },
    value: Math.atan,
    ball: (u, B) => B.arctan(u),
    derivative: (u) => quotient(one, sum(one, square(u))),
    jet: (u) => chainJet(u, Math.atan(u[0]!), reciprocal(onePlus(1, u))),
    box: (u, notes) => B.chainJet(u, I.arctan(u[0]!), B.reciprocal(B.onePlus(1, u), notes)),
    total: true,
    signOfArgument: true,
    atZero: 0,
    zero: { power: 1 },
    readable: true,
  },
  arcsec: {
    spellings: ['arcsec'],
    inGrowth: (u) => call('arccos', quotient(one, u)),
    latex: { name: '\\operatorname{arcsec}' },
    value: (x) => Math.acos(1 / x),
    derivative: inverseSecantDerivative,
    jet: (u, look) => chainJet(u, Math.acos(1 / u[0]!), inverseSecantSlope(u, look)),
    box: (u, notes) => {
      const inner = B.reciprocal(u, notes)
      const value = I.arccos(inner[0]!, notes)
      if (notes.empty) return B.unknownJet(value, u.length)
      return B.chainJet(inner, value, B.negateJet(B.slopeOfArcsin(inner, notes)))
    },
    domain: beyondOne,
    breaks: beyondOneBreaks,
    atBreak: atOne(zeroAtOne('arcsec')),
  },
  arccsc: {
    spellings: ['arccsc'],
    inGrowth: (u) => call('arcsin', quotient(one, u)),
    latex: { name: '\\operatorname{arccsc}' },
    value: (x) => Math.asin(1 / x),
    derivative: (u) => negate(inverseSecantDerivative(u)),
    jet: (u, look) => chainJet(u, Math.asin(1 / u[0]!), scaleJet(inverseSecantSlope(u, look), -1)),
    box: (u, notes) => {
      const inner = B.reciprocal(u, notes)
      const value = I.arcsin(inner[0]!, notes)
      if (notes.empty) return B.unknownJet(value, u.length)
      return B.chainJet(inner, value, B.slopeOfArcsin(inner, notes))
    },
    domain: beyondOne,
    breaks: beyondOneBreaks,
    atBreak: atOne((at) => call('arccsc', at)),
  },
  // The branch with values between 0 and π, without the cancellation of π/2 - arctan x.
  arccot: {
    spellings: ['arccot', 'arcctg'],
    inGrowth: (u) => sum(quarterTurn, negate(call('arctan', u))),
    latex: { name: '\\operatorname{arccot}' },
    value: arccot,
    derivative: (u) => quotient(whole(-1), sum(one, square(u))),
    jet: (u) => chainJet(u, arccot(u[0]!), scaleJet(reciprocal(onePlus(1, u)), -1)),
    box: (u, notes) =>
      B.chainJet(
        u,
        I.subtract(halfPi, I.arctan(u[0]!)),
        B.negateJet(B.reciprocal(B.onePlus(1, u), notes)),
      ),
    total: true,
  },
}
