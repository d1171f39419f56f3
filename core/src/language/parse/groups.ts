import { type Piece, pieces, type Tree } from '../../formula/tree'
import type { TokenReader } from './tokenReader'

const example = 'write a piece as: x^2 if x < 1'

/** A whole text or what stands between parentheses: one formula, or pieces. */
export function readGroup(r: TokenReader): Tree {
  const first = r.grammar.sum(r)
  const token = r.peek()
  if (token.kind !== 'word') return first
  if (token.word === 'and' || token.word === 'or') {
    return r.stop(`“${token.word}” belongs in a condition`, token, example)
  }
  const all: Piece[] = []
  let body = first
  for (;;) {
    const piece = readPiece(r, body)
    all.push(piece)
    if (piece.when === null) break
    if (r.peek().kind !== ';' && r.peek().kind !== ',') break
    r.take()
    if (r.peek().kind === 'end') break
    body = r.grammar.sum(r)
  }
  return r.count(pieces(...all))
}

/** What stands behind the formula of a piece: a condition, or the word otherwise. */
function readPiece(r: TokenReader, body: Tree): Piece {
  const word = r.take()
  if (word.kind === 'word' && word.word === 'otherwise') {
    if (r.peek().kind === ';') {
      r.stop('nothing can follow “otherwise”', r.peek(), 'put that piece before it')
    }
    return { body, when: null }
  }
  if (!(word.kind === 'word' && word.word === 'if')) {
    r.stop('a condition is missing here', word, example)
  }
  if (r.peek().kind !== 'word') return { body, when: r.grammar.condition(r) }
  const next = r.take()
  if (next.kind === 'word' && next.word === 'otherwise') return { body, when: null }
  return r.stop('a condition is missing here', next, example)
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
