/** An integral as it stands in a text: its ends, what is integrated, the letter, and where. */
export interface IntegralText {
  at: number
  length: number
  from: string
  to: string
  body: string
  letter: string
  /** Where the body begins in the text. */
  bodyAt: number
}

const sign = String.raw`(?:∫|\\int(?![A-Za-z])|\bint(?=\s*_))\s*(?:\\limits)?\s*`
const words = String.raw`\b(?:the\s+)?integral\s+from\s+`
const begins = new RegExp(`${sign}|${words}`, 'giu')

const small: Readonly<Record<string, string>> = {
  ...{ '₀': '0', '₁': '1', '₂': '2', '₃': '3', '₄': '4', '₅': '5', '₆': '6', '₇': '7', '₈': '8' },
  ...{ '₉': '9', '₋': '-', ₐ: 'a', ₓ: 'x', ₜ: 't', '⁰': '0', '¹': '1', '²': '2', '³': '3' },
  ...{ '⁴': '4', '⁵': '5', '⁶': '6', '⁷': '7', '⁸': '8', '⁹': '9', '⁻': '-', ˣ: 'x', ᵗ: 't' },
  ...{ ᵃ: 'a', ᵇ: 'b', ⁿ: 'n', ᵖ: 'π' },
}
const lowered = /^[₀-₉₋ₐₓₜ]+/u
const raised = /^[⁰¹²³⁴-⁹⁻ˣᵗᵃᵇⁿᵖ]+/u
const plain = (text: string) => [...text].map((c) => small[c] ?? c).join('')

/** The integrals of a text, the outer ones only; null for the place of one that cannot be read. */
export function integralsIn(text: string): (IntegralText | { at: number; unread: true })[] {
  const found: (IntegralText | { at: number; unread: true })[] = []
  begins.lastIndex = 0
  for (let match = begins.exec(text); match; match = begins.exec(text)) {
    const read = integralAt(text, match.index, match.index + match[0].length)
    found.push(read ?? { at: match.index, unread: true })
    begins.lastIndex = read ? read.at + read.length : match.index + match[0].length
  }
  return found
}

function integralAt(text: string, at: number, behind: number): IntegralText | null {
  const isWords = /^\W*(?:the\s+)?integral/i.test(text.slice(at, behind))
  const ends = isWords ? endsInWords(text, behind) : endsBeside(text, behind)
  const bodyAt = ends?.behind ?? behind
  const close = closing(text, bodyAt)
  if (!close) return null
  const body = text.slice(bodyAt, close.at)
  if (ends) {
    return { at, length: close.behind - at, ...ends.bounds, body, letter: close.letter, bodyAt }
  }
  // ∫ t² dt from 0 to x
  const after = /^\s*from\s+(\S+)\s+to\s+(\S+)/i.exec(text.slice(close.behind))
  if (!after) return null
  const [whole, from, to] = after as unknown as [string, string, string]
  const length = close.behind + whole.length - at
  return { at, length, from, to, body, letter: close.letter, bodyAt }
}

/** _0^x, _{0}^{x}, ₀ˣ and the other way round. */
function endsBeside(text: string, start: number) {
  let at = start
  const bounds: { from?: string; to?: string } = {}
  const skip = () => {
    while (/\s/.test(text[at] ?? '')) at += 1
  }
  for (let i = 0; i < 2; i += 1) {
    skip()
    const under = lowered.exec(text.slice(at))?.[0]
    const over = raised.exec(text.slice(at))?.[0]
    if (under ?? over) {
      bounds[under ? 'from' : 'to'] = plain((under ?? over)!)
      at += (under ?? over)!.length
      continue
    }
    const where = text[at] === '_' ? 'from' : text[at] === '^' ? 'to' : null
    if (!where) break
    at += 1
    skip()
    const end = endAt(text, at)
    if (!end) return null
    bounds[where] = end.text
    at = end.behind
  }
  const { from, to } = bounds
  return from === undefined || to === undefined ? null : { bounds: { from, to }, behind: at }
}

function endAt(text: string, at: number): { text: string; behind: number } | null {
  const open = text[at]
  if (open === '{' || open === '(') {
    const close = matching(text, at)
    return close < 0 ? null : { text: text.slice(at + 1, close), behind: close + 1 }
  }
  const end = /^[-−+]?\s*(?:\d+(?:\.\d+)?|\\?pi\b|π|∞|\\infty|\p{L})/u.exec(text.slice(at))?.[0]
  return end === undefined ? null : { text: end, behind: at + end.length }
}

/** "0 to x of" behind "integral from". */
function endsInWords(text: string, start: number) {
  const found = /^(.{1,60}?)\s+to\s+(.{1,60}?)\s+of\s+/iu.exec(text.slice(start))
  if (!found) return null
  return { bounds: { from: found[1]!, to: found[2]! }, behind: start + found[0].length }
}

const pairs: Readonly<Record<string, string>> = { '{': '}', '(': ')', '[': ']' }
const openings = new Set(Object.keys(pairs))
const closings = new Set(Object.values(pairs))

function matching(text: string, open: number): number {
  let depth = 0
  for (let i = open; i < text.length; i += 1) {
    if (openings.has(text[i]!)) depth += 1
    else if (closings.has(text[i]!)) depth -= 1
    if (depth === 0) return i
  }
  return -1
}

/** A d that stands in a word ends nothing. */
const isGlued = (text: string, { index, 0: found }: RegExpExecArray) =>
  found.startsWith('d') && /\p{L}/u.test(text[index - 1] ?? '')

/** The d and the letter that end an integral, outside parentheses and beyond integrals inside it. */
function closing(text: string, start: number) {
  let [depth, inner] = [0, 0]
  const next =
    /∫|\\int(?![A-Za-z])|[([{]|[)\]}]|(?:\\,|\\;|\\!|\\mathrm\{)?\s*d\}?\s*(\p{L})(?!\p{L}|\s*\/)/gu
  next.lastIndex = start
  for (let match = next.exec(text); match; match = next.exec(text)) {
    const [found, letter] = match
    if (openings.has(found)) depth += 1
    else if (closings.has(found)) depth -= 1
    else if (letter === undefined) inner += 1
    else if (depth === 0 && !isGlued(text, match) && inner === 0) {
      return { at: match.index, behind: match.index + found.length, letter }
    } else if (depth === 0) inner -= 1
    if (depth < 0) return null
  }
  return null
}
