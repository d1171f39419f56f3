import type { Ball, BallArithmetic } from '../arithmetic/balls'
import type { BoxJet } from '../arithmetic/boxJets'
import type { BoxNotes } from '../arithmetic/intervals'
import type { Jet, Look } from '../arithmetic/jets'
import type { Condition, Tree } from '../formula/tree'

/** How a function is typeset: by a name before its argument, or by what stands behind or around it. */
export type Typeset =
  | { behind: string }
  | { name: string; /** sin²x rather than (sin x)² */ raised?: boolean }
  | {
      before: string
      after: string
      /** The argument stands in an exponent, where fractions are written in one line. */
      small?: boolean
      /** A power of it wants parentheses. */
      loose?: boolean
    }

/** What a function is 0 with: its argument, and to which power of it; or another formula. */
export type ZeroWith = 'never' | { power: number } | { tree: (u: Tree) => Tree }

/** What is done to the argument and to the value of a function in the same pass over many values. */
export interface Around {
  scale: number
  /** Only where the entry divides: f(scale · a / over). */
  over: number
  factor: number
  shift: number
}

/** The function as it is: -0 is what adds nothing to any number, whatever its sign. */
export const plainly: Around = { scale: 1, over: 1, factor: 1, shift: -0 }

/**
 * An elementary function of one argument: all that the rest of core knows about it. Members without
 * a question mark are asked of each; facts left out are not so, or not known.
 */
export interface FunctionEntry {
  /** Every way it is written; the first is its name in plain text. */
  spellings: readonly [string, ...string[]]
  latex: Typeset
  /** What its name with the exponent -1 means. */
  inverse?: string
  /** The real value; NaN outside the domain. Accuracy is that of the Math function it rests on. */
  value: (x: number) => number
  /**
   * A loop of its own over many values, for those that studies are full of: shift + factor ·
   * f(scale · a), with the operations in this order. Four values go in one round.
   */
  loop?: (a: Float64Array, out: Float64Array, count: number, around: Around) => void
  /** Its loop divides the argument as well: decay is mostly written e^(-x/5). */
  divides?: boolean
  /** The derivative by the argument, as a tree in it. Undefined where there is none. */
  derivative: (u: Tree) => Tree
  /** Taylor arithmetic; see evaluate/jets. */
  jet: (u: Jet, look: Look) => Jet
  /** The same over boxes; see evaluate/boxJets. */
  box: (u: BoxJet, notes: BoxNotes) => BoxJet
  /** The same with many digits; where it is left out `quotient`, `inGrowth` or `exact` stand in for it. */
  ball?: (u: Ball, B: BallArithmetic) => Ball
  /** The real domain as a condition on the argument, where it is not everything. */
  domain?: (u: Tree) => Condition
  /** It has a value at every number. */
  total?: boolean
  /** It is above 0 wherever it has a value. */
  positive?: boolean
  /** It has the sign of its argument. */
  signOfArgument?: boolean
  /** Its value at 0, where that is a whole number. */
  atZero?: 0 | 1
  /** What it vanishes with. */
  zero?: ZeroWith
  /** Formulas at whose zeros it may break, or its domain may end. */
  breaks?: (u: Tree) => readonly Tree[]
  /** It breaks wherever its argument is a whole number. */
  breaksAtWholes?: boolean
  /** What it is at a break, where `isZero` tells which formulas are exactly 0 there. */
  atBreak?: (u: Tree, isZero: (tree: Tree) => boolean) => Tree | null
  /** The formula that holds where it is smooth, around a value of its argument. */
  smooth?: (at: number, u: Tree) => Tree | null
  /** The same as a quotient of others. */
  quotient?: (u: Tree) => { above: Tree; below: Tree }
  /** The same by e^u, ln u, powers and arcs, by whose growth limits are told. */
  inGrowth?: (u: Tree) => Tree
  /** It is the root of this order. */
  root?: bigint
  /** Its antiderivative by the argument, as a tree in it. */
  antiderivative?: (u: Tree) => Tree
  /** Its value at an exact number, where that is one. */
  exact?: (u: Tree) => Tree | null
  /** Numbers with it count as an exact form that people read. */
  readable?: boolean
}
