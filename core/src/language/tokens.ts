import { type FunctionName, spellings } from '../functions'
import { latexCommandAt } from './latexInput'
import type { Problem } from './problems'
import type { Relation } from '../formula/tree'

export type Token = { from: number; to: number } & (
  | { kind: 'number'; text: string }
  | { kind: 'name'; name: string }
  | { kind: 'constant'; name: 'e' | 'pi' }
  | { kind: 'function'; name: FunctionName; spelled: string; base?: string }
  | { kind: 'curve'; name: string }
  | { kind: 'sign'; sign: '+' | '-' | '*' | '/' | '^' }
  | { kind: 'raised'; text: string }
  | { kind: 'primes'; count: number }
  | { kind: 'relation'; relation: Relation }
  | { kind: 'word'; word: 'if' | 'otherwise' | 'and' | 'or' }
  | { kind: '(' | ')' | '|' | ',' | ';' | '!' | 'root' | 'degree' | 'end' }
  /** From LaTeX: \\frac and \\sqrt, whose braces follow. */
  | { kind: 'fraction' | 'latexRoot' }
)

export interface Names {
  variable: string
  names: readonly string[]
  curves: readonly string[]
}

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
const relations: Record<string, Relation> = {
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
const fractions: Record<string, string> = {
  '½': '(1/2)',
  '⅓': '(1/3)',
  '⅔': '(2/3)',
  '¼': '(1/4)',
  '¾': '(3/4)',
}
const primeMarks: Record<string, number> = { "'": 1, '′': 1, '’': 1, '"': 2, '″': 2, '‴': 3 }
const brackets: Record<string, '(' | ')'> = {
  '(': '(',
  ')': ')',
  '[': '(',
  ']': ')',
  '{': '(',
  '}': ')',
}
const loweredDigits = '₀₁₂₃₄₅₆₇₈₉'
const letter = /[A-Za-zα-ωΑ-Ωϑϕ]/
const words = new Set(['if', 'otherwise', 'and', 'or', 'for', 'else', 'when'])

/** n_2 and n₂ are one name. */
export const lowered = (digits: string) =>
  [...digits].map((d) => (/\d/.test(d) ? loweredDigits[Number(d)]! : d)).join('')

interface Known {
  text: string
  make: (from: number, to: number) => Token
}

/** Spaces that pasted text carries, and invisible operators. */
const isSilent = (c: string) => '\u2061\u2062\u200b\u200c\u200d\u2060\ufeff~'.includes(c)

/** All that a run of letters may be made of, longest first. */
function vocabulary({ variable, names, curves }: Names): Known[] {
  const own = new Set([variable, ...names, ...curves])
  const known: Known[] = []
  for (const [text, functionName] of Object.entries(spellings)) {
    // With a slider a, "asin x" is a · sin x.
    if (own.has(text) || (/^a(sin|cos|tan)$/.test(text) && own.has('a'))) continue
    known.push({
      text,
      make: (from, to) => ({ kind: 'function', name: functionName, spelled: text, from, to }),
    })
  }
  known.push({ text: 'pi', make: (from, to) => ({ kind: 'constant', name: 'pi', from, to }) })
  known.push({ text: 'π', make: (from, to) => ({ kind: 'constant', name: 'pi', from, to }) })
  known.push({ text: 'e', make: (from, to) => ({ kind: 'constant', name: 'e', from, to }) })
  for (const text of curves) {
    known.push({ text, make: (from, to) => ({ kind: 'curve', name: text, from, to }) })
  }
  for (const text of [variable, ...names]) {
    // A number is read with no variable at all; nothing may match the empty name.
    if (text === '' || curves.includes(text)) continue
    known.push({ text, make: (from, to) => ({ kind: 'name', name: text, from, to }) })
  }
  return known.sort((a, b) => b.text.length - a.text.length)
}

/** The number of single-letter edits from one word to another, for "did you mean". */
function editDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++) {
      next.push(
        Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)),
      )
    }
    row = next
  }
  return row[b.length]!
}

