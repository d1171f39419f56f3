import * as B from '../arithmetic/boxJets'
import * as I from '../arithmetic/intervals'
import { absJet, realPowerJet } from '../arithmetic/jets'
import {
  call,
  compare,
  exactly,
  negate,
  power,
  product,
  quotient,
  type Tree,
  whole,
} from '../formula/tree'
import { rational } from '../arithmetic/rational'
import type { FunctionEntry } from './entry'

const itself = (u: Tree) => [u]

export type RootName = 'sqrt' | 'cbrt' | 'abs'
declare module '../formula/tree' {
  interface FunctionNames {
    roots: RootName
  }
}

/** Roots, and the absolute value, which is the root of a square. */
export const roots: Record<RootName, FunctionEntry> = {
  sqrt: {
    spellings: ['sqrt'],
    latex: {
      before: '\\sqrt{',
      after: '}',
      loose: true,
    },
    value: Math.sqrt,
    loop: (a, out, count, { scale, factor, shift }) => {
      for (let i = 0; i < count; i++) out[i] = shift + factor * Math.sqrt(scale * a[i]!)
    },
    ball: (u, B) => B.sqrt(u),
    derivative: (u) => quotient(whole(1), product(whole(2), call('sqrt', u))),
    jet: (u, look) => realPowerJet(u, 0.5, Math.sqrt(u[0]!), look),
    box: (u, notes) => {
      const jet = B.realPowerJet(u, 0.5, notes)
      jet[0] = I.sqrt(u[0]!, notes)
      return jet
    },
    domain: (u) => compare(u, '>=', whole(0)),
    atZero: 0,
    zero: { power: 1 / 2 },
    breaks: itself,
    root: 2n,
    antiderivative: (u) => product(exactly(rational(2n, 3n)), u, call('sqrt', u)),
    readable: true,
  },
  cbrt: {
    spellings: ['cbrt'],
    latex: {
      before: '\\sqrt[3]{',
      after: '}',
      loose: true,
    },
    value: Math.cbrt,
    ball: (u, B) => B.cbrt(u),
    derivative: (u) => quotient(whole(1), product(whole(3), power(call('cbrt', u), whole(2)))),
    jet: (u, look) => realPowerJet(u, 1 / 3, Math.cbrt(u[0]!), look, 'odd'),
    box: (u, notes) => {
      const jet = B.oddRootJet(u, 1 / 3, true, notes)
      jet[0] = I.cbrt(u[0]!)
      return jet
    },
    total: true,
    signOfArgument: true,
    atZero: 0,
    zero: { power: 1 / 3 },
    breaks: itself,
    root: 3n,
    antiderivative: (u) => product(exactly(rational(3n, 4n)), u, call('cbrt', u)),
    readable: true,
  },
  abs: {
    spellings: ['abs'],
    latex: {
      before: '\\left|',
      after: '\\right|',
    },
    value: Math.abs,
    loop: (a, out, count, { scale, factor, shift }) => {
      for (let i = 0; i < count; i++) out[i] = shift + factor * Math.abs(scale * a[i]!)
    },
    ball: (u, B) => B.abs(u),
    derivative: (u) => quotient(u, call('abs', u)),
    jet: absJet,
    box: B.absJet,
    total: true,
    atZero: 0,
    zero: { power: 1 },
    breaks: itself,
    smooth: (at, u) => (at < 0 ? negate(u) : u),
    antiderivative: (u) => quotient(product(u, call('abs', u)), whole(2)),
  },
}
