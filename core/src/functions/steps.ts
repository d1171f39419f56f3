import * as B from '../arithmetic/boxJets'
import * as I from '../arithmetic/intervals'
import {
  constantJet,
  isConstant,
  type Jet,
  type Look,
  signBeside,
  undefinedJet,
  valueOnly,
} from '../arithmetic/jets'
import { negateRational, type Rational } from '../arithmetic/rational'
import { call, compare, type Condition, pieces, type Tree, whole } from '../formula/tree'
import type { FunctionEntry } from './entry'

/**
 * The jet of a function that is level between its steps: at a step each side has the value it has
 * beside it, for an argument that goes below (-1), stays at (0) or goes above (1) the step.
 */
const stepJet =
  (
    value: (x: number) => number,
    atStep: (x: number) => boolean,
    beside: (step: number, way: number) => number,
  ) =>
  (u: Jet, look: Look) => {
    const at = u[0]!
    if (!atStep(at)) return constantJet(value(at), u.length)
    if (look.side === 0) {
      look.splits = true
      return valueOnly(value(at), u)
    }
    if (isConstant(u)) return constantJet(value(at), u.length)
    const moved = u.slice()
    moved[0] = 0
    return constantJet(beside(at, signBeside(moved, look.side)), u.length)
  }

/** 0 where the condition holds, nothing elsewhere. */
const levelWhere = (when: Condition): Tree => pieces({ body: whole(0), when })
/** Math.sign without its negative zero. */
const sign = (x: number) => Math.sign(x) + 0
/** The greatest whole number that is not above a fraction. */
const floorOf = ({ n, d }: Rational) => n / d - (n % d < 0n ? 1n : 0n)
/** A step as a number; beyond what doubles hold there is none. */
const stepped = (step: number): Tree | null => (Number.isFinite(step) ? whole(step) : null)
const mostFactorial = 170
const isCounting = (x: number) => Number.isInteger(x) && x >= 0

/** n! for whole numbers from 0 to 170, beyond which no double holds it; NaN between them. */
function factorial(x: number): number {
  if (!isCounting(x)) return NaN
  if (x > mostFactorial) return Infinity
  let result = 1
  for (let k = 2; k <= x; k++) result *= k
  return result
}
/** Whole numbers up to this are multiplied out exactly. */
const mostExact = 20n

export type StepName = 'sgn' | 'floor' | 'ceil' | 'factorial'
declare module '../formula/tree' {
  interface FunctionNames {
    steps: StepName
  }
}

/** Functions that jump from one whole number to the next, and the one that has values at them alone. */
export const steps: Record<StepName, FunctionEntry> = {
  sgn: {
    spellings: ['sgn', 'sign'],
    latex: { name: '\\operatorname{sgn}' },
    value: sign,
    ball: (u, B) => B.level(u, (x) => (x.isZero() ? x : x.div(x.abs()))),
    derivative: (u) => levelWhere(compare(u, '!=', whole(0))),
    jet: stepJet(
      sign,
      (x) => x === 0,
      (_zero, way) => way,
    ),
    box: (u, notes) => B.stepJet(sign, u, notes),
    total: true,
    atZero: 0,
    breaks: (u) => [u],
    smooth: (at) => stepped(Math.sign(at)),
  },
  floor: {
    spellings: ['floor'],
    latex: { before: '\\lfloor ', after: '\\rfloor' },
    value: Math.floor,
    ball: (u, B) => B.level(u, (x) => x.floor()),
    derivative: (u) => levelWhere(compare(u, '!=', call('floor', u))),
    jet: stepJet(Math.floor, Number.isInteger, (step, way) => (way < 0 ? step - 1 : step)),
    box: (u, notes) => B.stepJet(Math.floor, u, notes),
    total: true,
    breaksAtWholes: true,
    smooth: (at) => stepped(Math.floor(at)),
    exact: (u) => (u.kind === 'number' ? whole(floorOf(u.exact)) : null),
  },
  ceil: {
    spellings: ['ceil'],
    latex: { before: '\\lceil ', after: '\\rceil', loose: true },
    value: Math.ceil,
    ball: (u, B) => B.level(u, (x) => x.ceil()),
    derivative: (u) => levelWhere(compare(u, '!=', call('ceil', u))),
    jet: stepJet(Math.ceil, Number.isInteger, (step, way) => (way > 0 ? step + 1 : step)),
    box: (u, notes) => B.stepJet(Math.ceil, u, notes),
    total: true,
    breaksAtWholes: true,
    smooth: (at) => stepped(Math.ceil(at)),
    exact: (u) => (u.kind === 'number' ? whole(-floorOf(negateRational(u.exact))) : null),
  },
  factorial: {
    spellings: ['factorial'],
    latex: { behind: '!' },
    value: factorial,
    // It has no slope anywhere: no two of its places touch.
    derivative: (u) => levelWhere(compare(u, '!=', u)),
    jet: (u) => {
      if (isConstant(u)) return constantJet(factorial(u[0]!), u.length)
      const jet = undefinedJet(u.length)
      jet[0] = factorial(u[0]!)
      return jet
    },
    box: (u, notes) => {
      const { lo, hi } = u[0]!
      const [first, last] = [Math.max(0, Math.ceil(lo)), Math.floor(hi)]
      if (first > last) {
        notes.empty = notes.partial = true
        return B.unknownJet(I.everything, u.length)
      }
      const values = { lo: I.down(factorial(first)), hi: I.up(factorial(last)) }
      if (lo === hi) return B.constantJet(values, u.length)
      notes.partial = notes.jumps = true
      return B.unknownJet(values, u.length)
    },
    domain: (u) => ({
      kind: 'all',
      of: [compare(u, '=', call('floor', u)), compare(u, '>=', whole(0))],
    }),
    positive: true,
    atZero: 1,
    zero: 'never',
    breaksAtWholes: true,
    exact(u) {
      if (u.kind !== 'number' || u.exact.d !== 1n) return null
      const { n } = u.exact
      if (n < 0n || n > mostExact) return null
      let result = 1n
      for (let k = 2n; k <= n; k++) result *= k
      return whole(result)
    },
  },
}