function closestFunction(word: string): string | undefined {
  // Nobody misspells a function at such length, and the distance is costly for long words.
  if (word.length > 12) return undefined
  const lower = word.toLowerCase()
  return Object.keys(spellings)
    .map((text) => ({ text, distance: editDistance(lower, text) }))
    .filter(({ text, distance }) => distance <= (text.length > 3 ? 2 : 1) || lower === text)
    .sort((a, b) => a.distance - b.distance)[0]?.text
}

/**
 * Splits a text into tokens. A run of letters is split into known names, longest first
 * (2ab is 2 · a · b); letters nobody knows become problems and stand for themselves.
 */
export function tokenize(text: string, context: Names): { tokens: Token[]; problems: Problem[] } {
  const tokens: Token[] = []
  const problems: Problem[] = []
  const known = vocabulary(context)
  const own = new Set([context.variable, ...context.names, ...context.curves])
  let at = 0

  const unknown = (from: number, to: number) => {
    const word = text.slice(from, to)
    const close = word.length > 1 ? closestFunction(word) : undefined
    if (word.length === 1) {
      const here = context.variable === word ? undefined : word
      problems.push({
        message: `${word} has no value yet`,
        from,
        to,
        fix: context.variable
          ? `give it one, or write ${context.variable} if you mean the variable`
          : 'give it one',
        ...(here ? { missing: here } : {}),
      })
    } else {
      problems.push({
        message: `nothing is called “${word.length > 30 ? `${word.slice(0, 30)}…` : word}”`,
        from,
        to,
        fix: close ? `did you mean ${close}?` : 'a name is one letter, such as a',
        ...(close ? { replacement: close } : {}),
      })
    }
  }

  /** Cuts a run of letters into known names and the stretches between them. */
  const letters = (run: string, start: number) => {
    const found: (Token | { kind: 'unknown'; from: number; to: number })[] = []
    for (let i = 0; i < run.length;) {
      const match = known.find((k) => run.startsWith(k.text, i))
      const last = found.at(-1)
      if (match) found.push(match.make(start + i, start + i + match.text.length))
      else if (last?.kind === 'unknown') last.to += 1
      else found.push({ kind: 'unknown', from: start + i, to: start + i + 1 })
      i += match ? match.text.length : 1
    }
    // Two strange letters in a row are a strange word: the whole of it is named, not its remains.
    if (found.some((part) => part.kind === 'unknown' && part.to - part.from > 1)) {
      unknown(start, start + run.length)
      tokens.push({ kind: 'name', name: run, from: start, to: start + run.length })
      return
    }
    for (const part of found) {
      if (part.kind !== 'unknown') tokens.push(part)
      else {
        unknown(part.from, part.to)
        const { from, to } = part
        tokens.push({ kind: 'name', name: text.slice(from, to), from, to })
      }
    }
  }

  /** A subscript right behind a letter, such as _2, _{0.5} or ₂: its text and end. */
  const subscript = (from: number): { text: string; to: number } | null => {
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

  /** Puts a word where one is expected: twice the same, as in & \text{if}, counts once. */
  const pushWord = (run: string, from: number, to: number) => {
    const word = run === 'else' ? 'otherwise' : run === 'for' || run === 'when' ? 'if' : run
    const last = tokens.at(-1)
    if (last?.kind === 'word' && last.word === 'if' && (word === 'if' || word === 'otherwise')) {
      tokens.pop()
    }
    tokens.push({ kind: 'word', word: word as 'if' | 'otherwise' | 'and' | 'or', from, to })
  }

  /** Reads a stretch of the text as if something else stood there. */
  const readAs = (instead: string, from: number, to: number) => {
    const part = tokenize(instead, context)
    for (const token of part.tokens) if (token.kind !== 'end') tokens.push({ ...token, from, to })
    for (const problem of part.problems) problems.push({ ...problem, from, to })
  }

  /** Takes one LaTeX command, with what belongs to it. */
  const latex = () => {
    const from = at
    const found = latexCommandAt(text, at)
    if (found && (found.command === 'begin' || found.command === 'end')) {
      const cases = /^\{(?:d?cases|rcases)\*?\}/.exec(text.slice(found.to))
      if (cases) {
        at = found.to + cases[0].length
        casesDepth += found.command === 'begin' ? 1 : -1
        // The last row may end with a line break.
        if (found.command === 'end' && tokens.at(-1)?.kind === ';') tokens.pop()
        tokens.push({ kind: found.command === 'begin' ? '(' : ')', from, to: at })
        return
      }
    }
    if (found?.command === '\\' && casesDepth > 0) {
      at = found.to
      if (tokens.at(-1)?.kind === ',') tokens.pop()
      tokens.push({ kind: ';', from, to: at })
      return
    }
    const bar = /^\\(left|right|bigl|bigr|Bigl|Bigr)\s*(?:\||\\vert)/.exec(text.slice(at, at + 20))
    if (bar) {
      at += bar[0].length
      readAs(/l$|left/.test(bar[1]!) ? 'abs(' : ')', from, at)
      return
    }
    const meaning = found?.meaning
    if (!found || !meaning) {
      const named = text.slice(from, found?.to ?? from + 1)
      at = found?.to ?? from + 1
      problems.push({
        message: `${named} is not understood here`,
        from,
        to: at,
        fix: 'write it as it is said, such as sin x or x^2',
      })
      return
    }
    at = found.to
    if ('text' in meaning) {
      if (meaning.text.trim() === 'and' || meaning.text.trim() === 'or') {
        pushWord(meaning.text.trim(), from, at)
        return
      }
      const below = /^(log|[α-ωΔΩ])$/.test(meaning.text) ? subscript(at) : null
      if (below) at = below.to
      readAs(below ? `${meaning.text}_{${below.text}}` : meaning.text, from, at)
      return
    }
    if (meaning.kind === 'fraction' || meaning.kind === 'latexRoot') {
      tokens.push({ kind: meaning.kind, from, to: at })
      return
    }
    if (meaning.kind === 'upright') {
      const braces = /^\s*\{([^{}]{0,200})\}/.exec(text.slice(at))
      if (!braces) return
      const inside = at + braces[0].indexOf('{') + 1
      const part = tokenize(braces[1]!, context)
      for (const token of part.tokens) {
        const moved = { ...token, from: token.from + inside, to: token.to + inside }
        if (moved.kind === 'word') pushWord(moved.word, moved.from, moved.to)
        else if (moved.kind !== 'end') tokens.push(moved)
      }
      for (const p of part.problems)
        problems.push({ ...p, from: p.from + inside, to: p.to + inside })
      at += braces[0].length
    }
  }

  let casesDepth = 0
  // Dollar signs stand around pasted LaTeX; anywhere else they mean nothing.
  const isAround = (i: number) => /[\s$]/.test(text[i]!)
  let last = text.length
  while (last > 0 && isAround(last - 1)) last -= 1
  while (at < last && isAround(at)) at += 1
  // A long text of nonsense needs one page of problems, not a book.
  while (at < last && problems.length <= 50) {
    const here = text[at]!
    const from = at
    if (/\s/.test(here) || isSilent(here)) {
      at += 1
      continue
    }
    if (here === '\\') {
      latex()
      continue
    }
    if (here === '&' && casesDepth > 0) {
      at += 1
      // In a cases block the condition stands behind &, with or without a word or a comma.
      if (tokens.at(-1)?.kind === ',') tokens.pop()
      tokens.push({ kind: 'word', word: 'if', from, to: at })
      continue
    }
    const degree = /^\^\s*(?:\{\s*\\circ\s*\}|\\circ)/.exec(text.slice(at, at + 24))
    if (degree) {
      at += degree[0].length
      tokens.push({ kind: 'degree', from, to: at })
      continue
    }
    if (tokens.at(-1)?.kind === 'fraction' && /\d/.test(here)) {
      // \\frac12 is one half: without braces each part is one digit.
      at += 1
      tokens.push({ kind: 'number', text: here, from, to: at })
      const next = /^\s*(\d)/.exec(text.slice(at))
      if (next) {
        at += next[0].length
        tokens.push({ kind: 'number', text: next[1]!, from: at - 1, to: at })
      }
      continue
    }
    if (/[\d.]/.test(here)) {
      const found = /^(\d+\.?\d*|\.\d+)(E[+\-−]?\d+)?/.exec(text.slice(at))
      if (!found) {
        problems.push({ message: 'a point stands alone here', from, to: at + 1, fix: 'remove it' })
        at += 1
        continue
      }
      at += found[0].length
      const digits = found[0].replace('−', '-')
      const size = Number(digits)
      if (!Number.isFinite(size) || digits.length > 400 || /E[+-]?\d{4,}/.test(digits)) {
        problems.push({
          message: 'this number is too long or too large',
          from,
          to: at,
          fix: 'use at most 400 digits and a size below 1.7E308',
        })
        tokens.push({ kind: 'number', text: '0', from, to: at })
      } else {
        tokens.push({ kind: 'number', text: digits, from, to: at })
      }
      continue
    }
    if (letter.test(here)) {
      let end = at
      while (end < text.length && letter.test(text[end]!)) end += 1
      const run = text.slice(at, end)
      const below = subscript(end)
      at = end
      if (!below && words.has(run) && !own.has(run)) {
        pushWord(run, from, at)
        continue
      }
      if (!below) {
        letters(run, from)
        continue
      }
      at = below.to
      if (run.endsWith('log')) {
        if (run.length > 3) letters(run.slice(0, -3), from)
        if (/^[A-Za-z]$/.test(below.text) && below.text !== 'e' && !own.has(below.text)) {
          unknown(end + 1, end + 2)
        }
        tokens.push({
          kind: 'function',
          name: 'logBase',
          spelled: 'log',
          base: below.text,
          from: end - 3,
          to: at,
        })
        continue
      }
      if (run.length > 1) letters(run.slice(0, -1), from)
      const named = /^\d+$/.test(below.text)
        ? run.slice(-1) + lowered(below.text)
        : `${run.slice(-1)}_${below.text}`
      if (context.curves.includes(named)) {
        tokens.push({ kind: 'curve', name: named, from: end - 1, to: at })
      } else {
        if (!own.has(named)) {
          problems.push({
            message: `${named} has no value yet`,
            from: end - 1,
            to: at,
            fix: 'give it one',
            missing: named,
          })
        }
        tokens.push({ kind: 'name', name: named, from: end - 1, to: at })
      }
      continue
    }
    if (here in raisedDigits) {
      let digits = ''
      while (at < text.length && text[at]! in raisedDigits) digits += raisedDigits[text[at++]!]
      if (/^-?\d{1,9}$/.test(digits)) tokens.push({ kind: 'raised', text: digits, from, to: at })
      else
        problems.push({
          message: 'this raised text is not a whole number',
          from,
          to: at,
          fix: 'use ^ and parentheses',
        })
      continue
    }
    if (here in primeMarks) {
      let count = 0
      while (at < text.length && text[at]! in primeMarks) count += primeMarks[text[at++]!]!
      tokens.push({ kind: 'primes', count, from, to: at })
      continue
    }
    if (text.startsWith('**', at)) {
      at += 2
      tokens.push({ kind: 'sign', sign: '^', from, to: at })
      continue
    }
    const two = text.slice(at, at + 2)
    if (here === '!' && two !== '!=') {
      at += 1
      tokens.push({ kind: '!', from, to: at })
      continue
    }
    const relation = relations[two] ?? relations[here]
    if (relation) {
      at += relations[two] ? 2 : 1
      tokens.push({ kind: 'relation', relation, from, to: at })
      continue
    }
    at += 1
    const to = at
    if (signs[here]) tokens.push({ kind: 'sign', sign: signs[here], from, to })
    else if (brackets[here]) tokens.push({ kind: brackets[here], from, to })
    else if (here === '|') tokens.push({ kind: '|', from, to })
    else if (here === ',') tokens.push({ kind: ',', from, to })
    else if (here === ';') tokens.push({ kind: ';', from, to })
    else if (here === '√') tokens.push({ kind: 'root', from, to })
    else if (here === '∛') tokens.push({ kind: 'function', name: 'cbrt', spelled: '∛', from, to })
    else if (here in fractions) readAs(fractions[here]!, from, to)
    else if (here === '°') tokens.push({ kind: 'degree', from, to })
    else {
      const whole = String.fromCodePoint(text.codePointAt(from)!)
      at = from + whole.length
      problems.push({
        message: `“${whole}” has no meaning in a formula`,
        from,
        to: at,
        fix: 'remove it',
      })
    }
  }
  tokens.push({ kind: 'end', from: text.length, to: text.length })
  return { tokens, problems }
}
