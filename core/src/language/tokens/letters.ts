import { spellings } from '../../functions'
import { closestFunction } from './vocabulary'
import type { TextReader } from './textReader'
import type { Token } from './token'

const letter = /[A-Za-zα-ωΑ-Ωϑϕ]/
const words = new Set(['if', 'otherwise', 'and', 'or', 'for', 'else', 'when', 'where', 'then'])
const loweredDigits = '₀₁₂₃₄₅₆₇₈₉'

/** n_2 and n₂ are one name. */
export const lowered = (digits: string) =>
  [...digits].map((d) => (/\d/.test(d) ? loweredDigits[Number(d)]! : d)).join('')

function unknownFix(word: string, variable: string | undefined): string {
  if (word === 'y' && variable === 'x')
    return 'give it one, or write z = … for a surface over x and y'
  return variable ? `give it one, or write ${variable} if you mean the variable` : 'give it one'
}

/** Tells of letters that nobody knows. */
function unknown(r: TextReader, from: number, to: number): void {
  const word = r.text.slice(from, to)
  const { variable } = r.context
  if (word.length === 1) {
    r.problem(from, to, `${word} has no value yet`, {
      fix: unknownFix(word, variable),
      ...(variable === word ? {} : { missing: word }),
    })
    return
  }
  const close = closestFunction(word)
  r.problem(
    from,
    to,
    `nothing is called “${word.length > 30 ? `${word.slice(0, 30)}…` : word}”`,
    close
      ? { fix: `did you mean ${close}?`, replacement: close }
      : { fix: 'a name is one letter, such as a' },
  )
}

/** Cuts a run of letters into known names and the stretches between them. */
function cutRun(r: TextReader, run: string, start: number): void {
  const found: (Token | { kind: 'unknown'; from: number; to: number })[] = []
  for (let i = 0; i < run.length;) {
    const match = r.known.find((k) => run.startsWith(k.text, i))
    const last = found.at(-1)
    if (match) found.push(match.make(start + i, start + i + match.text.length))
    else if (last?.kind === 'unknown') last.to += 1
    else found.push({ kind: 'unknown', from: start + i, to: start + i + 1 })
    i += match ? match.text.length : 1
  }
  // A phone writes Sin, a table SIN.
  const lower = run.toLowerCase()
  if (lower !== run && found.some(({ kind }) => kind === 'unknown') && isKnownRun(r, lower)) {
    cutRun(r, lower, start)
    return
  }
  // Two strange letters in a row are a strange word: the whole of it is named, not its remains.
  if (found.some((part) => part.kind === 'unknown' && part.to - part.from > 1)) {
    unknown(r, start, start + run.length)
    r.push(start, { kind: 'name', name: run }, start + run.length)
    return
  }
  for (const part of found) {
    if (part.kind !== 'unknown') r.tokens.push(part)
    else {
      unknown(r, part.from, part.to)
      r.push(part.from, { kind: 'name', name: r.text.slice(part.from, part.to) }, part.to)
    }
  }
}

/** Whether a run begins with a function and is made of known names. */
function isKnownRun(r: TextReader, run: string): boolean {
  let at = 0
  while (at < run.length) {
    const match = r.known.find((k) => run.startsWith(k.text, at))
    if (!match || (at === 0 && !(match.text in spellings))) return false
    at += match.text.length
  }
  return true
}

/** A subscript right behind a letter, such as _2, _{0.5} or ₂: its text and end. */
export function subscript(text: string, from: number): { text: string; to: number } | null {
  const braces = /^_\{([^{}]{1,20})\}/.exec(text.slice(from, from + 24))
  if (braces) return { text: braces[1]!, to: from + braces[0].length }
  const plain = /^_(\d{1,9}|[A-Za-z])/.exec(text.slice(from, from + 11))
  if (plain) return { text: plain[1]!, to: from + plain[0].length }
  const digits = /^[₀-₉]{1,9}/.exec(text.slice(from, from + 9))
  if (!digits) return null
  return {
    text: [...digits[0]].map((d) => loweredDigits.indexOf(d)).join(''),
    to: from + digits[0].length,
  }
}

