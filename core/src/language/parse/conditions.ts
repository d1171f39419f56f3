import type { Condition, Relation } from '../../formula/tree'
import type { TokenReader } from './tokenReader'

/** A condition such as 0 < x <= 1 or x > 3. */
export function readCondition(r: TokenReader): Condition {
  const ofAny = [readAll(r)]
  while (r.isWord('or')) {
    r.take()
    ofAny.push(readAll(r))
  }
  return ofAny.length === 1 ? ofAny[0]! : { kind: 'any', of: ofAny }
}

function readAll(r: TokenReader): Condition {
  const ofAll = [readCompare(r)]
  while (r.isWord('and')) {
    r.take()
    ofAll.push(readCompare(r))
  }
  return ofAll.length === 1 ? ofAll[0]! : { kind: 'all', of: ofAll }
}

function readCompare(r: TokenReader): Condition {
  if (r.peek().kind === '(' && holdsCondition(r)) {
    r.take()
    const inner = r.deeper(readCondition)
    if (r.peek().kind !== ')') r.stop('a parenthesis is missing here', r.peek(), 'add )')
    r.take()
    return inner
  }
  const terms = [r.grammar.sum(r)]
  const relations: Relation[] = []
  for (let found = r.takeIf('relation'); found; found = r.takeIf('relation')) {
    relations.push(found.relation)
    terms.push(r.grammar.sum(r))
  }
  if (relations.length === 0) {
    r.stop('a condition compares two things', r.peek(), `such as ${r.variable} < 1`)
  }
  return r.count({ kind: 'compare', terms, relations })
}

/** Whether the parenthesis ahead holds a condition rather than a formula, in pieces or not. */
export function holdsCondition(r: TokenReader): boolean {
  let compares = false
  for (let i = 1, token = r.ahead(i); token; token = r.ahead(++i)) {
    if (token.kind === '(') i = r.closing(i)
    if (token.kind === ')') return compares
    if (token.kind === 'word' && (token.word === 'if' || token.word === 'otherwise')) return false
    compares ||= token.kind === 'relation' || token.kind === 'word'
  }
  return compares
}
