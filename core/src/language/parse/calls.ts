import { argumentsOf, type FunctionName, maybeEntry, severalOrNull } from '../../functions'
import {
  call,
  constant,
  curve,
  decimal,
  equalsNumber,
  name as nameTree,
  negate,
  power,
  product,
  type Tree,
  whole,
} from '../../formula/tree'
import { readArguments } from './groups'
import { readImplied, readSigns } from './sums'
import type { TokenOf, TokenReader } from './tokenReader'

/** A curve by its name, with primes: f, f″(2). */
export function readCurve(r: TokenReader): Tree {
  const token = r.take() as TokenOf<'curve'>
  const marks = r.takeIf('primes')
  const primes = marks?.count ?? 0
  if (marks && primes > 9) r.stop('that is too many primes', marks, 'use at most 9')
  if (r.peek().kind !== '(') return r.count(curve(token.name, primes, nameTree(r.variable)))
  const open = r.peek()
  const args = r.deeper(readArguments)
  if (args.length !== 1) r.stop(`${token.name} takes one value`, open)
  return r.count(curve(token.name, primes, args[0]!))
}

/** A function with what it acts on: sin x, sin^2(x), min(a, b), log_2 x. */
export function readCall(r: TokenReader): Tree {
  const token = r.take() as TokenOf<'function'>
  const exponent = readOwnExponent(r)
  const given = readValues(r, token)
  const args = token.base === undefined ? given : [readBaseOfLog(r, token), ...given]
  if (exponent === null) return r.count(call(token.name, ...args))
  if (equalsNumber(exponent, -1)) return r.count(call(inverseOf(r, token), ...args))
  if (exponent.kind === 'number' && exponent.exact.n < 0n) {
    const spelled = r.spelled(token)
    const fix = `write (${spelled} …)^-2 or 1/${spelled}^2 …`
    r.stop(`a negative exponent on ${spelled} could mean two things`, token, fix)
  }
  return r.count(power(r.count(call(token.name, ...args)), exponent))
}

/** The exponent that stands between a function and what it acts on: sin² x. */
function readOwnExponent(r: TokenReader): Tree | null {
  const raised = r.takeIf('raised')
  if (raised) return whole(BigInt(raised.text))
  return r.takeSign('^') ? r.deeper(readFunctionExponent) : null
}

/** As many values as the function takes, in parentheses or, for one, without. */
function readValues(r: TokenReader, token: TokenOf<'function'>): Tree[] {
  const spelled = r.spelled(token)
  const { takes, inWords } = argumentsOf(token.name)
  const [least, most] = takes
  const open = r.peek()
  if (open.kind !== '(' && least > 1) {
    const shape = severalOrNull(token.name)?.shape
    return r.stop(`${spelled} needs its values in parentheses`, open, shape)
  }
  const args =
    open.kind === '(' ? r.deeper(readArguments) : [r.deeper(() => readBareArgument(r, spelled))]
  if (args.length < least || args.length > most) r.stop(`${spelled} takes ${inWords}`, open)
  return args
}

function inverseOf(r: TokenReader, token: TokenOf<'function'>): FunctionName {
  const inverse = maybeEntry(token.name)?.inverse as FunctionName | undefined
  const spelled = r.spelled(token)
  return (
    inverse ??
    r.stop(`${spelled} with the exponent -1 could mean two things`, token, `write 1/${spelled}(…)`)
  )
}

/** The exponent in sin^2 x is one number, name or parenthesis, so that x stays the argument. */
function readFunctionExponent(r: TokenReader): Tree {
  const turned = readSigns(r)
  const base = r.grammar.base(r)
  return turned ? negate(base) : base
}

function readBaseOfLog(r: TokenReader, token: TokenOf<'function'>): Tree {
  const base = token.base!
  if (/^(\d+\.?\d*|\.\d+)$/.test(base)) return decimal(base)
  if (base === 'e') return constant('e')
  if (/^[A-Za-z]$/.test(base)) return nameTree(base)
  return r.stop('the base of a logarithm is a number or a name here', token, 'such as log_2(x)')
}

/** What sin acts on when there are no parentheses: up to the next sign or function. */
function readBareArgument(r: TokenReader, spelled: string): Tree {
  if (!r.startsFactor() && !r.isSign('+', '-')) {
    r.stop(`${spelled} needs something to act on`, r.before()!, `${spelled}(${r.variable})`)
  }
  const turned = readSigns(r)
  const factors = [r.grammar.factor(r)]
  while (r.startsFactor() && r.peek().kind !== 'function') {
    factors.push(readImplied(r, r.before()!))
  }
  const argument = factors.length === 1 ? factors[0]! : r.count(product(...factors))
  return turned ? negate(argument) : argument
}