/** log_2: the base stands below. */
function logWithBase(r: TextReader, run: string, from: number, base: string): void {
  const end = from + run.length
  if (run.length > 3) cutRun(r, run.slice(0, -3), from)
  if (/^[A-Za-z]$/.test(base) && base !== 'e' && !r.own.has(base)) unknown(r, end + 1, end + 2)
  r.push(end - 3, { kind: 'function', name: 'logBase', spelled: 'log', base })
}

/** A letter with a subscript: one name. */
function nameWithSubscript(r: TextReader, run: string, from: number, below: string): void {
  const start = from + run.length - 1
  if (run.length > 1) cutRun(r, run.slice(0, -1), from)
  const named = /^\d+$/.test(below) ? run.slice(-1) + lowered(below) : `${run.slice(-1)}_${below}`
  if (r.context.curves.includes(named)) {
    r.push(start, { kind: 'curve', name: named })
    return
  }
  if (!r.own.has(named)) {
    r.problem(start, r.at, `${named} has no value yet`, { fix: 'give it one', missing: named })
  }
  r.push(start, { kind: 'name', name: named })
}

const operators =
  /^d\s*(?:\^?\s*([23²³]))?\s*\/\s*d\s*([A-Za-zα-ω])\s*(?:\^?\s*([23²³]))?(?![A-Za-z=])/

/** x0 is x₀: nobody writes a multiple or a power of 0 so. */
function nought(r: TextReader, run: string, end: number): { text: string; to: number } | null {
  const isOne = run.length === 1 && run !== 'e' && /^0(?![\d.,])/.test(r.text.slice(end, end + 2))
  return isOne ? { text: '0', to: end + 1 } : null
}

/** d/dx or d²/dx², where nothing is called d. */
function quotientOfD(r: TextReader, from: number): boolean {
  const found = r.own.has('d') ? null : operators.exec(r.text.slice(from, from + 20))
  if (!found || found[2] !== r.context.variable || found[1] !== found[3]) return false
  r.at = from + found[0].length
  r.push(from, { kind: 'derivative', order: orderOf(found[1]) })
  return true
}
const orderOf = (figure = '1') => ({ '²': 2, '³': 3 })[figure] ?? Number(figure)

/** log2(x), log10 x and sqrt[3](x): a figure that belongs to the function before it. */
function numberedFunction(r: TextReader, run: string, from: number, end: number): boolean {
  const rest = r.text.slice(end, end + 12)
  const base = run.endsWith('log') ? /^(2|10)(?=\s*\(|\s+[A-Za-z|])/.exec(rest) : null
  if (base) {
    r.at = end + base[0].length
    logWithBase(r, run, from, base[1]!)
    return true
  }
  const order = run.endsWith('sqrt') ? /^\s*\[\s*(\d{1,3})\s*\](?=\s*[({])/.exec(rest) : null
  if (!order) return false
  if (run.length > 4) cutRun(r, run.slice(0, -4), from)
  r.at = end + order[0].length
  r.push(end - 4, { kind: 'root', order: order[1]! })
  return true
}

/** 30 deg and x deg; where letters of the word are names it may be a product. */
const takesDegree = ({ last, own }: TextReader) =>
  last?.kind === 'number' ||
  (!own.has('d') && !own.has('g') && (last?.kind === 'name' || last?.kind === ')'))

/** A run of letters: a word between pieces, known names, or letters with a subscript. */
export function letters(r: TextReader): boolean {
  const from = r.at
  let end = from
  while (end < r.text.length && letter.test(r.text[end]!)) end += 1
  if (end === from) return false
  const run = r.text.slice(from, end)
  if (quotientOfD(r, from)) return true
  if (numberedFunction(r, run, from, end)) return true
  if (/^deg(?:rees?)?$/.test(run) && takesDegree(r)) {
    r.at = end
    r.push(from, { kind: 'degree' })
    return true
  }
  const below = subscript(r.text, end) ?? nought(r, run, end)
  r.at = below ? below.to : end
  if (below && run.endsWith('log')) logWithBase(r, run, from, below.text)
  else if (below) nameWithSubscript(r, run, from, below.text)
  else if (words.has(run) && !r.own.has(run)) r.pushWord(run, from, r.at)
  else cutRun(r, run, from)
  return true
}
