import { call, negate, product, quotient, sum, type Tree } from '../formula/tree'

/** A function of several arguments: what is not a rule of its own where functions are worked with. */
export interface SeveralEntry {
  /** Every way its name is written before its arguments; none where it has a form of its own. */
  spellings: readonly string[]
  /** The least and the greatest number of arguments. */
  takes: readonly [least: number, most: number]
  /** What is asked for where the parentheses are missing, and their number in words. */
  shape: string
  inWords: string
  /** It may stand between its two arguments: x mod 3. */
  between?: boolean
  /** It has a value wherever its arguments do. */
  total?: boolean
  /** The same in other functions: all that is worked out of it is worked out of that. */
  means?: (args: readonly Tree[]) => Tree
}

export type SeveralName = 'logBase' | 'min' | 'max' | 'mod'
declare module '../formula/tree' {
  interface FunctionNames {
    several: SeveralName
  }
}

const extreme = (name: 'min' | 'max'): SeveralEntry => ({
  spellings: [name],
  takes: [2, Infinity],
  shape: `${name}(a, b)`,
  inWords: 'two values or more',
  total: true,
})

export const several: Record<SeveralName, SeveralEntry> = {
  min: extreme('min'),
  max: extreme('max'),
  // The base stands below the name, not among the arguments.
  logBase: { spellings: [], takes: [1, 1], shape: 'log_2(x)', inWords: 'one value' },
  // The remainder has the sign of what is divided by: −1 mod 3 is 2. Source: D. E. Knuth, The Art of
  // Computer Programming, volume 1, section 1.2.4 (from memory).
  mod: {
    spellings: ['mod'],
    takes: [2, 2],
    shape: 'mod(x, 3)',
    inWords: 'two values',
    between: true,
    means: ([of, by]) => sum(of!, negate(product(by!, call('floor', quotient(of!, by!))))),
  },
}
