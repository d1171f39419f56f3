import { bareFraction, numbers, raised } from './figures'
import { caseColumn, latex, latexDegree } from './latexTokens'
import { letters } from './letters'
import { operators, primes, relations, silent, singles, strange } from './signs'
import { TextReader, type Tokens } from './textReader'
import type { Names } from './token'

export { lowered } from './letters'
export { isFreeWord } from './vocabulary'
export { mostParts, partMark } from './signs'
export type { Names, Token } from './token'

/**
 * What may stand in a formula, the most frequent first; the last takes anything. Each knows its own by
 * the first character, but for signs of which one begins another: those stand in this order.
 */
const readers: readonly ((reader: TextReader) => boolean)[] = [
  singles,
  letters,
  bareFraction,
  numbers,
  silent,
  latexDegree,
  operators,
  relations,
  raised,
  primes,
  latex,
  caseColumn,
  strange,
]

/** A long text of nonsense needs one page of problems, not a book. */
const mostProblems = 50

/**
 * Splits a text into tokens. A run of letters is split into known names, longest first
 * (2ab is 2 · a · b); letters nobody knows become problems and stand for themselves.
 */
export function tokenize(text: string, context: Names): Tokens {
  const reader = new TextReader(text, context, tokenize)
  // Dollar signs stand around pasted LaTeX; anywhere else they mean nothing.
  const isAround = (i: number) => /[\s$]/.test(text[i]!)
  let last = text.length
  while (last > 0 && isAround(last - 1)) last -= 1
  while (reader.at < last && isAround(reader.at)) reader.at += 1
  while (reader.at < last && reader.problems.length <= mostProblems) {
    for (const read of readers) if (read(reader)) break
  }
  reader.push(text.length, { kind: 'end' }, text.length)
  return { tokens: reader.tokens, problems: reader.problems }
}
