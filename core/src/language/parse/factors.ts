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
import { readImplied, readSigns } from './sums'
import type { TokenOf, TokenReader } from './tokenReader'

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
      return r.count(rootOf(token.order, r.deeper(r.grammar.factor)))
    case 'part':
      r.take()
      return r.count(r.parts[token.index]!)
    case 'derivative':
      return readDerivative(r)
    case '(':
      return readDerivedParentheses(r)
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

/** d/dx with what it is taken of: parentheses, or all that is multiplied up to the next sign. */
function readDerivative(r: TokenReader): Tree {
  const token = r.take() as TokenOf<'derivative'>
  if (r.peek().kind === '(') return r.differentiated(readParentheses(r), token.order, token)
  const factors = [r.deeper(r.grammar.factor)]
  while (r.startsFactor()) factors.push(readImplied(r, r.before()!))
  const whole = factors.length === 1 ? factors[0]! : r.count(product(...factors))
  return r.differentiated(whole, token.order, token)
}

/** Parentheses, and primes behind them: (x²)′. */
function readDerivedParentheses(r: TokenReader): Tree {
  const open = r.peek()
  const [only, close] = [r.ahead(1), r.ahead(2)]
  // [x] alone is in use for the whole part, and for parentheses.
  if (r.text[open.from] === '[' && only?.kind === 'name' && close?.kind === ')') {
    const { name } = only
    r.stop(
      `[${name}] could mean two things`,
      open,
      `write ⌊${name}⌋ for the whole part, or (${name})`,
    )
  }
  const inside = readParentheses(r)
  const marks = r.takeIf('primes')
  if (!marks) return inside
  if (marks.count > 9) r.stop('that is too many primes', marks, 'use at most 9')
  return r.differentiated(inside, marks.count, marks)
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

/** The root of an order that is written in figures; the square root without one. */
function rootOf(order: string | undefined, of: Tree): Tree {
  if (order === undefined || order === '2') return call('sqrt', of)
  return order === '3' ? call('cbrt', of) : power(of, quotient(whole(1), whole(BigInt(order))))
}
