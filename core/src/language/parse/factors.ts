import {
  call,
  constant,
  decimal,
  equalsNumber,
  isNumber,
  name as nameTree,
  negate,
  power,
  product,
  quotient,
  type Tree,
  whole,
} from '../../formula/tree'
import type { Token } from '../tokens'
import { readCall, readCurve } from './calls'
import { readParentheses } from './groups'
import { readSigns } from './sums'
import type { TokenReader } from './tokenReader'

/** One factor: something with its powers. */
export function readFactor(r: TokenReader): Tree {
  const start = r.peek()
  return readPowers(r, readFactorial(r, r.grammar.base(r)), start)
}

/** n! binds before powers; n!! is in use for two things. */
function readFactorial(r: TokenReader, base: Tree): Tree {
  const sign = r.takeIf('!')
  if (!sign) return base
  if (r.peek().kind === '!') {
    r.stop('two of these signs could mean two things', sign, 'write (n!)! if you mean it twice')
  }
  return r.count(call('factorial', base))
}

function readPowers(r: TokenReader, base: Tree, start: Token): Tree {
  let result = base
  if (r.takeIf('degree')) {
    result = r.count(quotient(product(result, constant('pi')), whole(180)))
  }
  const raised = r.takeIf('raised')
  if (raised) result = r.count(power(result, whole(BigInt(raised.text))))
  if (r.takeSign('^')) {
    const exponentToken = r.peek()
    const exponent = r.deeper(readExponent)
    result = r.count(power(result, exponent))
    hintAtExponent(r, start, exponentToken, exponent)
  }
  return result
}

/** e^2x is e²·x by the rules; people who write it often mean e^(2x). */
function hintAtExponent(r: TokenReader, start: Token, exponentToken: Token, exponent: Tree) {
  const next = r.peek()
  const before = r.before()!
  if (start.kind !== 'constant' || start.name !== 'e' || next.kind !== 'name') return
  if (!isNumber(exponent) || before.kind !== 'number' || next.from !== before.to) return
  const meant = `e^(${r.text.slice(exponentToken.from, next.to)})`
  r.hints.push({
    message: `did you mean ${meant}?`,
    from: start.from,
    to: next.to,
    replacement: meant,
  })
}

function readExponent(r: TokenReader): Tree {
  const turned = readSigns(r)
  const factor = r.grammar.factor(r)
  return turned ? r.count(negate(factor)) : factor
}

/** What stands without powers: a number, a name, a call, parentheses, bars, a root. */
export function readBase(r: TokenReader): Tree {
  const token = r.peek()
  switch (token.kind) {
    case 'number':
      r.take()
      return r.count(decimal(token.text))
    case 'name':
      r.take()
      if (r.peek().kind === 'primes') {
        r.stop(`${token.name} is not a curve, so it has no derivative to take`, r.peek())
      }
      return r.count(nameTree(token.name))
    case 'constant':
      r.take()
      return r.count(constant(token.name))
    case 'curve':
      return readCurve(r)
    case 'function':
      return readCall(r)
    case 'root':
      r.take()
      return r.count(call('sqrt', r.deeper(r.grammar.factor)))
    case '(':
      return readParentheses(r)
    case 'fraction': {
      r.take()
      const above = r.deeper(readLatexPart)
      return r.count(quotient(above, r.deeper(readLatexPart)))
    }
    case 'latexRoot':
      return r.deeper(readLatexRoot)
    case '|':
      return readBars(r, token)
    default:
      return r.missingOperand(token)
  }
}

function readBars(r: TokenReader, open: Token): Tree {
  r.take()
  r.openBars += 1
  const inside = r.grammar.sum(r)
  if (!r.takeIf('|')) r.stop('this bar is not closed', open, 'add a second | behind the expression')
  r.openBars -= 1
  return r.count(call('abs', inside))
}

/** One argument of a LaTeX command: what its braces hold, or a single letter or figure. */
const readLatexPart = (r: TokenReader): Tree => r.grammar.base(r)

/** \\sqrt{x} or \\sqrt[3]{x}: the order of the root stands in brackets. */
function readLatexRoot(r: TokenReader): Tree {
  r.take()
  const order = r.peek().kind === '(' && r.text[r.peek().from] === '[' ? readParentheses(r) : null
  const of = readLatexPart(r)
  if (order === null || equalsNumber(order, 2)) return r.count(call('sqrt', of))
  if (equalsNumber(order, 3)) return r.count(call('cbrt', of))
  return r.count(power(of, quotient(whole(1), order)))
}
