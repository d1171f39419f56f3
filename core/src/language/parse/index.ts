import type { Tree } from '../../formula/tree'
import type { Hint, Problem } from '../problems'
import { type Token, tokenize } from '../tokens'
import { readCondition } from './conditions'
import { readBase, readFactor } from './factors'
import { readGroup } from './groups'
import { arcs, powersOfTen } from './hints'
import { readSum } from './sums'
import { type Grammar, Stop, TokenReader } from './tokenReader'

export interface ParseOptions {
  /** The letter of the variable; x where it is left out. */
  variable?: string
  /** Names that have a value: the sliders. */
  names?: readonly string[]
  /** Other curves by name. */
  curves?: Readonly<Record<string, Tree>>
}

export type Parsed = { ok: true; tree: Tree; hints: Hint[] } | { ok: false; problems: Problem[] }

const grammar: Grammar = {
  group: readGroup,
  sum: readSum,
  factor: readFactor,
  base: readBase,
  condition: readCondition,
}

/**
 * Reads a formula as people write it by hand: implied multiplication, sin 2x, sin^2 x, |x|,
 * powers to the right, pieces with conditions. Never throws, whatever the text; problems carry
 * their position and, where there is one, a fix. Unary minus binds less than a power, implied
 * multiplication as tightly as division (1/2x is (1/2)x), and the argument of a function without
 * parentheses runs to the next +, −, ·, / or function name.
 */
export function parseFormula(text: string, options: ParseOptions = {}): Parsed {
  const variable = options.variable ?? 'x'
  const { tokens, problems } = tokenize(text, {
    variable,
    names: options.names ?? [],
    curves: Object.keys(options.curves ?? {}),
  })
  const reader = new TokenReader(tokens, text, variable, grammar)
  try {
    const tree = readWhole(reader)
    if (problems.length > 0) return { ok: false, problems }
    return {
      ok: true,
      tree,
      hints: [...reader.hints, ...powersOfTen(tokens, text), ...arcs(tokens)],
    }
  } catch (error) {
    if (!(error instanceof Stop)) throw error
    return { ok: false, problems: [...problems, error.problem].sort((a, b) => a.from - b.from) }
  }
}

/** The whole text is one formula: what is left over is told. */
function readWhole(r: TokenReader): Tree {
  const tree = r.grammar.group(r)
  const rest = r.peek()
  return rest.kind === 'end' ? tree : leftOver(r, rest)
}

function leftOver(r: TokenReader, rest: Token): never {
  switch (rest.kind) {
    case ')':
      return r.stop('there is no opening parenthesis for this one', rest, 'remove it, or add (')
    case ',':
      return r.stop('a comma stands here', rest, 'use a point for decimals')
    case 'relation':
      return r.stop(
        'a formula has no = or < in it',
        rest,
        'write only what stands on the right of =',
      )
    case '|':
      return r.stop('this bar is not closed', rest, 'add a second |')
    case ';':
      return r.stop('pieces need conditions', rest, 'x^2 if x < 1; 1 otherwise')
    case 'primes':
      return r.stop('only a curve can carry a prime', rest)
    case 'degree':
      return r.stop('a degree sign follows a number', rest)
    default:
      return r.stop(`“${r.spelled(rest)}” cannot stand here`, rest)
  }
}
