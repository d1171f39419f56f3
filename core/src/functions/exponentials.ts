import * as B from '../arithmetic/boxJets'
import * as I from '../arithmetic/intervals'
import { expJet, lnJet, scaleJet } from '../arithmetic/jets'
import { call, compare, negate, product, quotient, sum, type Tree, whole } from '../formula/tree'
import type { FunctionEntry } from './entry'

const positive = (u: Tree) => compare(u, '>', whole(0))
const minusOne = (u: Tree) => sum(u, whole(-1))
const isOne = (u: Tree) => u.kind === 'number' && u.exact.n === u.exact.d

export type ExponentialName = 'exp' | 'ln' | 'log'
declare module '../formula/tree' {
  interface FunctionNames {
    exponentials: ExponentialName
  }
}

/** The exponential function and the logarithms of a fixed base. */
export const exponentials: Record<ExponentialName, FunctionEntry> = {
  exp: {
    spellings: ['exp'],
    latex: {
      before: 'e^{',
      after: '}',
      small: true,
      loose: true,
    },
    value: Math.exp,
    divides: true,
    loop: (a, out, count, { scale, over, factor, shift }) => {
      for (let i = 0; i < count; i += 4) {
        out[i] = shift + factor * Math.exp((scale * a[i]!) / over)
        out[i + 1] = shift + factor * Math.exp((scale * a[i + 1]!) / over)
        out[i + 2] = shift + factor * Math.exp((scale * a[i + 2]!) / over)
        out[i + 3] = shift + factor * Math.exp((scale * a[i + 3]!) / over)
      }
    },
    ball: (u, B) => B.exp(u),
    derivative: (u) => call('exp', u),
    jet: expJet,
    box: B.expJet,
    total: true,
    positive: true,
    atZero: 1,
    zero: 'never',
    antiderivative: (u) => call('exp', u),
    readable: true,
  },
  ln: {
    spellings: ['ln'],
    latex: { name: '\\ln', raised: true },
    value: (x) => (x > 0 ? Math.log(x) : NaN),
    loop: (a, out, count, { scale, factor, shift }) => {
      for (let i = 0; i < count; i++) {
        const u = scale * a[i]!
        out[i] = shift + factor * Math.log(u)
        if (u === 0) out[i] = NaN
      }
    },
    ball: (u, B) => B.ln(u),
    derivative: (u) => quotient(whole(1), u),
    jet: lnJet,
    box: B.lnJet,
    domain: positive,
    zero: { tree: minusOne },
    breaks: (u) => [u],
    antiderivative: (u) => sum(product(u, call('ln', u)), negate(u)),
    exact: (u) => (isOne(u) ? whole(0) : u.kind === 'constant' && u.name === 'e' ? whole(1) : null),
    readable: true,
  },
  log: {
    spellings: ['log', 'lg'],
    inGrowth: (u) => quotient(call('ln', u), call('ln', whole(10))),
    latex: { name: '\\log', raised: true },
    value: (x) => (x > 0 ? Math.log10(x) : NaN),
    derivative: (u) => quotient(whole(1), product(u, call('ln', whole(10)))),
    jet: (u) => {
      const jet = scaleJet(lnJet(u), 1 / Math.LN10)
      if (u[0]! > 0) jet[0] = Math.log10(u[0]!)
      return jet
    },
    box: (u, notes) => {
      const jet = B.lnJet(u, notes)
      if (notes.empty) return jet
      const scaled = jet.map((c) => I.divide(c, B.ln10))
      scaled[0] = I.meet(I.log10(u[0]!, { ...notes }), scaled[0]!)
      return scaled
    },
    domain: positive,
    zero: { tree: minusOne },
    breaks: (u) => [u],
  },
}
