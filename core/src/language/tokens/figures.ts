import type { TextReader } from './textReader'

const raisedDigits: Record<string, string> = {
  '⁰': '0',
  '¹': '1',
  '²': '2',
  '³': '3',
  '⁴': '4',
  '⁵': '5',
  '⁶': '6',
  '⁷': '7',
  '⁸': '8',
  '⁹': '9',
  '⁻': '-',
}

/** Raised letters and signs, which stand in an exponent as they would in parentheses. */
const raisedOthers: Record<string, string> = {
  ...{ ˣ: 'x', ᵗ: 't', ⁿ: 'n', ᵃ: 'a', ᵇ: 'b', ᶜ: 'c', ᵏ: 'k', ᵐ: 'm', ᵖ: 'p', ʳ: 'r', ˢ: 's' },
  ...{ ᵘ: 'u', ᵛ: 'v', ʷ: 'w', ʸ: 'y', ᶻ: 'z', '⁺': '+', '⁽': '(', '⁾': ')' },
}

const isDigit = (c: string) => c >= '0' && c <= '9'

/** \\frac12 is one half: without braces each part is one digit. */
export function bareFraction(r: TextReader): boolean {
  const from = r.at
  if (!isDigit(r.text[from]!) || r.last?.kind !== 'fraction') return false
  r.at += 1
  r.push(from, { kind: 'number', text: r.text[from]! })
  const next = r.match(/^\s*(\d)/)
  if (next) {
    r.at += next[0].length
    r.push(r.at - 1, { kind: 'number', text: next[1]! })
  }
  return true
}

/** A number such as 12, .5 or 1.5E-3. */
export function numbers(r: TextReader): boolean {
  const from = r.at
  if (!isDigit(r.text[from]!) && r.text[from] !== '.') return false
  const found = r.match(/^(\d+\.?\d*|\.\d+)(E[+\-−]?\d+)?/)
  if (!found) {
    r.at += 1
    r.problem(from, r.at, 'a point stands alone here', { fix: 'remove it' })
    return true
  }
  r.at += found[0].length
  const digits = found[0].replace('−', '-')
  const size = Number(digits)
  if (!Number.isFinite(size) || digits.length > 400 || /E[+-]?\d{4,}/.test(digits)) {
    r.problem(from, r.at, 'this number is too long or too large', {
      fix: 'use at most 400 digits and a size below 1.7E308',
    })
    r.push(from, { kind: 'number', text: '0' })
  } else r.push(from, { kind: 'number', text: digits })
  return true
}

/** Raised figures, as in x². */
export function raised(r: TextReader): boolean {
  const from = r.at
  let digits = ''
  while (r.at < r.text.length && r.text[r.at]! in raisedDigits) {
    digits += raisedDigits[r.text[r.at++]!]
  }
  if (r.text[r.at]! in raisedOthers) return raisedFormula(r, from)
  if (r.at === from) return false
  // ³√x: raised figures before a root are its order.
  if (r.text[r.at] === '√' && /^\d{1,3}$/.test(digits)) {
    r.at += 1
    r.push(from, { kind: 'root', order: digits })
    return true
  }
  if (/^-?\d{1,9}$/.test(digits)) r.push(from, { kind: 'raised', text: digits })
  else {
    r.problem(from, r.at, 'this raised text is not a whole number', {
      fix: 'use ^ and parentheses',
    })
  }
  return true
}

/** eˣ and 2⁻ᵏᵗ: what is raised reads as an exponent in parentheses. */
function raisedFormula(r: TextReader, from: number): boolean {
  let exponent = ''
  r.at = from
  while (r.at < r.text.length) {
    const here = r.text[r.at]!
    const plain = raisedDigits[here] ?? raisedOthers[here]
    if (plain === undefined) break
    exponent += plain
    r.at += 1
  }
  r.readAs(`^(${exponent})`, from, r.at)
  return true
}
