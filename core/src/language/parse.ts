import { argumentsOf, type FunctionName, maybeEntry, severalOrNull } from '../functions'
import type { Hint, Problem } from './problems'
import { type Token, tokenize } from './tokens'
import {
  call,
  type Condition,
  constant,
  curve,
  decimal,
  equalsNumber,
  isNumber,
  name as nameTree,
  negate,
  type Piece,
  pieces,
  power,
  product,
  quotient,
  type Relation,
  sum,
  type Tree,
  whole,
} from '../formula/tree'

export interface ParseOptions {
  /** The letter of the variable; x where it is left out. */
  variable?: string
  /** Names that have a value: the sliders. */
  names?: readonly string[]
  /** Other curves by name. */
  curves?: Readonly<Record<string, Tree>>
}

export type Parsed = { ok: true; tree: Tree; hints: Hint[] } | { ok: false; problems: Problem[] }

const depthLimit = 500
const nodeLimit = 20_000

/** Ends the reading at the first thing that cannot be understood; never leaves this file. */
class Stop extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message)
  }
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
  const hints: Hint[] = []
  try {
    const tree = readTokens(tokens, variable, hints, text)
    if (problems.length > 0) return { ok: false, problems }
    return { ok: true, tree, hints: [...hints, ...powersOfTen(tokens, text), ...arcs(tokens)] }
  } catch (error) {
    if (!(error instanceof Stop)) throw error
    return { ok: false, problems: [...problems, error.problem].sort((a, b) => a.from - b.from) }
  }
}

/** 1e-3 is 1·e − 3 by the rules; who writes it without a gap often means 0.001. */
const powersOfTen = (tokens: readonly Token[], text: string): Hint[] =>
  tokens.flatMap((token, i) => {
    const [e, sign, digits, next] = tokens.slice(i + 1, i + 5)
    if (token.kind !== 'number' || e?.kind !== 'constant' || e.name !== 'e') return []
    if (sign?.kind !== 'sign' || (sign.sign !== '-' && sign.sign !== '+')) return []
    if (digits?.kind !== 'number' || !/^\d+$/.test(text.slice(digits.from, digits.to))) return []
    const close = e.from === token.to && sign.from === e.to && digits.from === sign.to
    const alone = next === undefined || next.kind === 'end' || next.kind === 'sign'
    if (!close || !alone) return []
    const meant = `${text.slice(token.from, token.to)}E${sign.sign}${text.slice(digits.from, digits.to)}`
    return [
      {
        message: `e is 2.718… here; did you mean ${meant}?`,
        from: token.from,
        to: digits.to,
        replacement: meant,
      },
    ]
  })

/** Beside something called a, atan x is a · tan x by the rules; often the arctangent is meant. */
const arcs = (tokens: readonly Token[]): Hint[] =>
  tokens.flatMap((token, i) => {
    const next = tokens[i + 1]
    const isA = (token.kind === 'name' || token.kind === 'curve') && token.name === 'a'
    if (!isA || next?.kind !== 'function' || next.from !== token.to) return []
    if (!['sin', 'cos', 'tan'].includes(next.spelled)) return []
    const meant = `arc${next.spelled}`
    const message = `this is a times ${next.spelled}; did you mean ${meant}?`
    return [{ message, from: token.from, to: next.to, replacement: meant }]
  })

