import type { Hint } from '../problems'
import type { Token } from '../tokens'

/** 1e-3 is 1·e − 3 by the rules; who writes it without a gap often means 0.001. */
export const powersOfTen = (tokens: readonly Token[], text: string): Hint[] =>
  tokens.flatMap((token, i) => {
    const [e, sign, digits, next] = tokens.slice(i + 1, i + 5)
    if (token.kind !== 'number' || e?.kind !== 'constant' || e.name !== 'e') return []
    if (sign?.kind !== 'sign' || (sign.sign !== '-' && sign.sign !== '+')) return []
    if (digits?.kind !== 'number' || !/^\d+$/.test(text.slice(digits.from, digits.to))) return []
    const close = e.from === token.to && sign.from === e.to && digits.from === sign.to
    // 1e-3x is left as it is read: nobody puts a letter right behind a power of ten.
    const apart = !next || next.from > digits.to || next.kind === 'sign' || next.kind === 'end'
    if (!close || !apart || next?.kind === 'raised') return []
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
export const arcs = (tokens: readonly Token[]): Hint[] =>
  tokens.flatMap((token, i) => {
    const next = tokens[i + 1]
    const isA = (token.kind === 'name' || token.kind === 'curve') && token.name === 'a'
    if (!isA || next?.kind !== 'function' || next.from !== token.to) return []
    if (!['sin', 'cos', 'tan'].includes(next.spelled)) return []
    const meant = `arc${next.spelled}`
    const message = `this is a times ${next.spelled}; did you mean ${meant}?`
    return [{ message, from: token.from, to: next.to, replacement: meant }]
  })

/** What a formula could mean besides: each is taken by a rule, and the other stands in one press. */
export const otherReadings = (tokens: readonly Token[], text: string): Hint[] =>
  tokens.flatMap((_, i) => {
    const found = patterns.map((pattern) => pattern(tokens, i, text)).find((p) => p !== null)
    if (!found) return []
    const { from, to, replacement, whole } = found
    return [{ message: `did you mean ${whole ?? replacement}?`, from, to, replacement }]
  })

interface Other {
  from: number
  to: number
  replacement: string
  /** What the message shows, where that is more than what is put in. */
  whole?: string
}
type Pattern = (tokens: readonly Token[], i: number, text: string) => Other | null

const isSign = (token: Token | undefined, sign: string) =>
  token?.kind === 'sign' && token.sign === sign
const isOperand = (token: Token | undefined) =>
  token?.kind === 'number' || token?.kind === 'name' || token?.kind === 'constant'
const touch = (a: Token, b: Token) => a.to === b.from

/** Where a row of numbers and letters that are multiplied without a sign ends. */
function endOfProduct(tokens: readonly Token[], from: number): number {
  let end = from
  while (
    isOperand(tokens[end + 1]) &&
    tokens[end + 1]!.kind !== 'number' &&
    touch(tokens[end]!, tokens[end + 1]!)
  ) {
    end += 1
  }
  return end
}

/** Fractions with more below than this are no exponents: in (x − 30)²/250 nobody means 2/250. */
const mostBelow = 12

/** x^1/2 is x¹/2 by the rules; often x^(1/2) is meant. */
const exponent: Pattern = (tokens, i, text) => {
  const [sign, above, slash, below] = tokens.slice(i, i + 4)
  if (!isSign(sign, '^') || above?.kind !== 'number' || !isSign(slash, '/') || !isOperand(below)) {
    return null
  }
  if (!touch(above, slash!) || !touch(slash!, below)) return null
  if (below.kind === 'number' && Number(below.text) > mostBelow) return null
  const [from, to] = [above.from, below.to]
  const base = tokens[i - 1]
  const start = base?.kind === ')' ? openingOf(tokens, i - 1) : base?.from
  const replacement = `(${text.slice(from, to)})`
  return {
    from,
    to,
    replacement,
    whole: `${text.slice(start ?? sign!.from, above.from)}${replacement}`,
  }
}

/** √2x is √2·x by the rules; often √(2x) is meant. */
const root: Pattern = (tokens, i, text) => {
  const [sign, first] = [tokens[i], tokens[i + 1]]
  if (sign?.kind !== 'root' || !isOperand(first)) return null
  const end = endOfProduct(tokens, i + 1)
  if (end === i + 1) return null
  const [from, to] = [first.from, tokens[end]!.to]
  const replacement = `(${text.slice(from, to)})`
  return { from, to, replacement, whole: `${text.slice(sign.from, from)}${replacement}` }
}

/** sin x/2 is (sin x)/2 by the rules; often sin(x/2) is meant. */
const argument: Pattern = (tokens, i, text) => {
  const [name, first] = [tokens[i], tokens[i + 1]]
  if (name?.kind !== 'function' || !isOperand(first)) return null
  const end = endOfProduct(tokens, i + 1)
  const [slash, below] = [tokens[end + 1], tokens[end + 2]]
  if (!isSign(slash, '/') || !isOperand(below) || !touch(tokens[end]!, slash!)) return null
  const [from, to] = [first.from, below.to]
  const replacement = `(${text.slice(from, to)})`
  return { from, to, replacement, whole: `${text.slice(name.from, name.to)}${replacement}` }
}

/** (x − 1)2 is twice x − 1 by the rules; often its square is meant. */
const behindParenthesis: Pattern = (tokens, i, text) => {
  const [close, figure] = [tokens[i], tokens[i + 1]]
  if (close?.kind !== ')' || figure?.kind !== 'number' || !touch(close, figure)) return null
  if (!/^[2-9]$/.test(figure.text)) return null
  const open = openingOf(tokens, i)
  return {
    from: figure.from,
    to: figure.to,
    replacement: `^${figure.text}`,
    whole: `${text.slice(open, close.to)}^${figure.text}`,
  }
}

/** a/bc is (a/b)·c by the rules; often a/(bc) is meant. */
const denominator: Pattern = (tokens, i, text) => {
  const [slash, first] = [tokens[i], tokens[i + 1]]
  if (!isSign(slash, '/') || !isOperand(first)) return null
  const end = endOfProduct(tokens, i + 1)
  if (end === i + 1 || (tokens[i - 1] && isSign(tokens[i - 2], '^'))) return null
  const [from, to] = [first.from, tokens[end]!.to]
  const replacement = `(${text.slice(from, to)})`
  const above = tokens[i - 1]
  return {
    from,
    to,
    replacement,
    whole: `${above ? text.slice(above.from, from) : '/'}${replacement}`,
  }
}

function openingOf(tokens: readonly Token[], close: number): number {
  let level = 0
  for (let k = close; k >= 0; k--) {
    if (tokens[k]!.kind === ')') level += 1
    if (tokens[k]!.kind === '(' && --level === 0) return tokens[k]!.from
  }
  return tokens[close]!.from
}

const patterns: readonly Pattern[] = [exponent, root, argument, behindParenthesis, denominator]
