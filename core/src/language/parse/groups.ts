import { type Condition, type Piece, pieces, type Tree } from '../../formula/tree'
import { holdsCondition } from './conditions'
import type { TokenReader } from './tokenReader'

const example = 'write a piece as: x^2 if x < 1'

/**
 * A whole text or what stands between parentheses: one formula, or pieces. A piece has its condition
 * behind a word, a comma or in parentheses, or before it: x² if x < 1; x², x < 1; x² (x < 1);
 * if x < 1 then x²; x < 1: x².
 */
export function readGroup(r: TokenReader): Tree {
  const first = readPiece(r)
  if (!('when' in first)) return first
  const all: Piece[] = [first]
  while (all.at(-1)!.when !== null) {
    const separator = r.takeIf(';') ?? r.takeIf(',') ?? r.takeIf(':')
    if (r.isWord('and')) r.take()
    if (r.peek().kind === 'end' || (!separator && !r.isWord('otherwise'))) break
    const next = readPiece(r)
    // x < 1 ? x² : 2x
    if ('when' in next) all.push(next)
    else if (separator?.kind === ':') all.push({ body: next, when: null })
    else return r.stop('a condition is missing here', r.peek(), example)
  }
  if (r.peek().kind === ';') {
    r.stop('nothing can follow “otherwise”', r.peek(), 'put that piece before it')
  }
  return r.count(pieces(...all))
}

/** One piece, or a formula without a condition. */
function readPiece(r: TokenReader): Piece | Tree {
  if (r.isWord('otherwise')) {
    r.take()
    // "else if x < 2 then 3" has a condition all the same.
    if (r.isWord('if')) return readConditionFirst(r)
    r.takeIf(',')
    return { body: r.grammar.sum(r), when: null }
  }
  if (r.isWord('if') || conditionLeads(r)) return readConditionFirst(r)
  const body = r.grammar.sum(r)
  const token = r.peek()
  if (token.kind === 'word') return { body, when: readBehindWord(r) }
  if (token.kind === '(' && holdsCondition(r)) return { body, when: r.grammar.condition(r) }
  if (token.kind === ',' && conditionFollows(r)) {
    r.take()
    if (r.peek().kind === 'word') return { body, when: readBehindWord(r) }
    return { body, when: r.grammar.condition(r) }
  }
  return body
}

/** if x < 1 then x²; x < 1: x²; x < 1 ? x² */
function readConditionFirst(r: TokenReader): Piece {
  if (r.isWord('if')) r.take()
  const when = r.grammar.condition(r)
  const next = r.peek()
  if (r.isWord('then') || next.kind === ',' || next.kind === ':' || next.kind === '?') r.take()
  else r.stop('the formula for this condition is missing here', next, 'if x < 1 then x^2')
  return { body: r.grammar.sum(r), when }
}

/** What stands behind the formula of a piece: a condition, or the word otherwise. */
function readBehindWord(r: TokenReader): Condition | null {
  const word = r.take()
  if (word.kind === 'word' && word.word === 'otherwise') return null
  if (!(word.kind === 'word' && word.word === 'if')) {
    r.stop(`“${r.spelled(word)}” belongs in a condition`, word, example)
  }
  if (r.peek().kind !== 'word') return r.grammar.condition(r)
  const next = r.take()
  if (next.kind === 'word' && next.word === 'otherwise') return null
  return r.stop('a condition is missing here', next, example)
}

/** Whether a comparison stands behind the comma ahead, up to the next one. */
const conditionFollows = (r: TokenReader) => comparisonEnds(r, 1) !== null || wordFollows(r)
const wordFollows = (r: TokenReader) => {
  const next = r.ahead(1)
  return next?.kind === 'word' && (next.word === 'if' || next.word === 'otherwise')
}

/** Whether a comparison stands here, and behind it : or ? or "then" and its formula. */
function conditionLeads(r: TokenReader): boolean {
  const end = comparisonEnds(r, 0)
  return end === ':' || end === '?' || end === 'then'
}

/** With what a comparison ends that begins so far ahead; null where none begins there. */
function comparisonEnds(r: TokenReader, from: number): string | null {
  let compares = false
  for (let i = from, token = r.ahead(i); token; token = r.ahead(++i)) {
    const { kind } = token
    if (kind === '(') i = r.closing(i)
    if (kind === ')' || kind === 'end') return compares ? 'end' : null
    if (kind === 'relation') compares = true
    if (kind === 'word' && token.word !== 'and' && token.word !== 'or') {
      return compares ? token.word : null
    }
    if (kind === ',' || kind === ';' || kind === ':' || kind === '?') return compares ? kind : null
  }
  return null
}

/** Parentheses around a formula or pieces. */
export const readParentheses = (r: TokenReader): Tree =>
  r.between(() => {
    const inside = r.grammar.group(r)
    if (r.peek().kind === ',') r.stop('a comma stands here', r.peek(), 'use a point for decimals')
    return inside
  })

/** The values of a call, between parentheses. */
export const readArguments = (r: TokenReader): Tree[] =>
  r.between(() => {
    const args = [r.grammar.group(r)]
    while (r.takeIf(',') ?? r.takeIf(';')) args.push(r.grammar.sum(r))
    return args
  })
