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
