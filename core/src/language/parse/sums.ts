import { severalOrNull } from '../../functions'
import { call, negate, product, quotient, sum, type Tree } from '../../formula/tree'
import { lowered, type Token } from '../tokens'
import { holdsCondition } from './conditions'
import type { TokenOf, TokenReader } from './tokenReader'

export const readSum = (r: TokenReader): Tree =>
  r.deeper(() => {
    const terms: Tree[] = []
    let subtracted = false
    for (;;) {
      // 3 + -x and 3 - -x are written by hand too.
      const turned = readSigns(r)
      const term = readProduct(r)
      if (standsBetween(r)) {
        // A sign of its own belongs to what is divided: -1 mod 3 is 2.
        const rest = readRemainder(r, turned ? r.count(negate(term)) : term)
        terms.push(subtracted ? r.count(negate(rest)) : rest)
      } else terms.push(turned !== subtracted ? r.count(negate(term)) : term)
      const sign = r.takeSign('+', '-')
      if (sign === null) break
      subtracted = sign === '-'
    }
    return terms.length === 1 ? terms[0]! : r.count(sum(...terms))
  })

/** Reads any run of signs; true where they turn the sign. */
export function readSigns(r: TokenReader): boolean {
  let turned = false
  for (let sign = r.takeSign('+', '-'); sign; sign = r.takeSign('+', '-')) {
    if (sign === '-') turned = !turned
  }
  return turned
}

/** Whether a function stands here between its two arguments, as in x mod 3. */
function standsBetween(r: TokenReader): boolean {
  const token = r.peek()
  if (token.kind !== 'function' || !severalOrNull(token.name)?.between) return false
  // 2 mod(x, 3) is a multiple of a call; in x mod (a + 1) the parentheses hold one value.
  if (r.ahead(1)?.kind !== '(') return true
  let level = 0
  for (let i = 1, next = r.ahead(i); next; next = r.ahead(++i)) {
    const { kind } = next
    if (kind === '(') level += 1
    if (kind === ')' && --level === 0) return true
    if (kind === ',' && level === 1) return false
  }
  return true
}

function readRemainder(r: TokenReader, first: Tree): Tree {
  let result = first
  while (standsBetween(r)) {
    const { name } = r.take() as TokenOf<'function'>
    const turned = readSigns(r)
    const by = readProduct(r)
    result = r.count(call(name, result, turned ? r.count(negate(by)) : by))
  }
  return result
}

function readProduct(r: TokenReader): Tree {
  let factors: Tree[] = [r.grammar.factor(r)]
  const join = () => (factors.length === 1 ? factors[0]! : r.count(product(...factors)))
  let divided = 0
  for (;;) {
    const sign = r.takeSign('*', '/')
    if (sign !== null) {
      const turned = readSigns(r)
      const factor = r.grammar.factor(r)
      const next = turned ? negate(factor) : factor
      if (sign === '*') factors.push(next)
      else {
        divided += 1
        r.countDivisions(divided)
        factors = [r.count(quotient(join(), next))]
      }
    } else if (r.startsFactor() && !standsBetween(r) && !opensCondition(r)) {
      factors.push(readImplied(r, r.before()!))
    } else break
  }
  return join()
}

/** x² (x < 1): what stands in parentheses is when it holds, and no factor. */
const opensCondition = (r: TokenReader) => r.peek().kind === '(' && holdsCondition(r)

/** A factor that follows another without a sign between them. */
export function readImplied(r: TokenReader, before: Token): Tree {
  const token = r.peek()
  if (token.kind === 'number' && before.kind === 'number') {
    r.stop('two numbers stand side by side', token, 'put a · between them')
  }
  if (token.kind === 'number' && (before.kind === 'name' || before.kind === 'constant')) {
    const letter = r.spelled(before)
    if (before.to < token.from) {
      r.stop(
        `a number follows ${letter}`,
        token,
        `write ${letter}^${token.text} for a power or ${token.text}${letter} for a multiple`,
      )
    }
    const isIndex = before.kind === 'name' && /^\d{1,3}$/.test(token.text)
    r.ask(before, token, [
      `${letter}^${token.text}`,
      ...(isIndex ? [letter + lowered(token.text)] : []),
      `${token.text}${letter}`,
    ])
  }
  return r.grammar.factor(r)
}
