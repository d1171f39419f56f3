import type { FunctionName } from '../../functions'
import type { Relation } from '../../formula/tree'

export type Word = 'if' | 'then' | 'otherwise' | 'and' | 'or'

/** A piece of the text that means something, with where it stands (0-based, end excluded). */
export type Token = { from: number; to: number } & (
  | { kind: 'number'; text: string }
  | { kind: 'name'; name: string }
  | { kind: 'constant'; name: 'e' | 'pi' }
  | { kind: 'function'; name: FunctionName; spelled: string; base?: string }
  | { kind: 'curve'; name: string }
  | { kind: 'sign'; sign: '+' | '-' | '*' | '/' | '^' }
  | { kind: 'raised'; text: string }
  | { kind: 'primes'; count: number }
  | { kind: 'relation'; relation: Relation }
  | { kind: 'word'; word: Word }
  | { kind: '(' | ')' | '|' | ',' | ';' | ':' | '?' | '!' | 'degree' | 'end' }
  /** A root sign, with its order where that is not 2. */
  | { kind: 'root'; order?: string }
  /** d/dx, d²/dx² */
  | { kind: 'derivative'; order: number }
  /** A part that has been read by itself, by its number. */
  | { kind: 'part'; index: number }
  /** From LaTeX: \\frac and \\sqrt, whose braces follow. */
  | { kind: 'fraction' | 'latexRoot' }
)

/** What letters may stand for besides functions and constants. */
export interface Names {
  variable: string
  names: readonly string[]
  curves: readonly string[]
}
