import type { Relation } from '../../formula/tree'
import type { Meaning, TextReader } from './textReader'

const signs: Record<string, '+' | '-' | '*' | '/' | '^'> = {
  '+': '+',
  '-': '-',
  '−': '-',
  '–': '-',
  '*': '*',
  '·': '*',
  '⋅': '*',
  '×': '*',
  '∙': '*',
  '∗': '*',
  '/': '/',
  '÷': '/',
  '∕': '/',
  '⁄': '/',
  '^': '^',
}
const relationSigns: Record<string, Relation> = {
  '<=': '<=',
  '>=': '>=',
  '!=': '!=',
  '≤': '<=',
  '≥': '>=',
  '≠': '!=',
  '<': '<',
  '>': '>',
  '=': '=',
}
const fractions: Record<string, string> = {
  '½': '1/2',
  '⅓': '1/3',
  '⅔': '2/3',
  '¼': '1/4',
  '¾': '3/4',
  '⅕': '1/5',
  '⅖': '2/5',
  '⅗': '3/5',
  '⅘': '4/5',
  '⅙': '1/6',
  '⅚': '5/6',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
}
/** Characters that are read as if something longer stood there. */
const instead: Record<string, string> = {
  '⌊': 'floor(',
  '⌋': ')',
  '⌈': 'ceil(',
  '⌉': ')',
}
const primeMarks: Record<string, number> = { "'": 1, '′': 1, '’': 1, '"': 2, '″': 2, '‴': 3 }
/** Single characters that mean one thing each. */
const single: Record<string, Meaning> = {
  '(': { kind: '(' },
  ')': { kind: ')' },
  '[': { kind: '(' },
  ']': { kind: ')' },
  '{': { kind: '(' },
  '}': { kind: ')' },
  '|': { kind: '|' },
  '∣': { kind: '|' },
  ',': { kind: ',' },
  ';': { kind: ';' },
  ':': { kind: ':' },
  '?': { kind: '?' },
  '!': { kind: '!' },
  '∛': { kind: 'root', order: '3' },
  '∜': { kind: 'root', order: '4' },
  '°': { kind: 'degree' },
}

/** Spaces, what pasted text carries, and invisible operators. */
export function silent(r: TextReader): boolean {
  const here = r.text[r.at]!
  if (
    here !== ' ' &&
    !/\s/.test(here) &&
    !'\u2061\u2062\u200b\u200c\u200d\u2060\ufeff~'.includes(here)
  )
    return false
  r.at += 1
  return true
}

export function primes(r: TextReader): boolean {
  const from = r.at
  let count = 0
  while (r.at < r.text.length && r.text[r.at]! in primeMarks) count += primeMarks[r.text[r.at++]!]!
  if (count > 0) r.push(from, { kind: 'primes', count })
  return count > 0
}

/** <, ≤, != and their like. */
export function relations(r: TextReader): boolean {
  const from = r.at
  const two = r.text.slice(from, from + 2)
  const relation = relationSigns[two] ?? relationSigns[r.text[from]!]
  if (!relation) return false
  r.at += two in relationSigns ? 2 : 1
  r.push(from, { kind: 'relation', relation })
  return true
}

/** Signs of arithmetic; ** is a power. */
export function operators(r: TextReader): boolean {
  const from = r.at
  if (r.text.startsWith('**', from)) {
    r.at += 2
    r.push(from, { kind: 'sign', sign: '^' })
    return true
  }
  const sign = signs[r.text[from]!]
  if (!sign) return false
  r.at += 1
  r.push(from, { kind: 'sign', sign })
  return true
}

/** Stands for a part of the text that has been read by itself, by its number. */
export const partMark = (index: number) => String.fromCharCode(firstPart + index)
const firstPart = 0xe010
export const mostParts = 64

/** Brackets, commas, √, ½ and other single characters. */
export function singles(r: TextReader): boolean {
  const from = r.at
  const here = r.text[from]!
  // != is a relation.
  if (here === '!' && r.text[from + 1] === '=') return false
  const fraction = fractions[here]
  const meaning = single[here]
  const longer = instead[here]
  if (here === '√') return root(r)
  const part = here.charCodeAt(0) - firstPart
  if (part >= 0 && part < mostParts) {
    r.at += 1
    r.push(from, { kind: 'part', index: part })
    return true
  }
  if (fraction === undefined && meaning === undefined && longer === undefined) return false
  r.at += 1
  if (fraction !== undefined) mixed(r, fraction, from)
  else if (longer !== undefined) r.readAs(longer, from, r.at)
  else r.push(from, meaning!)
  return true
}

/** A fraction in one character; right behind a whole number both are one mixed number: 3½. */
function mixed(r: TextReader, fraction: string, from: number): void {
  const { last } = r
  const isWhole = last?.kind === 'number' && last.to === from && /^\d+$/.test(last.text)
  if (isWhole) r.tokens.pop()
  r.readAs(
    isWhole ? `(${last.text}+${fraction})` : `(${fraction})`,
    isWhole ? last.from : from,
    r.at,
  )
}

/** √, or √[3] with its order in brackets. */
function root(r: TextReader): boolean {
  const from = r.at
  const found = r.match(/^√\s*\[\s*(\d{1,3})\s*\]/, 20)
  r.at += found ? found[0].length : 1
  r.push(from, found ? { kind: 'root', order: found[1]! } : { kind: 'root' })
  return true
}

/** What has no meaning at all: told, and passed over. */
export function strange(r: TextReader): boolean {
  const from = r.at
  const whole = String.fromCodePoint(r.text.codePointAt(from)!)
  r.at += whole.length
  r.problem(from, r.at, `“${whole}” has no meaning in a formula`, { fix: 'remove it' })
  return true
}