function readTokens(tokens: Token[], variable: string, hints: Hint[], text: string): Tree {
  let at = 0
  let depth = 0
  let nodes = 0
  let openBars = 0
  const peek = () => tokens[at]!
  const take = () => tokens[at++]!
  const stop = (message: string, token: Token, fix?: string, replacement?: string): never => {
    throw new Stop({
      message,
      from: token.from,
      to: Math.max(token.to, token.kind === 'end' ? token.from : token.from + 1),
      ...(fix ? { fix } : {}),
      ...(replacement ? { replacement } : {}),
    })
  }
  const isSign = (...which: string[]) => {
    const token = peek()
    return token.kind === 'sign' && which.includes(token.sign)
  }
  const count = <T>(tree: T): T => {
    nodes += 1
    if (nodes > nodeLimit) {
      stop(
        'this formula is too long',
        peek(),
        `keep it below ${nodeLimit.toLocaleString('en')} parts`,
      )
    }
    return tree
  }
  const deeper = <T>(read: () => T): T => {
    depth += 1
    if (depth > depthLimit) {
      stop('this formula is nested too deeply', peek(), `keep it below ${depthLimit} levels`)
    }
    const result = read()
    depth -= 1
    return result
  }

  /** A whole text or what stands between parentheses: one formula, or pieces. */
  const readGroup = (): Tree => {
    const first = readSum()
    const token = peek()
    if (token.kind !== 'word') return first
    if (token.word === 'and' || token.word === 'or') {
      return stop(`“${token.word}” belongs in a condition`, token, 'write a piece as: x^2 if x < 1')
    }
    const all: Piece[] = []
    let body = first
    for (;;) {
      const word = take()
      if (word.kind === 'word' && word.word === 'otherwise') {
        all.push({ body, when: null })
        if (peek().kind === ';') {
          stop('nothing can follow “otherwise”', peek(), 'put that piece before it')
        }
        break
      }
      if (!(word.kind === 'word' && word.word === 'if')) {
        stop('a condition is missing here', word, 'write a piece as: x^2 if x < 1')
      }
      if (peek().kind === 'word') {
        const next = take()
        if (next.kind === 'word' && next.word === 'otherwise') {
          all.push({ body, when: null })
          break
        }
        stop('a condition is missing here', next, 'write a piece as: x^2 if x < 1')
      }
      all.push({ body, when: readCondition() })
      if (peek().kind !== ';' && peek().kind !== ',') break
      take()
      if (peek().kind === 'end') break
      body = readSum()
    }
    return count(pieces(...all))
  }

  const readCondition = (): Condition => {
    const ofAny = [readAll()]
    while (isWord('or')) {
      take()
      ofAny.push(readAll())
    }
    return ofAny.length === 1 ? ofAny[0]! : { kind: 'any', of: ofAny }
  }
  const readAll = (): Condition => {
    const ofAll = [readCompare()]
    while (isWord('and')) {
      take()
      ofAll.push(readCompare())
    }
    return ofAll.length === 1 ? ofAll[0]! : { kind: 'all', of: ofAll }
  }
  const isWord = (word: string) => {
    const token = peek()
    return token.kind === 'word' && token.word === word
  }
  const readCompare = (): Condition => {
    if (peek().kind === '(' && conditionInParentheses()) {
      take()
      const inner = deeper(readCondition)
      if (peek().kind !== ')') stop('a parenthesis is missing here', peek(), 'add )')
      take()
      return inner
    }
    const terms = [readSum()]
    const relations: Relation[] = []
    for (let token = peek(); token.kind === 'relation'; token = peek()) {
      take()
      relations.push(token.relation)
      terms.push(readSum())
    }
    if (relations.length === 0) {
      stop('a condition compares two things', peek(), `such as ${variable} < 1`)
    }
    return count({ kind: 'compare', terms, relations })
  }
  /** Whether the parenthesis ahead holds a condition rather than a formula, in pieces or not. */
  const conditionInParentheses = () => {
    let level = 0
    let compares = false
    for (let i = at; i < tokens.length; i++) {
      const token = tokens[i]!
      if (token.kind === '(') level += 1
      if (token.kind === ')' && --level === 0) return compares
      if (level !== 1) continue
      if (token.kind === 'word' && (token.word === 'if' || token.word === 'otherwise')) return false
      compares ||= token.kind === 'relation' || token.kind === 'word'
    }
    return compares
  }

  const readSum = (): Tree =>
    deeper(() => {
      const terms: Tree[] = []
      let subtracted = false
      for (;;) {
        // 3 + -x and 3 - -x are written by hand too.
        const turned = readSigns()
        const term = readProduct()
        if (standsBetween()) {
          // A sign of its own belongs to what is divided: -1 mod 3 is 2.
          const rest = readRemainder(turned ? count(negate(term)) : term)
          terms.push(subtracted ? count(negate(rest)) : rest)
        } else terms.push(turned !== subtracted ? count(negate(term)) : term)
        if (!isSign('+', '-')) break
        subtracted = (take() as { sign: string }).sign === '-'
      }
      return terms.length === 1 ? terms[0]! : count(sum(...terms))
    })

  /** Whether a function stands here between its two arguments, as in x mod 3. */
  const standsBetween = (): boolean => {
    const token = peek()
    if (token.kind !== 'function' || !severalOrNull(token.name)?.between) return false
    // 2 mod(x, 3) is a multiple of a call; in x mod (a + 1) the parentheses hold one value.
    let level = 0
    for (let i = at + 1; i < tokens.length && tokens[at + 1]!.kind === '('; i++) {
      const { kind } = tokens[i]!
      if (kind === '(') level += 1
      if (kind === ')' && --level === 0) return true
      if (kind === ',' && level === 1) return false
    }
    return true
  }

  const readRemainder = (first: Tree): Tree => {
    let result = first
    while (standsBetween()) {
      const { name } = take() as Token & { kind: 'function' }
      const turned = readSigns()
      const by = readProduct()
      result = count(call(name, result, turned ? count(negate(by)) : by))
    }
    return result
  }

  /** Reads any run of signs; true where they turn the sign. */
  const readSigns = (): boolean => {
    let turned = false
    while (isSign('+', '-')) {
      if ((take() as { sign: string }).sign === '-') turned = !turned
    }
    return turned
  }

  const startsFactor = (): boolean => {
    const { kind } = peek()
    return (
      kind === 'number' ||
      kind === 'name' ||
      kind === 'constant' ||
      kind === 'function' ||
      kind === 'curve' ||
      kind === 'root' ||
      kind === 'fraction' ||
      kind === 'latexRoot' ||
      kind === '(' ||
      (kind === '|' && openBars === 0)
    )
  }

  const readProduct = (): Tree => {
    let factors: Tree[] = [readFactor()]
    const join = () => (factors.length === 1 ? factors[0]! : count(product(...factors)))
    let divided = 0
    for (;;) {
      if (isSign('*', '/')) {
        const sign = (take() as { sign: string }).sign
        const turned = readSigns()
        const next = readFactor()
        if (sign === '*') factors.push(turned ? negate(next) : next)
        else {
          // Division nests, so a long chain of it counts as depth.
          divided += 1
          if (divided + depth > depthLimit) {
            stop('this formula is nested too deeply', peek(), 'divide by one product instead')
          }
          factors = [count(quotient(join(), turned ? negate(next) : next))]
        }
      } else if (startsFactor() && !standsBetween()) {
        factors.push(readImplied(tokens[at - 1]!))
      } else break
    }
    return join()
  }

  /** A factor that follows another without a sign between them. */
  const readImplied = (before: Token): Tree => {
    const token = peek()
    if (token.kind === 'number' && before.kind === 'number') {
      stop('two numbers stand side by side', token, 'put a · between them')
    }
    if (token.kind === 'number' && (before.kind === 'name' || before.kind === 'constant')) {
      const letter = text.slice(before.from, before.to)
      stop(
        `a number follows ${letter}`,
        token,
        `write ${letter}^${token.text} for a power or ${token.text}${letter} for a multiple`,
      )
    }
    return readFactor()
  }

  /** One factor: something with its powers. */
  const readFactor = (): Tree => {
    const start = peek()
    return readPowers(readFactorial(readBase()), start)
  }

  /** n! binds before powers; n!! is in use for two things. */
  const readFactorial = (base: Tree): Tree => {
    if (peek().kind !== '!') return base
    const sign = take()
    if (peek().kind === '!') {
      stop('two of these signs could mean two things', sign, 'write (n!)! if you mean it twice')
    }
    return count(call('factorial', base))
  }

  const readPowers = (base: Tree, start: Token): Tree => {
    let result = base
    if (peek().kind === 'degree') {
      take()
      result = count(quotient(product(result, constant('pi')), whole(180)))
    }
    if (peek().kind === 'raised') {
      const token = take() as Token & { kind: 'raised' }
      result = count(power(result, whole(BigInt(token.text))))
    }
    if (isSign('^')) {
      take()
      const exponentToken = peek()
      const exponent = deeper(readExponent)
      result = count(power(result, exponent))
      hintAtExponent(start, exponentToken, exponent)
    }
    return result
  }

  /** e^2x is e²·x by the rules; people who write it often mean e^(2x). */
  const hintAtExponent = (start: Token, exponentToken: Token, exponent: Tree) => {
    const next = peek()
    if (start.kind !== 'constant' || start.name !== 'e' || next.kind !== 'name') return
    if (!isNumber(exponent) || tokens[at - 1]!.kind !== 'number') return
    if (next.from !== tokens[at - 1]!.to) return
    const meant = `e^(${text.slice(exponentToken.from, next.to)})`
    hints.push({
      message: `did you mean ${meant}?`,
      from: start.from,
      to: next.to,
      replacement: meant,
    })
  }

  const readExponent = (): Tree => {
    const turned = readSigns()
    const factor = readFactor()
    return turned ? count(negate(factor)) : factor
  }

  const readBase = (): Tree => {
    const token = peek()
    switch (token.kind) {
      case 'number':
        take()
        return count(decimal(token.text))
      case 'name':
        take()
        if (peek().kind === 'primes') {
          stop(`${token.name} is not a curve, so it has no derivative to take`, peek())
        }
        return count(nameTree(token.name))
      case 'constant':
        take()
        return count(constant(token.name))
      case 'curve':
        return readCurve()
      case 'function':
        return readCall()
      case 'root': {
        take()
        return count(call('sqrt', deeper(readFactor)))
      }
      case '(':
        return readParentheses()
      case 'fraction': {
        take()
        const above = deeper(readLatexPart)
        return count(quotient(above, deeper(readLatexPart)))
      }
      case 'latexRoot':
        return deeper(readLatexRoot)
      case '|': {
        take()
        openBars += 1
        const inside = readSum()
        if (peek().kind !== '|') {
          stop('this bar is not closed', token, 'add a second | behind the expression')
        }
        take()
        openBars -= 1
        return count(call('abs', inside))
      }
      default:
        return missingOperand(token)
    }
  }

  /** One argument of a LaTeX command: what its braces hold, or a single letter or figure. */
  const readLatexPart = (): Tree => readBase()

  /** \\sqrt{x} or \\sqrt[3]{x}: the order of the root stands in brackets. */
  const readLatexRoot = (): Tree => {
    take()
    const order = peek().kind === '(' && text[peek().from] === '[' ? readParentheses() : null
    const of = readLatexPart()
    if (order === null || equalsNumber(order, 2)) return count(call('sqrt', of))
    if (equalsNumber(order, 3)) return count(call('cbrt', of))
    return count(power(of, quotient(whole(1), order)))
  }

  const missingOperand = (token: Token): never => {
    const before = tokens[at - 1]
    if (token.kind === 'end' && !before) return stop('there is no formula yet', token)
    if (token.kind === ')' && before?.kind !== '(') {
      return stop('something is missing before this parenthesis', token)
    }
    if (token.kind === ')') return stop('there is nothing between the parentheses', token)
    if (token.kind === ',') return stop('a comma stands here', token, 'use a point for decimals')
    if (token.kind === 'end') {
      const behind = before ? ` after ${text.slice(before.from, before.to)}` : ''
      return stop(`something is missing${behind}`, before ?? token)
    }
    return stop(`“${text.slice(token.from, token.to)}” cannot stand here`, token)
  }

  const readParentheses = (): Tree => {
    const open = take()
    const bars = openBars
    openBars = 0
    const inside = readGroup()
    if (peek().kind === ',') {
      stop('a comma stands here', peek(), 'use a point for decimals')
    }
    if (peek().kind !== ')') {
      if (peek().kind === 'end') stop('this parenthesis is not closed', open, 'add )')
      missingOperand(peek())
    }
    take()
    openBars = bars
    return inside
  }

  const readArguments = (): Tree[] => {
    const open = take()
    const bars = openBars
    openBars = 0
    const args = [readGroup()]
    while (peek().kind === ',' || peek().kind === ';') {
      take()
      args.push(readSum())
    }
    if (peek().kind !== ')') {
      if (peek().kind === 'end') stop('this parenthesis is not closed', open, 'add )')
      missingOperand(peek())
    }
    take()
    openBars = bars
    return args
  }

  const readCurve = (): Tree => {
    const token = take() as Token & { kind: 'curve' }
    const next = peek()
    let primes = 0
    if (next.kind === 'primes') {
      take()
      primes = next.count
      if (primes > 9) stop('that is too many primes', next, 'use at most 9')
    }
    if (peek().kind !== '(') return count(curve(token.name, primes, nameTree(variable)))
    const open = peek()
    const args = deeper(readArguments)
    if (args.length !== 1) stop(`${token.name} takes one value`, open)
    return count(curve(token.name, primes, args[0]!))
  }

  const readCall = (): Tree => {
    const token = take() as Token & { kind: 'function' }
    const spelled = text.slice(token.from, token.to)
    const { takes, inWords } = argumentsOf(token.name)
    const [leastValues, mostValues] = takes
    let exponent: Tree | null = null
    const raised = peek()
    if (raised.kind === 'raised') {
      take()
      exponent = whole(BigInt(raised.text))
    } else if (isSign('^')) {
      take()
      exponent = deeper(readFunctionExponent)
    }
    const open = peek()
    let args: Tree[]
    if (open.kind === '(') args = deeper(readArguments)
    else if (leastValues > 1) {
      return stop(
        `${spelled} needs its values in parentheses`,
        open,
        severalOrNull(token.name)?.shape,
      )
    } else args = [deeper(() => readBareArgument(spelled))]
    if (args.length < leastValues || args.length > mostValues) {
      stop(`${spelled} takes ${inWords}`, open)
    }
    if (token.base !== undefined) args = [readBaseOfLog(token), ...args]
    if (exponent === null) return count(call(token.name, ...args))
    if (equalsNumber(exponent, -1)) {
      const inverse = maybeEntry(token.name)?.inverse as FunctionName | undefined
      if (!inverse) {
        return stop(
          `${spelled} with the exponent -1 could mean two things`,
          token,
          `write 1/${spelled}(…)`,
        )
      }
      return count(call(inverse, ...args))
    }
    if (exponent.kind === 'number' && exponent.exact.n < 0n) {
      stop(
        `a negative exponent on ${spelled} could mean two things`,
        token,
        `write (${spelled} …)^-2 or 1/${spelled}^2 …`,
      )
    }
    return count(power(count(call(token.name, ...args)), exponent))
  }

  /** The exponent in sin^2 x is one number, name or parenthesis, so that x stays the argument. */
  const readFunctionExponent = (): Tree => {
    const turned = readSigns()
    const base = readBase()
    return turned ? negate(base) : base
  }

  const readBaseOfLog = (token: Token & { kind: 'function' }): Tree => {
    const base = token.base!
    if (/^(\d+\.?\d*|\.\d+)$/.test(base)) return decimal(base)
    if (base === 'e') return constant('e')
    if (/^[A-Za-z]$/.test(base)) return nameTree(base)
    return stop('the base of a logarithm is a number or a name here', token, 'such as log_2(x)')
  }

  /** What sin acts on when there are no parentheses: up to the next sign or function. */
  const readBareArgument = (spelled: string): Tree => {
    if (!startsFactor() && !isSign('+', '-')) {
      return stop(
        `${spelled} needs something to act on`,
        tokens[at - 1]!,
        `${spelled}(${variable})`,
      )
    }
    const turned = readSigns()
    const factors = [readFactor()]
    while (startsFactor() && peek().kind !== 'function') factors.push(readImplied(tokens[at - 1]!))
    const argument = factors.length === 1 ? factors[0]! : count(product(...factors))
    return turned ? negate(argument) : argument
  }

  const tree = readGroup()
  const rest = peek()
  if (rest.kind === 'end') return tree
  if (rest.kind === ')') {
    return stop('there is no opening parenthesis for this one', rest, 'remove it, or add (')
  }
  if (rest.kind === ',') return stop('a comma stands here', rest, 'use a point for decimals')
  if (rest.kind === 'relation') {
    return stop('a formula has no = or < in it', rest, 'write only what stands on the right of =')
  }
  if (rest.kind === '|') return stop('this bar is not closed', rest, 'add a second |')
  if (rest.kind === ';') return stop('pieces need conditions', rest, 'x^2 if x < 1; 1 otherwise')
  if (rest.kind === 'primes') return stop('only a curve can carry a prime', rest)
  if (rest.kind === 'degree') return stop('a degree sign follows a number', rest)
  return stop(`“${text.slice(rest.from, rest.to)}” cannot stand here`, rest)
}
